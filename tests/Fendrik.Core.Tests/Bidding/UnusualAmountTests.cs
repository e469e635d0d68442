using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;

namespace Fendrik.Core.Tests.Bidding;

/// <summary>Slips of the keyboard (common practice, no source).</summary>
public class UnusualAmountTests
{
    private static readonly Currency Pound = Currency.Of("GBP");

    [Theory]
    [InlineData(25.01, 1.0, 25.0, "above the campaign’s daily budget of £25.00")]
    [InlineData(10.01, 1.0, 25.0, "more than ten times the ad group’s £1.00")]
    [InlineData(30.00, null, 25.0, "above the campaign’s daily budget")]
    public void A_bid_out_of_proportion_is_told(double bid, double? adGroup, double budget, string told) =>
        UnusualAmounts.OfBid((decimal)bid, (decimal?)adGroup, (decimal)budget, Pound)!.ShouldContain(told);

    [Theory]
    [InlineData(25.0, null, 25.0)]
    [InlineData(10.0, 1.0, 25.0)]
    [InlineData(5.0, null, null)]
    [InlineData(null, 1.0, 25.0)]
    public void A_bid_in_proportion_is_not(double? bid, double? adGroup, double? budget) =>
        UnusualAmounts.OfBid((decimal?)bid, (decimal?)adGroup, (decimal?)budget, Pound).ShouldBeNull();

    [Theory]
    [InlineData(250.0, 25.0, true)]
    [InlineData(249.99, 25.0, false)]
    [InlineData(250.0, null, false)]
    public void A_budget_ten_times_the_one_before_is_told(double now, double? before, bool told) =>
        (UnusualAmounts.OfBudget((decimal)now, (decimal?)before, Pound) is not null).ShouldBe(told);
}
