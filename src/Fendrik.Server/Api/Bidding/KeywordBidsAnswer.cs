using Fendrik.Server.Api.Pricing;

namespace Fendrik.Server.Api.Bidding;

/// <summary>A keyword with its bid.</summary>
/// <param name="Id">The keyword.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="IsPaused">True when it is paused.</param>
/// <param name="AdGroupId">Its ad group.</param>
/// <param name="AdGroup">Name of that.</param>
/// <param name="AdGroupVersion">Its version.</param>
/// <param name="BaseBid">The ad group's max CPC.</param>
/// <param name="TypedBase">That as it is typed.</param>
/// <param name="OwnBid">Its own.</param>
/// <param name="TypedOwn">That as it is typed.</param>
/// <param name="Lowest">The lowest that a search is bid by all modifiers; none without a bid.</param>
/// <param name="Highest">The highest.</param>
/// <param name="Figures">What it brought.</param>
/// <param name="Cpc">What a click cost.</param>
/// <param name="LostToRank">Share of the searches that it could answer in which it won no place.</param>
/// <param name="TopShare">Share of its impressions above the results.</param>
/// <param name="Quality">Quality score.</param>
/// <param name="FirstPage">The bid that mostly wins a place.</param>
/// <param name="Top">The bid that mostly wins one above the results.</param>
/// <param name="AskedOn">When the network was asked.</param>
public sealed record KeywordBidRow(
    long Id,
    long Version,
    string Text,
    MatchType Match,
    bool IsPaused,
    long AdGroupId,
    string AdGroup,
    long AdGroupVersion,
    decimal? BaseBid,
    string TypedBase,
    decimal? OwnBid,
    string TypedOwn,
    decimal? Lowest,
    decimal? Highest,
    PricingFigures Figures,
    decimal? Cpc,
    decimal? LostToRank,
    decimal? TopShare,
    int? Quality,
    decimal? FirstPage,
    decimal? Top,
    DateOnly? AskedOn
);

/// <summary>Bids of a campaign.</summary>
/// <param name="Keywords">Its keywords, the dearest first.</param>
/// <param name="More">True when there are more.</param>
/// <param name="Says">What is to be known of all of them; none where nothing is.</param>
public sealed record KeywordBids(IReadOnlyList<KeywordBidRow> Keywords, bool More, string? Says);

/// <summary>What bids are to reach.</summary>
public enum BidGoal
{
    /// <summary>A place on the page.</summary>
    FirstPage = 1,

    /// <summary>A place above the results.</summary>
    Top = 2,

    /// <summary>A bid to begin with.</summary>
    Starting = 3,
}

/// <summary>Asks for bids.</summary>
/// <param name="KeywordIds">The keywords.</param>
/// <param name="Goal">What they are to reach.</param>
/// <param name="Ceiling">The most that is bid, as it is typed; none for no limit.</param>
public sealed record BidWish(IReadOnlyList<long> KeywordIds, BidGoal Goal, string? Ceiling);

/// <summary>A bid that is proposed.</summary>
/// <param name="Id">The keyword.</param>
/// <param name="Version">Its version.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="Now">What it bids now.</param>
/// <param name="Next">What it would bid; none where nothing is proposed.</param>
/// <param name="Typed">That as it is typed.</param>
/// <param name="Why">What it rests on, or why there is none.</param>
public sealed record ProposedBid(
    long Id,
    long Version,
    string Text,
    MatchType Match,
    decimal? Now,
    decimal? Next,
    string? Typed,
    string Why
);
