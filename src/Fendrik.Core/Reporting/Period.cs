namespace Fendrik.Core.Reporting;

/// <summary>Which days others are compared with.</summary>
public enum Comparison
{
    /// <summary>As many days, just before.</summary>
    DaysBefore = 1,

    /// <summary>The same days of the week, as many whole weeks back as it takes.</summary>
    SameWeekdaysBefore = 2,

    /// <summary>The same days of the month before; for whole months as many whole months.</summary>
    MonthBefore = 3,

    /// <summary>The same days a year before.</summary>
    YearBefore = 4,

    /// <summary>Days that somebody chose, as many as they like.</summary>
    Chosen = 5,
}

/// <summary>Days from a first to a last, both counted.</summary>
public readonly record struct Period
{
    /// <summary>A period of at least one day.</summary>
    /// <exception cref="ArgumentException">The last day is before the first.</exception>
    public Period(DateOnly first, DateOnly last)
    {
        if (last < first)
        {
            throw new ArgumentException($"The last day ({last:O}) is before the first ({first:O}).", nameof(last));
        }

        (First, Last) = (first, last);
    }

    /// <summary>First day.</summary>
    public DateOnly First { get; }

    /// <summary>Last day.</summary>
    public DateOnly Last { get; }

    /// <summary>Number of days.</summary>
    public int Days => Last.DayNumber - First.DayNumber + 1;

    /// <summary>The period of the same length that ends the day before this one begins.</summary>
    public Period Before => new(First.AddDays(-Days), First.AddDays(-1));

    /// <summary>The days that these are compared with.</summary>
    /// <param name="comparison">Which.</param>
    /// <param name="chosen">The days that somebody chose; the days before where these are asked for and nobody chose any.</param>
    public Period ComparedWith(Comparison comparison, Period? chosen = null)
    {
        const int Week = 7;
        return comparison switch
        {
            Comparison.DaysBefore => Before,
            // As many whole weeks back as it takes to get past the first day.
            Comparison.SameWeekdaysBefore => Back((Days + Week - 1) / Week * Week),
            Comparison.MonthBefore => IsWholeMonths
                ? new Period(First.AddMonths(-Months), First.AddDays(-1))
                : new Period(First.AddMonths(-1), Last.AddMonths(-1)),
            Comparison.YearBefore => IsWholeMonths
                ? new Period(First.AddYears(-1), Last.AddDays(1).AddYears(-1).AddDays(-1))
                : new Period(First.AddYears(-1), Last.AddYears(-1)),
            Comparison.Chosen => chosen ?? Before,
        };
    }

    /// <summary>
    /// By how many months these days come after others, where both are as many whole months: a month then stands beside a month, however long the two
    /// are. None for other days.
    /// </summary>
    public int? MonthsSince(Period earlier) =>
        IsWholeMonths && earlier.IsWholeMonths && Months == earlier.Months
            ? (First.Year - earlier.First.Year) * 12 + First.Month - earlier.First.Month
            : null;

    /// <summary>The weeks from Monday to Sunday that lie wholly within (ISO 8601); none where there are none.</summary>
    public Period? WholeWeeks
    {
        get
        {
            var monday = First.AddDays((DayOfWeek.Monday - First.DayOfWeek + 7) % 7);
            var sunday = Last.AddDays(-(int)Last.DayOfWeek);
            return sunday > monday ? new Period(monday, sunday) : null;
        }
    }

    /// <summary>Both days, as ISO 8601 writes them.</summary>
    public override string ToString() => $"{First:yyyy-MM-dd} to {Last:yyyy-MM-dd}";

    private bool IsWholeMonths => First.Day == 1 && Last.AddDays(1).Day == 1;

    private int Months => (Last.Year - First.Year) * 12 + Last.Month - First.Month + 1;

    private Period Back(int days) => new(First.AddDays(-days), Last.AddDays(-days));

    /// <summary>The fewest periods that have just these days.</summary>
    public static IEnumerable<Period> Of(IEnumerable<DateOnly> days)
    {
        Period? open = null;
        foreach (var day in days.Distinct().Order())
        {
            if (open is { } period && day == period.Last.AddDays(1))
            {
                open = new Period(period.First, day);
            }
            else
            {
                if (open is { } done)
                {
                    yield return done;
                }

                open = new Period(day, day);
            }
        }

        if (open is { } last)
        {
            yield return last;
        }
    }
}
