using Fendrik.Core.Items.Values;
using ValueType = Fendrik.Core.Items.Values.ValueType;

namespace Fendrik.Core.AdText.Combining;

/// <summary>
/// Lines of a responsive ad that never all show together: the writer struck them out. A bar stands between lines, two bars between
/// one such set and the next; no line of an ad has a bar but within inserted words.
/// </summary>
public static class KeptApart
{
    /// <summary>Most sets in one ad.</summary>
    public const int Most = 60;

    /// <summary>Most characters of all of them.</summary>
    public const int Longest = 8_000;

    private const string BetweenLines = " | ";
    private const string BetweenSets = " || ";

    /// <summary>Reads sets of lines; what is no set of at least two is left out.</summary>
    public static IReadOnlyList<IReadOnlyList<string>> Read(string? written)
    {
        var sets = new List<IReadOnlyList<string>>();
        if (string.IsNullOrWhiteSpace(written))
        {
            return sets;
        }

        var lines = new List<string>();
        // Two bars in a row are an empty part between them.
        foreach (var part in AdLinesValue.PartsIn(written).Append(""))
        {
            var line = ValueType.Single(part);
            if (line.Length > 0)
            {
                lines.Add(line);
                continue;
            }

            if (lines.Distinct(StringComparer.OrdinalIgnoreCase).Count() > 1)
            {
                sets.Add([.. lines.Distinct(StringComparer.OrdinalIgnoreCase)]);
            }

            lines.Clear();
        }

        return sets;
    }

    /// <summary>Sets as they are written.</summary>
    public static string Write(IEnumerable<IReadOnlyList<string>> sets) =>
        string.Join(BetweenSets, sets.Select(lines => string.Join(BetweenLines, lines)));
}
