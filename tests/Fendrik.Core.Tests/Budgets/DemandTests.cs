using Fendrik.Core.Budgets;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Budgets;

/// <summary>What searches would have brought that a budget missed, and what other budgets make of days.</summary>
public class DemandTests
{
    private static readonly DateOnly Monday = new(2026, 5, 4);

    private static GroupDay Cell(
        long group,
        int day,
        long shown,
        long lostToRank,
        long lostToBudget,
        long clicks,
        decimal cost,
        decimal conversions
    ) =>
        new(
            group,
            Monday.AddDays(day),
            new Standing(shown, 0, 0, shown, lostToRank, lostToBudget),
            new Figures(shown, clicks, cost, conversions, 0)
        );

    private static DemandDay Day(int day, double got, double missed) =>
        new(Monday.AddDays(day), new Outcome(got, got, got / 10), new Outcome(missed, missed, missed / 20));

    [Fact]
    public void Missed_searches_bring_what_others_do_whether_they_win_a_place_or_not()
    {
        // 100 searches, of which 80 won a place: 10 clicks at £1, 2 sold. 50 more were missed.
        var demand = CampaignDemand.Of([Cell(1, 0, 80, 20, 50, 10, 10, 2)], Monday, null);

        demand.Missed.Clicks.ShouldBe(5, 1e-9);
        demand.Missed.Cost.ShouldBe(5, 1e-9);
        demand.Missed.Conversions.ShouldBe(1, 1e-9);
        demand.Days.Single().Demand.ShouldBe(15, 1e-9);
    }

    [Fact]
    public void A_small_ad_group_is_drawn_towards_its_campaign()
    {
        var demand = CampaignDemand.Of(
            [Cell(1, 0, 10_000, 0, 0, 1_000, 1_000, 100), Cell(2, 0, 10, 0, 100, 0, 0, 0)],
            Monday,
            null
        );

        var small = demand.Groups.Single(group => group.AdGroupId == 2);
        // No click of ten searches, where a tenth of searches bring one: not a tenth any more, and far from none.
        small.Rates!.Clicks.ShouldBeInRange(0.06, 0.099);
        small.Rates.CostOfClick.ShouldBe(1, 0.001);
        small.Missed.Cost.ShouldBeInRange(6, 9.9);
    }

    [Fact]
    public void What_missed_searches_would_have_brought_is_not_known_before_the_first_click()
    {
        var demand = CampaignDemand.Of([Cell(1, 0, 5, 0, 100, 0, 0, 0)], Monday, null);

        demand.IsUnknown.ShouldBeTrue();
        demand.Missed.ShouldBe(default);
    }

    [Fact]
    public void Days_without_a_search_count_among_those_since_the_first()
    {
        var demand = CampaignDemand.Of([Cell(1, 2, 10, 0, 0, 1, 1, 0)], Monday.AddDays(6), null);

        demand.Days.Count.ShouldBe(5);
        demand.Days[0].Day.ShouldBe(Monday.AddDays(2));
        new BudgetCurve(demand.Days).Demand.ShouldBe(0.2, 1e-9);
    }

    [Fact]
    public void A_budget_brings_what_was_got_and_then_what_was_missed_and_no_more()
    {
        var curve = new BudgetCurve([Day(0, 20, 10), Day(1, 20, 0)]);

        curve.PerDay(10).Cost.ShouldBe(10, 1e-9);
        curve.PerDay(25).Cost.ShouldBe((25 + 20) / 2.0, 1e-9);
        curve.PerDay(500).Cost.ShouldBe(25, 1e-9);
        curve.PerDay(500).Conversions.ShouldBe((2 + 2 + 0.5) / 2, 1e-9);
        curve.PerDay(-1).ShouldBe(default);
    }

    [Fact]
    public void What_a_budget_leaves_over_though_it_misses_searches_it_leaves_over_again()
    {
        // £18 of £20 were spent, for the next click cost more than what was left.
        var curve = new BudgetCurve([
            new DemandDay(Monday, new Outcome(18, 18, 1), new Outcome(10, 10, 1), 20),
            new DemandDay(Monday.AddDays(1), new Outcome(9, 9, 1), default, 20),
        ]);

        curve.LeftOver.ShouldBe(2, 1e-9);
        curve.PerDay(20).Cost.ShouldBe((18 + 9) / 2.0, 1e-9);
        curve.PerDay(25).Cost.ShouldBe((23 + 9) / 2.0, 1e-9);
    }

    [Fact]
    public void The_next_conversion_costs_what_the_next_searches_bring_it_for()
    {
        var curve = new BudgetCurve([Day(0, 20, 10), Day(1, 20, 0)]);

        // Below what days cost, money brings what it brought: one for £10. Beyond it: one for £20. Beyond all demand: nothing.
        curve.NextConversionCost(10)!.Value.ShouldBe(10, 1e-9);
        curve.NextConversionCost(25)!.Value.ShouldBe(20, 1e-9);
        curve.NextConversionCost(40).ShouldBeNull();
    }

    [Fact]
    public void No_budget_brings_less_than_a_smaller_one()
    {
        var random = new Random(7);
        for (var round = 0; round < 200; round++)
        {
            var curve = new BudgetCurve([
                .. Enumerable.Range(0, 28).Select(day => Day(day, random.NextDouble() * 50, random.NextDouble() * 50)),
            ]);
            var before = default(Outcome);
            for (var budget = 0m; budget < 120; budget += 3.7m)
            {
                var next = curve.PerDay(budget);
                next.Cost.ShouldBeGreaterThanOrEqualTo(before.Cost);
                next.Cost.ShouldBeLessThanOrEqualTo((double)budget + 1e-9);
                next.Conversions.ShouldBeGreaterThanOrEqualTo(before.Conversions);
                before = next;
            }
        }
    }

    [Fact]
    public void A_forecast_ranges_about_what_is_likely()
    {
        var curve = new BudgetCurve([.. Enumerable.Range(0, 28).Select(day => Day(day, 20, day % 7))]);

        var forecast = BudgetForecast.Of([(new FundedCampaign(20, curve), 25m)]);

        forecast.Now.Cost.ShouldBe(140, 1e-9);
        // Missed were 0 to 6 a day in turn, and 5 more can be spent: 0+1+2+3+4+5+5 in a week.
        forecast.Cost.Likely.ShouldBe(160, 1e-9);
        forecast.Cost.Low.ShouldBeInRange(145, 159.9);
        forecast.Conversions.Low.ShouldBeLessThan(forecast.Conversions.Likely);
        forecast.CostPerConversion!.Value.Low.ShouldBeLessThan(forecast.CostPerConversion.Value.High);
    }

    [Fact]
    public void Budgets_that_stay_change_nothing()
    {
        var curve = new BudgetCurve([Day(0, 20, 10)]);

        var forecast = BudgetForecast.Of([(new FundedCampaign(20, curve), 20m)]);

        forecast.Clicks.ShouldBe(new LikelyRange(forecast.Now.Clicks, forecast.Now.Clicks, forecast.Now.Clicks));
    }

    [Fact]
    public void A_reckoning_is_tried_on_days_that_it_did_not_see()
    {
        var before = new BudgetCurve([Day(0, 20, 10), Day(1, 20, 10)]);

        // £30 was to be expected of each day with a budget of £50, and £25 was spent.
        var trial = ForecastTrial.Of(before, [(Day(7, 25, 0), 50m), (Day(8, 25, 0), 50m)]);

        trial.CostError!.Value.ShouldBe(0.2, 1e-9);
        new ForecastTrial(default, default).CostError.ShouldBeNull();
    }

    [Fact]
    public void Half_of_the_days_on_which_it_ran_out_were_earlier_than_usual()
    {
        RunningOut.Over([600, null, 700, 1_000, null]).ShouldBe(new RunningOut(3, 5, 700));
        RunningOut.Over([null]).ShouldBe(new RunningOut(0, 1, null));
    }

    [Fact]
    public void What_an_hour_missed_costs_its_share_of_all_that_was_missed()
    {
        var costs = BudgetHour.MissedCosts([new(0, 1, 0), new(1, 1, 30), new(2, 1, 10)], 8);

        costs.ShouldBe([0, 6, 2]);
    }
}
