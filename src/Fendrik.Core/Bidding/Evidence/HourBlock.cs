using Fendrik.Core.Accounts;

namespace Fendrik.Core.Bidding.Evidence;

/// <summary>
/// A part of the week over which figures are summed before anything is said of them: single hours have too few. Weekdays and weekends
/// apart, by parts of the day; where these begin is Fendrik's own choice.
/// </summary>
/// <param name="Number">Its number, from 0.</param>
/// <param name="IsWeekend">Saturday and Sunday; else Monday to Friday.</param>
/// <param name="From">First hour of the clock on the wall.</param>
/// <param name="To">Hour up to but without.</param>
public sealed record HourBlock(int Number, bool IsWeekend, int From, int To)
{
    private static readonly int[] Begins = [0, 6, 9, 12, 15, 18, 21, 24];

    /// <summary>Blocks of a day: weekdays have the first so many numbers, weekends the next.</summary>
    public static int OfDay => Begins.Length - 1;

    /// <summary>All of them; each hour of the week is in just one.</summary>
    public static IReadOnlyList<HourBlock> All { get; } =
    [
        .. from weekend in new[] { false, true }
        from at in Enumerable.Range(0, Begins.Length - 1)
        select new HourBlock((weekend ? OfDay : 0) + at, weekend, Begins[at], Begins[at + 1]),
    ];

    /// <summary>For a person: Mon–Fri 9–12.</summary>
    public string Name => $"{(IsWeekend ? "Sat–Sun" : "Mon–Fri")} {From}–{To}";

    /// <summary>The days that it is on.</summary>
    public IEnumerable<DayOfWeek> Days => WeekText.Days.Where(day => IsWeekendDay(day) == IsWeekend);

    /// <summary>The block of an hour.</summary>
    /// <param name="day">The day.</param>
    /// <param name="hour">Hour of the clock on the wall: 0 to 23.</param>
    public static HourBlock Of(DayOfWeek day, int hour) =>
        All.First(block => block.IsWeekend == IsWeekendDay(day) && block.From <= hour && hour < block.To);

    /// <summary>What makes a plan show in it with a modifier.</summary>
    public IEnumerable<PlanChange> ChangesTo(decimal percent) =>
        Days.Select(day => new PlanChange(day, From * 60, To * 60, null, percent));

    /// <summary>The modifiers of a plan within it, from lowest to highest; none where it does not show there at all.</summary>
    public (decimal Lowest, decimal Highest)? Within(WeekPlan plan)
    {
        decimal[] percents =
        [
            .. plan
                .Spans.Where(span => IsWeekendDay(span.Day) == IsWeekend && span.From < To * 60 && span.To > From * 60)
                .Select(span => span.Percent),
        ];
        return percents.Length == 0 ? null : (percents.Min(), percents.Max());
    }

    private static bool IsWeekendDay(DayOfWeek day) => day is DayOfWeek.Saturday or DayOfWeek.Sunday;
}
