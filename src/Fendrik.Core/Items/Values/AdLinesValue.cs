using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>Lines of an ad in order: words can be inserted into them, and some can be kept to a place.</summary>
/// <param name="part">What one line is called.</param>
/// <param name="room">Most lines that can be kept.</param>
/// <param name="placed">True when a line can be kept to one place.</param>
public sealed class AdLinesValue(string part, int room, bool placed = false) : LinesValue(part, room)
{
    /// <inheritdoc/>
    public override int? Places => placed ? PlacedLine.MostPlaces : null;

    /// <inheritdoc/>
    public override bool InsertsWords => true;

    /// <inheritdoc/>
    public override string SeenOf(string line) => AdLine.FallbackOf(TextOf(line));

    /// <inheritdoc/>
    public override string? InWords(object value, Currency currency) =>
        value is string[] { Length: > 0 } lines ? string.Join(" | ", lines.Select(AdLine.InWords)) : null;

    /// <inheritdoc/>
    public override int LengthOf(string line, FieldLimits limits) => AdLine.LengthOf(TextOf(line), limits);

    /// <inheritdoc/>
    public override string? ProblemOf(string line) => AdLine.Of(TextOf(line))?.Problem;

    /// <inheritdoc/>
    public override string Changed(string line, Func<string, string> change, bool letters)
    {
        var (text, place) = placed ? PlacedLine.Of(line) : new PlacedLine(line, null);
        var changed = letters ? AdLine.ChangedOutside(text, change) : change(text);
        return changed.Length == 0 ? "" : new PlacedLine(changed, place).ToString();
    }

    /// <inheritdoc/>
    protected override IReadOnlyList<string> PartsOf(string text) => PartsIn(text);

    /// <summary>The bar that parts lines is Liquid's as well: within inserted words it parts nothing.</summary>
    internal static IReadOnlyList<string> PartsIn(string text)
    {
        if (!AdLine.Inserts(text))
        {
            return text.Split(Separator);
        }

        var parts = new List<string>();
        var (from, depth) = (0, 0);
        for (var at = 0; at < text.Length; at++)
        {
            depth +=
                text[at] == '{' ? 1
                : text[at] == '}' && depth > 0 ? -1
                : 0;
            if (text[at] == Separator && depth == 0)
            {
                parts.Add(text[from..at]);
                from = at + 1;
            }
        }

        return [.. parts, text[from..]];
    }

    private string TextOf(string line) => placed ? PlacedLine.Of(line).Text : line;
}
