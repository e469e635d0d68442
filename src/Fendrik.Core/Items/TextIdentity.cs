using System.Text;

namespace Fendrik.Core.Items;

/// <summary>
/// The normalised text by which items are the same or not: Unicode composed form, lower case, runs of white space as
/// one space, nothing at the ends. Two keywords are duplicates when this and the match type agree.
/// </summary>
public static class TextIdentity
{
    /// <summary>Parts of one key are joined by this character, which no normalised text can contain.</summary>
    public const char Separator = '\u001f';

    /// <summary>The key of a text; empty for an empty or blank text.</summary>
    public static string Of(string text)
    {
        if (IsPlain(text))
        {
            return text;
        }

        var composed = text.Normalize(NormalizationForm.FormC);
        var key = new StringBuilder(composed.Length);
        var gap = false;
        foreach (var character in composed)
        {
            if (char.IsWhiteSpace(character))
            {
                gap = key.Length > 0;
                continue;
            }

            if (gap)
            {
                key.Append(' ');
                gap = false;
            }

            key.Append(char.ToLowerInvariant(character));
        }

        return key.ToString();
    }

    /// <summary>The key of a text with several parts, such as an ad.</summary>
    public static string Of(IEnumerable<string?> parts) =>
        string.Join(Separator, parts.Select(part => part is null ? "" : Of(part)));

    /// <summary>True for text that is its own key already: most keywords, so worth a look before any copy is made.</summary>
    private static bool IsPlain(string text)
    {
        var previous = ' ';
        foreach (var character in text)
        {
            var plain = character is >= 'a' and <= 'z' or >= '0' and <= '9' || (character == ' ' && previous != ' ');
            if (!plain)
            {
                return false;
            }

            previous = character;
        }

        return previous != ' ' || text.Length == 0;
    }
}
