using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>One keyword made from lists of words.</summary>
/// <param name="Text">The words.</param>
/// <param name="Match">Match type.</param>
public readonly record struct MadeKeyword(string Text, MatchType Match);

/// <summary>What came of combining lists of words.</summary>
/// <param name="Keywords">The keywords, each once, in the order of the lists.</param>
/// <param name="Duplicates">How many combinations gave a keyword that was there already.</param>
/// <param name="TooLong">How many had more words than the network takes.</param>
public sealed record CombinedWords(IReadOnlyList<MadeKeyword> Keywords, int Duplicates, int TooLong);

/// <summary>Combines lists of words into keywords: every place with every service with every wish.</summary>
public static class WordLists
{
    /// <summary>Most combinations that are made at once.</summary>
    public const int MostCombinations = 200_000;

    /// <summary>How many combinations lists give, before any is left out.</summary>
    public static long Count(IEnumerable<IReadOnlyList<string>> lists, int matches) =>
        lists.Aggregate((long)matches, (product, list) => Math.Min(product * Math.Max(1, list.Count), int.MaxValue));

    /// <summary>
    /// Every combination of one entry from each list, in the order of the lists. A word that an earlier part has already
    /// (also as its plural) is not said twice: “piano” with “piano tuner” gives “piano tuner”. Common practice, no source.
    /// </summary>
    /// <param name="lists">Lists of entries; a blank entry stands for leaving the list out. An empty list counts as one blank entry.</param>
    /// <param name="matches">Match types that each is made in.</param>
    /// <param name="mostWords">Most words that the network takes.</param>
    /// <exception cref="ArgumentException">More than <see cref="MostCombinations"/> would be made.</exception>
    public static CombinedWords Combine(
        IReadOnlyList<IReadOnlyList<string>> lists,
        IReadOnlyList<MatchType> matches,
        int mostWords
    )
    {
        if (Count(lists, matches.Count) > MostCombinations)
        {
            throw new ArgumentException(
                $"These lists give more than {MostCombinations:N0} keywords. Take some entries out, or do it in parts."
            );
        }

        var made = new List<MadeKeyword>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var (duplicates, tooLong) = (0, 0);
        foreach (var parts in Product(lists, 0))
        {
            var text = Joined(parts);
            if (text.Length == 0)
            {
                continue;
            }

            if (!seen.Add(TextIdentity.Of(text)))
            {
                duplicates += matches.Count;
            }
            else if (Words.CountTyped(text) > mostWords)
            {
                tooLong += matches.Count;
            }
            else
            {
                made.AddRange(matches.Select(match => new MadeKeyword(text, match)));
            }
        }

        return new CombinedWords(made, duplicates, tooLong);
    }

    private static IEnumerable<string[]> Product(IReadOnlyList<IReadOnlyList<string>> lists, int from)
    {
        if (from == lists.Count)
        {
            yield return [];
            yield break;
        }

        IReadOnlyList<string> list = lists[from].Count == 0 ? [""] : lists[from];
        foreach (var entry in list)
        {
            foreach (var rest in Product(lists, from + 1))
            {
                yield return [entry, .. rest];
            }
        }
    }

    private static string Joined(IEnumerable<string> parts)
    {
        var words = new List<string>();
        var said = new HashSet<string>(StringComparer.Ordinal);
        foreach (var part in parts)
        {
            // Marks of a match type are chosen for all, and not taken from the lists.
            var own = part.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
                .Select(word => word.Trim(KeywordNotation.Marks))
                .Where(word => word.Length > 0)
                .ToArray();
            words.AddRange(own.Where(word => !said.Contains(Form(word))));

            // Within one entry a word may well come twice (“word for word”); across entries it is a slip.
            said.UnionWith(own.Select(Form));
        }

        return string.Join(' ', words);
    }

    private static string Form(string word) => string.Concat(Words.Of(word).Select(Plurals.Singular));
}
