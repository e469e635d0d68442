using System.Globalization;

namespace Fendrik.Core.AdText;

/// <summary>Lengths as people count characters: Unicode grapheme clusters (UAX #29), so that é and a flag count one.</summary>
public static class TextLength
{
    /// <summary>Number of grapheme clusters.</summary>
    public static int Of(string text)
    {
        foreach (var character in text)
        {
            if (character is > '\u00ff' or '\r')
            {
                return new StringInfo(text).LengthInTextElements;
            }
        }

        return text.Length;
    }
}
