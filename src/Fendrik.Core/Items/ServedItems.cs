using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Core.Items;

/// <summary>
/// One campaign as it is served. The records of this file name the fields that matching and serving go by; what an item is
/// stands in <see cref="ItemType"/>.
/// </summary>
/// <param name="Id">Identity, the same in the working copy and on the network.</param>
/// <param name="Name">Unique in the account by normalised text.</param>
/// <param name="State">Running or paused.</param>
/// <param name="DailyBudget">Most to be spent in one day of the account's time zone; none stops publishing.</param>
/// <param name="StartDate">First day, or none for at once.</param>
/// <param name="EndDate">Last day, or none for open.</param>
/// <param name="Networks">Where its ads may show.</param>
/// <param name="TrackingTemplate">What the addresses of its clicks are made by, or none for the account's.</param>
/// <param name="Rotation">How the ads of an ad group take turns.</param>
/// <param name="Hours">When ads show, with modifiers; none for always.</param>
/// <param name="DesktopModifier">Per cent more or less on desktops; none for as it is.</param>
/// <param name="PhoneModifier">Likewise on phones.</param>
/// <param name="TabletModifier">Likewise on tablets.</param>
/// <param name="Delivery">How the daily budget is spent.</param>
/// <param name="People">Whom its places reach.</param>
/// <param name="Strategy">Who sets its bids, and by what.</param>
/// <param name="TargetCpa">What a conversion shall cost.</param>
/// <param name="TargetRoas">The value that spend shall return, in per cent.</param>
/// <param name="LowestBid">The least that a strategy may bid.</param>
/// <param name="HighestBid">The most that a strategy may bid.</param>
/// <param name="Languages">The languages of the people whom it reaches, as they are kept; none for every language.</param>
/// <param name="TotalBudget">Most to be spent in all; none for no such limit.</param>
/// <param name="Goals">Names of the conversion actions that count in it; none for those of the account.</param>
public sealed record Campaign(
    long Id,
    string Name,
    ItemState State,
    decimal? DailyBudget,
    DateOnly? StartDate,
    DateOnly? EndDate,
    SiteKinds Networks,
    string? TrackingTemplate = null,
    AdRotation Rotation = AdRotation.Even,
    WeekPlan? Hours = null,
    decimal? DesktopModifier = null,
    decimal? PhoneModifier = null,
    decimal? TabletModifier = null,
    BudgetDelivery Delivery = BudgetDelivery.Spread,
    PlaceReach People = PlaceReach.Present,
    BidStrategy Strategy = BidStrategy.ManualCpc,
    decimal? TargetCpa = null,
    decimal? TargetRoas = null,
    decimal? LowestBid = null,
    decimal? HighestBid = null,
    string? Languages = null,
    decimal? TotalBudget = null,
    string? Goals = null
)
{
    /// <summary>By what its bids are set.</summary>
    [JsonIgnore]
    public StrategyPlan Bidding => new(Strategy, TargetCpa, TargetRoas, LowestBid, HighestBid);

    /// <summary>The modifier of a device in per cent; none for as it is.</summary>
    public decimal? ModifierOf(Device device) =>
        device switch
        {
            Device.Desktop => DesktopModifier,
            Device.Phone => PhoneModifier,
            Device.Tablet => TabletModifier,
        };
}

/// <summary>One ad group.</summary>
/// <param name="Id">Identity.</param>
/// <param name="CampaignId">The campaign it belongs to.</param>
/// <param name="Name">Unique in the campaign by normalised text.</param>
/// <param name="State">Running or paused.</param>
/// <param name="MaxCpc">Default max CPC for keywords without their own, in the account's currency.</param>
/// <param name="TrackingTemplate">What the addresses of its clicks are made by, or none for the campaign's.</param>
/// <param name="DesktopModifier">Per cent more or less on desktops; none for the campaign's.</param>
/// <param name="PhoneModifier">Likewise on phones.</param>
/// <param name="TabletModifier">Likewise on tablets.</param>
public sealed record AdGroup(
    long Id,
    long CampaignId,
    string Name,
    ItemState State,
    decimal? MaxCpc,
    string? TrackingTemplate = null,
    decimal? DesktopModifier = null,
    decimal? PhoneModifier = null,
    decimal? TabletModifier = null
)
{
    /// <summary>The modifier of a device in per cent; none for the campaign's.</summary>
    public decimal? ModifierOf(Device device) =>
        device switch
        {
            Device.Desktop => DesktopModifier,
            Device.Phone => PhoneModifier,
            Device.Tablet => TabletModifier,
        };
}

/// <summary>One keyword.</summary>
/// <param name="Id">Identity.</param>
/// <param name="AdGroupId">The ad group it belongs to.</param>
/// <param name="Text">The words, without match notation.</param>
/// <param name="Match">The match type.</param>
/// <param name="State">Running or paused.</param>
/// <param name="MaxCpc">Its own max CPC, or none to use the ad group's.</param>
/// <param name="LandingPage">Its own landing page, or none to use the ad's.</param>
/// <param name="TrackingTemplate">What the addresses of its clicks are made by, or none for the ad group's.</param>
public sealed record Keyword(
    long Id,
    long AdGroupId,
    string Text,
    MatchType Match,
    ItemState State,
    decimal? MaxCpc,
    string? LandingPage,
    string? TrackingTemplate = null
);

/// <summary>Negatives that are kept once and hold for several campaigns.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Name">Unique in the account by normalised text.</param>
/// <param name="CampaignIds">The campaigns that it holds for, ascending.</param>
public sealed record NegativeList(long Id, string Name, IReadOnlyList<long> CampaignIds);

/// <summary>One negative keyword on a campaign, on an ad group of it, or in a shared list.</summary>
/// <param name="Id">Identity.</param>
/// <param name="CampaignId">The campaign; none for a negative of a list.</param>
/// <param name="AdGroupId">The ad group, or none when it holds for the whole campaign.</param>
/// <param name="Text">The words, without match notation.</param>
/// <param name="Match">The match type; a negative never matches near forms.</param>
/// <param name="ListId">The shared list, or none.</param>
public sealed record NegativeKeyword(
    long Id,
    long? CampaignId,
    long? AdGroupId,
    string Text,
    MatchType Match,
    long? ListId = null
);

/// <summary>Words that stand for one another in an account.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Text">A word, or a few that belong together.</param>
/// <param name="Means">What it stands for, one by one; for a misspelling the right word.</param>
/// <param name="Nearness">How much the two mean the same.</param>
public sealed record RelatedWord(long Id, string Text, IReadOnlyList<string> Means, Nearness Nearness);

/// <summary>A callout, a sitelink or a number beside ads, as it is served.</summary>
/// <param name="Id">Identity.</param>
/// <param name="CampaignId">The campaign that it stands on or in; none on the account.</param>
/// <param name="AdGroupId">The ad group that it stands on; none on a campaign or the account.</param>
/// <param name="Text">What it says, or the number by E.164.</param>
/// <param name="State">Running or paused.</param>
/// <param name="ShowsFrom">First day on which it shows, or none for at once.</param>
/// <param name="ShowsUntil">Last day, or none for open.</param>
/// <param name="Hours">Hours of the week, or none for always.</param>
/// <param name="DevicePreference">The only device that it shows on; none for all.</param>
/// <param name="Shows">What tapping on a number leads to; none for what is no number.</param>
/// <param name="LandingPage">Where a sitelink leads; none for what is no link.</param>
/// <param name="Lines">What a sitelink says more.</param>
/// <param name="Measured">Whether calls of a number go through one of the network's; yes for what is no number.</param>
public sealed record PlacedExtension(
    long Id,
    long? CampaignId,
    long? AdGroupId,
    string Text,
    ItemState State = ItemState.Running,
    DateOnly? ShowsFrom = null,
    DateOnly? ShowsUntil = null,
    WeekHours? Hours = null,
    Device? DevicePreference = null,
    NumberShows? Shows = null,
    string? LandingPage = null,
    IReadOnlyList<string>? Lines = null,
    YesNo Measured = YesNo.Yes
)
{
    /// <summary>Where it stands.</summary>
    [JsonIgnore]
    public Level Level =>
        AdGroupId is not null ? Level.AdGroup
        : CampaignId is not null ? Level.Campaign
        : Level.Account;
}

/// <summary>A placement as it is served.</summary>
/// <param name="Id">Identity.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="AdGroupId">Its ad group; none when it stands on the campaign.</param>
/// <param name="Text">The site or page.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Side">In or out.</param>
/// <param name="MaxCpc">Its own max CPC; none to go by the keyword's.</param>
public sealed record PlacedSite(
    long Id,
    long? CampaignId,
    long? AdGroupId,
    string Text,
    ItemState State,
    PlacementSide Side,
    decimal? MaxCpc
);

/// <summary>An audience as it is served.</summary>
/// <param name="Id">Identity.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="AdGroupId">Its ad group; none when it stands on the campaign.</param>
/// <param name="Text">Its name.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Use">Only or observed.</param>
/// <param name="Modifier">Per cent more or less for its people; none for as much.</param>
public sealed record PlacedAudience(
    long Id,
    long? CampaignId,
    long? AdGroupId,
    string Text,
    ItemState State,
    AudienceUse Use,
    decimal? Modifier
);

/// <summary>A place where a campaign shows or never does, as it is served.</summary>
/// <param name="Id">Identity.</param>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Text">The place's full name.</param>
/// <param name="Radius">Kilometres around a town; none for the place alone.</param>
/// <param name="Side">In or out.</param>
/// <param name="Modifier">Per cent more or less; none for as it is.</param>
public sealed record PlacedPlace(
    long Id,
    long CampaignId,
    string Text,
    decimal? Radius,
    PlacementSide Side,
    decimal? Modifier
);

/// <summary>What counts as success, as the network counts it.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Name">Unique in the account by normalised text.</param>
/// <param name="State">Running or paused; paused, it counts nothing.</param>
/// <param name="Source">What somebody does.</param>
/// <param name="Address">The site or page on which it is done, with all below; none for anywhere.</param>
/// <param name="Hearing">How the network comes to know of it.</param>
/// <param name="LeastSeconds">How long people must talk; none for every answered call.</param>
/// <param name="FixedValue">What one is worth where that is fixed, in the account's currency.</param>
/// <param name="Worth">What a conversion is worth.</param>
/// <param name="Counting">How often it counts after one click.</param>
/// <param name="Window">Days after the click within which it counts; none for <see cref="UsualWindow"/>.</param>
/// <param name="Steers">Whether strategies learn from it.</param>
/// <param name="AccountGoal">Whether it counts in campaigns without goals of their own.</param>
public sealed record ConversionAction(
    long Id,
    string Name,
    ItemState State,
    ConversionSource Source,
    string? Address,
    ConversionHearing Hearing,
    decimal? LeastSeconds,
    decimal? FixedValue,
    ConversionWorth Worth,
    ConversionCounting Counting,
    decimal? Window,
    YesNo Steers,
    YesNo AccountGoal
)
{
    /// <summary>Days after a click within which a conversion counts where nothing is said.</summary>
    public const int UsualWindow = 28;
}
