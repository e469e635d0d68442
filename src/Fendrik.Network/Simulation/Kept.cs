using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation.Beside;
using Fendrik.Network.Simulation.Combining;
using Fendrik.Network.Simulation.Counting;
using Fendrik.Network.Simulation.People;

namespace Fendrik.Network.Simulation;

/// <summary>On what of an ad somebody clicked.</summary>
public enum ClickKind
{
    /// <summary>Nobody clicked.</summary>
    None = 0,

    /// <summary>On the headline.</summary>
    Headline = 1,

    /// <summary>On a sitelink.</summary>
    Sitelink = 2,

    /// <summary>On a number: the click is a call.</summary>
    Call = 3,
}

/// <summary>Where in an account something happened.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="KeywordId">The keyword.</param>
public readonly record struct Spot(long CampaignId, long AdGroupId, long KeywordId);

/// <summary>An ad that was shown: enough to hold the network to it, not more.</summary>
/// <param name="Search">Name of the search.</param>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Hour">Hour of the clock on the wall.</param>
/// <param name="At">Seconds since 1970.</param>
/// <param name="Spot">What answered.</param>
/// <param name="AdId">The ad.</param>
/// <param name="Device">The device.</param>
/// <param name="Site">The kind of site.</param>
/// <param name="Place">Place on the page, from 1.</param>
/// <param name="IsTop">Above the results.</param>
/// <param name="Price">What a click costs there, in minor units.</param>
/// <param name="Quality">The score it ranked with.</param>
/// <param name="SetBy">Number of the rival who set the price; 0 for the reserve, −1 for the lowest price of a click.</param>
/// <param name="Click">On what somebody clicked.</param>
/// <param name="From">Number of the place that the person searched from.</param>
/// <param name="Age">The person's age.</param>
/// <param name="Gender">The person's gender.</param>
/// <param name="Expected">Clicks that the place usually brings.</param>
/// <param name="Fit">Share of the searched words in the ad.</param>
public readonly record struct ShownAd(
    ulong Search,
    DateOnly Day,
    int Hour,
    long At,
    Spot Spot,
    long AdId,
    Device Device,
    SiteKinds Site,
    int Place,
    bool IsTop,
    long Price,
    int Quality,
    int SetBy,
    ClickKind Click,
    int From,
    AgeBand Age,
    Gender Gender,
    double Expected,
    double Fit
);

/// <summary>What came of a click that was more than a look at the page.</summary>
/// <param name="Shown">The ad that was clicked.</param>
/// <param name="Term">What was searched for.</param>
/// <param name="Result">How the visit ended.</param>
/// <param name="Value">What it is worth in the account's currency.</param>
/// <param name="Beside">What showed beside the ad.</param>
/// <param name="Combination">Which lines of the ad showed, where it is a responsive one.</param>
/// <param name="Reached">The page of a content site, the audiences and the place by which it is reported.</param>
/// <param name="Bought">What a strategy bid for it, and for what; none for manual bids.</param>
/// <param name="Conversions">What the account's actions counted of it.</param>
/// <param name="Calls">The calls to tracked numbers that came of it, in order.</param>
public readonly record struct Visited(
    ShownAd Shown,
    string Term,
    VisitResult Result,
    decimal Value,
    BesideAd Beside,
    CombinationKey Combination,
    IReadOnlyList<ReachedKey> Reached,
    BoughtClick? Bought,
    IReadOnlyList<CountedConversion> Conversions,
    IReadOnlyList<PlayedCall> Calls
)
{
    /// <summary>The click, as strategies learn from it.</summary>
    public KnownClick Known =>
        new(
            Shown.Day,
            Shown.Hour,
            Shown.Spot,
            Term,
            Shown.Device,
            Shown.Site,
            Reached.Where(each => each.By == ReachedBy.Place).Select(each => each.Name).FirstOrDefault(),
            Shown.Price,
            Conversions.Where(each => each.Steers).Select(each => (DateTimeOffset?)each.Told).Min(),
            (double)Conversions.Where(each => each.Steers).Sum(each => each.Value),
            Bought
        );
}

/// <summary>How the account stood in the searches that one of its keywords could answer on a day.</summary>
public sealed class Standing
{
    /// <summary>Times shown.</summary>
    public long Impressions { get; set; }

    /// <summary>Times shown above the results.</summary>
    public long Top { get; set; }

    /// <summary>Times shown first of all.</summary>
    public long First { get; set; }

    /// <summary>Sum of the places.</summary>
    public long Places { get; set; }

    /// <summary>Searches in which its rank won no place.</summary>
    public long LostToRank { get; set; }

    /// <summary>Searches that the campaign's budget did not reach for.</summary>
    public long LostToBudget { get; set; }
}

/// <summary>What an hour left behind.</summary>
/// <param name="hour">Hours since 1970.</param>
/// <param name="firstDay">The day at its beginning, in the account's time zone.</param>
/// <param name="lastDay">The day at its end.</param>
public sealed class HourKept(long hour, DateOnly firstDay, DateOnly lastDay)
{
    /// <summary>Hours since 1970.</summary>
    public long Hour { get; } = hour;

    /// <summary>The day at its beginning.</summary>
    public DateOnly FirstDay { get; } = firstDay;

    /// <summary>The day at its end.</summary>
    public DateOnly LastDay { get; } = lastDay;

    /// <summary>Ads shown.</summary>
    public List<ShownAd> Shown { get; } = [];

    /// <summary>What was searched for, beside the ads shown.</summary>
    public List<string> Terms { get; } = [];

    /// <summary>What came of the clicks.</summary>
    public List<Visited> Visits { get; } = [];

    /// <summary>How the account stood.</summary>
    public Dictionary<(DateOnly Day, int Hour, Spot Spot), Standing> Standings { get; } = [];

    /// <summary>Rivals that showed with the account's ads: how often, and how often above them.</summary>
    public Dictionary<(DateOnly Day, Spot Spot, int Rival), (long With, long Above)> Rivals { get; } = [];

    /// <summary>What showed beside the ads, and what came of these.</summary>
    public Dictionary<BesideKey, ShownTally> Beside { get; } = [];

    /// <summary>Which ads showed, responsive ones with their lines, and what came of them.</summary>
    public Dictionary<CombinationKey, ShownTally> Combinations { get; } = [];

    /// <summary>Pages of content sites and audiences, and what came of these.</summary>
    public Dictionary<ReachedKey, ShownTally> Reached { get; } = [];

    /// <summary>How many searches there were in all.</summary>
    public long Searches { get; set; }
}
