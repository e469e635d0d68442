using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Tests.Budgets;

/// <summary>A day that is not over, against what a campaign usually has by then.</summary>
public class DayPaceTests
{
    private const int Noon = 12 * 60;
    private static readonly Currency Pounds = Currency.Of("GBP");
    private static readonly double[] Even = [.. Enumerable.Repeat(1.0, 24)];

    private static UsualDay Usual(params double[] clicks) => new(clicks, clicks.Average(), Even);

    [Fact]
    public void Half_of_the_day_has_half_of_the_money_where_all_hours_are_alike()
    {
        var pace = DayPace.Of(Noon, 9, 9, 24, null, Usual(20, 20, 20, 20));

        pace.UsualByNow.ShouldBe(10);
        pace.AtEnd!.Value.Likely.ShouldBe(19);
    }

    [Fact]
    public void Hours_in_which_more_is_spent_weigh_more()
    {
        double[] hours =
        [
            .. Enumerable
                .Range(0, 24)
                .Select(hour =>
                    hour == 20 ? 3.0
                    : hour is 8 or 9 ? 0.5
                    : 0
                ),
        ];
        var usual = new UsualDay([10, 10], 8, hours);

        usual.ShareBy(9 * 60).ShouldBe(0.125);
        usual.ShareBy(20 * 60 + 30).ShouldBe(0.625);
        usual.ShareBy(24 * 60).ShouldBe(1);
    }

    /// <summary>The moments of a negative binomial distribution, drawn by another library, give its shape back.</summary>
    [Fact]
    public void Likeness_is_the_shape_from_which_days_were_drawn()
    {
        var random = new Random(3);
        double[] days = [.. Enumerable.Range(0, 20_000).Select(_ => (double)Draw(random, 5, 40))];

        new UsualDay(days, 40, Even).Likeness.ShouldBe(5, 0.3);
    }

    /// <summary>Days drawn from the distribution that is assumed (MathNet's) end within the range nine times in ten.</summary>
    [Fact]
    public void Nine_days_of_ten_end_within_the_range()
    {
        var random = new Random(7);
        double[] before = [.. Enumerable.Range(0, 400).Select(_ => (double)Draw(random, 8, 60))];
        var usual = new UsualDay(before, before.Average(), Even);
        var within = 0;
        const int Tried = 2_000;
        for (var day = 0; day < Tried; day++)
        {
            var rate = Gamma.Sample(random, 8, 8);
            var morning = Poisson.Sample(random, 30 * rate);
            var end = morning + Poisson.Sample(random, 30 * rate);
            var range = DayPace.Of(Noon, morning, morning, null, null, usual).AtEnd!.Value;
            within += range.Low <= end && end <= range.High ? 1 : 0;
        }

        (within / (double)Tried).ShouldBe(0.9, 0.03);
    }

    [Fact]
    public void A_busy_morning_tells_of_a_busy_day_only_where_days_differ()
    {
        DayPace.Of(Noon, 20, 20, null, null, Usual(20, 20, 20)).AtEnd!.Value.Likely.ShouldBe(30);

        // Mean 20, variance 200: k = 400 ÷ 180, and (k + 20) ÷ (k + 10) of the ten clicks that usually come after noon.
        DayPace
            .Of(Noon, 20, 20, null, null, Usual(10, 10, 30, 30, 20, 0, 40))
            .AtEnd!.Value.Likely.ShouldBe(20 + 10 * (20 / 9.0 + 20) / (20 / 9.0 + 10), 0.6);
    }

    [Fact]
    public void The_minute_is_told_at_which_the_budget_will_be_spent()
    {
        var pace = DayPace.Of(Noon, 10, 10, 15, null, Usual(20, 20, 20));

        pace.RunsOutMinute.ShouldBe(18 * 60);
        pace.AtEnd!.Value.High.ShouldBe(15);
        pace.InWords(Pounds)
            .ShouldBe(
                "Today by 12:00 £10.00 of £15.00 is spent, as usual (£10.00); the budget is likely to run out about 18:00."
            );
    }

    [Fact]
    public void Hours_to_come_add_up_to_what_the_day_will_cost_and_stop_where_the_budget_does()
    {
        var usual = Usual(20, 20, 20);
        DayPace.Of(Noon, 9, 9, 24, null, usual).ToCome(usual).Sum().ShouldBe(10, 1e-9);

        var few = DayPace.Of(Noon, 10, 10, 15, null, usual).ToCome(usual);
        few.Sum().ShouldBe(5, 1e-9);
        few.Take(12).Concat(few.Skip(18)).ShouldAllBe(cost => cost == 0);
    }

    [Fact]
    public void A_budget_that_lasts_is_said_to_last()
    {
        DayPace
            .Of(Noon, 4, 4, 50, null, Usual(20, 20, 20))
            .InWords(Pounds)
            .ShouldStartWith("Today by 12:00 £4.00 of £50.00 is spent, usually £10.00 by then; likely £");
    }

    [Fact]
    public void A_day_that_the_network_stopped_costs_what_it_cost()
    {
        var pace = DayPace.Of(Noon, 14.8m, 10, 15, 11 * 60 + 20, Usual(20, 20, 20));

        pace.AtEnd.ShouldBe(new LikelyRange(14.8, 14.8, 14.8));
        pace.InWords(Pounds).ShouldBe("Today by 12:00 £14.80 of £15.00 is spent: the budget ran out at 11:20.");
    }

    [Fact]
    public void Without_days_before_nothing_is_foreseen()
    {
        var pace = DayPace.Of(Noon, 3, 3, 15, null, new UsualDay([], 0, Even));

        pace.AtEnd.ShouldBeNull();
        pace.InWords(Pounds).ShouldBe("Today by 12:00 £3.00 of £15.00 is spent. There are no days to compare it with.");
    }

    private static int Draw(Random random, double shape, double mean) =>
        Poisson.Sample(random, mean * Gamma.Sample(random, shape, shape));
}
