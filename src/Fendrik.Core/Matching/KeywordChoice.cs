using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>By which rule one keyword of several answers a search.</summary>
public enum ChoiceRule
{
    /// <summary>No other matches.</summary>
    Only = 1,

    /// <summary>It is the search itself, in exact match.</summary>
    IsTheSearch = 2,

    /// <summary>It has the words of the search, in a looser match type.</summary>
    SameWords = 3,

    /// <summary>Its bid × quality is the highest.</summary>
    HighestRank = 4,

    /// <summary>The ranks are the same: the tighter match type, then the keyword that has been there longer.</summary>
    Tie = 5,
}

/// <summary>One of several keywords that match a search.</summary>
/// <param name="KeywordId">The keyword; a lower one has been there longer.</param>
/// <param name="Match">Its match type.</param>
/// <param name="HasWordsOfSearch">True when its words are those of the search, in the same order.</param>
/// <param name="Rank">Bid × quality, in any unit that all share.</param>
public readonly record struct MatchingKeyword(long KeywordId, MatchType Match, bool HasWordsOfSearch, long Rank)
{
    private int Tier =>
        !HasWordsOfSearch ? 2
        : Match == MatchType.Exact ? 0
        : 1;

    /// <summary>
    /// Which of several keywords answers: the exact keyword that is the search itself, then the same words in a looser match
    /// type, then the highest bid × quality; among equals the tighter match type, then the one that has been there longer.
    /// </summary>
    /// <exception cref="ArgumentException">There is none to choose from.</exception>
    public static (MatchingKeyword Keyword, ChoiceRule Rule) Choose(IReadOnlyCollection<MatchingKeyword> keywords)
    {
        MatchingKeyword? best = null;
        foreach (var keyword in keywords)
        {
            if (best is not { } other || Compare(keyword, other) < 0)
            {
                best = keyword;
            }
        }

        if (best is not { } chosen)
        {
            throw new ArgumentException("There is no keyword to choose from.", nameof(keywords));
        }

        var rule =
            keywords.Count == 1 ? ChoiceRule.Only
            : keywords.Any(each => each != chosen && each.Tier == chosen.Tier && each.Rank == chosen.Rank)
                ? ChoiceRule.Tie
            : keywords.Any(each => each != chosen && each.Tier == chosen.Tier) ? ChoiceRule.HighestRank
            : chosen.Tier == 0 ? ChoiceRule.IsTheSearch
            : ChoiceRule.SameWords;
        return (chosen, rule);
    }

    /// <summary>Below zero when the left keyword answers rather than the right one.</summary>
    public static int Compare(MatchingKeyword left, MatchingKeyword right) =>
        (left.Tier - right.Tier, right.Rank.CompareTo(left.Rank), left.Match - right.Match) switch
        {
            (not 0 and var tier, _, _) => tier,
            (_, not 0 and var rank, _) => rank,
            (_, _, not 0 and var match) => match,
            _ => left.KeywordId.CompareTo(right.KeywordId),
        };
}
