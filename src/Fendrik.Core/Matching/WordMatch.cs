using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>The definition of each match type, for one keyword and one search, both as words.</summary>
/// <remarks>The index answers the same question for many keywords at once and must agree with this.</remarks>
public static class WordMatch
{
    /// <summary>True when a search with these words may be answered by this keyword.</summary>
    /// <param name="keyword">The keyword's words in order; an empty keyword matches nothing.</param>
    /// <param name="match">The keyword's match type.</param>
    /// <param name="search">The search's words in order.</param>
    /// <param name="synonyms">Words that the network takes for each other, used by broad match only.</param>
    public static bool Matches(
        IReadOnlyList<string> keyword,
        MatchType match,
        IReadOnlyList<string> search,
        Synonyms? synonyms = null
    )
    {
        if (keyword.Count == 0)
        {
            return false;
        }

        return match switch
        {
            MatchType.Exact => keyword.SequenceEqual(search, StringComparer.Ordinal),
            MatchType.Phrase => ContainsRun(search, keyword),
            MatchType.AllWords => keyword.All(search.Contains),
            _ => keyword.All(word => search.Any(other => Near(word, other, synonyms ?? Synonyms.None))),
        };
    }

    /// <summary>
    /// True when a negative blocks a search. Negatives are literal: no plurals, no synonyms; a broad negative needs all
    /// its words in any order.
    /// </summary>
    public static bool Blocks(IReadOnlyList<string> negative, MatchType match, IReadOnlyList<string> search) =>
        Matches(negative, match == MatchType.Broad ? MatchType.AllWords : match, search);

    private static bool Near(string word, string other, Synonyms synonyms) =>
        string.Equals(synonyms.Canonical(word), synonyms.Canonical(other), StringComparison.Ordinal);

    private static bool ContainsRun(IReadOnlyList<string> search, IReadOnlyList<string> run)
    {
        for (var start = 0; start + run.Count <= search.Count; start++)
        {
            var length = 0;
            while (length < run.Count && string.Equals(search[start + length], run[length], StringComparison.Ordinal))
            {
                length++;
            }

            if (length == run.Count)
            {
                return true;
            }
        }

        return false;
    }
}
