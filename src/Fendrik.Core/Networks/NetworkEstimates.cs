namespace Fendrik.Core.Networks;

/// <summary>A keyword for which an estimate is asked.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="KeywordId">The live keyword, whose quality then counts; none for one that is not there yet.</param>
public sealed record AskedKeyword(string Text, MatchType Match, long? KeywordId = null);

/// <summary>What a network is asked to estimate: what keywords would bring in a usual week, each by itself.</summary>
/// <param name="CampaignId">The live campaign whose places, hours, sites and modifiers count; none for everywhere and always.</param>
/// <param name="Keywords">The keywords: no more than <see cref="NetworkProfile.EstimatesAtOnce"/>.</param>
/// <param name="Bids">Bids, before modifiers: 1 to <see cref="MostBids"/>.</param>
public sealed record EstimateWish(long? CampaignId, IReadOnlyList<AskedKeyword> Keywords, IReadOnlyList<decimal> Bids)
{
    /// <summary>Most bids at once.</summary>
    public const int MostBids = 12;
}

/// <summary>What a bid would bring in a usual week.</summary>
/// <param name="Bid">The bid, before modifiers.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">What they cost.</param>
public sealed record EstimatedWeek(decimal Bid, double Impressions, double Clicks, decimal Cost);

/// <summary>A network's estimate for a keyword.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="KeywordId">The live keyword, where one was asked about.</param>
/// <param name="Reason">Why there is no estimate; none where there is one.</param>
/// <param name="Weeks">A week at each bid, the lowest first; empty where there is no estimate.</param>
/// <param name="FirstPage">The bid that mostly wins a place on the page.</param>
/// <param name="Top">The bid that mostly wins a place above the results.</param>
public sealed record NetworkEstimate(
    string Text,
    MatchType Match,
    long? KeywordId,
    string? Reason,
    IReadOnlyList<EstimatedWeek> Weeks,
    decimal? FirstPage,
    decimal? Top
);
