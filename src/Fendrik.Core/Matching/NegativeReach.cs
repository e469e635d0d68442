using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>A negative with the place that it holds for.</summary>
/// <param name="Negative">The negative.</param>
/// <param name="Campaigns">For a negative of a list, the campaigns that share it; not used otherwise.</param>
public sealed record PlacedNegative(NegativeKeyword Negative, IReadOnlyList<long> Campaigns)
{
    /// <summary>True when it holds for keywords of this ad group of this campaign.</summary>
    public bool Reaches(long campaignId, long adGroupId) =>
        Negative.ListId is not null
            ? Campaigns.Contains(campaignId)
            : Negative.CampaignId == campaignId && (Negative.AdGroupId is null || Negative.AdGroupId == adGroupId);
}

/// <summary>How much of what a keyword answers a negative keeps away.</summary>
public enum Blocking
{
    /// <summary>
    /// Nothing that is central to the keyword: other searches, or just one of many. An exact negative beside a phrase keyword is
    /// the ordinary way to steer traffic (common practice, no source).
    /// </summary>
    None = 0,

    /// <summary>The keyword's own words, but not all searches that have them.</summary>
    Partly = 1,

    /// <summary>Every search that has the keyword's words as its match type wants them. Close and related words may still pass.</summary>
    Wholly = 2,
}

/// <summary>Questions about which negatives hold back what.</summary>
public static class NegativeReach
{
    /// <summary>
    /// True when a broader negative blocks every search that a narrower one blocks, so that the narrower adds nothing
    /// where both hold. Follows from the match types: literal words, exact ⊂ phrase ⊂ all words.
    /// </summary>
    /// <param name="broader">Words of the negative that might do for both.</param>
    /// <param name="broaderMatch">Its match type.</param>
    /// <param name="narrower">Words of the negative that might be needless.</param>
    /// <param name="narrowerMatch">Its match type.</param>
    public static bool Covers(
        IReadOnlyList<string> broader,
        MatchType broaderMatch,
        IReadOnlyList<string> narrower,
        MatchType narrowerMatch
    )
    {
        if (!WordMatch.Blocks(broader, broaderMatch, narrower))
        {
            return false;
        }

        return narrowerMatch switch
        {
            MatchType.Exact => true,
            MatchType.Phrase => broaderMatch != MatchType.Exact,

            // The words may come in any order with others between, so only one word can be in a run for certain.
            MatchType.AllWords or MatchType.Broad => broaderMatch is MatchType.AllWords or MatchType.Broad
                || (broaderMatch == MatchType.Phrase && broader.Count == 1),
        };
    }

    /// <summary>How much of what a keyword answers a negative keeps away, wherever both hold.</summary>
    /// <param name="negative">Words of the negative.</param>
    /// <param name="negativeMatch">Its match type.</param>
    /// <param name="keyword">Words of the keyword, in the same reading.</param>
    /// <param name="keywordMatch">Its match type.</param>
    public static Blocking BlockingOf(
        IReadOnlyList<string> negative,
        MatchType negativeMatch,
        IReadOnlyList<string> keyword,
        MatchType keywordMatch
    ) =>
        keyword.Count == 0 || !WordMatch.Blocks(negative, negativeMatch, keyword) ? Blocking.None
        : Covers(negative, negativeMatch, keyword, keywordMatch) ? Blocking.Wholly
        : negativeMatch == MatchType.Exact ? Blocking.None
        : Blocking.Partly;

    /// <summary>
    /// True when the broader negative holds wherever the narrower does: the campaign for its ad groups, a list for the
    /// campaigns that share it.
    /// </summary>
    public static bool Contains(PlacedNegative broader, PlacedNegative narrower)
    {
        var (wide, narrow) = (broader.Negative, narrower.Negative);
        if (narrow.ListId is not null)
        {
            return wide.ListId is not null && narrower.Campaigns.All(broader.Campaigns.Contains);
        }

        return wide.ListId is not null
            ? broader.Campaigns.Contains(narrow.CampaignId!.Value)
            : wide.CampaignId == narrow.CampaignId && (wide.AdGroupId is null || wide.AdGroupId == narrow.AdGroupId);
    }
}
