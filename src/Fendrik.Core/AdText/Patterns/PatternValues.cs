namespace Fendrik.Core.AdText.Patterns;

/// <summary>
/// What a writer gives of ad groups besides what is known of them: a pasted table whose first column names ad groups and whose
/// other columns are fields, such as the place or the price.
/// </summary>
public static class PatternValues
{
    /// <summary>Most characters of a table.</summary>
    public const int Longest = 4_000_000;

    /// <summary>Reads a table.</summary>
    /// <param name="pasted">Rows, with tabs between cells; the first row names the fields. Empty for none.</param>
    /// <returns>By the normalised name of an ad group, its fields; or why it cannot be read, a sentence with its row.</returns>
    public static (IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> Groups, string? Problem) Read(
        string? pasted
    )
    {
        var groups = new Dictionary<string, IReadOnlyDictionary<string, string>>(StringComparer.Ordinal);
        if (string.IsNullOrWhiteSpace(pasted))
        {
            return (groups, null);
        }

        if (pasted.Length > Longest)
        {
            return (groups, $"The table has {pasted.Length:N0} characters; {Longest:N0} at most.");
        }

        var rows = pasted.ReplaceLineEndings("\n").Split('\n');
        string[] fields = [.. rows[0].Split('\t').Skip(1).Select(PatternMaker.KeyOf)];
        if (fields.Length == 0 || fields.Any(field => field.Length == 0))
        {
            return (groups, "Row 1 names the fields, with tabs between: ad group, place, price. A name is missing.");
        }

        foreach (var (number, row) in rows.Index().Skip(1))
        {
            if (row.Trim().Length == 0)
            {
                continue;
            }

            var cells = row.Split('\t');
            if (cells.Length > fields.Length + 1)
            {
                return (
                    groups,
                    $"Row {number + 1} has {cells.Length} cells; row 1 names {fields.Length + 1}. Take out what is too much."
                );
            }

            if (!groups.TryAdd(TextIdentity.Of(cells[0]), Named(fields, cells)))
            {
                return (groups, $"Row {number + 1} names “{cells[0].Trim()}” again. Keep one of them.");
            }
        }

        return (groups, null);
    }

    private static Dictionary<string, string> Named(string[] fields, string[] cells) =>
        fields
            .Zip(cells.Skip(1), (field, cell) => (field, cell: cell.Trim()))
            .Where(each => each.cell.Length > 0)
            .DistinctBy(each => each.field)
            .ToDictionary(each => each.field, each => each.cell, StringComparer.Ordinal);
}
