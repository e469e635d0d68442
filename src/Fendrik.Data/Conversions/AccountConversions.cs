using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Data.Conversions;

/// <summary>What an action counted in a campaign.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="ActionId">The action; 0 for what was counted before there were any.</param>
/// <param name="Conversions">How many.</param>
/// <param name="Value">What they are worth.</param>
public sealed record CountedInCampaign(long CampaignId, long ActionId, decimal Conversions, decimal Value);

/// <summary>A day whose conversions are still coming in.</summary>
/// <param name="Day">The day.</param>
/// <param name="Clicks">Clicks of it.</param>
/// <param name="SoFar">Clicks that led to a conversion, as far as is told.</param>
/// <param name="Age">Days since its clicks.</param>
public sealed record OpenDay(DateOnly Day, double Clicks, double SoFar, double Age);

/// <summary>The past of a campaign, as its goals are read against it.</summary>
/// <param name="Campaign">The campaign.</param>
/// <param name="Currency">The account's currency.</param>
/// <param name="Actions">The actions of the account.</param>
/// <param name="Counted">What each counted in the campaign.</param>
/// <param name="Cost">What the campaign spent.</param>
public sealed record CampaignPast(
    Campaign Campaign,
    Currency Currency,
    IReadOnlyList<ConversionAction> Actions,
    IReadOnlyList<CountedInCampaign> Counted,
    decimal Cost
);

/// <summary>What an action is worked out from, as far as somebody said.</summary>
public sealed record WorthOfAction(long Id, decimal? AverageSale, decimal? ClosingRate, decimal? Margin);

/// <summary>The conversions of an account: what its actions count, what counts in which campaign, and what there is to find fault with.</summary>
/// <param name="Period">The days whose clicks are looked at; none before anything is reported.</param>
/// <param name="Currency">The account's currency.</param>
/// <param name="Actions">The actions, with how they stand.</param>
/// <param name="Days">Conversions of each action on each day of the period, by the day of the click.</param>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="More">True when there are more campaigns than are listed.</param>
/// <param name="Counted">What actions counted in campaigns.</param>
/// <param name="Spent">What campaigns spent, and how many clicks that bought.</param>
/// <param name="Findings">What an audit found.</param>
/// <param name="Curve">How long conversions take; none before anything is reported.</param>
/// <param name="Open">Days whose conversions are still coming in, the latest first.</param>
/// <param name="PagesRead">Landing pages whose tags are known.</param>
/// <param name="Versions">Versions of actions and campaigns, against which edits hold.</param>
/// <param name="Worths">What the values of actions are worked out from.</param>
public sealed record AccountConversions(
    Period? Period,
    Currency Currency,
    IReadOnlyList<AuditedAction> Actions,
    ILookup<long, (DateOnly Day, decimal Conversions)> Days,
    IReadOnlyList<Campaign> Campaigns,
    bool More,
    IReadOnlyList<CountedInCampaign> Counted,
    IReadOnlyDictionary<long, (decimal Cost, long Clicks)> Spent,
    IReadOnlyList<AuditFinding> Findings,
    DelayCurve? Curve,
    IReadOnlyList<OpenDay> Open,
    int PagesRead,
    IReadOnlyDictionary<(ItemKind Kind, long Id), long> Versions,
    IReadOnlyDictionary<long, WorthOfAction> Worths
);
