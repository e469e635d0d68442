namespace Fendrik.Core.Calls;

/// <summary>Calls of an hour of the week, over all weeks together.</summary>
/// <param name="Answered">Calls that somebody answered.</param>
/// <param name="Missed">Calls that nobody answered, or to an engaged line.</param>
public readonly record struct CallsOfHour(int Answered, int Missed);

/// <summary>Calls by the hours of the week.</summary>
public static class WeekOfCalls
{
    /// <summary>The hours in which anybody rang, by the day and the hour of the account's clock.</summary>
    public static IReadOnlyDictionary<(DayOfWeek Day, int Hour), CallsOfHour> Of(IEnumerable<LoggedCall> calls) =>
        calls
            .GroupBy(call => (call.At.DayOfWeek, call.At.Hour))
            .ToDictionary(
                hour => hour.Key,
                hour => new CallsOfHour(
                    hour.Count(call => call.End == CallEnd.Answered),
                    hour.Count(call => call.End != CallEnd.Answered)
                )
            );
}
