using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using ICU4N.Text;

namespace Fendrik.Core.Matching;

/// <summary>
/// The normal form of words, so that it does not matter how somebody types them: compatibility forms and capitals by Unicode's
/// NFKC_Casefold (UAX #15; <c>Straße</c> is <c>strasse</c>, a soft hyphen or a variation selector is nothing), apostrophes
/// left out, <c>E.U.</c> read as <c>eu</c>, <c>10,000</c> as one number, scripts without spaces parted by ICU's
/// dictionaries (UAX #29).
/// </summary>
internal static partial class NormalForm
{
    private static readonly Normalizer2 Folding = Normalizer2.NFKCCaseFoldInstance;

    [ThreadStatic]
    private static BreakIterator? _breaks;

    /// <summary>The composed form of a text; half of a pair of surrogates becomes the sign for what cannot be read.</summary>
    public static string Composed(string text) => Readable(text).Normalize(NormalizationForm.FormC);

    /// <summary>The words of a text in normal form.</summary>
    public static IReadOnlyList<string> WordsOf(string text, MatchingRules rules)
    {
        if (PlainWords(text) is { } plain)
        {
            return plain;
        }

        var readable = Thousands().Replace(Readable(text), static match => DigitsOf(match.Value));
        var folded = Folding.Normalize(Abbreviations().Replace(readable, static match => match.Value.Replace(".", "")));
        return Split(rules.DropsAccents ? WithoutAccents(folded) : folded, rules.ReadsEmoji);
    }

    /// <summary>Takes accents off Latin and Greek letters; marks of other scripts are part of their letters.</summary>
    public static string WithoutAccents(string text)
    {
        if (Ascii.IsValid(text))
        {
            return text;
        }

        var bare = new StringBuilder(text.Length);
        var takes = false;
        foreach (var rune in text.Normalize(NormalizationForm.FormD).EnumerateRunes())
        {
            if (Rune.GetUnicodeCategory(rune) != UnicodeCategory.NonSpacingMark)
            {
                // Latin, Greek and what Unicode added to both.
                takes = rune.Value is < 0x0250 or >= 0x0370 and < 0x0400 or >= 0x1E00 and < 0x2000;
                bare.Append(rune);
            }
            else if (!takes)
            {
                bare.Append(rune);
            }
        }

        return bare.ToString().Normalize(NormalizationForm.FormC);
    }

    /// <summary>Most texts: small or capital letters and digits of ASCII between spaces and hyphens.</summary>
    private static List<string>? PlainWords(string text)
    {
        foreach (var character in text)
        {
            if (!char.IsAsciiLetterOrDigit(character) && character is not (' ' or '-'))
            {
                return null;
            }
        }

        var words = new List<string>(6);
        for (int from = 0, at = 0; at <= text.Length; at++)
        {
            if (at == text.Length || text[at] is ' ' or '-')
            {
                if (at > from)
                {
                    words.Add(text[from..at].ToLowerInvariant());
                }

                from = at + 1;
            }
        }

        return words;
    }

    private static List<string> Split(string text, bool readsEmoji)
    {
        var words = new List<string>(6);
        var word = new StringBuilder(16);
        var unspaced = false;
        void End()
        {
            if (word.Length == 0)
            {
                return;
            }

            if (unspaced)
            {
                AddParts(words, word.ToString());
            }
            else
            {
                words.Add(word.ToString());
            }

            word.Clear();
            unspaced = false;
        }

        foreach (var rune in text.EnumerateRunes())
        {
            if (Words.IsPartOfWord(rune))
            {
                word.Append(rune);
                unspaced |= IsOfScriptWithoutSpaces(rune);
            }
            else if (!Words.IsDropped(rune))
            {
                End();
                if (readsEmoji && IsEmoji(rune))
                {
                    words.Add(rune.ToString());
                }
            }
        }

        End();
        return words;
    }

    private static void AddParts(List<string> words, string run)
    {
        var breaks = _breaks ??= BreakIterator.GetWordInstance(CultureInfo.InvariantCulture);
        breaks.SetText(run);
        for (int from = breaks.First(), to = breaks.Next(); to != BreakIterator.Done; from = to, to = breaks.Next())
        {
            words.Add(run[from..to]);
        }
    }

    /// <summary>Chinese and Japanese characters, Thai, Lao, Burmese and Khmer.</summary>
    private static bool IsOfScriptWithoutSpaces(Rune rune) =>
        rune.Value
            is >= 0x0E00
                and < 0x0F00
                or >= 0x1000
                and < 0x10A0
                or >= 0x1780
                and < 0x1800
                or >= 0x3040
                and < 0x3100
                or >= 0x31F0
                and < 0x3200
                or >= 0x3400
                and < 0xA000
                or >= 0xF900
                and < 0xFB00
                or >= 0x20000
                and < 0x32000;

    /// <summary>A picture; what only changes the look of the picture before it (the colour of a skin) is none.</summary>
    private static bool IsEmoji(Rune rune) =>
        Rune.GetUnicodeCategory(rune) == UnicodeCategory.OtherSymbol
        && rune.Value is >= 0x2190 and < 0x2C00 or >= 0x1F000;

    private static string Readable(string text)
    {
        for (var at = 0; at < text.Length; at++)
        {
            if (char.IsSurrogate(text[at]))
            {
                if (at + 1 < text.Length && char.IsSurrogatePair(text[at], text[at + 1]))
                {
                    at++;
                }
                else
                {
                    return string.Concat(text.EnumerateRunes());
                }
            }
        }

        return text;
    }

    private static string DigitsOf(string number) => string.Concat(number.Where(char.IsAsciiDigit));

    /// <summary>Groups of three digits behind a comma, a point, an apostrophe or a narrow space that does not break.</summary>
    [GeneratedRegex(@"(?<![0-9.,])[0-9]{1,3}(?:([,.'’\u00a0\u202f\u2009])[0-9]{3})(?:\1[0-9]{3})*(?![0-9]|[.,][0-9])")]
    private static partial Regex Thousands();

    /// <summary>Single letters with a dot behind each, at least two of them.</summary>
    [GeneratedRegex(@"(?<![\p{L}\p{M}\p{Nd}.])\p{L}(?:\.\p{L})+(?![\p{L}\p{M}\p{Nd}])\.?")]
    private static partial Regex Abbreviations();
}
