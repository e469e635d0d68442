using Fendrik.Core.Calls;

namespace Fendrik.Core.Tests.Calls;

/// <summary>Calls by the hours of the week.</summary>
public class WeekOfCallsTests
{
    [Fact]
    public void An_hour_has_the_calls_of_all_weeks_answered_or_in_vain()
    {
        LoggedCall Call(int day, int minute, CallEnd end) =>
            new(
                new DateTime(2026, 5, day, 17, minute, 0),
                10,
                end == CallEnd.Answered ? 90 : 0,
                end,
                true,
                "c",
                "1",
                1
            );

        var week = WeekOfCalls.Of([
            Call(4, 5, CallEnd.Answered),
            Call(11, 40, CallEnd.Missed),
            Call(11, 59, CallEnd.Engaged),
            Call(12, 0, CallEnd.Answered),
        ]);

        week.Count.ShouldBe(2);
        week[(DayOfWeek.Monday, 17)].ShouldBe(new CallsOfHour(1, 2));
        week[(DayOfWeek.Tuesday, 17)].ShouldBe(new CallsOfHour(1, 0));
    }
}
