using System.Collections.Concurrent;
using Lucene.Net.Analysis.En;

namespace Fendrik.Core.Matching;

/// <summary>
/// English words for one and for several: the S-stemmer (Harman, “How effective is suffixing?”, JASIS 42, 1991, as Lucene
/// implements it) behind a table of exceptions, and without the e that it leaves behind a hiss (<c>boxes</c>).
/// </summary>
public static class Plurals
{
    private const int MostRemembered = 200_000;

    private static readonly ConcurrentDictionary<string, string> Remembered = new(StringComparer.Ordinal);
    private static readonly string[] Hisses = ["s", "x", "z", "ch", "sh"];
    private static readonly string[] AfterHiss = ["sses", "xes", "zzes", "ches", "shes"];

    /// <summary>Number of words remembered, counted beside them: the dictionary locks itself to count.</summary>
    private static int _remembered;

    /// <summary>The word for one; a word that is no plural stays as it is.</summary>
    /// <param name="word">A word in normal form.</param>
    public static string Singular(string word)
    {
        if (Remembered.TryGetValue(word, out var known))
        {
            return known;
        }

        var singular = RelatedWords.SingularOfTable(word) ?? ByRule(word);

        // A long-running server sees unbounded words from searches; what is remembered must not grow with them.
        if (_remembered < MostRemembered && Remembered.TryAdd(word, singular))
        {
            Interlocked.Increment(ref _remembered);
        }

        return singular;
    }

    /// <summary>The word for several: of the table, else -ies for -y after a consonant, -es after a hiss, else -s.</summary>
    /// <param name="word">A word for one, in normal form.</param>
    public static string Plural(string word) =>
        RelatedWords.PluralOfTable(word)
        ?? (
            word.Length > 1 && word[^1] == 'y' && !"aeiou".Contains(word[^2]) ? word[..^1] + "ies"
            : Hisses.Any(ending => word.EndsWith(ending, StringComparison.Ordinal)) ? word + "es"
            : word + "s"
        );

    /// <summary>The published stemmer by itself.</summary>
    internal static string ByStemmer(string word)
    {
        var buffer = word.ToCharArray();
        return new string(buffer, 0, new EnglishMinimalStemmer().Stem(buffer, buffer.Length));
    }

    internal static bool IsPluralAfterHiss(string word) =>
        word.Length > 4 && AfterHiss.Any(ending => word.EndsWith(ending, StringComparison.Ordinal));

    private static string ByRule(string word) => IsPluralAfterHiss(word) ? word[..^2] : ByStemmer(word);
}
