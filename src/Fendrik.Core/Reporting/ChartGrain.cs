namespace Fendrik.Core.Reporting;

/// <summary>How fine a chart over time is.</summary>
public enum ChartGrain
{
    /// <summary>Days.</summary>
    Day = 1,

    /// <summary>Weeks from Monday (ISO 8601).</summary>
    Week = 2,

    /// <summary>Months of the calendar.</summary>
    Month = 3,
}

/// <summary>A part of a period, beside the part of the days before that stands in its place.</summary>
/// <param name="Now">The part.</param>
/// <param name="Before">What it is compared with; none where the days before have nothing there.</param>
public readonly record struct ChartPart(Period Now, Period? Before)
{
    /// <summary>Cuts a period into days, weeks or months, each beside what it is compared with. The first and the last may be shorter than the others.</summary>
    /// <param name="period">The period.</param>
    /// <param name="before">The days that it is compared with.</param>
    /// <param name="grain">How fine.</param>
    public static IReadOnlyList<ChartPart> Of(Period period, Period before, ChartGrain grain)
    {
        var parts = new List<ChartPart>();
        for (var first = period.First; first <= period.Last; )
        {
            var next = NextOf(first, grain);
            var now = new Period(first, next > period.Last ? period.Last : next.AddDays(-1));
            parts.Add(new ChartPart(now, Beside(now, period, before, grain)));
            first = next;
        }

        return parts;
    }

    private static DateOnly NextOf(DateOnly day, ChartGrain grain) =>
        grain switch
        {
            ChartGrain.Day => day.AddDays(1),
            // Monday is 1 by ISO 8601; .NET counts from Sunday.
            ChartGrain.Week => day.AddDays(day.DayOfWeek == DayOfWeek.Sunday ? 1 : 8 - (int)day.DayOfWeek),
            ChartGrain.Month => new DateOnly(day.Year, day.Month, 1).AddMonths(1),
        };

    private static Period? Beside(Period part, Period period, Period before, ChartGrain grain)
    {
        var days = before.First.DayNumber - period.First.DayNumber;
        var (first, last) = grain switch
        {
            ChartGrain.Day or ChartGrain.Week => (part.First.AddDays(days), part.Last.AddDays(days)),
            ChartGrain.Month => period.MonthsSince(before) is { } months
                ? (part.First.AddMonths(-months), part.First.AddMonths(1 - months).AddDays(-1))
                : (part.First.AddDays(days), part.Last.AddDays(days)),
        };
        first = first < before.First ? before.First : first;
        last = last > before.Last ? before.Last : last;
        return last < first ? null : new Period(first, last);
    }
}
