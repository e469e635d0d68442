using System.Text.Json;
using System.Text.Json.Serialization;

namespace Fendrik.Core.Accounts;

/// <summary>A part of one day of the week.</summary>
/// <param name="Day">The day.</param>
/// <param name="From">Minutes after midnight, from 0.</param>
/// <param name="To">Minutes after midnight, up to but without; at most 1,440.</param>
public readonly record struct HourSpan(DayOfWeek Day, int From, int To);

/// <summary>Reads and writes hours of the week as the text in which they are kept.</summary>
internal sealed class WeekHoursConverter : JsonConverter<WeekHours>
{
    /// <inheritdoc/>
    public override WeekHours Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        WeekHours.Read(reader.GetString() ?? "", out var problem) ?? throw new JsonException(problem);

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, WeekHours value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}

/// <summary>Hours of the week, on the clock of the account's time zone: when something shows, or somebody answers.</summary>
[JsonConverter(typeof(WeekHoursConverter))]
public sealed class WeekHours : IEquatable<WeekHours>
{
    /// <summary>Minutes of a day.</summary>
    public const int MinutesOfDay = 24 * 60;

    /// <summary>Minutes of a week.</summary>
    public const int MinutesOfWeek = 7 * MinutesOfDay;

    private const int MostText = 400;

    private readonly HourSpan[] _spans;

    private WeekHours(IEnumerable<HourSpan> spans) => _spans = Joined(spans);

    /// <summary>The parts, from Monday on; none overlaps or touches another of its day.</summary>
    public IReadOnlyList<HourSpan> Spans => _spans;

    /// <summary>Minutes of the week that they cover.</summary>
    public int Minutes => _spans.Sum(span => span.To - span.From);

    /// <summary>Minutes of the week that they cover within others; none for the whole week.</summary>
    public int MinutesWithin(WeekHours? others) =>
        others is null
            ? Minutes
            : _spans.Sum(span =>
                others
                    ._spans.Where(each => each.Day == span.Day)
                    .Sum(each => Math.Max(0, Math.Min(each.To, span.To) - Math.Max(each.From, span.From)))
            );

    /// <summary>Their share of the week: 0 to 1.</summary>
    public decimal ShareOfWeek => Minutes / (decimal)MinutesOfWeek;

    /// <summary>True when they cover a minute of a day.</summary>
    public bool Holds(DayOfWeek day, int minute)
    {
        foreach (var span in _spans)
        {
            if (span.Day == day && span.From <= minute && minute < span.To)
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>Hours that are known to be written well.</summary>
    /// <exception cref="FormatException">They are not.</exception>
    public static WeekHours Of(string text) => Read(text, out var problem) ?? throw new FormatException(problem);

    /// <summary>
    /// Reads hours as people write them: <c>Mon-Fri 08:00-17:30; Sat 9-12</c>, <c>daily 8:00-20:00</c>. Several parts of a day have
    /// commas between; what ends before it begins goes on past midnight.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="problem">What is wrong with it, as the end of a sentence; none when all is well.</param>
    /// <returns>The hours; none when they cannot be read.</returns>
    public static WeekHours? Read(string text, out string? problem)
    {
        var parts = WeekText.Read(text, MostText, percents: false, out problem);
        if (parts is { Count: 0 })
        {
            problem = "says no hours; write them like Mon-Fri 08:00-17:30";
            return null;
        }

        return parts is null ? null : new WeekHours(parts.Select(part => part.Span));
    }

    /// <summary>Hours of these parts; none when there are none.</summary>
    public static WeekHours? Of(IEnumerable<HourSpan> spans)
    {
        var hours = new WeekHours(spans);
        return hours._spans.Length == 0 ? null : hours;
    }

    /// <summary>The hours in the form in which they are kept; it reads back as the same hours.</summary>
    public override string ToString() => WeekText.Write(_spans.Select(span => new WeekPart(span, 0)));

    /// <inheritdoc/>
    public bool Equals(WeekHours? other) => other is not null && _spans.AsSpan().SequenceEqual(other._spans);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as WeekHours);

    /// <inheritdoc/>
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);

    private static HourSpan[] Joined(IEnumerable<HourSpan> spans)
    {
        var joined = new List<HourSpan>();
        foreach (var span in spans.OrderBy(span => WeekText.PlaceOf(span.Day)).ThenBy(span => span.From))
        {
            if (joined.Count > 0 && joined[^1] is var last && last.Day == span.Day && last.To >= span.From)
            {
                joined[^1] = last with { To = Math.Max(last.To, span.To) };
            }
            else
            {
                joined.Add(span);
            }
        }

        return [.. joined];
    }
}
