namespace Fendrik.Core.Reporting;

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
}
