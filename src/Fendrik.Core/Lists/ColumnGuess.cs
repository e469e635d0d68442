using F23.StringSimilarity;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Lists;

/// <summary>What the columns of a list seem to hold: header and content vote together.</summary>
/// <param name="HasHeader">True when the first row is taken for headers.</param>
/// <param name="Columns">A column for each; none for one that is left out. No column comes twice.</param>
/// <param name="Confidence">How sure each of them is, from 0 to 100; 0 for one that is left out.</param>
public sealed record ColumnGuess(bool HasHeader, IReadOnlyList<ListColumn?> Columns, IReadOnlyList<int> Confidence)
{
    /// <summary>From here on a guess need not be looked at.</summary>
    public const int Sure = 80;

    private const double Agrees = 0.8;
    private const double Contradicts = 0.3;

    /// <summary>A share of cells in notation from which on a column is one of keywords, though others are bare.</summary>
    private const double SomeNotation = 0.2;

    private static readonly Damerau Distance = new();

    private readonly record struct Vote(ListColumn? Column, int Confidence);

    /// <summary>Guesses from the first rows of a list.</summary>
    /// <param name="rows">The first rows, headers (if any) among them; fifty are plenty.</param>
    /// <param name="ground">The account's currency and language, to tell amounts.</param>
    /// <param name="hasHeader">Overrules the guess about the first row.</param>
    public static ColumnGuess Of(IReadOnlyList<string[]> rows, ReadingGround ground, bool? hasHeader = null)
    {
        if (rows.Count == 0)
        {
            return new ColumnGuess(false, [], []);
        }

        var count = rows.Max(row => row.Length);
        var below = rows.Skip(1).ToArray();
        var named = Enumerable
            .Range(0, count)
            .Select(place => Named(rows[0].ElementAtOrDefault(place) ?? ""))
            .ToArray();
        var header = hasHeader ?? IsHeader(rows[0], named, below);
        var body = header ? below : [.. rows];
        var votes = new Vote[count];
        for (var place = 0; place < count; place++)
        {
            var cells = CellsOf(body, place);
            var title = header ? rows[0].ElementAtOrDefault(place) ?? "" : "";
            votes[place] = header ? Together(named[place], cells, ground, title) : default;
        }

        // Of several that would be the same column the surest is; then content tells what no header does.
        Once(votes);
        for (var place = 0; place < count; place++)
        {
            // A header that says something Fendrik does not know (“note”) is believed: content is not guessed over it,
            // unless the content cannot be anything else.
            var unknown = header && !string.IsNullOrWhiteSpace(rows[0].ElementAtOrDefault(place));
            if (
                votes[place].Column is null
                && OfContent(CellsOf(body, place), ground, certainOnly: unknown) is { Column: { } column } vote
                && votes.All(other => other.Column != column)
            )
            {
                votes[place] = vote;
            }
        }

        if (!header)
        {
            NameRest(votes, body);
        }

        return new ColumnGuess(
            header,
            [.. votes.Select(vote => vote.Column)],
            [.. votes.Select(vote => vote.Column is null ? 0 : vote.Confidence)]
        );
    }

    /// <summary>
    /// The column that a header names, forgiving punctuation and slips: one wrong letter from five letters on, two from
    /// eight on; none when it names none.
    /// </summary>
    public static ListColumn? OfHeader(string header) => Named(header).Column;

    /// <summary>
    /// The first row holds headers when it names columns, and most of those names do not stand among the cells below them again:
    /// then they would be cells themselves.
    /// </summary>
    private static bool IsHeader(string[] first, Vote[] named, string[][] below)
    {
        var names = Enumerable.Range(0, named.Length).Where(place => named[place].Column is not null).ToArray();
        var recurring = names.Count(place =>
            CellsOf(below, place).Contains(first[place].Trim(), StringComparer.OrdinalIgnoreCase)
        );
        return names.Length > 0 && recurring * 2 <= names.Length && recurring < names.Length;
    }

    private static Vote Named(string header)
    {
        var words = Words.Of(header);
        if (words.Count is 0 or > 6)
        {
            return default;
        }

        var text = string.Join(' ', words.Where(word => !Currency.IsCode(word.ToUpperInvariant())));
        // What Fendrik itself writes above a column comes before what others call it.
        var named =
            ListColumns.All.FirstOrDefault(column => column.LabelWords == text)
            ?? ListColumns.All.FirstOrDefault(column => column.Headers.Contains(text));
        if (named is not null)
        {
            return new Vote(named, 100);
        }

        // A wrong digit is no slip: “headline 16” is not headline 1.
        var (near, slips, _) = ListColumns
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
            .FirstOrDefault();
        return near is null ? default : new Vote(near, slips <= 1 ? 80 : 70);
    }

    /// <summary>
    /// Header and content vote: an exact name wins, and is only less sure where the cells are something else; a slip of a name
    /// gives way to cells that cannot be what it names.
    /// </summary>
    private static Vote Together(Vote named, string[] cells, ReadingGround ground, string title)
    {
        if (named.Column is not { } column)
        {
            return default;
        }

        var fit = cells.Length == 0 ? 1 : FitOf(column, cells, ground);
        if (named.Confidence == 100)
        {
            return named with
            {
                Confidence =
                    fit >= Agrees ? 100
                    : fit >= Contradicts ? 70
                    : 50,
            };
        }

        return fit < Contradicts && title.Length > 0
            ? OfContent(cells, ground, certainOnly: false)
            : named with
            {
                Confidence = fit >= Agrees ? named.Confidence + 10 : named.Confidence - 25,
            };
    }

    /// <summary>The share of cells that can be what a column holds.</summary>
    private static double FitOf(ListColumn column, string[] cells, ReadingGround ground)
    {
        bool Reads(string cell) =>
            column.Role switch
            {
                ColumnRole.Item => ItemTypes.All.Any(type =>
                    string.Equals(type.FileWord, cell, StringComparison.OrdinalIgnoreCase)
                    || type.OtherWords.Contains(cell, StringComparer.OrdinalIgnoreCase)
                    || string.Equals(type.Noun, cell, StringComparison.OrdinalIgnoreCase)
                ),
                ColumnRole.Action => RowIntents.Read(cell) is not null,
                ColumnRole.Reference => cell.All(char.IsAsciiDigit),
                ColumnRole.Place => !IsAmount(cell, ground) && !IsAddress(cell),
                ColumnRole.Value or ColumnRole.HolderValue => column.Fields.Any(field =>
                    field.Type.Read(cell, ground).Problem is null
                    && (field.Type.Form != ValueForm.Lines || !IsAddress(cell))
                ),
            };
        return (double)cells.Count(Reads) / cells.Length;
    }

    private static bool IsAddress(string cell) => cell.Contains("://", StringComparison.Ordinal);

    private static bool IsAmount(string cell, ReadingGround ground) =>
        ItemTypes.Of(ItemKind.Keyword)["maxCpc"].Type.Read(cell, ground).Problem is null;

    /// <summary>The currency that a header names, such as GBP in “Max CPC GBP”, or none.</summary>
    public static string? CurrencyOfHeader(string header) =>
        header.Split([' ', '(', ')', ',', '/'], StringSplitOptions.RemoveEmptyEntries).FirstOrDefault(Currency.IsCode);

    private static string DigitsOf(string text) => new([.. text.Where(char.IsAsciiDigit)]);

    private static string[] CellsOf(string[][] body, int place) =>
        [.. body.Select(row => row.ElementAtOrDefault(place)?.Trim() ?? "").Where(cell => cell.Length > 0)];

    private static Vote OfContent(string[] cells, ReadingGround ground, bool certainOnly)
    {
        if (cells.Length == 0)
        {
            return default;
        }

        var keyword = ItemTypes.Of(ItemKind.Keyword);
        double Share(Func<string, bool> test) => (double)cells.Count(test) / cells.Length;
        bool Reads(string field, string cell) => keyword[field].Type.Read(cell, ground).Problem is null;
        Vote Of(string field, int confidence) => new(ListColumns.Find(ListColumns.NameOf(keyword[field]))!, confidence);

        if (Share(cell => cell.Length > 1 && Reads("match", cell)) >= Agrees)
        {
            return Of("match", 90);
        }

        if (Share(cell => IsAddress(cell) && Reads("landingPage", cell)) >= Agrees)
        {
            return Of("landingPage", 90);
        }

        var noted = Share(cell => KeywordNotation.Read(cell) is { Match: not null, Problem: null });
        if (noted >= SomeNotation && Share(cell => !IsAmount(cell, ground) && !IsAddress(cell)) >= Agrees)
        {
            return Of("text", noted >= Agrees ? 95 : 85);
        }

        return certainOnly ? default
            : Share(cell => cell.Length > 1 && Reads("state", cell)) >= Agrees ? Of("state", 75)
            : Share(cell => Reads("maxCpc", cell)) >= Agrees ? Of("maxCpc", 60)
            : default;
    }

    /// <summary>Without headers, columns of plain text are told apart by how often their values recur.</summary>
    private static void NameRest(Vote[] votes, string[][] body)
    {
        var keyword = ListColumns.Find(ListColumns.NameOf(ItemTypes.Of(ItemKind.Keyword)["text"]));
        var campaign = ListColumns.Find(ListColumns.PlaceName(Level.Campaign));
        var adGroup = ListColumns.Find(ListColumns.PlaceName(Level.AdGroup));
        var open = Enumerable
            .Range(0, votes.Length)
            .Where(place => votes[place].Column is null)
            .Select(place =>
            {
                var cells = CellsOf(body, place);
                return (Place: place, cells.Length, Distinct: cells.Distinct(StringComparer.OrdinalIgnoreCase).Count());
            })
            .Where(each => each.Length > 0)
            .OrderBy(each => each.Distinct)
            .ThenBy(each => each.Place)
            .ToList();
        if (votes.All(vote => vote.Column != keyword) && open.Count > 0)
        {
            votes[open[^1].Place] = new Vote(keyword, 55);
            open.RemoveAt(open.Count - 1);
        }

        var names = open.Count == 1 ? new[] { adGroup } : [campaign, adGroup];
        foreach (var (each, name) in open.Take(2).Zip(names))
        {
            votes[each.Place] = new Vote(name, 45);
        }
    }

    private static void Once(Vote[] votes)
    {
        foreach (
            var same in votes
                .Select((vote, place) => (vote, place))
                .Where(each => each.vote.Column is not null)
                .GroupBy(each => each.vote.Column!.Name)
                .ToArray()
        )
        {
            foreach (var (_, place) in same.OrderByDescending(each => each.vote.Confidence).Skip(1))
            {
                votes[place] = default;
            }
        }
    }
}
