using CsCheck;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Core.Tests.Bidding.Strategies;

public class LevelTests
{
    private const int HoursOfDay = 24;

    /// <summary>How searches lie over a day: a usual hour is 1.</summary>
    private static double WeightOf(int hour) => (hour % HoursOfDay) is < 7 or > 22 ? 0.3 : 1.3;

    /// <summary>
    /// Hours of a market that answers bids by a power of its own, with chance: what clicks of an hour cost at a level. With clicks of so
    /// many a day the strategy has that much to learn from.
    /// </summary>
    private static List<decimal> SpentByDay(int days, decimal budget, double costOfHour, double answers, int seed)
    {
        var chance = new Random(seed);
        var hours = new List<(int Hour, LevelHour Kept)>();
        var level = 1.0;
        var spentOn = new List<decimal>();
        for (var hour = 0; hour < days * HoursOfDay; hour++)
        {
            if (hour % HoursOfDay == 0)
            {
                spentOn.Add(0);
            }

            var left = budget - spentOn[^1];
            var weightLeft = Enumerable.Range(hour, HoursOfDay - hour % HoursOfDay).Sum(WeightOf);
            level = BudgetLevel.Next(
                level,
                1,
                hours.TakeLast(7 * HoursOfDay).Select(each => each.Kept with { Age = hour - each.Hour }),
                left,
                weightLeft,
                isLearning: hour < 7 * HoursOfDay
            );
            // Clicks come one by one.
            var expected = costOfHour * WeightOf(hour) * Math.Pow(level, answers);
            const double price = 0.5;
            var clicks = new MathNet.Numerics.Distributions.Poisson(Math.Max(1e-6, expected / price), chance).Sample();
            var spent = Math.Min((decimal)(clicks * price), Math.Max(0, left));
            spentOn[^1] += spent;
            hours.Add(
                (
                    hour,
                    new LevelHour(
                        spent,
                        clicks,
                        level,
                        clicks == 0 ? 1 : (double)spent / (clicks * price),
                        WeightOf(hour),
                        0
                    )
                )
            );
        }

        return spentOn;
    }

    [Fact]
    // At the highest level that is sensible there is more to buy than the budget pays for: that is demand.
    public void A_strategy_that_spends_the_budget_spends_between_90_and_110_per_cent_over_a_week_when_there_is_demand() =>
        Gen.Select(Gen.Int[20, 200], Gen.Double[0.8, 4], Gen.Double[0.8, 2.5], Gen.Int)
            .Sample(
                (budget, costOfHour, answers, seed) =>
                {
                    var days = SpentByDay(28, budget, costOfHour * budget / HoursOfDay, answers, seed);
                    foreach (var week in days.Skip(14).Chunk(7))
                    {
                        (week.Sum() / (7 * budget)).ShouldBeInRange(0.9m, 1.1m);
                    }
                },
                iter: 60
            );

    [Fact]
    public void Where_nobody_searches_the_level_does_not_run_away()
    {
        var level = 1.0;
        for (var hour = 0; hour < 500; hour++)
        {
            level = BudgetLevel.Next(level, 1, [new LevelHour(0, 0, level, 1, 2, 1)], 20, 10, isLearning: false);
        }

        level.ShouldBe(BudgetLevel.MostAboveOpening);
    }

    [Fact]
    public void Where_there_is_little_to_buy_the_level_stays_near_what_it_is_bought_for()
    {
        var level = 1.0;
        for (var hour = 0; hour < 500; hour++)
        {
            // Ten clicks an hour at 0.50, whatever is bid.
            level = BudgetLevel.Next(level, 1, [new LevelHour(5, 10, level, 1, 1, 1)], 1_000, 10, isLearning: false);
        }

        level.ShouldBe(0.5 * BudgetLevel.MostAbovePrice);
    }

    [Theory]
    [InlineData(false, BudgetLevel.Step)]
    [InlineData(true, BudgetLevel.LearningStep)]
    public void A_level_moves_by_steps_and_by_smaller_ones_while_learning(bool isLearning, double step) =>
        BudgetLevel.Next(1, 1, [new LevelHour(100, 100, 1, 1, 1, 1)], 1, 10, isLearning).ShouldBe(1 / step, 1e-9);

    [Fact]
    public void A_level_begins_a_little_above_what_was_paid_for_the_same() =>
        BudgetLevel.Opening(100, 200, 9, 0.04).ShouldBe(0.5 * BudgetLevel.OpeningAbovePrice);

    [Fact]
    public void Without_a_click_a_level_begins_at_the_bids_that_people_set() =>
        BudgetLevel.Opening(0, 0, 1.20, 0.04).ShouldBe(30);

    /// <summary>A click costs half of its bid, and converts as predicted: bids twice as high cost what is wanted on the whole.</summary>
    [Fact]
    public void A_target_is_met_on_the_whole_when_clicks_cost_less_than_is_bid() =>
        TargetLevel.Of(new TargetRecord(5_000, 10_000, 500, 500, 1), 20, isLearning: false).ShouldBe(2, 0.01);

    [Fact]
    public void Clicks_that_convert_less_often_than_predicted_are_bid_less() =>
        TargetLevel.Of(new TargetRecord(10_000, 10_000, 500, 350, 1), 20, isLearning: false).ShouldBe(0.7, 0.01);

    [Fact]
    public void While_it_learns_a_target_is_taken_as_it_is() =>
        TargetLevel.Of(new TargetRecord(5_000, 10_000, 500, 500, 1), 20, isLearning: true).ShouldBe(1);

    [Fact]
    public void A_target_level_stays_within_half_and_double() =>
        Gen.Select(
                Gen.Double[0, 1e5],
                Gen.Double[0, 1e5],
                Gen.Double[0, 1e3],
                Gen.Double[0, 1e3],
                Gen.Double[0.01, 100]
            )
            .Sample(
                (paid, bid, predicted, counted, one) =>
                    TargetLevel
                        .Of(new TargetRecord(paid, bid, predicted, counted, 1), one, isLearning: false)
                        .ShouldBeInRange(TargetLevel.Lowest, TargetLevel.Highest)
            );
}
