using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>What an audit knows of an action.</summary>
/// <param name="Action">The action.</param>
/// <param name="Health">How it stands.</param>
public sealed record AuditedAction(ConversionAction Action, ActionHealth Health);

/// <summary>What an audit knows of a campaign.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Name">Its name.</param>
/// <param name="Goals">Its own goals as they are kept; none for those of the account.</param>
/// <param name="Bidding">By what its bids are set.</param>
public sealed record AuditedCampaign(long Id, string Name, string? Goals, StrategyPlan Bidding);

/// <summary>Two actions that counted the same clicks.</summary>
/// <param name="First">The one that counted more of them first.</param>
/// <param name="Second">The other.</param>
/// <param name="Both">Clicks that both counted.</param>
/// <param name="OfFirst">Clicks that the first counted.</param>
/// <param name="OfSecond">Clicks that the second counted.</param>
/// <param name="Hours">Median of the hours between the two.</param>
public sealed record CountedTwice(long First, long Second, int Both, int OfFirst, int OfSecond, double Hours)
{
    /// <summary>Share of the clicks of the rarer one that the other counted too, from which it is pointed out (common practice, no source).</summary>
    public const double LeastShare = 0.1;

    /// <summary>Fewer clicks are left to chance.</summary>
    public const int FewestClicks = 5;

    /// <summary>True when the rarer one hardly counts anything that the other does not: it can be left out.</summary>
    public bool IsMostly => 2 * Both >= Math.Min(OfFirst, OfSecond);

    /// <summary>True when it is worth pointing out.</summary>
    public bool IsMuch => Both >= FewestClicks && Both >= LeastShare * Math.Min(OfFirst, OfSecond);
}

/// <summary>What a page says of the network's tag.</summary>
public enum PageTag
{
    /// <summary>The page was not read.</summary>
    Unread = 0,

    /// <summary>There is none.</summary>
    None = 1,

    /// <summary>It tells when a form is sent or something is bought.</summary>
    OnSend = 2,

    /// <summary>It tells of a form whenever the page is looked at.</summary>
    OnLoad = 3,
}

/// <summary>A landing page, as it was read.</summary>
/// <param name="Address">Domain and path.</param>
/// <param name="Tag">Its tag.</param>
public sealed record AuditedPage(string Address, PageTag Tag);

/// <summary>All that an audit goes by.</summary>
/// <param name="Actions">The actions of the account.</param>
/// <param name="Campaigns">Its running campaigns.</param>
/// <param name="Twice">Pairs of actions that counted the same clicks.</param>
/// <param name="Pages">Its landing pages.</param>
public sealed record AuditFacts(
    IReadOnlyList<AuditedAction> Actions,
    IReadOnlyList<AuditedCampaign> Campaigns,
    IReadOnlyList<CountedTwice> Twice,
    IReadOnlyList<AuditedPage> Pages
);
