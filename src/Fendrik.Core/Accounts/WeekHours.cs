using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;

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
public sealed partial class WeekHours : IEquatable<WeekHours>
{
    /// <summary>Minutes of a day.</summary>
    public const int MinutesOfDay = 24 * 60;

    private const int DaysOfWeek = 7;
    private const int MostText = 400;

    private static readonly DayOfWeek[] Order =
    [
        DayOfWeek.Monday,
        DayOfWeek.Tuesday,
        DayOfWeek.Wednesday,
        DayOfWeek.Thursday,
        DayOfWeek.Friday,
        DayOfWeek.Saturday,
        DayOfWeek.Sunday,
    ];

    private readonly HourSpan[] _spans;

    private WeekHours(IEnumerable<HourSpan> spans) => _spans = Joined(spans);

    /// <summary>The parts, from Monday on; none overlaps or touches another of its day.</summary>
    public IReadOnlyList<HourSpan> Spans => _spans;

    /// <summary>Minutes of the week that they cover.</summary>
    public int Minutes => _spans.Sum(span => span.To - span.From);

    /// <summary>Their share of the week: 0 to 1.</summary>
    public decimal ShareOfWeek => Minutes / (decimal)(DaysOfWeek * MinutesOfDay);

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
        problem = null;
        var spans = new List<HourSpan>();
        if (text.Length > MostText)
        {
            problem = $"has {text.Length:N0} characters; {MostText} at most";
            return null;
        }

        foreach (
            var part in text.Split([';', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
        )
        {
            var read = Entry().Match(part);
            if (!read.Success || DaysOf(read.Groups["days"].Value) is not { } days)
            {
                problem = $"“{part}” is not a time of the week; write it like Mon-Fri 08:00-17:30; Sat 09:00-12:00";
                return null;
            }

            foreach (var span in read.Groups["span"].Captures.Select(each => Times().Match(each.Value)))
            {
                if (MinuteOf(span, "from") is not { } from || MinuteOf(span, "to") is not { } to || from == to)
                {
                    problem = $"“{span.Value}” is not a time of the day; write it like 08:00-17:30";
                    return null;
                }

                foreach (var day in days)
                {
                    spans.Add(new HourSpan(day, from, from < to ? to : MinutesOfDay));
                    if (to < from && to > 0)
                    {
                        spans.Add(new HourSpan(Next(day), 0, to));
                    }
                }
            }
        }

        if (spans.Count == 0)
        {
            problem = "says no hours; write them like Mon-Fri 08:00-17:30";
            return null;
        }

        return new WeekHours(spans);
    }

    /// <summary>The hours in the form in which they are kept; it reads back as the same hours.</summary>
    public override string ToString()
    {
        var text = new StringBuilder();
        var ofDays = Order
            .Select(day =>
                (Day: day, Text: string.Join(", ", _spans.Where(span => span.Day == day).Select(span => Written(span))))
            )
            .ToArray();
        for (var first = 0; first < DaysOfWeek; )
        {
            var last = first;
            while (last + 1 < DaysOfWeek && ofDays[last + 1].Text == ofDays[first].Text)
            {
                last++;
            }

            if (ofDays[first].Text.Length > 0)
            {
                text.Append(text.Length > 0 ? "; " : "")
                    .Append(
                        (first, last) is (0, DaysOfWeek - 1) ? "daily"
                        : first == last ? Short(ofDays[first].Day)
                        : $"{Short(ofDays[first].Day)}-{Short(ofDays[last].Day)}"
                    )
                    .Append(' ')
                    .Append(ofDays[first].Text);
            }

            first = last + 1;
        }

        return text.ToString();
    }

    /// <inheritdoc/>
    public bool Equals(WeekHours? other) => other is not null && _spans.AsSpan().SequenceEqual(other._spans);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as WeekHours);

    /// <inheritdoc/>
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);

    private static HourSpan[] Joined(IEnumerable<HourSpan> spans)
    {
        var joined = new List<HourSpan>();
        foreach (var span in spans.OrderBy(span => Array.IndexOf(Order, span.Day)).ThenBy(span => span.From))
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

    private static string Written(HourSpan span) => $"{Clock(span.From)}-{Clock(span.To)}";

    private static string Clock(int minute) =>
        string.Create(CultureInfo.InvariantCulture, $"{minute / 60:00}:{minute % 60:00}");

    private static string Short(DayOfWeek day) => day.ToString()[..3];

    private static DayOfWeek Next(DayOfWeek day) => (DayOfWeek)(((int)day + 1) % DaysOfWeek);

    private static int? MinuteOf(Match span, string name)
    {
        var hour = int.Parse(span.Groups[name + "Hour"].Value, CultureInfo.InvariantCulture);
        var minute = span.Groups[name + "Minute"] is { Success: true } said
            ? int.Parse(said.Value, CultureInfo.InvariantCulture)
            : 0;
        return hour < 24 && minute < 60 ? hour * 60 + minute
            : name == "to" && (hour, minute) == (24, 0) ? MinutesOfDay
            : null;
    }

    private static IReadOnlyList<DayOfWeek>? DaysOf(string text)
    {
        var said = text.Trim().ToLowerInvariant();
        if (said is "" or "daily" or "every day" or "all days")
        {
            return Order;
        }

        if (said is "weekdays")
        {
            return Order[..5];
        }

        if (said is "weekends" or "weekend")
        {
            return Order[5..];
        }

        var days = new List<DayOfWeek>();
        foreach (var part in said.Split(',', StringSplitOptions.TrimEntries))
        {
            var ends = part.Split(['-', '–'], StringSplitOptions.TrimEntries);
            if (ends.Length > 2 || DayOf(ends[0]) is not { } first || DayOf(ends[^1]) is not { } last)
            {
                return null;
            }

            for (var day = first; ; day = Next(day))
            {
                days.Add(day);
                if (day == last)
                {
                    break;
                }
            }
        }

        return days;
    }

    /// <summary>A day by its name or the beginning of it: two letters tell them apart.</summary>
    private static DayOfWeek? DayOf(string word)
    {
        const int Fewest = 2;
        var plain = word.TrimEnd('.');
        return plain.Length < Fewest
            ? null
            : Order
                .Where(day => day.ToString().StartsWith(plain, StringComparison.OrdinalIgnoreCase))
                .Select(day => (DayOfWeek?)day)
                .FirstOrDefault();
    }

    [GeneratedRegex(
        @"^(?<days>[A-Za-z.,–\- ]*?)\s*(?<span>\d{1,2}(:\d{2})?\s*[-–]\s*\d{1,2}(:\d{2})?)(\s*,\s*(?<span>\d{1,2}(:\d{2})?\s*[-–]\s*\d{1,2}(:\d{2})?))*$",
        RegexOptions.CultureInvariant,
        1_000
    )]
    private static partial Regex Entry();

    [GeneratedRegex(
        @"^(?<fromHour>\d{1,2})(:(?<fromMinute>\d{2}))?\s*[-–]\s*(?<toHour>\d{1,2})(:(?<toMinute>\d{2}))?$",
        RegexOptions.CultureInvariant,
        1_000
    )]
    private static partial Regex Times();
}
