using System.Globalization;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tracking.Books;

/// <summary>Reads totals of own books: the columns are known by their headers, in any order; each line stands or falls by itself.</summary>
public sealed class BookTotalReader
{
    private const string Day = "day";
    private const string Campaign = "campaign";
    private const string AdGroup = "ad group";
    private const string Keyword = "keyword";
    private const string Match = "match";
    private const string Device = "device";
    private const string Sales = "sales";
    private const string Worth = "value";

    private static readonly Dictionary<string, string[]> Headers = new(StringComparer.Ordinal)
    {
        [Day] = [Day, "date"],
        [Campaign] = [Campaign, "campaign name"],
        [AdGroup] = [AdGroup, "adgroup", "ad group name"],
        [Keyword] = [Keyword, "term"],
        [Match] = [Match, "match type"],
        [Device] = [Device],
        [Sales] = [Sales, "conversions", "count", "orders", "number of sales"],
        [Worth] = [Worth, "amount", "revenue"],
    };

    private static readonly string[] Dates = ["yyyy-MM-dd", "dd/MM/yyyy"];

    private readonly BookGround _ground;
    private readonly Dictionary<string, int> _columns;
    private readonly HashSet<string> _seen = new(StringComparer.Ordinal);

    private BookTotalReader(BookGround ground, Dictionary<string, int> columns) =>
        (_ground, _columns) = (ground, columns);

    /// <summary>Begins with the row of headers; none where these are no totals: they have a day, a campaign and how many were sold.</summary>
    public static BookTotalReader? Begin(IReadOnlyList<string> header, BookGround ground)
    {
        ArgumentNullException.ThrowIfNull(header);
        var columns = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var at = 0; at < header.Count; at++)
        {
            var name = TextIdentity.Of(header[at]).Replace('_', ' ');
            if (Headers.FirstOrDefault(each => each.Value.Contains(name)).Key is { } column)
            {
                columns.TryAdd(column, at);
            }
        }

        return new[] { Day, Campaign, Sales }.All(columns.ContainsKey) ? new BookTotalReader(ground, columns) : null;
    }

    /// <summary>Reads a row behind the headers.</summary>
    /// <param name="row">Its number in the list, from 1.</param>
    /// <param name="cells">Its cells.</param>
    /// <param name="problem">Why it cannot be taken; none when it can.</param>
    /// <returns>None where it cannot be taken, and for a row that is empty.</returns>
    public BookTotal? Read(int row, IReadOnlyList<string> cells, out BookProblem? problem)
    {
        ArgumentNullException.ThrowIfNull(cells);
        problem = null;
        if (cells.All(string.IsNullOrWhiteSpace))
        {
            return null;
        }

        string Cell(string column) =>
            _columns.TryGetValue(column, out var at) && at < cells.Count ? cells[at].Trim() : "";
        string? Said(string column) => Cell(column) is { Length: > 0 } text ? text : null;
        BookProblem Wrong(string field, string what) => new(row, field, $"Row {row}, {field}: {what}");
        var isDay = DateOnly.TryParseExact(
            Cell(Day),
            Dates,
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        );
        var match = Said(Match) is { } matched ? new ChoiceValue(Choices.Match).Read(matched, _ground.Ground) : default;
        var device = Said(Device) is { } on ? new ChoiceValue(Choices.Device).Read(on, _ground.Ground) : default;
        var worth = Said(Worth) is { } amount ? new AmountValue().Read(amount, _ground.Ground) : default;
        var isCount =
            decimal.TryParse(Cell(Sales), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var sales)
            && sales <= 1_000_000;
        problem =
            !isDay ? Wrong(Day, $"“{Reading.Shortened(Cell(Day))}” is no day. Write it like 2026-05-11.")
            : day > _ground.Days.At(_ground.Now).Day ? Wrong(Day, $"{Cell(Day)} is in the future.")
            : Cell(Campaign).Length == 0 ? Wrong(Campaign, "it is empty. Leave the row out, or name the campaign.")
            : match.Problem is { } noMatch ? Wrong(Match, $"it {noMatch}.")
            : device.Problem is { } noDevice ? Wrong(Device, $"it {noDevice}.")
            : !isCount ? Wrong(Sales, $"“{Reading.Shortened(Cell(Sales))}” is no number of sales. Write it like 3.")
            : worth.Problem is { } wrong ? Wrong(Worth, $"it {wrong}.")
            : !_seen.Add(
                string.Join(
                    '\n',
                    new[] { $"{day:O}" }.Concat(
                        new[] { Campaign, AdGroup, Keyword, Match, Device }.Select(column =>
                            TextIdentity.Of(Cell(column))
                        )
                    )
                )
            )
                ? Wrong(Day, "a row above has the same day and the same place already; this one is left out.")
            : null;
        return problem is null
            ? new BookTotal(
                row,
                day,
                Cell(Campaign),
                Said(AdGroup),
                Said(Keyword),
                match.Value is { } type ? (MatchType)Convert.ToInt32(type, CultureInfo.InvariantCulture) : null,
                device.Value is { } known ? (Device)Convert.ToInt32(known, CultureInfo.InvariantCulture) : null,
                sales,
                (decimal?)worth.Value ?? 0
            )
            : null;
    }
}
