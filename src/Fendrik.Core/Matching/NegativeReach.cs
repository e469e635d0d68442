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
            _ => broaderMatch is MatchType.AllWords or MatchType.Broad
                || (broaderMatch == MatchType.Phrase && broader.Count == 1),
        };
    }

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
