using System.Text.Json;
using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Bidding;

/// <summary>A part of one day in which ads show, with the modifier that holds in it.</summary>
/// <param name="Day">The day.</param>
/// <param name="From">Minutes after midnight, from 0; a quarter of an hour.</param>
/// <param name="To">Minutes after midnight, up to but without; at most 1,440.</param>
/// <param name="Percent">Per cent more or less on bids; 0 for bids as they are.</param>
public readonly record struct PlannedSpan(DayOfWeek Day, int From, int To, decimal Percent);

/// <summary>What is to become of a part of the week.</summary>
/// <param name="Day">The day.</param>
/// <param name="From">Minutes after midnight, from 0; a quarter of an hour.</param>
/// <param name="To">Minutes after midnight, up to but without; at most 1,440.</param>
/// <param name="Shows">Whether ads show; none to leave that.</param>
/// <param name="Percent">The modifier; none to leave it. What does not show has none.</param>
public sealed record PlanChange(DayOfWeek Day, int From, int To, bool? Shows, decimal? Percent);

/// <summary>Reads and writes a plan as the text in which it is kept.</summary>
internal sealed class WeekPlanConverter : JsonConverter<WeekPlan>
{
    /// <inheritdoc/>
    public override WeekPlan Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        WeekPlan.Read(reader.GetString() ?? "", out var problem) ?? throw new JsonException(problem);

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, WeekPlan value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}

/// <summary>
/// When ads show in the week, with modifiers, on the clock on the wall of the account's time zone and at quarter hours. An hour that
/// the clock skips never comes; one that it goes through twice counts twice.
/// </summary>
[JsonConverter(typeof(WeekPlanConverter))]
public sealed class WeekPlan : IEquatable<WeekPlan>
{
    /// <summary>Minutes of the smallest part.</summary>
    public const int Quarter = 15;

    /// <summary>Quarter hours of a day.</summary>
    public const int QuartersOfDay = WeekHours.MinutesOfDay / Quarter;

    /// <summary>Quarter hours of a week.</summary>
    public const int QuartersOfWeek = 7 * QuartersOfDay;

    private const int MostText = TextValue.LongestText;

    // From Monday at midnight on; none where nothing shows.
    private readonly decimal?[] _quarters;

    private WeekPlan(decimal?[] quarters)
    {
        _quarters = quarters;
        Spans = [.. SpansOf(quarters)];
    }

    /// <summary>Every hour of the week, with bids as they are: what holds without a plan.</summary>
    public static WeekPlan Always { get; } = new([.. Enumerable.Repeat<decimal?>(0, QuartersOfWeek)]);

    /// <summary>No hour at all: what others are built on.</summary>
    internal static WeekPlan Never { get; } = new(new decimal?[QuartersOfWeek]);

    /// <summary>The parts in which ads show, from Monday on; those of the same modifier that touch on a day are one.</summary>
    public IReadOnlyList<PlannedSpan> Spans { get; }

    /// <summary>True when it says no more than no plan would.</summary>
    public bool IsAlways => Equals(Always);

    /// <summary>Minutes of the week in which ads show.</summary>
    public int Minutes => _quarters.Count(each => each is not null) * Quarter;

    /// <summary>Their share of the week: 0 to 1. 40 hours are 23.8% (common practice, no source).</summary>
    public decimal ShareOfWeek => Minutes / (decimal)(7 * WeekHours.MinutesOfDay);

    /// <summary>The modifier of a minute in per cent; none where ads do not show.</summary>
    /// <param name="day">The day.</param>
    /// <param name="minute">Minutes after midnight on the wall.</param>
    public decimal? At(DayOfWeek day, int minute) => _quarters[PlaceOf(day, minute)];

    /// <summary>The hours in which ads show, whatever their modifiers.</summary>
    public WeekHours Hours => WeekHours.Of(Spans.Select(each => new HourSpan(each.Day, each.From, each.To)))!;

    /// <summary>Share of an hour in which ads show: 0 to 1 in quarters.</summary>
    /// <param name="day">The day.</param>
    /// <param name="hour">Hour of the clock on the wall: 0 to 23.</param>
    public double ShareOfHour(DayOfWeek day, int hour)
    {
        const int QuartersOfHour = 60 / Quarter;
        var shown = 0;
        for (var quarter = 0; quarter < QuartersOfHour; quarter++)
        {
            shown += _quarters[PlaceOf(day, hour * 60 + quarter * Quarter)] is null ? 0 : 1;
        }

        return shown / (double)QuartersOfHour;
    }

    /// <summary>How long ads really show on a day: an hour that the clock skips is not there, one that comes twice counts twice.</summary>
    /// <param name="day">The day.</param>
    /// <param name="days">Days of the account's time zone.</param>
    public TimeSpan TimeOn(DateOnly day, AccountDay days) =>
        days.HoursOf(day)
            .Aggregate(TimeSpan.Zero, (sum, hour) => sum + TimeSpan.FromHours(ShareOfHour(day.DayOfWeek, hour)));

    /// <summary>The lowest and the highest modifier, 0 where bids are as they are.</summary>
    public (decimal Lowest, decimal Highest) Range =>
        (Spans.Min(each => each.Percent), Spans.Max(each => each.Percent));

    /// <summary>A plan that is known to be written well.</summary>
    /// <exception cref="FormatException">It is not.</exception>
    public static WeekPlan Of(string text) => Read(text, out var problem) ?? throw new FormatException(problem);

    /// <summary>
    /// Reads a plan as people write it: <c>Mon-Fri 08:00-12:00 +20%, 12:00-17:30; Sat 9-12</c>. What ends before it begins goes on past
    /// midnight.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="problem">What is wrong with it, as the end of a sentence; none when all is well.</param>
    /// <returns>The plan; none when it cannot be read.</returns>
    public static WeekPlan? Read(string text, out string? problem)
    {
        if (WeekText.Read(text, MostText, percents: true, out problem) is not { } parts)
        {
            return null;
        }

        var quarters = new decimal?[QuartersOfWeek];
        foreach (var (span, percent) in parts)
        {
            problem = ProblemOf(span.From, span.To, percent);
            for (var minute = span.From; problem is null && minute < span.To; minute += Quarter)
            {
                ref var quarter = ref quarters[PlaceOf(span.Day, minute)];
                problem =
                    quarter is { } other && other != percent
                        ? $"says two modifiers for {WeekText.Short(span.Day)} {WeekText.Clock(minute)}; let its times not overlap"
                        : null;
                quarter = percent;
            }

            if (problem is not null)
            {
                return null;
            }
        }

        if (parts.Count == 0)
        {
            problem = "says no hours; write them like Mon-Fri 08:00-17:30";
            return null;
        }

        return new WeekPlan(quarters);
    }

    /// <summary>The plan after changes, applied in their order.</summary>
    /// <param name="changes">The changes.</param>
    /// <param name="problem">Why it cannot be, as a sentence; none when all is well.</param>
    /// <returns>The plan; none when a change cannot be, or nothing of the week would be left.</returns>
    public WeekPlan? With(IEnumerable<PlanChange> changes, out string? problem)
    {
        var quarters = _quarters.ToArray();
        foreach (var change in changes)
        {
            if (ProblemOf(change.From, change.To, change.Percent ?? 0) is { } wrong)
            {
                problem = $"{WeekText.Short(change.Day)} {WeekText.Clock(change.From)}: {wrong}.";
                return null;
            }

            for (var minute = change.From; minute < change.To; minute += Quarter)
            {
                ref var quarter = ref quarters[PlaceOf(change.Day, minute)];
                quarter = (change.Shows ?? quarter is not null) ? change.Percent ?? quarter ?? 0 : null;
            }
        }

        return Of(quarters, out problem);
    }

    /// <summary>The plan with a day that becomes like another; none when nothing of the week would be left.</summary>
    /// <param name="day">The day that changes.</param>
    /// <param name="like">The day that it becomes like.</param>
    /// <param name="problem">Why it cannot be, as a sentence; none when all is well.</param>
    public WeekPlan? With(DayOfWeek day, DayOfWeek like, out string? problem)
    {
        var quarters = _quarters.ToArray();
        _quarters.AsSpan(PlaceOf(like, 0), QuartersOfDay).CopyTo(quarters.AsSpan(PlaceOf(day, 0)));
        return Of(quarters, out problem);
    }

    /// <summary>The plan in the form in which it is kept; it reads back as the same plan.</summary>
    public override string ToString() =>
        WeekText.Write(Spans.Select(each => new WeekPart(new HourSpan(each.Day, each.From, each.To), each.Percent)));

    /// <inheritdoc/>
    public bool Equals(WeekPlan? other) => other is not null && _quarters.AsSpan().SequenceEqual(other._quarters);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as WeekPlan);

    /// <inheritdoc/>
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);

    private static WeekPlan? Of(decimal?[] quarters, out string? problem)
    {
        problem = Array.TrueForAll(quarters, each => each is null)
            ? "No hour of the week would be left. Pause the campaign if it is not to show at all."
            : null;
        return problem is null ? new WeekPlan(quarters) : null;
    }

    private static int PlaceOf(DayOfWeek day, int minute) => WeekText.PlaceOf(day) * QuartersOfDay + minute / Quarter;

    private static string? ProblemOf(int from, int to, decimal percent) =>
        from < 0 || to > WeekHours.MinutesOfDay || from >= to ? "is no part of a day"
        : from % Quarter != 0 || to % Quarter != 0
            ? $"says {WeekText.Clock(from)}-{WeekText.Clock(to)}; the hours of a campaign go by quarters: 08:00, 08:15, 08:30, 08:45"
        : percent is < PercentValue.Lowest or > PercentValue.Highest
            ? "says a modifier that is not between −100% and +100,000%"
        : null;

    private static IEnumerable<PlannedSpan> SpansOf(decimal?[] quarters)
    {
        foreach (var day in WeekText.Days)
        {
            var first = PlaceOf(day, 0);
            for (var from = 0; from < QuartersOfDay; )
            {
                var to = from + 1;
                while (to < QuartersOfDay && quarters[first + to] == quarters[first + from])
                {
                    to++;
                }

                if (quarters[first + from] is { } percent)
                {
                    yield return new PlannedSpan(day, from * Quarter, to * Quarter, percent);
                }

                from = to;
            }
        }
    }
}
