using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Tests.Budgets;

/// <summary>What a month comes to.</summary>
public class MonthForecastTests
{
    private static readonly DateOnly Today = new(2026, 5, 18);

    private static (DateOnly, double)[] Days(int count, Func<DateOnly, double> cost) =>
        [.. Enumerable.Range(1, count).Select(back => Today.AddDays(-back)).Select(day => (day, cost(day)))];

    [Fact]
    public void Days_that_cost_the_same_make_a_month_that_is_known()
    {
        var forecast = MonthForecast.Of(100, Today, Days(28, _ => 10), _ => 1)!;

        // 18 to 31 May are 14 days.
        forecast.Month.ShouldBe(new LikelyRange(240, 240, 240));
        forecast.Days.Count.ShouldBe(14);
    }

    [Fact]
    public void Weekends_that_cost_less_are_foreseen_as_such()
    {
        static bool IsWeekend(DateOnly day) => day.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday;
        var random = new Random(1);

        var forecast = MonthForecast.Of(
            0,
            Today,
            Days(56, day => (IsWeekend(day) ? 4 : 20) + random.NextDouble()),
            _ => 1
        )!;

        // Ten days of the week and four of weekends are left.
        forecast.Month.Likely.ShouldBe(10 * 20.5 + 4 * 4.5, 2);
        (forecast.Days[5].Sum.Likely - forecast.Days[4].Sum.Likely).ShouldBe(4.5, 0.7);
    }

    [Fact]
    public void Days_of_the_week_that_differ_by_chance_only_are_taken_as_one()
    {
        var random = new Random(2);
        var forecast = MonthForecast.Of(0, Today, Days(28, _ => Normal.Sample(random, 20, 6)), _ => 1)!;

        var steps = forecast.Days.Zip(forecast.Days.Skip(1), (one, next) => next.Sum.Likely - one.Sum.Likely).ToArray();
        (steps.Max() - steps.Min()).ShouldBeLessThan(6);
    }

    /// <summary>Nine of ten months lie within the range, as it says: tried on days drawn from a known distribution.</summary>
    [Fact]
    public void Nine_months_of_ten_end_within_the_range()
    {
        var random = new Random(4);
        var within = 0;
        const int months = 2_000;
        for (var month = 0; month < months; month++)
        {
            var forecast = MonthForecast.Of(0, Today, Days(28, _ => Normal.Sample(random, 20, 5)), _ => 1)!;
            var happened = Enumerable.Range(0, 14).Sum(_ => Normal.Sample(random, 20, 5));
            within += forecast.Month.Low <= happened && happened <= forecast.Month.High ? 1 : 0;
        }

        ((double)within / months).ShouldBeInRange(0.86, 0.94);
    }

    [Fact]
    public void What_ends_before_the_month_does_costs_nothing_after()
    {
        var forecast = MonthForecast.Of(100, Today, Days(28, _ => 10), day => day.Day <= 20 ? 1 : 0.5)!;

        forecast.Month.Likely.ShouldBe(100 + 3 * 10 + 11 * 5, 1e-9);
    }

    [Fact]
    public void Nothing_is_forecast_from_a_few_days()
    {
        MonthForecast.Of(100, Today, Days(13, _ => 10), _ => 1).ShouldBeNull();
    }

    [Fact]
    public void The_day_on_which_the_months_budget_is_spent_is_told()
    {
        var forecast = MonthForecast.Of(100, Today, Days(28, _ => 10), _ => 1)!;

        forecast.DayBeyond(135).ShouldBe(new DateOnly(2026, 5, 21));
        forecast.DayBeyond(240).ShouldBeNull();
        BudgetWords
            .Rest(forecast, 100, 135, Today, Currency.Of("GBP"))
            .ShouldBe("£35.00 is left, £2.50 for each of the 14 days to come. As it goes, it is spent on Thu 21 May.");
        BudgetWords
            .Rest(forecast, 100, 300, Today, Currency.Of("GBP"))!
            .ShouldEndWith("As it goes, £60.00 is left over.");
    }
}
