using System.Globalization;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Reporting;

/// <summary>Periods cut for a chart.</summary>
public class ChartPartTests
{
    private static Period Days(string first, string last) =>
        new(DateOnly.Parse(first, CultureInfo.InvariantCulture), DateOnly.Parse(last, CultureInfo.InvariantCulture));

    /// <summary>Weeks of ISO 8601 as .NET's own calendar counts them, over the turns of years with 52 and with 53 weeks.</summary>
    [Fact]
    public void Weeks_are_those_of_ISO_8601()
    {
        var period = Days("2024-01-03", "2027-02-10");

        var weeks = ChartPart.Of(period, period.Before, ChartGrain.Week);

        weeks
            .SelectMany(
                (part, at) =>
                    Enumerable
                        .Range(0, part.Now.Days)
                        .Select(day => part.Now.First.AddDays(day).ToDateTime(TimeOnly.MinValue))
                        .Select(day => (at, ISOWeek.GetYear(day), ISOWeek.GetWeekOfYear(day)))
            )
            .Distinct()
            .Count()
            .ShouldBe(weeks.Count);
        weeks.Skip(1).ShouldAllBe(part => part.Now.First.DayOfWeek == DayOfWeek.Monday);
    }

    [Theory]
    [InlineData(ChartGrain.Day)]
    [InlineData(ChartGrain.Week)]
    [InlineData(ChartGrain.Month)]
    public void Every_day_is_in_one_part(ChartGrain grain)
    {
        var period = Days("2026-02-11", "2026-05-12");

        var parts = ChartPart.Of(period, period.Before, grain);

        parts.Sum(part => part.Now.Days).ShouldBe(period.Days);
        parts.Zip(parts.Skip(1)).ShouldAllBe(pair => pair.First.Now.Last.AddDays(1) == pair.Second.Now.First);
        parts.Sum(part => part.Before?.Days ?? 0).ShouldBeLessThanOrEqualTo(period.Before.Days);
    }

    [Fact]
    public void A_month_stands_beside_the_month_before_though_it_is_shorter()
    {
        var march = Days("2026-03-01", "2026-03-31");

        ChartPart
            .Of(march, march.ComparedWith(Comparison.MonthBefore), ChartGrain.Month)
            .ShouldBe([new ChartPart(march, Days("2026-02-01", "2026-02-28"))]);
    }

    [Fact]
    public void A_month_stands_beside_as_many_days_before_where_these_are_no_month()
    {
        var may = Days("2026-05-01", "2026-05-31");

        ChartPart
            .Of(may, may.Before, ChartGrain.Month)
            .ShouldBe([new ChartPart(may, Days("2026-03-31", "2026-04-30"))]);
    }

    [Fact]
    public void Months_stand_beside_months_of_another_length()
    {
        var spring = Days("2026-02-01", "2026-03-31");

        ChartPart
            .Of(spring, Days("2025-12-01", "2026-01-31"), ChartGrain.Month)
            .ShouldBe([
                new ChartPart(Days("2026-02-01", "2026-02-28"), Days("2025-12-01", "2025-12-31")),
                new ChartPart(Days("2026-03-01", "2026-03-31"), Days("2026-01-01", "2026-01-31")),
            ]);
    }

    [Fact]
    public void A_week_stands_beside_the_days_that_it_is_compared_with()
    {
        var period = Days("2026-05-06", "2026-05-19");

        ChartPart
            .Of(period, period.Before, ChartGrain.Week)
            .ShouldBe([
                new ChartPart(Days("2026-05-06", "2026-05-10"), Days("2026-04-22", "2026-04-26")),
                new ChartPart(Days("2026-05-11", "2026-05-17"), Days("2026-04-27", "2026-05-03")),
                new ChartPart(Days("2026-05-18", "2026-05-19"), Days("2026-05-04", "2026-05-05")),
            ]);
    }
}
