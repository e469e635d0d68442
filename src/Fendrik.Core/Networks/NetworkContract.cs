using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;

namespace Fendrik.Core.Networks;

/// <summary>What a change sent to a network does.</summary>
public enum ChangeAction
{
    /// <summary>The item is to be as given, whether it was there or not.</summary>
    Put = 1,

    /// <summary>The item is to be gone; with it all that belongs to it.</summary>
    Remove = 2,
}

/// <summary>One item to be changed on the network.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="ItemId">Identity, given by Fendrik.</param>
/// <param name="Action">Put or remove.</param>
/// <param name="Item">The whole item as JSON when it is put.</param>
/// <param name="Seen">
/// Version of the item on the network that the sender knows, 0 when it is not there; where the network has another, the change
/// is not carried out. None when the sender does not care.
/// </param>
public sealed record NetworkChange(
    ItemKind Kind,
    long ItemId,
    ChangeAction Action,
    JsonElement? Item,
    long? Seen = null
);

/// <summary>What a network says to one change.</summary>
public enum NetworkVerdict
{
    /// <summary>The network has the item as it was sent (and serves it now or, for ads and keywords, once reviewed).</summary>
    Accepted = 1,

    /// <summary>The network does not take it as it is.</summary>
    Refused = 2,

    /// <summary>The item there is not the one that the sender had seen; nothing was changed.</summary>
    ChangedSince = 3,
}

/// <summary>What became of one change.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Verdict">Whether it was carried out.</param>
/// <param name="Reason">Why it was refused, for a person.</param>
/// <param name="Version">Version of the item on the network now; 0 when it was never there or is not known.</param>
/// <param name="Item">The item there when it is another than the sender had seen; none when it is gone.</param>
public sealed record NetworkAnswer(
    ItemKind Kind,
    long ItemId,
    NetworkVerdict Verdict,
    string? Reason = null,
    long Version = 0,
    JsonElement? Item = null
);

/// <summary>What the reviewers say of one item.</summary>
public sealed record NetworkReview(ItemKind Kind, long ItemId, ReviewState State, string? Reason);

/// <summary>What the reviewers said, in the order of their saying it; a part of it when it is much.</summary>
/// <param name="Last">Number of the last review told of: ask with it for what comes after.</param>
/// <param name="Reviews">The reviews; none when nothing came after.</param>
public sealed record NetworkReviews(long Last, IReadOnlyList<NetworkReview> Reviews);

/// <summary>An item as the network has it.</summary>
/// <param name="Kind">Kind of item.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Item">Its published fields; none when it is gone.</param>
/// <param name="Version">Number of its last change: greater than that of any change before it in the account.</param>
public sealed record NetworkItem(ItemKind Kind, long ItemId, JsonElement? Item, long Version);

/// <summary>Items that changed on the network, whoever changed them; a part of them when they are many.</summary>
/// <param name="Last">Number of the last change told of: ask with it for what comes after.</param>
/// <param name="Items">The items as they are now, each once; none when nothing came after.</param>
public sealed record NetworkItems(long Last, IReadOnlyList<NetworkItem> Items);

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

/// <summary>By what figures of placements and audiences are told apart.</summary>
public enum ReachedBy
{
    /// <summary>By the page of a content site.</summary>
    Placement = 1,

    /// <summary>By an audience that stands on the campaign or the ad group.</summary>
    Audience = 2,
}

/// <summary>What ads of an ad group brought on a page of a content site, or with people of an audience, on one day.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">The campaign.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="By">Which of the two.</param>
/// <param name="Name">The page, or the audience. Somebody may be of several audiences: they do not add up.</param>
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

/// <summary>A place that a network knows.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Region">The part of the country.</param>
/// <param name="Country">ISO 3166-1 code.</param>
public sealed record NetworkPlace(string Name, string Region, string Country);

/// <summary>What became of a search of the past.</summary>
public enum SearchFate
{
    /// <summary>An ad was shown.</summary>
    Shown = 1,

    /// <summary>Bid × quality won no place.</summary>
    LostToRank = 2,

    /// <summary>The daily budget did not reach for it.</summary>
    LostToBudget = 3,

    /// <summary>A negative kept every keyword away.</summary>
    Blocked = 4,
}

/// <summary>A search of the past, to be opened.</summary>
/// <param name="Name">Its name on the network.</param>
/// <param name="At">When it was made.</param>
/// <param name="Text">What was typed.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site.</param>
/// <param name="Place">Where the person was.</param>
/// <param name="Fate">What became of it.</param>
/// <param name="KeywordId">The keyword that answered or would have; none when a negative kept all away.</param>
/// <param name="Price">What a click cost there; none when nothing was shown.</param>
/// <param name="Clicked">True when it was clicked.</param>
public sealed record SampleSearch(
    string Name,
    DateTimeOffset At,
    string Text,
    Device Device,
    SiteKinds Site,
    string Place,
    SearchFate Fate,
    long? KeywordId,
    decimal? Price,
    bool Clicked
);

/// <summary>A search to be traced on the live copy as it is now.</summary>
/// <param name="Text">What is typed: 1 to 400 characters.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Place">Where the person is, by the network's name for it; none for nowhere in particular: then all rivals may bid.</param>
/// <param name="Hour">Hour of the clock on the wall, 0 to 23; none for now.</param>
/// <param name="Page">The page of a content site, domain and path; none for none in particular: then placements do not decide.</param>
/// <param name="Audiences">Audiences that the person is of, by the network's names; none for none.</param>
public sealed record TraceWish(
    string Text,
    Device Device,
    SiteKinds Site,
    string? Place = null,
    int? Hour = null,
    string? Page = null,
    IReadOnlyList<string>? Audiences = null
)
{
    private const int MostAudiences = 50;

    /// <summary>Longest search.</summary>
    public const int LongestText = 400;

    /// <summary>What is wrong with it, and with which field; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public (string Field, string Message)? Problem =>
        Text is not { Length: > 0 and <= LongestText } ? ("text", $"A search has 1 to {LongestText} characters.")
        : !Enum.IsDefined(Device) ? ("device", "There is no such device.")
        : Site is not (SiteKinds.Search or SiteKinds.Partners or SiteKinds.Content)
            ? ("site", "A search is made on one kind of site.")
        : Hour is < 0 or > 23 ? ("hour", "The hours of a day are 0 to 23.")
        : Page is { Length: > LongestText } ? ("page", $"A page has at most {LongestText} characters.")
        : Audiences is { } of
        && (of.Count > MostAudiences || of.Any(each => each is not { Length: > 0 and <= LongestText }))
            ? ("audiences", "Choose audiences of the network.")
        : null;
}

/// <summary>The network's clock: simulated, so it moves only when it is told to.</summary>
/// <param name="Now">The moment on the network.</param>
/// <param name="FirstDay">First day of the account on the network.</param>
/// <param name="LastFullDay">Last day that is over in the account's time zone, for which reports are final.</param>
public sealed record NetworkClock(DateTimeOffset Now, DateOnly FirstDay, DateOnly? LastFullDay);

/// <summary>Who pays an account on a network. Without a payer, items are taken and reviewed, but nothing serves.</summary>
/// <param name="Name">Name of who pays: 1 to 120 characters; none when nobody does.</param>
public sealed record AccountPayer(string? Name)
{
    /// <summary>Longest name.</summary>
    public const int LongestName = 120;

    /// <summary>What is wrong with it; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? Problem =>
        Name is not null && (string.IsNullOrWhiteSpace(Name) || Name.Length > LongestName || Name.Any(char.IsControl))
            ? $"The name of a payer has 1 to {LongestName} characters."
            : null;
}

/// <summary>Something that reviewers refused, to be read again by another.</summary>
/// <param name="Kind">Kind of the item.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Word">Why it should be let through, in the words of whoever asks.</param>
public sealed record Appeal(ItemKind Kind, long ItemId, string Word)
{
    /// <summary>Longest word.</summary>
    public const int LongestWord = 500;

    /// <summary>What is wrong with it; none when nothing is.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? Problem =>
        string.IsNullOrWhiteSpace(Word) ? "Say in a few words why it should be let through."
        : Word.Length > LongestWord ? $"At most {LongestWord} characters are read."
        : null;
}

/// <summary>What becomes of an appeal.</summary>
public enum AppealAnswer
{
    /// <summary>Another reviewer reads it.</summary>
    Taken = 1,

    /// <summary>It is not refused, or not there.</summary>
    NotRefused = 2,

    /// <summary>It was read again already, and stays refused until it is changed.</summary>
    ReadAgainBefore = 3,
}

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
