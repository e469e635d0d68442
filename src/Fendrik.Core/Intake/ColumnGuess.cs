using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Intake;

/// <summary>What the columns of a list seem to hold, by their headers first and their content second.</summary>
/// <param name="HasHeader">True when the first row is taken for headers.</param>
/// <param name="Fields">A field for each column; no field but “leave out” comes twice.</param>
public sealed record ColumnGuess(bool HasHeader, IReadOnlyList<IntakeField> Fields)
{
    /// <summary>Guesses from the first rows of a list.</summary>
    /// <param name="rows">The first rows, headers (if any) among them; fifty are plenty.</param>
    /// <param name="currency">The account's currency, to tell amounts.</param>
    /// <param name="hasHeader">Overrules the guess about the first row.</param>
    public static ColumnGuess Of(IReadOnlyList<string[]> rows, Currency currency, bool? hasHeader = null)
    {
        if (rows.Count == 0)
        {
            return new ColumnGuess(false, []);
        }

        var columns = rows.Max(row => row.Length);
        var byHeader = Enumerable
            .Range(0, columns)
            .Select(column => FieldOfHeader(rows[0].ElementAtOrDefault(column) ?? ""))
            .ToArray();
        var header = hasHeader ?? byHeader.Any(field => field != IntakeField.LeaveOut);
        var fields = header ? Once(byHeader) : new IntakeField[columns];
        var body = rows.Skip(header ? 1 : 0).ToArray();
        for (var column = 0; column < columns; column++)
        {
            // A header that says something Fendrik does not know (“note”) is believed: content is not guessed over it,
            // unless the content cannot be anything else.
            var unknownHeader = header && !string.IsNullOrWhiteSpace(rows[0].ElementAtOrDefault(column));
            if (fields[column] == IntakeField.LeaveOut)
            {
                var cells = body.Select(row => row.ElementAtOrDefault(column)?.Trim() ?? "")
                    .Where(cell => cell.Length > 0)
                    .ToArray();
                var guess = FieldOfContent(cells, currency, certainOnly: unknownHeader);
                fields[column] = guess == IntakeField.LeaveOut || fields.Contains(guess) ? IntakeField.LeaveOut : guess;
            }
        }

        return new ColumnGuess(header, header ? fields : WithNames(fields, body));
    }

    /// <summary>
    /// The field that a header names, forgiving punctuation and slips: one wrong letter from five letters on, two from
    /// eight on.
    /// </summary>
    public static IntakeField FieldOfHeader(string header)
    {
        var words = Words.Of(header);
        if (words.Count is 0 or > 6)
        {
            return IntakeField.LeaveOut;
        }

        var unit = CurrencyOfHeader(header)?.ToLowerInvariant();
        var text = string.Join(' ', words.Where(word => !Currency.IsCode(word.ToUpperInvariant())));
        foreach (var name in IntakeFieldName.All)
        {
            if (name.Headers.Contains(text))
            {
                return name.Field;
            }
        }

        // A wrong digit is no slip: “headline 16” is not headline 1.
        var nearest = IntakeFieldName
            .All.SelectMany(name =>
                name.Headers.Where(known => DigitsOf(known) == DigitsOf(text))
                    .Select(known => (name.Field, Slips: SlipsBetween(text, known), known.Length))
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
        return nearest.Field;
    }

    /// <summary>The currency that a header names, such as GBP in “Max CPC GBP”, or none.</summary>
    public static string? CurrencyOfHeader(string header) =>
        header.Split([' ', '(', ')', ',', '/'], StringSplitOptions.RemoveEmptyEntries).FirstOrDefault(Currency.IsCode);

    private static string DigitsOf(string text) => new([.. text.Where(char.IsAsciiDigit)]);

    private static IntakeField FieldOfContent(string[] cells, Currency currency, bool certainOnly)
    {
        if (cells.Length == 0)
        {
            return IntakeField.LeaveOut;
        }

        bool Mostly(Func<string, bool> test) => cells.Count(test) >= cells.Length * 0.8;
        if (Mostly(cell => CellValues.TryMatchType(cell, out _, out _) && cell.Length > 1))
        {
            return IntakeField.MatchType;
        }

        if (Mostly(cell => cell.Contains("://", StringComparison.Ordinal) && FinalUrl.IsValid(cell)))
        {
            return IntakeField.FinalUrl;
        }

        if (Mostly(cell => KeywordNotation.Read(cell) is { Match: not null, Problem: null }))
        {
            return IntakeField.Keyword;
        }

        if (certainOnly)
        {
            return IntakeField.LeaveOut;
        }

        if (Mostly(cell => CellValues.TryState(cell, out _) && cell.Length > 1))
        {
            return IntakeField.State;
        }

        return Mostly(cell => CellValues.TryAmount(cell, currency, out _)) ? IntakeField.MaxCpc : IntakeField.LeaveOut;
    }

    /// <summary>Without headers, columns of plain text are told apart by how often their values recur.</summary>
    private static IntakeField[] WithNames(IntakeField[] fields, string[][] body)
    {
        var open = Enumerable
            .Range(0, fields.Length)
            .Where(column => fields[column] == IntakeField.LeaveOut)
            .Select(column =>
            {
                var cells = body.Select(row => row.ElementAtOrDefault(column)?.Trim() ?? "")
                    .Where(cell => cell.Length > 0)
                    .ToArray();
                return (
                    Column: column,
                    cells.Length,
                    Distinct: cells.Distinct(StringComparer.OrdinalIgnoreCase).Count()
                );
            })
            .Where(column => column.Length > 0)
            .OrderBy(column => column.Distinct)
            .ThenBy(column => column.Column)
            .ToList();
        if (!fields.Contains(IntakeField.Keyword) && open.Count > 0)
        {
            fields[open[^1].Column] = IntakeField.Keyword;
            open.RemoveAt(open.Count - 1);
        }

        var names = open.Count == 1 ? new[] { IntakeField.AdGroup } : [IntakeField.Campaign, IntakeField.AdGroup];
        foreach (var (column, name) in open.Take(2).Zip(names))
        {
            fields[column.Column] = name;
        }

        return fields;
    }

    private static IntakeField[] Once(IntakeField[] fields)
    {
        var seen = new HashSet<IntakeField>();
        return
        [
            .. fields.Select(field => field == IntakeField.LeaveOut || seen.Add(field) ? field : IntakeField.LeaveOut),
        ];
    }

    /// <summary>Slips of the keyboard between two words: letters wrong, missing, extra or swapped (Damerau–Levenshtein).</summary>
    private static int SlipsBetween(string left, string right)
    {
        if (Math.Abs(left.Length - right.Length) > 2)
        {
            return int.MaxValue;
        }

        var costs = new int[left.Length + 1, right.Length + 1];
        for (var row = 0; row <= left.Length; row++)
        {
            for (var column = 0; column <= right.Length; column++)
            {
                if (row == 0 || column == 0)
                {
                    costs[row, column] = row + column;
                    continue;
                }

                var change = left[row - 1] == right[column - 1] ? 0 : 1;
                costs[row, column] = Math.Min(
                    Math.Min(costs[row - 1, column], costs[row, column - 1]) + 1,
                    costs[row - 1, column - 1] + change
                );
                if (row > 1 && column > 1 && left[row - 1] == right[column - 2] && left[row - 2] == right[column - 1])
                {
                    costs[row, column] = Math.Min(costs[row, column], costs[row - 2, column - 2] + 1);
                }
            }
        }

        return costs[left.Length, right.Length];
    }
}
