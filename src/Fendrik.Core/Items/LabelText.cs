namespace Fendrik.Core.Items;

/// <summary>Labels, Fendrik's own words for finding items again, and how they stand together in one cell.</summary>
public static class LabelText
{
    /// <summary>Most labels on one item.</summary>
    public const int MostOnItem = 50;

    /// <summary>Longest label, in characters.</summary>
    public const int Longest = 60;

    /// <summary>Stands between labels in a cell, and so in none.</summary>
    public const char Separator = ';';

    /// <summary>Why a label cannot be taken, in a sentence; none when it can.</summary>
    public static string? ProblemOf(string label) =>
        label.Length == 0 ? "The label is empty."
        : label.Length > Longest ? $"“{label[..30]}…” has {label.Length} characters; {Longest} at most."
        : label.Contains(Separator) ? $"“{label}” has a semicolon, which separates labels. Leave it out."
        : label.Any(char.IsControl) ? "The label has control characters; remove them."
        : null;

    /// <summary>Reads a cell with any number of labels: white space made single, each once, in order.</summary>
    public static IReadOnlyList<string> Read(string cell) =>
        [
            .. cell.Split(Separator)
                .Select(label => string.Join(' ', label.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)))
                .Where(label => label.Length > 0)
                .Distinct(StringComparer.Ordinal)
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>Writes labels into one cell, as <see cref="Read"/> takes them.</summary>
    public static string Write(IEnumerable<string> labels) => string.Join(Separator + " ", labels);
}
