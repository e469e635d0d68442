using Fendrik.Core.Auctions;

namespace Fendrik.Core.Networks;

/// <summary>What one search brought on one day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Term">What was searched for, as normalised words.</param>
/// <param name="CampaignId">Campaign that answered.</param>
/// <param name="AdGroupId">Ad group that answered.</param>
/// <param name="KeywordId">Keyword that answered.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">Cost of the clicks.</param>
/// <param name="Conversions">Conversions.</param>
/// <param name="Value">Value of the conversions.</param>
public sealed record SearchTermRow(
    DateOnly Day,
    string Term,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Conversions,
    decimal Value
);

/// <summary>How one keyword stood on one day in the searches that it could answer.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">Campaign.</param>
/// <param name="AdGroupId">Ad group.</param>
/// <param name="KeywordId">Keyword.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Top">Times shown above the results.</param>
/// <param name="First">Times shown first of all.</param>
/// <param name="Places">Sum of the places, from 1.</param>
/// <param name="LostToRank">Searches in which bid × quality won no place.</param>
/// <param name="LostToBudget">Searches that the daily budget did not reach for.</param>
public sealed record StandingRow(
    DateOnly Day,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    long Impressions,
    long Top,
    long First,
    long Places,
    long LostToRank,
    long LostToBudget
);

/// <summary>How a campaign and its budget went through an hour of a day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Hour">Hour of the clock on the wall: 0 to 23.</param>
/// <param name="CampaignId">Campaign.</param>
/// <param name="Budget">Its daily budget then; none where the network does not know it any more.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="LostToRank">Searches in which bid × quality won no place.</param>
/// <param name="LostToBudget">Searches that the daily budget did not reach for.</param>
/// <param name="StoppedMinute">Minute of the hour at which the budget was spent; none where it lasted.</param>
public sealed record PaceRow(
    DateOnly Day,
    int Hour,
    long CampaignId,
    decimal? Budget,
    long Impressions,
    long LostToRank,
    long LostToBudget,
    int? StoppedMinute
);

/// <summary>What a campaign spent in an hour of a day that is not over.</summary>
/// <param name="CampaignId">Campaign.</param>
/// <param name="Hour">Hour of the clock on the wall: 0 to 23.</param>
/// <param name="Clicks">Clicks so far.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Budget">What the campaign may spend on the day; none where the network does not know yet.</param>
/// <param name="StoppedMinute">Minute of the hour at which the budget was spent; none where it lasted.</param>
public sealed record TodayRow(
    long CampaignId,
    int Hour,
    long Clicks,
    decimal Cost,
    decimal? Budget,
    int? StoppedMinute
);

/// <summary>A day that is not over.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Minute">Minutes of its clock that are over: 0 to 1,439.</param>
/// <param name="Rows">Hours in which something was spent, or a budget was spent up.</param>
public sealed record NetworkToday(DateOnly Day, int Minute, IReadOnlyList<TodayRow> Rows);

/// <summary>Where the strategy of a campaign stands.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Strategy">Its strategy; manual ones without a nudge are not told of.</param>
/// <param name="Since">First day of it in the account's time zone; none before it has run for an hour.</param>
/// <param name="Level">Its level in this hour; see <see cref="Bidding.Strategies.StrategyNow"/>.</param>
/// <param name="LearningDays">Days for which it has learnt, up to a week.</param>
/// <param name="LearntFrom">Conversions, or clicks, that it has learnt from.</param>
/// <param name="LearningNeeds">How many of these it needs.</param>
/// <param name="IsLearning">True while it learns.</param>
public sealed record StrategyRow(
    long CampaignId,
    BidStrategy Strategy,
    DateOnly? Since,
    double Level,
    int LearningDays,
    double LearntFrom,
    int LearningNeeds,
    bool IsLearning
);

/// <summary>How often a rival showed together with the ads of one keyword on one day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">Campaign.</param>
/// <param name="AdGroupId">Ad group.</param>
/// <param name="KeywordId">Keyword.</param>
/// <param name="Rival">Who.</param>
/// <param name="ShownWith">Times shown on the same page.</param>
/// <param name="AboveUs">Of these, above one's own ad.</param>
public sealed record RivalRow(
    DateOnly Day,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    string Rival,
    long ShownWith,
    long AboveUs
);

/// <summary>By what figures are told apart that are not of an item: whom ads reached, where, and how.</summary>
public enum ReachedBy
{
    /// <summary>By the page of a content site.</summary>
    Placement = 1,

    /// <summary>By an audience that stands on the campaign or the ad group.</summary>
    Audience = 2,

    /// <summary>By where people were, who were in the campaign's places.</summary>
    Place = 3,

    /// <summary>By where people were who saw it for an interest in one of the campaign's places alone.</summary>
    Interest = 4,

    /// <summary>By how old people are, as the network takes them to be.</summary>
    Age = 5,

    /// <summary>By whether they are women or men, as the network takes them to be.</summary>
    Gender = 6,

    /// <summary>By what of the ad was clicked; clicks alone are told of.</summary>
    Click = 7,

    /// <summary>By whether a rival showed on the same page.</summary>
    Rival = 8,
}

/// <summary>What ads of an ad group brought on a page of a content site, or with people of an audience, on one day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">The campaign.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="By">By what.</param>
/// <param name="Name">The page, the audience, the key of the place, or one of the names of <see cref="Reporting.Breakdowns.SegmentNames"/>. Somebody may be of several audiences: they do not add up.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Conversions">Conversions of the clicks.</param>
/// <param name="Value">What they are worth.</param>
public sealed record ReachedRow(
    DateOnly Day,
    long CampaignId,
    long AdGroupId,
    ReachedBy By,
    string Name,
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Conversions,
    decimal Value
);

/// <summary>What came of a responsive ad as it showed with some of its lines, on one day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="AdGroupId">Its ad group.</param>
/// <param name="AdId">The ad.</param>
/// <param name="Headlines">Headlines as they are written, in the order in which they showed.</param>
/// <param name="Descriptions">Descriptions, likewise.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Expected">Clicks that the ad's places usually bring.</param>
/// <param name="Conversions">Conversions of the clicks.</param>
/// <param name="Value">What they are worth.</param>
public sealed record CombinationRow(
    DateOnly Day,
    long CampaignId,
    long AdGroupId,
    long AdId,
    string[] Headlines,
    string[] Descriptions,
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Expected,
    decimal Conversions,
    decimal Value
);

/// <summary>What came of the ads of one ad group beside which an extension showed, on one day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">Campaign of the ads.</param>
/// <param name="AdGroupId">Their ad group.</param>
/// <param name="Kind">Kind of the extension.</param>
/// <param name="ExtensionId">The extension.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks on the ads.</param>
/// <param name="OwnClicks">Of these, on the extension itself.</param>
/// <param name="Cost">What the clicks cost.</param>
/// <param name="Expected">Clicks that the ads' places usually bring.</param>
/// <param name="Conversions">Conversions of the clicks.</param>
/// <param name="Value">What they are worth.</param>
public sealed record ExtensionRow(
    DateOnly Day,
    long CampaignId,
    long AdGroupId,
    ItemKind Kind,
    long ExtensionId,
    long Impressions,
    long Clicks,
    long OwnClicks,
    decimal Cost,
    decimal Expected,
    decimal Conversions,
    decimal Value
);

/// <summary>The quality score of a keyword from a day on, until another is reported.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="KeywordId">Keyword.</param>
/// <param name="Score">1 to 10.</param>
/// <param name="ClickLikelihood">How likely clicks are.</param>
/// <param name="TextFit">How well the ads fit what is searched for.</param>
/// <param name="PageFit">How well the landing page does.</param>
public sealed record QualityRow(
    DateOnly Day,
    long KeywordId,
    int Score,
    PartStanding ClickLikelihood,
    PartStanding TextFit,
    PartStanding PageFit
);

/// <summary>One row of a day's report.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Hour">Hour of the clock on the wall, 0 to 23.</param>
/// <param name="CampaignId">Campaign.</param>
/// <param name="AdGroupId">Ad group.</param>
/// <param name="KeywordId">Keyword that took the search.</param>
/// <param name="AdId">Ad that showed.</param>
/// <param name="Device">The person's device.</param>
/// <param name="Site">Where it showed.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">Cost of the clicks.</param>
/// <param name="Conversions">Conversions.</param>
/// <param name="Value">Value of the conversions.</param>
public sealed record PerformanceRow(
    DateOnly Day,
    int Hour,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    long AdId,
    Device Device,
    SiteKinds Site,
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Conversions,
    decimal Value
);
