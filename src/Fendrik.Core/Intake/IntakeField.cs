namespace Fendrik.Core.Intake;

/// <summary>What a column of a pasted list or a file holds.</summary>
public enum IntakeField
{
    /// <summary>Nothing that is brought in.</summary>
    LeaveOut = 0,

    /// <summary>Campaign name.</summary>
    Campaign = 1,

    /// <summary>The campaign's daily budget.</summary>
    DailyBudget = 2,

    /// <summary>The campaign's first day.</summary>
    StartDate = 3,

    /// <summary>The campaign's last day.</summary>
    EndDate = 4,

    /// <summary>Where the campaign shows: search, partners, content.</summary>
    Networks = 5,

    /// <summary>Ad group name.</summary>
    AdGroup = 6,

    /// <summary>The ad group's default max CPC.</summary>
    AdGroupMaxCpc = 7,

    /// <summary>A keyword, or a negative when a minus stands in front.</summary>
    Keyword = 8,

    /// <summary>A negative keyword.</summary>
    NegativeKeyword = 9,

    /// <summary>Match type of the keyword or negative.</summary>
    MatchType = 10,

    /// <summary>Max CPC of the keyword, or of the ad group in a row without one.</summary>
    MaxCpc = 11,

    /// <summary>Running or paused, of the row's own item.</summary>
    State = 12,

    /// <summary>Landing page.</summary>
    FinalUrl = 13,

    /// <summary>First headline.</summary>
    Headline1 = 14,

    /// <summary>Second headline.</summary>
    Headline2 = 15,

    /// <summary>Third headline.</summary>
    Headline3 = 16,

    /// <summary>First description.</summary>
    Description1 = 17,

    /// <summary>Second description.</summary>
    Description2 = 18,

    /// <summary>First part of the display path.</summary>
    Path1 = 19,

    /// <summary>Second part of the display path.</summary>
    Path2 = 20,

    /// <summary>Device that an ad prefers.</summary>
    Device = 21,
}

/// <summary>A field with its name for people and the headers by which it is known.</summary>
/// <param name="Field">The field.</param>
/// <param name="Label">Name shown.</param>
/// <param name="Headers">Headers seen for it, as normalised text without punctuation.</param>
public sealed record IntakeFieldName(IntakeField Field, string Label, IReadOnlyList<string> Headers)
{
    /// <summary>All fields in the order in which they are offered. Headers are common practice, no source.</summary>
    public static IReadOnlyList<IntakeFieldName> All { get; } =
    [
        new(IntakeField.Campaign, "Campaign", ["campaign", "campaign name", "camp", "kampagne", "campagne"]),
        new(
            IntakeField.DailyBudget,
            "Daily budget",
            ["daily budget", "budget", "campaign budget", "budget per day", "tagesbudget"]
        ),
        new(IntakeField.StartDate, "Start date", ["start date", "start", "starts", "from"]),
        new(IntakeField.EndDate, "End date", ["end date", "end", "ends", "until"]),
        new(IntakeField.Networks, "Networks", ["networks", "network", "shows on"]),
        new(
            IntakeField.AdGroup,
            "Ad group",
            ["ad group", "adgroup", "ad group name", "group", "theme", "anzeigengruppe"]
        ),
        new(
            IntakeField.AdGroupMaxCpc,
            "Ad group max CPC",
            ["ad group max cpc", "default max cpc", "default bid", "ad group bid"]
        ),
        new(
            IntakeField.Keyword,
            "Keyword",
            ["keyword", "keywords", "key word", "search words", "search term", "words", "phrase", "term", "suchbegriff"]
        ),
        new(
            IntakeField.NegativeKeyword,
            "Negative keyword",
            ["negative", "negatives", "negative keyword", "negative keywords", "exclude"]
        ),
        new(IntakeField.MatchType, "Match type", ["match type", "match", "matching", "type", "typ", "keyword type"]),
        new(
            IntakeField.MaxCpc,
            "Max CPC",
            ["max cpc", "bid", "max bid", "cpc", "keyword bid", "keyword max cpc", "price per click", "gebot"]
        ),
        new(IntakeField.State, "State", ["state", "status", "on off"]),
        new(IntakeField.FinalUrl, "Final URL", ["final url", "url", "landing page", "page", "link", "address"]),
        new(IntakeField.Headline1, "Headline 1", ["headline 1", "headline", "title", "headline one", "title 1"]),
        new(IntakeField.Headline2, "Headline 2", ["headline 2", "headline two", "title 2"]),
        new(IntakeField.Headline3, "Headline 3", ["headline 3", "headline three", "title 3"]),
        new(
            IntakeField.Description1,
            "Description 1",
            ["description 1", "description", "text", "line 1", "description one"]
        ),
        new(IntakeField.Description2, "Description 2", ["description 2", "line 2", "description two"]),
        new(IntakeField.Path1, "Path 1", ["path 1", "path", "display path", "display path 1"]),
        new(IntakeField.Path2, "Path 2", ["path 2", "display path 2"]),
        new(IntakeField.Device, "Device preference", ["device", "device preference", "preferred device"]),
    ];

    private static readonly Dictionary<IntakeField, string> Labels = All.ToDictionary(
        name => name.Field,
        name => name.Label
    );

    /// <summary>Name of a field for people.</summary>
    public static string LabelOf(IntakeField field) => Labels.GetValueOrDefault(field, "leave out");
}
