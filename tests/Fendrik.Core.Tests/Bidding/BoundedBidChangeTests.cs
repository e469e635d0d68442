using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;

namespace Fendrik.Core.Tests.Bidding;

public class BoundedBidChangeTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    [Theory]
    [InlineData(1.00, 13, 0.05, 1.15)]
    [InlineData(1.00, 12, 0.05, 1.10)]
    [InlineData(1.50, 15, 0.25, 1.75)]
    [InlineData(1.00, 12.5, 0.25, 1.25)]
    public void Rounds_to_a_step_with_halves_away_from_zero(double bid, double percent, double step, double after) =>
        new BidChange(AmountOperation.AddPercent, (decimal)percent, (decimal)step)
            .Apply((decimal)bid, Pounds, 0.05m)
            .ShouldBe((decimal)after);

    [Theory]
    [InlineData(0.20, 0.40)]
    [InlineData(1.00, 1.50)]
    [InlineData(9.00, 3.00)]
    public void Holds_the_result_between_floor_and_ceiling(double bid, double after) =>
        new BidChange(AmountOperation.AddPercent, 50, AtLeast: 0.40m, AtMost: 3m)
            .Apply((decimal)bid, Pounds, 0.05m)
            .ShouldBe((decimal)after);

    [Fact]
    public void Never_goes_below_what_the_network_takes() =>
        new BidChange(AmountOperation.Set, 0.01m, AtMost: 0.02m).Apply(1m, Pounds, 0.05m).ShouldBe(0.05m);

    [Theory]
    [InlineData(0.0, null, null)]
    [InlineData(null, 2.0, 1.0)]
    [InlineData(null, null, 0.0)]
    public void Refuses_steps_and_bounds_that_contradict_themselves(double? step, double? least, double? most) =>
        new BidChange(AmountOperation.Set, 1, (decimal?)step, (decimal?)least, (decimal?)most)
            .Problem()
            .ShouldNotBeNull();
}
