using System.Globalization;
using System.Text;
using Wcwidth;

namespace Fendrik.Core.AdText;

/// <summary>Lengths as people count characters: Unicode grapheme clusters (UAX #29), so that é and a flag count one.</summary>
public static class TextLength
{
    /// <summary>Number of grapheme clusters.</summary>
    public static int Of(string text) =>
        text.AsSpan().ContainsAnyExceptInRange('\0', '\u00ff') || text.Contains('\r')
            ? new StringInfo(text).LengthInTextElements
            : text.Length;

    /// <summary>
    /// Length where wide characters count otherwise: a cluster is wide when its first character is (UAX #11: W and F; ambiguous ones
    /// are narrow, as outside East Asian text).
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="wideCounts">What a wide character counts.</param>
    public static int Of(string text, int wideCounts)
    {
        var length = Of(text);
        if (wideCounts == 1 || !text.AsSpan().ContainsAnyExceptInRange('\0', '\u10ff'))
        {
            return length;
        }

        var clusters = StringInfo.GetTextElementEnumerator(text);
        while (clusters.MoveNext())
        {
            if (
                Rune.TryGetRuneAt(text, clusters.ElementIndex, out var first)
                && UnicodeCalculator.GetWidth(first.Value) == 2
            )
            {
                length += wideCounts - 1;
            }
        }

        return length;
    }
}
