using System.Globalization;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Calls;

/// <summary>An hour of the day on some days of the week, with its calls.</summary>
/// <param name="Hour">Hour of the clock on the wall: 0 to 23.</param>
/// <param name="Answered">Calls that somebody answered.</param>
/// <param name="Missed">Calls that nobody answered, or to an engaged line.</param>
public readonly record struct HourOfCalls(int Hour, int Answered, int Missed)
{
    /// <summary>All hours of a day.</summary>
    public static IReadOnlyList<HourOfCalls> Of(IEnumerable<LoggedCall> calls)
    {
        var byHour = calls.ToLookup(call => call.At.Hour);
        return
        [
            .. Enumerable
                .Range(0, 24)
                .Select(hour => new HourOfCalls(
                    hour,
                    byHour[hour].Count(call => call.End == CallEnd.Answered),
                    byHour[hour].Count(call => call.End != CallEnd.Answered)
                )),
        ];
    }
}

/// <summary>Calls in vain, and what was paid for them.</summary>
/// <param name="Missed">Calls that nobody answered, or to an engaged line.</param>
/// <param name="Outside">Of these, calls outside the answering hours.</param>
/// <param name="OutsideCost">What the clicks of those outside cost, each click once.</param>
/// <param name="After">Of those outside, calls on a day with answering hours after they ended.</param>
/// <param name="Closes">When the hours end on most of the days of these calls, in minutes; none without any.</param>
/// <param name="Engaged">Calls to an engaged line within the hours.</param>
/// <param name="EngagedAt">The day and hour at which most of them came; none without any.</param>
/// <param name="InVain">
/// How many of those outside would have counted: as large a share as of the calls within the hours does.
/// </param>
public sealed record MissedCalls(
    int Missed,
    int Outside,
    decimal OutsideCost,
    int After,
    int? Closes,
    int Engaged,
    (DayOfWeek Day, int Hour)? EngagedAt,
    double InVain
)
{
    /// <summary>Looks at calls in vain.</summary>
    /// <param name="calls">The calls.</param>
    /// <param name="hours">When somebody takes calls; none where nobody said: then none is outside.</param>
    public static MissedCalls Of(IReadOnlyList<JudgedCall> calls, WeekHours? hours)
    {
        static bool IsMissed(JudgedCall each) => each.Call.End != CallEnd.Answered;
        bool IsWithin(JudgedCall each) =>
            hours is null || hours.Holds(each.Call.At.DayOfWeek, each.Call.At.Hour * 60 + each.Call.At.Minute);
        int? ClosesOn(DayOfWeek day) => hours?.Spans.Where(span => span.Day == day).Select(span => (int?)span.To).Max();

        var missed = calls.Where(IsMissed).ToArray();
        var outside = missed.Where(each => !IsWithin(each)).ToArray();
        var after = outside
            .Where(each =>
                ClosesOn(each.Call.At.DayOfWeek) is { } end && each.Call.At.Hour * 60 + each.Call.At.Minute >= end
            )
            .ToArray();
        var within = calls.Where(IsWithin).ToArray();
        var engaged = missed.Where(each => each.Call.End == CallEnd.Engaged && IsWithin(each)).ToArray();
        return new MissedCalls(
            missed.Length,
            outside.Length,
            outside.DistinctBy(each => each.Call.ClickId).Sum(each => each.Call.Cost),
            after.Length,
            after
                .GroupBy(each => ClosesOn(each.Call.At.DayOfWeek)!.Value)
                .OrderByDescending(same => same.Count())
                .ThenBy(same => same.Key)
                .Select(same => (int?)same.Key)
                .FirstOrDefault(),
            engaged.Length,
            engaged
                .GroupBy(each => (each.Call.At.DayOfWeek, each.Call.At.Hour))
                .OrderByDescending(same => same.Count())
                .ThenBy(same => same.Key)
                .Select(same => ((DayOfWeek, int)?)same.Key)
                .FirstOrDefault(),
            within.Length > 0
                ? outside.Length * within.Count(each => each.Verdict == CallVerdict.Counts) / (double)within.Length
                : 0
        );
    }

    /// <summary>What there is to say of them: a heading, and sentences.</summary>
    /// <param name="currency">The account's currency.</param>
    /// <param name="hours">When somebody takes calls.</param>
    public (string Title, string Says) InWords(Currency currency, WeekHours? hours)
    {
        if (hours is null)
        {
            return (
                Missed == 0 ? "No call was missed" : $"{Calls(Missed)} in vain",
                "Say when somebody takes calls: then it can be told which of them came while nobody was there."
            );
        }

        var which = Engaged == 0 ? "missed calls" : "calls in vain";
        var title =
            Missed == 0 ? "No call was missed"
            : Outside == 0 ? $"{Calls(Missed)} in vain, none of them outside your hours"
            : After * 2 > Outside && Closes is { } end ? $"{After} of {Missed} {which} came after {Clock(end)}"
            : $"{Outside} of {Missed} {which} came outside your hours";
        var outside =
            Outside == 0
                ? ""
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"The clicks of the {Outside} outside your hours cost {new Money(currency.Round(OutsideCost), currency)}. Of the calls within the hours enough count that about {Math.Round(InVain):0} customers rang in vain."
                );
        var engaged =
            Engaged == 0 || EngagedAt is not var (day, hour)
                ? ""
                : $"{Calls(Engaged)} met an engaged line, mostly {day}s at {hour}.";
        return (title, string.Join(" ", new[] { outside, engaged }.Where(each => each.Length > 0)));
    }

    private static string Calls(int count) => count == 1 ? "1 call" : $"{count} calls";

    private static string Clock(int minute) =>
        string.Create(CultureInfo.InvariantCulture, $"{minute / 60:00}:{minute % 60:00}");
}
