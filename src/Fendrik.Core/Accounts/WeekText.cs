using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Accounts;

/// <summary>A part of a day of the week, with more or less in per cent where that is said.</summary>
internal readonly record struct WeekPart(HourSpan Span, decimal Percent);

/// <summary>Times of the week as people write them: <c>Mon-Fri 08:00-12:00, 12:00-17:30 -20%; Sat 9-12 +15%</c>.</summary>
internal static partial class WeekText
{
    /// <summary>Longest part between two semicolons: 48 times of a day with modifiers. Longer ones take the pattern too long.</summary>
    private const int LongestEntry = 1_200;

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

    /// <summary>The days from Monday on.</summary>
    public static IReadOnlyList<DayOfWeek> Days => Order;

    /// <summary>The place of a day in the week, from 0 for Monday.</summary>
    public static int PlaceOf(DayOfWeek day) => ((int)day + 6) % 7;

    /// <summary>Reads times of the week; what ends before it begins goes on past midnight.</summary>
    /// <param name="text">The text.</param>
    /// <param name="most">Most characters.</param>
    /// <param name="percents">True where per cent may be said behind a time.</param>
    /// <param name="problem">What is wrong with it, as the end of a sentence; none when all is well.</param>
    /// <returns>The parts as they are written, which may overlap; none when they cannot be read.</returns>
    public static IReadOnlyList<WeekPart>? Read(string text, int most, bool percents, out string? problem)
    {
        problem = null;
        var parts = new List<WeekPart>();
        if (text.Length > most)
        {
            problem = $"has {text.Length:N0} characters; {most:N0} at most";
            return null;
        }

        foreach (
            var entry in text.Split([';', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
        )
        {
            var read = entry.Length > LongestEntry ? Match.Empty : Entry().Match(entry);
            if (
                !read.Success
                || DaysOf(read.Groups["days"].Value) is not { } days
                || (!percents && entry.Contains('%', StringComparison.Ordinal))
            )
            {
                problem =
                    $"“{Reading.Shortened(entry)}” is not a time of the week; write it like Mon-Fri 08:00-17:30{(percents ? " +20%" : "")}; Sat 09:00-12:00";
                return null;
            }

            foreach (var span in read.Groups["span"].Captures.Select(each => Times().Match(each.Value)))
            {
                if (MinuteOf(span, "from") is not { } from || MinuteOf(span, "to") is not { } to || from == to)
                {
                    problem = $"“{span.Value}” is not a time of the day; write it like 08:00-17:30";
                    return null;
                }

                var percent = PercentOf(span);
                foreach (var day in days)
                {
                    parts.Add(new WeekPart(new HourSpan(day, from, from < to ? to : WeekHours.MinutesOfDay), percent));
                    if (to < from && to > 0)
                    {
                        parts.Add(new WeekPart(new HourSpan(Next(day), 0, to), percent));
                    }
                }
            }
        }

        return parts;
    }

    /// <summary>Writes parts that do not overlap so that they read back as the same: days alike are said together.</summary>
    public static string Write(IEnumerable<WeekPart> parts)
    {
        var text = new StringBuilder();
        var byDay = parts.ToLookup(part => part.Span.Day);
        var ofDays = Order
            .Select(day =>
                (Day: day, Text: string.Join(", ", byDay[day].OrderBy(part => part.Span.From).Select(Written)))
            )
            .ToArray();
        for (var first = 0; first < Order.Length; )
        {
            var last = first;
            while (last + 1 < Order.Length && ofDays[last + 1].Text == ofDays[first].Text)
            {
                last++;
            }

            if (ofDays[first].Text.Length > 0)
            {
                text.Append(text.Length > 0 ? "; " : "")
                    .Append(
                        (first, last) == (0, Order.Length - 1) ? "daily"
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

    /// <summary>A minute of the day as a clock shows it: 08:05; the end of the day is 24:00.</summary>
    public static string Clock(int minute) =>
        string.Create(CultureInfo.InvariantCulture, $"{minute / 60:00}:{minute % 60:00}");

    private static string Written(WeekPart part) =>
        $"{Clock(part.Span.From)}-{Clock(part.Span.To)}"
        + (part.Percent == 0 ? "" : part.Percent.ToString(" +0.#'%'; -0.#'%'", CultureInfo.InvariantCulture));

    /// <summary>A day in three letters.</summary>
    public static string Short(DayOfWeek day) => day.ToString()[..3];

    private static DayOfWeek Next(DayOfWeek day) => (DayOfWeek)(((int)day + 1) % Order.Length);

    private static decimal PercentOf(Match span) =>
        span.Groups["percent"] is { Success: true } said
            ? decimal.Parse(
                said.Value.Replace(" ", "", StringComparison.Ordinal).Replace('−', '-').Replace(',', '.'),
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture
            )
            : 0;

    private static int? MinuteOf(Match span, string name)
    {
        var hour = int.Parse(span.Groups[name + "Hour"].Value, CultureInfo.InvariantCulture);
        var minute = span.Groups[name + "Minute"] is { Success: true } said
            ? int.Parse(said.Value, CultureInfo.InvariantCulture)
            : 0;
        return hour < 24 && minute < 60 ? hour * 60 + minute
            : name == "to" && (hour, minute) == (24, 0) ? WeekHours.MinutesOfDay
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

    private const string Time = @"\d{1,2}(:\d{2})?\s*[-–]\s*\d{1,2}(:\d{2})?(\s*[+\-−]\s*\d{1,6}([.,]\d)?\s*%)?";

    [GeneratedRegex(
        $@"^(?<days>[A-Za-z.,–\- ]*?)\s*(?<span>{Time})(\s*,\s*(?<span>{Time}))*$",
        RegexOptions.CultureInvariant,
        1_000
    )]
    private static partial Regex Entry();

    [GeneratedRegex(
        @"^(?<fromHour>\d{1,2})(:(?<fromMinute>\d{2}))?\s*[-–]\s*(?<toHour>\d{1,2})(:(?<toMinute>\d{2}))?(\s*(?<percent>[+\-−]\s*\d{1,6}([.,]\d)?)\s*%)?$",
        RegexOptions.CultureInvariant,
        1_000
    )]
    private static partial Regex Times();
}
