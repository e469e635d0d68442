using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Core.Tests.Bidding.Strategies;

public class StrategyBidTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    private static readonly ConversionRates Rates = new(
        [
            new ClickCell(1, 1, Device.Desktop, 1, SiteKinds.Search, 4_000, 200, 8_000),
            new ClickCell(1, 1, Device.Phone, 1, SiteKinds.Search, 4_000, 100, 4_000),
            new ClickCell(2, 2, Device.Phone, 5, SiteKinds.Search, 2_000, 20, 200),
        ],
        [],
        []
    );

    private static ClickAhead Click(Device device = Device.Desktop) =>
        new(1, 1, "piano tuning", device, 1, SiteKinds.Search, null);

    private static BidStack? Bid(
        StrategyPlan plan,
        double level = 1,
        Device device = Device.Desktop,
        decimal? maxCpc = 1m,
        params (string, decimal)[] modifiers
    ) => StrategyBid.Of(plan, [("keyword", maxCpc)], modifiers, new StrategyNow(Rates, level), Click(device), Pounds);

    [Fact]
    public void Manual_bids_are_base_times_modifiers_and_nothing_else() =>
        Bid(new StrategyPlan(BidStrategy.ManualCpc, HighestBid: 0.10m), maxCpc: 0.60m, modifiers: ("phone", 150))!
            .Bid.ShouldBe(1.50m);

    [Fact]
    public void Target_cpa_bids_the_target_times_how_likely_a_click_is_to_convert()
    {
        var likely = (decimal)Rates.Of(Click()).Rate;
        Bid(new StrategyPlan(BidStrategy.TargetCpa, TargetCpa: 20))!.Bid.ShouldBe(Pounds.Round(20 * likely));
    }

    [Fact]
    public void Target_roas_bids_what_a_click_is_likely_to_bring_over_the_return_wanted()
    {
        var predicted = Rates.Of(Click());
        Bid(new StrategyPlan(BidStrategy.TargetRoas, TargetRoas: 400))!
            .Bid.ShouldBe(Pounds.Round((decimal)(predicted.Rate * predicted.Value / 4)));
    }

    [Fact]
    public void Target_roas_has_nothing_to_go_by_without_values_and_bids_as_people_set_it() =>
        StrategyBid
            .Of(
                new StrategyPlan(BidStrategy.TargetRoas, TargetRoas: 400),
                [("keyword", 0.80m)],
                [],
                new StrategyNow(ConversionRates.Unknown, 1),
                Click(),
                Pounds
            )!
            .Bid.ShouldBe(0.80m);

    [Fact]
    public void Maximise_clicks_bids_the_same_for_every_click() =>
        Bid(new StrategyPlan(BidStrategy.MaximiseClicks), 0.47, Device.Phone, maxCpc: null)!.Bid.ShouldBe(0.47m);

    [Fact]
    public void Strategies_that_set_bids_take_no_notice_of_max_cpc_and_modifiers()
    {
        var plan = new StrategyPlan(BidStrategy.MaximiseConversions);
        Bid(plan, 15, maxCpc: 9m, modifiers: ("phone", 300))!.Bid.ShouldBe(Bid(plan, 15, maxCpc: null)!.Bid);
    }

    [Fact]
    public void A_device_that_converts_less_is_bid_less()
    {
        var plan = new StrategyPlan(BidStrategy.MaximiseConversions);
        Bid(plan, 20, Device.Phone)!.Bid.ShouldBeLessThan(Bid(plan, 20, Device.Desktop)!.Bid);
    }

    [Fact]
    public void A_nudge_stays_between_half_and_one_and_a_half_of_the_manual_bid()
    {
        foreach (var device in Enum.GetValues<Device>())
        {
            var bid = Bid(new StrategyPlan(BidStrategy.NudgedCpc), device: device, modifiers: ("hour", 20))!.Bid;
            bid.ShouldBeInRange(0.60m, 1.80m);
        }
    }

    [Fact]
    public void A_strategy_never_bids_above_its_cap_or_below_its_floor()
    {
        var strategies = Gen.OneOfConst([.. Enum.GetValues<BidStrategy>().Except([BidStrategy.ManualCpc])]);
        Gen.Select(strategies, Gen.Double[0.001, 5_000], Gen.Int[1, 400], Gen.Int[0, 300], Gen.Decimal[0.01m, 50m])
            .Sample(
                (strategy, level, cap, below, target) =>
                {
                    var highest = cap / 100m;
                    var lowest = Math.Max(0.01m, (cap - below) / 100m);
                    var plan = new StrategyPlan(strategy, Pounds.Round(target) + 0.01m, 250, lowest, highest);
                    Bid(plan, level)!.Bid.ShouldBeInRange(lowest, highest);
                }
            );
    }

    [Fact]
    public void Each_step_says_what_it_makes_of_the_bid()
    {
        var steps = Bid(new StrategyPlan(BidStrategy.TargetCpa, TargetCpa: 20, HighestBid: 0.30m), 1.2)!.Steps;
        steps[0].ShouldBe(new BidStep("target CPA", 0, 20));
        steps[1].Name.ShouldBe("a click converts");
        steps.ShouldContain(step => step.Name == "to meet the target" && step.Words == "× 1.20");
        steps[^1].ShouldBe(new BidStep("highest bid", 0, 0.30m, "at most £0.30"));
    }

    [Theory]
    [InlineData(BidStrategy.TargetCpa, "targetCpa")]
    [InlineData(BidStrategy.TargetRoas, "targetRoas")]
    public void A_strategy_without_its_target_is_a_blocker_on_that_field(BidStrategy strategy, string field) =>
        new StrategyPlan(strategy).Problems(Pounds).Single().Field.ShouldBe(field);

    [Fact]
    public void A_cap_below_the_floor_is_a_blocker() =>
        new StrategyPlan(BidStrategy.MaximiseClicks, LowestBid: 2, HighestBid: 1)
            .Problems(Pounds)
            .Single()
            .Code.ShouldBe("reversed");
}
