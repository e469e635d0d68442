namespace Fendrik.Core.Items;

/// <summary>The kinds of item an account is made of.</summary>
public enum ItemKind
{
    /// <summary>A budget, dates and networks, with ad groups in it.</summary>
    Campaign = 1,

    /// <summary>Keywords and ads about one theme, with a default max CPC.</summary>
    AdGroup = 2,

    /// <summary>Words bid on, with a match type.</summary>
    Keyword = 3,

    /// <summary>Words that must not trigger an ad, on a campaign, an ad group or a list.</summary>
    NegativeKeyword = 4,

    /// <summary>A text ad with fixed headlines and descriptions.</summary>
    TextAd = 5,

    /// <summary>Negatives that several campaigns share.</summary>
    NegativeList = 6,

    /// <summary>What holds for the account as a whole. There is one.</summary>
    Account = 7,

    /// <summary>A short advantage shown under ads, on the account, a campaign or an ad group.</summary>
    Callout = 8,

    /// <summary>A further link shown under ads, on the account, a campaign or an ad group.</summary>
    Sitelink = 9,

    /// <summary>Words that stand for one another in this account.</summary>
    RelatedWords = 10,

    /// <summary>A telephone number beside ads, on the account, a campaign or an ad group.</summary>
    CallExtension = 11,

    /// <summary>An ad of many headlines and descriptions, of which the network shows a few at a time.</summary>
    ResponsiveAd = 12,

    /// <summary>An ad that is called, on phones alone.</summary>
    CallAd = 13,

    /// <summary>A content site, or a page of one, where ads show or never do, on a campaign or an ad group.</summary>
    Placement = 14,

    /// <summary>People to whom ads are kept, or by whom figures are told apart, on a campaign or an ad group.</summary>
    Audience = 15,

    /// <summary>A country, a region or a town, where a campaign shows or never does.</summary>
    Place = 16,

    /// <summary>What counts as success, by which campaigns are judged and strategies steer.</summary>
    ConversionAction = 17,
}

/// <summary>What somebody does that can be counted.</summary>
public enum ConversionSource
{
    /// <summary>A form is sent.</summary>
    Form = 1,

    /// <summary>Something is bought on the site.</summary>
    Sale = 2,

    /// <summary>A visit is booked, on the own site or on another company's.</summary>
    Booking = 3,

    /// <summary>The number beside an ad, or a call ad, is called.</summary>
    CallFromAd = 4,

    /// <summary>The number on the site is called.</summary>
    CallFromSite = 5,

    /// <summary>A page is looked at.</summary>
    PageReached = 6,
}

/// <summary>How the network comes to know of it.</summary>
public enum ConversionHearing
{
    /// <summary>A tag on the own site tells it.</summary>
    Tag = 1,

    /// <summary>The click id is carried over to the other company's site in the link, and the tag there tells it.</summary>
    CarriedId = 2,

    /// <summary>The other company's site sends its confirmations.</summary>
    SentBack = 3,
}

/// <summary>How often something counts that a person does several times after a click.</summary>
public enum ConversionCounting
{
    /// <summary>Once for a click.</summary>
    OneForClick = 1,

    /// <summary>Each time.</summary>
    Each = 2,
}

/// <summary>What a conversion is worth.</summary>
public enum ConversionWorth
{
    /// <summary>What the action says.</summary>
    Fixed = 1,

    /// <summary>What is sent with it: the sum of the order.</summary>
    Sent = 2,

    /// <summary>What the own books say later.</summary>
    ByHand = 3,
}

/// <summary>Whom a campaign with places shows to.</summary>
public enum PlaceReach
{
    /// <summary>People who are there.</summary>
    Present = 1,

    /// <summary>Also people who are elsewhere and interested in it, as far as the network can tell.</summary>
    PresentOrInterested = 2,
}

/// <summary>What a campaign is for.</summary>
public enum Objective
{
    /// <summary>People who get in touch in any way.</summary>
    Leads = 1,

    /// <summary>People who ring.</summary>
    Calls = 2,

    /// <summary>Sales, by what they are worth.</summary>
    Sales = 3,

    /// <summary>People who come and look.</summary>
    Visits = 4,
}

/// <summary>Whether ads show on a placement.</summary>
public enum PlacementSide
{
    /// <summary>They show there; where any are in, only there of all content sites.</summary>
    In = 1,

    /// <summary>They never show there.</summary>
    Out = 2,
}

/// <summary>What an audience is for.</summary>
public enum AudienceUse
{
    /// <summary>Whoever belongs to none that ads are kept to does not see them.</summary>
    Only = 1,

    /// <summary>Everybody sees them; the audience has figures of its own.</summary>
    Observed = 2,
}

/// <summary>How the ads of an ad group take turns.</summary>
public enum AdRotation
{
    /// <summary>Each as often as the others: for those who compare them.</summary>
    Even = 1,

    /// <summary>The one that brought more clicks so far more often.</summary>
    BySuccess = 2,
}

/// <summary>How a daily budget is spent.</summary>
public enum BudgetDelivery
{
    /// <summary>Spread over the hours in which the campaign shows.</summary>
    Spread = 1,

    /// <summary>As fast as possible: in every search until it is spent.</summary>
    Fast = 2,
}

/// <summary>Who sets the bids of a campaign, and by what.</summary>
public enum BidStrategy
{
    /// <summary>People: max CPC and modifiers.</summary>
    ManualCpc = 1,

    /// <summary>People, nudged by how likely a click is to convert.</summary>
    NudgedCpc = 2,

    /// <summary>The network: as many clicks as the budget buys.</summary>
    MaximiseClicks = 3,

    /// <summary>The network: as many conversions as the budget buys.</summary>
    MaximiseConversions = 4,

    /// <summary>The network: conversions at a cost that is wanted.</summary>
    TargetCpa = 5,

    /// <summary>The network: as much value as the budget buys.</summary>
    MaximiseValue = 6,

    /// <summary>The network: value at a return on spend that is wanted.</summary>
    TargetRoas = 7,
}

/// <summary>Where an item may stand.</summary>
public enum Level
{
    /// <summary>On the account itself.</summary>
    Account = 1,

    /// <summary>In or on a campaign.</summary>
    Campaign = 2,

    /// <summary>In or on an ad group.</summary>
    AdGroup = 3,

    /// <summary>In a list that campaigns share.</summary>
    List = 4,
}

/// <summary>How much two words mean the same, in the words of an account.</summary>
public enum Nearness
{
    /// <summary>Another word for the same.</summary>
    Synonym = 1,

    /// <summary>A word that has much to do with it.</summary>
    Close = 2,

    /// <summary>A word that has something to do with it.</summary>
    Loose = 3,

    /// <summary>The right word with a slip.</summary>
    Misspelling = 4,
}

/// <summary>How closely a search must follow a keyword.</summary>
public enum MatchType
{
    /// <summary>The search is the keyword, word for word.</summary>
    Exact = 1,

    /// <summary>The search contains the keyword's words together and in order.</summary>
    Phrase = 2,

    /// <summary>The search contains every word of the keyword as written, in any order, with words between.</summary>
    AllWords = 3,

    /// <summary>As all words, but a near form of a word (plural, synonym) will do.</summary>
    Broad = 4,
}

/// <summary>Whether an item may run.</summary>
public enum ItemState
{
    /// <summary>May run.</summary>
    Running = 1,

    /// <summary>Kept, but does not run.</summary>
    Paused = 2,
}

/// <summary>What tapping on a number beside an ad leads to.</summary>
public enum NumberShows
{
    /// <summary>People choose between calling and the page.</summary>
    WithSite = 1,

    /// <summary>Every tap calls.</summary>
    NumberOnly = 2,
}

/// <summary>Yes or no.</summary>
public enum YesNo
{
    /// <summary>Yes.</summary>
    Yes = 1,

    /// <summary>No.</summary>
    No = 2,
}

/// <summary>What a person searches on.</summary>
public enum Device
{
    /// <summary>Desktop or laptop computer.</summary>
    Desktop = 1,

    /// <summary>Mobile phone.</summary>
    Phone = 2,

    /// <summary>Tablet.</summary>
    Tablet = 3,
}

/// <summary>Where an ad may show. A campaign holds one or several.</summary>
[Flags]
public enum SiteKinds
{
    /// <summary>Nowhere.</summary>
    None = 0,

    /// <summary>The network's own search pages.</summary>
    Search = 1,

    /// <summary>Search boxes of partner sites.</summary>
    Partners = 2,

    /// <summary>Content sites.</summary>
    Content = 4,
}

/// <summary>What the network's reviewers say of an item.</summary>
public enum ReviewState
{
    /// <summary>Not sent, or needs no review.</summary>
    None = 0,

    /// <summary>Sent and waiting.</summary>
    Pending = 1,

    /// <summary>May show.</summary>
    Approved = 2,

    /// <summary>May not show; there is a reason.</summary>
    Refused = 3,
}
