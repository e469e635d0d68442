using CsCheck;
using Fendrik.Core.Bidding;
using Fendrik.Core.Lists;
using Ical.Net;

namespace Fendrik.Core.Tests.Lists;

/// <summary>Hours as calendar files: RFC 5545, read back by Ical.Net.</summary>
public class WeekCalendarTests
{
    private const string London = "Europe/London";
    private static readonly DateTimeOffset Stamp = new(2026, 5, 12, 14, 0, 0, TimeSpan.Zero);

    private static readonly Gen<PlanChange[]> Changes = Gen.Select(
        Gen.Int[0, 6],
        Gen.Int[0, WeekPlan.QuartersOfDay - 1],
        Gen.Int[1, WeekPlan.QuartersOfDay],
        Gen.Bool,
        Gen.OneOfConst<decimal?>(null, -100, 22.5m, 300),
        (day, from, length, shows, percent) =>
            new PlanChange(
                (DayOfWeek)day,
                from * 15,
                Math.Min(from + length, WeekPlan.QuartersOfDay) * 15,
                shows,
                percent
            )
    ).Array[1, 8];

    private static WeekPlan? Read(string events, out string? problem, string zone = London) =>
        WeekCalendar.Read(
            $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//a//b//EN\r\n{events.ReplaceLineEndings("\r\n")}\r\nEND:VCALENDAR\r\n",
            zone,
            out problem
        );

    private static string Event(string lines) =>
        $"BEGIN:VEVENT\nUID:1\nDTSTAMP:20260501T000000Z\nSUMMARY:Open\n{lines}\nEND:VEVENT";

    [Fact]
    public void Whatever_is_planned_comes_back_from_its_calendar_as_it_was() =>
        Changes.Sample(changes =>
        {
            if (WeekPlan.Always.With(changes, out _) is { } plan)
            {
                WeekCalendar.Read(WeekCalendar.Write(plan, "Ads show", London, Stamp), London, out _).ShouldBe(plan);
            }
        });

    [Fact]
    public void Days_alike_are_one_event_that_is_repeated_every_week()
    {
        var text = WeekCalendar.Write(WeekPlan.Of("Mon-Fri 8-17:30 +20%; Sat 9-12"), "Ads show", London, Stamp);

        // RFC 5545: 3.8.5.3 for the rule, 3.2.19 for the zone.
        text.ShouldContain("RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR");
        text.ShouldContain("DTSTART;TZID=Europe/London:20260105T080000");
        text.ShouldContain("BEGIN:VTIMEZONE");
        Calendar.Load(text)!.Events.Count.ShouldBe(2);
        Calendar.Load(text)!.Events[0]!.Summary.ShouldBe("Ads show (+20%)");
    }

    [Fact]
    public void Events_of_other_calendars_are_read_on_the_accounts_clock()
    {
        // In July London is an hour before UTC.
        Read(Event("DTSTART:20260706T070000Z\nDTEND:20260706T160000Z\nRRULE:FREQ=WEEKLY;BYDAY=MO,WE"), out _)!
            .ToString()
            .ShouldBe("Mon 08:00-17:00; Wed 08:00-17:00");
        Read(Event("DTSTART:20260706T080000\nDURATION:PT4H30M\nRRULE:FREQ=DAILY"), out _)!
            .ToString()
            .ShouldBe("daily 08:00-12:30");
    }

    [Fact]
    public void What_goes_past_midnight_goes_on_on_the_next_day() =>
        Read(Event("DTSTART:20260705T220000\nDTEND:20260706T020000"), out _)!
            .ToString()
            .ShouldBe("Mon 00:00-02:00; Sun 22:00-24:00");

    [Fact]
    public void A_whole_day_is_the_whole_day() =>
        Read(Event("DTSTART;VALUE=DATE:20260704\nRRULE:FREQ=WEEKLY"), out _)!.ToString().ShouldBe("Sat 00:00-24:00");

    [Theory]
    [InlineData("DTSTART:20260706T081000\nDTEND:20260706T100000", "go by quarters")]
    [InlineData("DTSTART:20260706T080000\nDTEND:20260706T100000\nRRULE:FREQ=MONTHLY", "repeated otherwise")]
    [InlineData("DTSTART:20260706T080000\nDTEND:20260706T100000\nRRULE:FREQ=WEEKLY;INTERVAL=2", "repeated otherwise")]
    [InlineData("DTSTART:20260706T080000\nDTEND:20260706T080000", "no length")]
    [InlineData("DTSTART:20260706T080000\nDTEND:20260706T100000\nX-FENDRIK-MODIFIER:much", "no number")]
    [InlineData("DTSTART:20260706T080000\nDTEND:20260706T100000\nX-FENDRIK-MODIFIER:-140", "between −100%")]
    public void An_event_that_cannot_be_taken_is_named_with_the_reason(string lines, string reason)
    {
        Read(Event(lines), out var problem).ShouldBeNull();
        problem.ShouldNotBeNull().ShouldContain(reason);
    }

    [Theory]
    [InlineData("")]
    [InlineData("no calendar")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:nonsense\r\n")]
    [InlineData("BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n")]
    public void A_file_that_is_no_calendar_is_refused(string text)
    {
        WeekCalendar.Read(text, London, out var problem).ShouldBeNull();
        problem.ShouldNotBeNull();
    }
}
