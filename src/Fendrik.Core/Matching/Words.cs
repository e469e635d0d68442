using System.Globalization;
using System.Text;

namespace Fendrik.Core.Matching;

/// <summary>Searches and keywords as words.</summary>
public static class Words
{
    /// <summary>Signs that are left out of words without separating them: apostrophes of every kind.</summary>
    public const string Dropped = "'’‘ʼ＇";

    /// <summary>True for what words are made of: letters, digits and the marks on them.</summary>
    public static bool IsPartOfWord(Rune rune) =>
        Rune.IsLetterOrDigit(rune)
        || Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark;

    /// <summary>
    /// The words that are matched, in order and in normal form (see <see cref="NormalForm"/>). Never throws.
    /// </summary>
    /// <param name="text">A search or a keyword without notation.</param>
    /// <param name="rules">What the network says of accents and emoji; without them accents count and emoji do not.</param>
    public static IReadOnlyList<string> Of(string text, MatchingRules? rules = null) =>
        NormalForm.WordsOf(text, rules ?? MatchingRules.Literal);

    /// <summary>
    /// How many words somebody typed: runs of letters, digits and marks; all else separates. This is what limits count; a
    /// search may be read as fewer words (<c>10,000</c>) or more (scripts without spaces).
    /// </summary>
    public static int CountTyped(string text)
    {
        var (count, inWord) = (0, false);
        foreach (var rune in NormalForm.Composed(text).EnumerateRunes())
        {
            if (IsPartOfWord(rune))
            {
                count += inWord ? 0 : 1;
                inWord = true;
            }
            else if (!IsDropped(rune))
            {
                inWord = false;
            }
        }

        return count;
    }

    internal static bool IsDropped(Rune rune) => rune.IsBmp && Dropped.Contains((char)rune.Value);
}
