using F23.StringSimilarity;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Lists;

/// <summary>What the columns of a list seem to hold, by their headers first and their content second.</summary>
/// <param name="HasHeader">True when the first row is taken for headers.</param>
/// <param name="Columns">A column for each; none for one that is left out. No column comes twice.</param>
public sealed record ColumnGuess(bool HasHeader, IReadOnlyList<ListColumn?> Columns)
{
    private static readonly Damerau Distance = new();

    /// <summary>Guesses from the first rows of a list.</summary>
    /// <param name="rows">The first rows, headers (if any) among them; fifty are plenty.</param>
    /// <param name="ground">The account's currency and language, to tell amounts.</param>
    /// <param name="hasHeader">Overrules the guess about the first row.</param>
    public static ColumnGuess Of(IReadOnlyList<string[]> rows, ReadingGround ground, bool? hasHeader = null)
    {
        if (rows.Count == 0)
        {
            return new ColumnGuess(false, []);
        }

        var count = rows.Max(row => row.Length);
        var byHeader = Enumerable
            .Range(0, count)
            .Select(place => OfHeader(rows[0].ElementAtOrDefault(place) ?? ""))
            .ToArray();
        var header = hasHeader ?? byHeader.Any(column => column is not null);
        var columns = header ? Once(byHeader) : new ListColumn?[count];
        var body = rows.Skip(header ? 1 : 0).ToArray();
        for (var place = 0; place < count; place++)
        {
            // A header that says something Fendrik does not know (“note”) is believed: content is not guessed over it,
            // unless the content cannot be anything else.
            var unknownHeader = header && !string.IsNullOrWhiteSpace(rows[0].ElementAtOrDefault(place));
            if (columns[place] is null)
            {
                var guess = OfContent(CellsOf(body, place), ground, certainOnly: unknownHeader);
                columns[place] = columns.Contains(guess) ? null : guess;
            }
        }

        return new ColumnGuess(header, header ? columns : WithNames(columns, body));
    }

    /// <summary>
    /// The column that a header names, forgiving punctuation and slips: one wrong letter from five letters on, two from
    /// eight on; none when it names none.
    /// </summary>
    public static ListColumn? OfHeader(string header)
    {
        var words = Words.Of(header);
        if (words.Count is 0 or > 6)
        {
            return null;
        }

        var text = string.Join(' ', words.Where(word => !Currency.IsCode(word.ToUpperInvariant())));
        // What Fendrik itself writes above a column comes before what others call it.
        var named =
            ListColumns.All.FirstOrDefault(column => column.LabelWords == text)
            ?? ListColumns.All.FirstOrDefault(column => column.Headers.Contains(text));
        if (named is not null)
        {
            return named;
        }

        // A wrong digit is no slip: “headline 16” is not headline 1.
        return ListColumns
            .All.SelectMany(column =>
                column
                    .Headers.Where(known =>
                        DigitsOf(known) == DigitsOf(text) && Math.Abs(known.Length - text.Length) <= 2
                    )
                    .Select(known => (Column: column, Slips: Distance.Distance(text, known), known.Length))
            )
            .Where(candidate =>
                candidate.Slips
                <= (
                    candidate.Length >= 8 ? 2
                    : candidate.Length >= 5 ? 1
                    : 0
                )
            )
            .OrderBy(candidate => candidate.Slips)
            .FirstOrDefault()
            .Column;
    }

    /// <summary>The currency that a header names, such as GBP in “Max CPC GBP”, or none.</summary>
    public static string? CurrencyOfHeader(string header) =>
        header.Split([' ', '(', ')', ',', '/'], StringSplitOptions.RemoveEmptyEntries).FirstOrDefault(Currency.IsCode);

    private static string DigitsOf(string text) => new([.. text.Where(char.IsAsciiDigit)]);

    private static string[] CellsOf(string[][] body, int place) =>
        [.. body.Select(row => row.ElementAtOrDefault(place)?.Trim() ?? "").Where(cell => cell.Length > 0)];

    private static ListColumn? OfContent(string[] cells, ReadingGround ground, bool certainOnly)
    {
        if (cells.Length == 0)
        {
            return null;
        }

        var keyword = ItemTypes.Of(ItemKind.Keyword);
        bool Mostly(Func<string, bool> test) => cells.Count(test) >= cells.Length * 0.8;
        bool Reads(string field, string cell) => keyword[field].Type.Read(cell, ground).Problem is null;
        ListColumn Of(string field) => ListColumns.Find(ListColumns.NameOf(keyword[field]))!;

        if (Mostly(cell => cell.Length > 1 && Reads("match", cell)))
        {
            return Of("match");
        }

        if (Mostly(cell => cell.Contains("://", StringComparison.Ordinal) && Reads("landingPage", cell)))
        {
            return Of("landingPage");
        }

        if (Mostly(cell => KeywordNotation.Read(cell) is { Match: not null, Problem: null }))
        {
            return Of("text");
        }

        return certainOnly ? null
            : Mostly(cell => cell.Length > 1 && Reads("state", cell)) ? Of("state")
            : Mostly(cell => Reads("maxCpc", cell)) ? Of("maxCpc")
            : null;
    }

    /// <summary>Without headers, columns of plain text are told apart by how often their values recur.</summary>
    private static ListColumn?[] WithNames(ListColumn?[] columns, string[][] body)
    {
        var keyword = ListColumns.Find(ListColumns.NameOf(ItemTypes.Of(ItemKind.Keyword)["text"]));
        var campaign = ListColumns.Find(ListColumns.PlaceName(Level.Campaign));
        var adGroup = ListColumns.Find(ListColumns.PlaceName(Level.AdGroup));
        var open = Enumerable
            .Range(0, columns.Length)
            .Where(place => columns[place] is null)
            .Select(place =>
            {
                var cells = CellsOf(body, place);
                return (Place: place, cells.Length, Distinct: cells.Distinct(StringComparer.OrdinalIgnoreCase).Count());
            })
            .Where(each => each.Length > 0)
            .OrderBy(each => each.Distinct)
            .ThenBy(each => each.Place)
            .ToList();
        if (!columns.Contains(keyword) && open.Count > 0)
        {
            columns[open[^1].Place] = keyword;
            open.RemoveAt(open.Count - 1);
        }

        var names = open.Count == 1 ? new[] { adGroup } : [campaign, adGroup];
        foreach (var (each, name) in open.Take(2).Zip(names))
        {
            columns[each.Place] = name;
        }

        return columns;
    }

    private static ListColumn?[] Once(ListColumn?[] columns)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        return [.. columns.Select(column => column is null || seen.Add(column.Name) ? column : null)];
    }
}
