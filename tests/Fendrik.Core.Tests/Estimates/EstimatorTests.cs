using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Estimates;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Estimates;

public class EstimatorTests
{
    private static readonly EstimateErrors NotYet = EstimateErrors.Of([], Estimator.UsualSpread);
    private static readonly EstimateErrors NetworkNotYet = EstimateErrors.Of([], Estimator.UsualSpreadOfNetwork);
    private static readonly decimal[] Bids = [0.50m, 1, 2];

    private static KeywordHistory History(
        long impressions = 4_000,
        long clicks = 400,
        decimal cost = 200,
        long lostToRank = 0,
        long lostToBudget = 0
    ) => new(1, 28, new Figures(impressions, clicks, cost, 40, 0), lostToRank, lostToBudget, 0.1);

    private static NetworkEstimate Network(params (decimal Bid, double Clicks)[] weeks) =>
        new(
            "piano tuning",
            MatchType.Phrase,
            1,
            weeks.Length == 0 ? "Too few people search for it to tell." : null,
            [
                .. weeks.Select(each => new EstimatedWeek(
                    each.Bid,
                    each.Clicks * 10,
                    each.Clicks,
                    (decimal)each.Clicks / 2
                )),
            ],
            null,
            null
        );

    private static OwnEstimate Estimate(KeywordHistory? history, NetworkEstimate? network = null) =>
        Estimator.Of(history, network, NetworkNotYet, NotYet, Bids);

    [Fact]
    public void At_the_bid_that_was_made_a_usual_week_is_what_it_was()
    {
        var week = Estimate(History()).Weeks[1];
        week.Clicks.Likely.ShouldBe(100, 1e-9);
        week.Cost.Likely.ShouldBe(50, 1e-9);
        week.Conversions.Likely.ShouldBe(10, 1e-9);
    }

    [Fact]
    public void With_budget_enough_the_searches_that_the_budget_missed_are_in_it() =>
        Estimate(History(lostToBudget: 4_000)).Weeks[1].Clicks.Likely.ShouldBe(200, 1e-9);

    [Fact]
    public void Where_nothing_is_lost_to_rank_a_higher_bid_shows_no_more_often()
    {
        Estimate(History()).Weeks[2].Impressions.Likely.ShouldBe(1_000, 1e-6);
        Estimate(History(lostToRank: 400)).Weeks[2].Impressions.Likely.ShouldBe(1_100, 1e-6);
    }

    [Fact]
    public void The_shape_of_the_networks_estimate_carries_history_to_other_bids()
    {
        // The network is wrong by three times, and says that twice the bid brings half as much again.
        var estimate = Estimate(History(), Network((0.5m, 200), (1, 300), (2, 450)));
        estimate.Weeks[1].Clicks.Likely.ShouldBe(100, 1e-9);
        estimate.Weeks[2].Clicks.Likely.ShouldBe(150, 1e-9);
    }

    [Fact]
    public void The_range_widens_with_the_distance_from_the_bid_that_was_made()
    {
        static double Width(EstimateRange range) => range.High / range.Low;
        var weeks = Estimator.Of(History(), null, NetworkNotYet, NotYet, [1, 1.5m, 3]).Weeks;
        Width(weeks[1].Clicks).ShouldBeGreaterThan(Width(weeks[0].Clicks));
        Width(weeks[2].Clicks).ShouldBeGreaterThan(Width(weeks[1].Clicks));
    }

    [Fact]
    public void Cost_is_never_more_than_the_bid_for_each_click() =>
        Gen.Select(Gen.Long[20, 100_000], Gen.Long[0, 5_000], Gen.Int[1, 400], Gen.Int[5, 500])
            .Sample(
                (impressions, clicks, price, bid) =>
                {
                    var cost = Math.Min(clicks, impressions) * price / 100m;
                    var weeks = Estimator
                        .Of(
                            History(impressions, Math.Min(clicks, impressions), cost, 100, 50),
                            null,
                            NetworkNotYet,
                            NotYet,
                            [bid / 100m]
                        )
                        .Weeks;
                    weeks[0].Cost.Likely.ShouldBeLessThanOrEqualTo(weeks[0].Clicks.Likely * bid / 100 + 1e-6);
                }
            );

    [Fact]
    public void Without_history_the_networks_estimate_is_corrected_by_how_its_earlier_ones_turned_out()
    {
        // What came was mostly half of what was said.
        var errors = EstimateErrors.Of([(100, 50), (40, 20), (60, 30), (80, 41), (20, 10)], 0.5);
        errors.Times.ShouldBe(0.5, 0.01);
        var estimate = Estimator.Of(null, Network((0.5m, 50), (1, 100), (2, 150)), errors, NotYet, Bids);
        estimate.Weeks[1].Clicks.Likely.ShouldBe(100 * errors.Times, 1e-9);
        estimate.RestsOn[1].ShouldBe("Corrected by what 5 earlier ones turned out to be: mostly 98 % too high.");
    }

    [Fact]
    public void An_estimate_that_is_not_to_be_had_says_why_and_is_no_zero()
    {
        var estimate = Estimate(null, Network());
        estimate.Weeks.ShouldBeEmpty();
        estimate.Reason.ShouldBe(
            "It has no history, and the network has no estimate: too few people search for it to tell."
        );
        Estimate(History(impressions: 5, clicks: 0, cost: 0))
            .Reason!.ShouldStartWith("It was shown 5 times in 28 days");
    }

    [Fact]
    public void A_range_is_known_by_the_median_deviation_however_far_off_one_is()
    {
        // Hampel, “The influence curve and its role in robust estimation”, JASA 69, 1974: 1.4826 × the median deviation.
        double[] logs = [-0.2, -0.1, 0, 0.1, 0.2];
        var errors = EstimateErrors.Of([.. logs.Select(log => (1e6, 1e6 * Math.Exp(log))), (1e6, 1e9)], 0.5);
        errors.Spread.ShouldBe(1.4826 * 0.15, 0.01);
    }

    [Fact]
    public void Fewer_than_five_say_nothing() =>
        EstimateErrors.Of([(100, 50), (100, 50), (100, 50), (100, 50)], 0.5).ShouldBe(new EstimateErrors(4, 1, 0.5));

    [Fact]
    public void Ranges_of_several_add_up_by_their_squares()
    {
        var sum = EstimateRange.Sum([new EstimateRange(7, 10, 14), new EstimateRange(6, 10, 13)]);
        sum.ShouldBe(new EstimateRange(15, 20, 25));
    }

    [Fact]
    public void Between_two_bids_it_is_between_the_two()
    {
        var weeks = Estimate(History(lostToRank: 2_000)).Weeks;
        var at = Estimator.At(weeks, 1.4m)!;
        at.Clicks.Likely.ShouldBeInRange(weeks[1].Clicks.Likely, weeks[2].Clicks.Likely);
        Estimator.At(weeks, 9)!.Clicks.ShouldBe(weeks[2].Clicks);
    }

    [Fact]
    public void Bids_around_one_are_each_asked_once_and_none_below_the_lowest() =>
        Estimator.BidsAround(0.05m, Currency.Of("GBP"), 0.04m).ShouldBe([0.04m, 0.05m, 0.06m, 0.08m, 0.11m, 0.15m]);

    [Fact]
    public void A_bid_that_stays_changes_nothing() =>
        Gen.Select(Gen.Double[0, 3], Gen.Double[0.5, 1.5])
            .Sample(
                (room, strength) =>
                    (BidResponse.Clicks(1, room, strength), BidResponse.Price(1, strength)).ShouldBe((1, 1))
            );

    [Fact]
    public void A_higher_bid_never_brings_fewer_clicks_or_cheaper_ones() =>
        Gen.Select(Gen.Double[0.1, 5], Gen.Double[1, 3], Gen.Double[0, 3])
            .Sample(
                (times, more, room) =>
                {
                    BidResponse
                        .Clicks(times * more, room)
                        .ShouldBeGreaterThanOrEqualTo(BidResponse.Clicks(times, room) - 1e-9);
                    BidResponse.Price(times * more).ShouldBeGreaterThanOrEqualTo(BidResponse.Price(times) - 1e-9);
                }
            );

    private static readonly Figures Segment = new(2_000, 400, 300, 40, 0);

    [Fact]
    public void A_modifier_that_stays_leaves_a_week_as_it_is()
    {
        var effect = ModifierEffect.Of(Segment, 28, 20, 20, 0.2)!;
        (effect.ClicksNow, effect.CostNow, effect.ConversionsNow).ShouldBe((100, 75, 10));
        (effect.Clicks.Likely, effect.Cost.Likely, effect.Conversions.Likely).ShouldBe((100, 75, 10));
    }

    [Fact]
    public void A_cut_saves_more_than_it_loses()
    {
        var effect = ModifierEffect.Of(Segment, 28, 0, -50, 0)!;
        (effect.Cost.Likely / effect.CostNow).ShouldBeLessThan(effect.Conversions.Likely / effect.ConversionsNow);
    }

    [Fact]
    public void Never_brings_nothing() =>
        ModifierEffect.Of(Segment, 28, 0, -100, 0)!.Conversions.ShouldBe(new EstimateRange(0, 0, 0));

    [Fact]
    public void Of_what_does_not_show_now_nothing_is_known() =>
        ModifierEffect.Of(Segment, 28, -100, 0, 0).ShouldBeNull();
}
