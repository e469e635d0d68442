using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using Calendar = Ical.Net.Calendar;

namespace Fendrik.Core.Lists;

/// <summary>
/// Hours of the week as a calendar file (iCalendar, RFC 5545): an event that is repeated every week for each part of the week. The modifier
/// stands in a property of our own, as the standard provides (3.8.8.2), and in the summary for people to read.
/// </summary>
public static class WeekCalendar
{
    /// <summary>Property with the modifier in per cent.</summary>
    public const string ModifierProperty = "X-FENDRIK-MODIFIER";

    /// <summary>Longest file that is read, in characters.</summary>
    public const int Longest = 1_000_000;

    private const int MostEvents = 2_000;

    /// <summary>A week from a Monday, so that days come in their order.</summary>
    private static readonly DateOnly Monday = new(2026, 1, 5);

    /// <summary>Writes a plan.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="name">What the events are called.</param>
    /// <param name="timeZone">IANA name of the account's time zone.</param>
    /// <param name="stamp">When it is written.</param>
    public static string Write(WeekPlan plan, string name, string timeZone, DateTimeOffset stamp)
    {
        var calendar = new Calendar { ProductId = "-//Fendrik//Hours//EN" };
        calendar.AddTimeZone(timeZone);
        foreach (var part in plan.Spans.GroupBy(span => (span.From, span.To, span.Percent)))
        {
            var first = Monday.AddDays(part.Min(span => WeekText.PlaceOf(span.Day)));
            var summary =
                part.Key.Percent == 0
                    ? name
                    : $"{name} ({part.Key.Percent.ToString("+0.#;-0.#", CultureInfo.InvariantCulture)}%)";
            var item = new CalendarEvent
            {
                Uid =
                    $"{part.Key.From}-{part.Key.To}-{string.Concat(part.Select(span => WeekText.Short(span.Day)))}@fendrik",
                Summary = summary,
                DtStamp = new CalDateTime(stamp.UtcDateTime, "UTC"),
                Start = At(first, part.Key.From, timeZone),
                End = At(first, part.Key.To, timeZone),
                RecurrenceRule = new RecurrenceRule(FrequencyType.Weekly)
                {
                    ByDay = [.. part.Select(span => new WeekDay(span.Day))],
                },
            };
            if (part.Key.Percent != 0)
            {
                item.AddProperty(ModifierProperty, part.Key.Percent.ToString(CultureInfo.InvariantCulture));
            }

            calendar.Events.Add(item);
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    /// <summary>Reads a plan from a calendar: what its events cover in a week.</summary>
    /// <param name="text">The file.</param>
    /// <param name="timeZone">IANA name of the account's time zone, in which the plan will hold.</param>
    /// <param name="problem">What is wrong with it, as a sentence; none when all is well.</param>
    /// <returns>The plan; none when it cannot be read.</returns>
    public static WeekPlan? Read(string text, string timeZone, out string? problem)
    {
        if (text.Length > Longest)
        {
            problem = $"The file has {text.Length:N0} characters; {Longest:N0} at most.";
            return null;
        }

        CalendarEvent[] events;
        try
        {
            events = Calendar.Load(text)?.Events.Take(MostEvents + 1).ToArray() ?? [];
        }
        // What the library makes of a broken file is its own business: it throws one of several.
        catch (Exception error) when (error is not OutOfMemoryException)
        {
            problem = "The file is no calendar that can be read. Save it as iCalendar (.ics) and choose it again.";
            return null;
        }

        if (events.Length is 0 or > MostEvents)
        {
            problem =
                events.Length == 0 ? "The file has no events." : $"The file has more than {MostEvents:N0} events.";
            return null;
        }

        var zone = DateTimeZoneProviders.Tzdb[timeZone];
        var parts = new List<PlanChange>();
        foreach (var each in events)
        {
            if (PartsOf(each, zone, out problem) is not { } read)
            {
                return null;
            }

            parts.AddRange(read);
        }

        return WeekPlan.Never.With(parts, out problem);
    }

    private static IReadOnlyList<PlanChange>? PartsOf(CalendarEvent item, DateTimeZone zone, out string? problem)
    {
        var name = Shortened(item.Summary);
        if (item.Start is not { } start)
        {
            problem = $"The event “{name}” has no beginning.";
            return null;
        }

        if (ProblemOf(item) is { } wrong)
        {
            problem = $"The event “{name}” {wrong}.";
            return null;
        }

        if (!TryPercent(item, out var percent))
        {
            problem = $"The event “{name}” has a modifier that is no number. Write {ModifierProperty}:20 for +20%.";
            return null;
        }

        var from = WallOf(start, zone);
        var to = WallOf(start.Add(item.EffectiveDuration), zone);
        var minutes = (int)Math.Round((to - from).TotalMinutes);
        if (minutes is <= 0 or > 7 * WeekHours.MinutesOfDay)
        {
            problem = $"The event “{name}” is longer than a week or has no length.";
            return null;
        }

        // The rule speaks of days where the event itself was written; those of the account may be others.
        var turned = (int)(DateOnly.FromDateTime(from).DayNumber - DateOnly.FromDateTime(start.Value).DayNumber);
        var parts = new List<PlanChange>();
        foreach (var day in DaysOf(item, start.Value.DayOfWeek))
        {
            Add(parts, ((int)day + turned + 7) % 7, (int)from.TimeOfDay.TotalMinutes, minutes, percent);
        }

        problem = parts.Any(part => part.From % WeekPlan.Quarter != 0 || part.To % WeekPlan.Quarter != 0)
            ? $"The event “{name}” goes from {from:HH:mm} to {to:HH:mm}; hours of the week go by quarters: 08:00, 08:15, 08:30, 08:45."
            : null;
        return problem is null ? parts : null;
    }

    private static string? ProblemOf(CalendarEvent item) =>
        item.RecurrenceRule is not { } rule ? null
        : rule.Frequency == FrequencyType.Daily && rule.Interval <= 1 ? null
        : rule.Frequency == FrequencyType.Weekly && rule.Interval <= 1 ? null
        : "is repeated otherwise than every week or every day; only a plain week can be taken";

    private static IEnumerable<DayOfWeek> DaysOf(CalendarEvent item, DayOfWeek own) =>
        item.RecurrenceRule switch
        {
            { Frequency: FrequencyType.Daily, ByDay.Count: 0 } => WeekText.Days,
            { ByDay: { Count: > 0 } days } => days.Select(day => day.DayOfWeek).Distinct(),
            _ => [own],
        };

    /// <summary>What goes past midnight goes on on the next day, after Sunday on Monday.</summary>
    private static void Add(List<PlanChange> parts, int day, int from, int minutes, decimal percent)
    {
        while (minutes > 0)
        {
            var to = Math.Min(from + minutes, WeekHours.MinutesOfDay);
            parts.Add(new PlanChange((DayOfWeek)day, from, to, true, percent));
            (minutes, from, day) = (minutes - (to - from), 0, (day + 1) % 7);
        }
    }

    private static bool TryPercent(CalendarEvent item, out decimal percent)
    {
        percent = 0;
        return item.Properties[ModifierProperty]?.Value is not { } said
            || decimal.TryParse(
                said.ToString(),
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out percent
            );
    }

    /// <summary>The clock on the wall of the account; times without a zone are there already.</summary>
    private static DateTime WallOf(CalDateTime time, DateTimeZone zone) =>
        time.IsFloating || !time.HasTime
            ? time.Value
            : Instant
                .FromDateTimeUtc(DateTime.SpecifyKind(time.AsUtc, DateTimeKind.Utc))
                .InZone(zone)
                .ToDateTimeUnspecified();

    private static CalDateTime At(DateOnly day, int minute, string timeZone) =>
        new(day.ToDateTime(TimeOnly.MinValue).AddMinutes(minute), timeZone);

    private static string Shortened(string? text) =>
        text is null ? "without a name"
        : text.Length > 60 ? text[..60] + "…"
        : text;
}
