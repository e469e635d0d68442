using System.Collections.Concurrent;
using System.Globalization;
using System.Text;
using Lucene.Net.Analysis.En;

namespace Fendrik.Core.Matching;

/// <summary>Searches and keywords as words: runs of letters, digits and marks, in lower case; all else separates.</summary>
public static class Words
{
    private const int MostRemembered = 200_000;

    private static readonly ConcurrentDictionary<string, string> Stems = new(StringComparer.Ordinal);

    /// <summary>Number of stems, counted beside them: the dictionary locks itself to count.</summary>
    private static int _remembered;

    /// <summary>Signs that are left out of words without separating them.</summary>
    public const string Dropped = "'’";

    /// <summary>True for what words are made of: letters, digits and the marks on them.</summary>
    public static bool IsPartOfWord(Rune rune) =>
        Rune.IsLetterOrDigit(rune)
        || Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark;

    private static bool IsDropped(Rune rune) => rune.IsBmp && Dropped.Contains((char)rune.Value);

    /// <summary>The words of a text in order. An apostrophe inside a word is dropped: <c>tuner's</c> is <c>tuners</c>.</summary>
    public static IReadOnlyList<string> Of(string text)
    {
        var words = new List<string>(6);
        var word = new StringBuilder(16);
        foreach (var rune in text.Normalize(NormalizationForm.FormC).EnumerateRunes())
        {
            if (IsPartOfWord(rune))
            {
                word.Append(Rune.ToLowerInvariant(rune).ToString());
            }
            else if (!IsDropped(rune) && word.Length > 0)
            {
                words.Add(word.ToString());
                word.Clear();
            }
        }

        if (word.Length > 0)
        {
            words.Add(word.ToString());
        }

        return words;
    }

    /// <summary>
    /// The singular form of an English plural, by the S-stemmer (Harman, “How effective is suffixing?”, JASIS 42, 1991)
    /// as Lucene implements it.
    /// </summary>
    public static string Singular(string word)
    {
        if (Stems.TryGetValue(word, out var known))
        {
            return known;
        }

        var buffer = word.ToCharArray();
        var length = new EnglishMinimalStemmer().Stem(buffer, buffer.Length);
        var stem = new string(buffer, 0, length);

        // A long-running server sees unbounded words from searches; the memory of stems must not grow with them.
        if (_remembered < MostRemembered && Stems.TryAdd(word, stem))
        {
            Interlocked.Increment(ref _remembered);
        }

        return stem;
    }
}
