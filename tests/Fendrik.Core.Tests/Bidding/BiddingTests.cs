using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Budgets;

namespace Fendrik.Core.Tests.Bidding;

public class BiddingTests
{
    private static readonly Currency Pound = Currency.Of("GBP");

    // Rules of the trade: a modifier of +300% multiplies a bid by 4; £0.60 with +150% on phones is £1.50.
    // Common practice, no source.
    [Theory]
    [InlineData("1.00", "300", "4.00")]
    [InlineData("0.60", "150", "1.50")]
    [InlineData("1.00", "-90", "0.10")]
    [InlineData("1.00", "-100", "0.00")]
    public void Multiplies_a_bid_by_its_modifier(string bid, string percent, string result) =>
        BidStack
            .Of(decimal.Parse(bid), null, [("phone", decimal.Parse(percent))], Pound)!
            .Bid.ShouldBe(decimal.Parse(result));

    [Fact]
    public void Multiplies_modifiers_with_each_other_and_shows_each_step()
    {
        var stack = BidStack.Of(1.10m, null, [("phone", 50m), ("York", 40m)], Pound)!;

        stack.Bid.ShouldBe(2.31m);
        stack.Steps.Select(step => step.Name).ShouldBe(["keyword", "phone", "York"]);
        stack.Steps[1].BidAfter.ShouldBe(1.65m);
    }

    [Fact]
    public void The_order_of_modifiers_changes_no_bid() =>
        Gen.Select(Gen.Int[1, 10_000], Gen.Int[-1_000, 9_000].Array[0, 5], Gen.Int[0, int.MaxValue])
            .Sample(
                (pence, tenths, seed) =>
                {
                    var modifiers = tenths.Select((each, at) => ($"m{at}", each / 10m)).ToArray();
                    var turned = modifiers.ToArray();
                    new Random(seed).Shuffle(turned);
                    BidStack
                        .Of(pence / 100m, null, turned, Pound)!
                        .Bid.ShouldBe(BidStack.Of(pence / 100m, null, modifiers, Pound)!.Bid);
                }
            );

    [Fact]
    public void Takes_the_ad_groups_max_CPC_where_the_keyword_has_none() =>
        BidStack.Of(null, 0.80m, [], Pound)!.Bid.ShouldBe(0.80m);

    [Fact]
    public void Has_no_bid_where_neither_level_has_one() => BidStack.Of(null, null, [], Pound).ShouldBeNull();

    [Fact]
    public void Refuses_a_modifier_below_minus_100() =>
        Should.Throw<ArgumentOutOfRangeException>(() => BidStack.Of(1, null, [("phone", -101m)], Pound));

    [Theory]
    [InlineData(AmountOperation.Set, "1.255", "0.90", "1.26")]
    [InlineData(AmountOperation.AddAmount, "0.10", "0.90", "1.00")]
    [InlineData(AmountOperation.AddAmount, "-2", "0.90", "0.05")]
    [InlineData(AmountOperation.AddPercent, "10", "0.95", "1.05")]
    [InlineData(AmountOperation.AddPercent, "-99", "0.90", "0.05")]
    public void Changes_an_amount_and_rounds_it_within_floor_and_ceiling(
        AmountOperation operation,
        string value,
        string now,
        string then
    ) =>
        new BidChange(operation, decimal.Parse(value))
            .Apply(decimal.Parse(now), Pound, 0.05m)
            .ShouldBe(decimal.Parse(then));

    [Theory]
    [InlineData(AmountOperation.AddAmount)]
    [InlineData(AmountOperation.AddPercent)]
    [InlineData(AmountOperation.Inherit)]
    public void Makes_no_amount_out_of_none(AmountOperation operation) =>
        new BidChange(operation, 10).Apply(null, Pound, 0.05m).ShouldBeNull();

    [Theory]
    [InlineData(AmountOperation.Set, 0)]
    [InlineData(AmountOperation.Set, -1)]
    [InlineData(AmountOperation.AddPercent, -100)]
    [InlineData(AmountOperation.AddPercent, 5000)]
    public void Says_what_is_wrong_with_a_change(AmountOperation operation, int value) =>
        new BidChange(operation, value).Problem().ShouldNotBeNull();
}
