using Fendrik.Core.Accounts;

namespace Fendrik.Core.Intake;

/// <summary>A field with its name for people and the headers by which it is known.</summary>
/// <param name="Field">The field.</param>
/// <param name="Label">Name shown, and header of the column in what is taken out.</param>
/// <param name="Meaning">What stands in the column, in a sentence.</param>
/// <param name="Example">A value as a person would write it.</param>
/// <param name="Headers">Headers seen for it, as normalised text without punctuation.</param>
public sealed record IntakeFieldName(
    IntakeField Field,
    string Label,
    string Meaning,
    string Example,
    IReadOnlyList<string> Headers
)
{
    private static readonly string[] Numbers =
    [
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
    ];

    /// <summary>All fields in the order in which they are offered and taken out. Headers are common practice, no source.</summary>
    public static IReadOnlyList<IntakeFieldName> All { get; } =
    [
        new(
            IntakeField.Item,
            "Item",
            "What the row is: campaign, ad group, keyword, negative keyword, text ad or negative list. Without it, the filled cells tell.",
            "keyword",
            ["item", "kind", "item kind", "kind of item", "row type", "level"]
        ),
        new(
            IntakeField.Action,
            "Action",
            "What is to be done: add, change or remove. Empty: what is chosen for the whole list.",
            "remove",
            ["action", "what to do", "operation"]
        ),
        new(
            IntakeField.Campaign,
            "Campaign",
            "Name of the campaign. For a negative list: a campaign that it holds for, one in each row.",
            "Leeds tuning",
            ["campaign", "campaign name", "camp", "kampagne", "campagne"]
        ),
        new(
            IntakeField.DailyBudget,
            "Daily budget",
            "Most that the campaign may spend in a day.",
            "25.00",
            ["daily budget", "budget", "campaign budget", "budget per day", "tagesbudget"]
        ),
        new(
            IntakeField.StartDate,
            "Start date",
            "First day of the campaign.",
            "2027-01-04",
            ["start date", "start", "starts", "from"]
        ),
        new(
            IntakeField.EndDate,
            "End date",
            "Last day of the campaign; empty for open.",
            "2027-06-30",
            ["end date", "end", "ends", "until"]
        ),
        new(
            IntakeField.Networks,
            "Networks",
            "Where the campaign shows: search, partners, content, joined by +.",
            "search + partners",
            ["networks", "network", "shows on"]
        ),
        new(
            IntakeField.AdGroup,
            "Ad group",
            "Name of the ad group. Empty for what belongs to the campaign itself.",
            "Grand pianos",
            ["ad group", "adgroup", "ad group name", "group", "theme", "anzeigengruppe"]
        ),
        new(
            IntakeField.AdGroupMaxCpc,
            "Ad group max CPC",
            "The ad group's default max CPC, in rows of its keywords.",
            "1.10",
            ["ad group max cpc", "default max cpc", "default bid", "ad group bid"]
        ),
        new(
            IntakeField.NegativeList,
            "Negative list",
            "Name of a list of negatives that campaigns share.",
            "Jobs and schools",
            ["negative list", "shared list", "negative list name", "shared negative list"]
        ),
        new(
            IntakeField.Keyword,
            "Keyword",
            "The words, plain or in notation: [exact], \"phrase\", +all +words, a minus in front of a negative.",
            "grand piano tuning",
            ["keyword", "keywords", "key word", "search words", "search term", "words", "phrase", "term", "suchbegriff"]
        ),
        new(
            IntakeField.NegativeKeyword,
            "Negative keyword",
            "Words that must not trigger an ad, on an ad group, a campaign or a negative list.",
            "free",
            ["negative", "negatives", "negative keyword", "negative keywords", "exclude"]
        ),
        new(
            IntakeField.MatchType,
            "Match type",
            "exact, phrase, all words or broad.",
            "phrase",
            ["match type", "match", "matching", "type", "typ", "keyword type"]
        ),
        new(
            IntakeField.MaxCpc,
            "Max CPC",
            "Of the keyword, or of the ad group in a row that is one. Empty: the ad group's.",
            "1.35",
            ["max cpc", "bid", "max bid", "cpc", "keyword bid", "keyword max cpc", "price per click", "gebot"]
        ),
        new(
            IntakeField.State,
            "State",
            "running or paused. Empty: running if it is new.",
            "running",
            ["state", "status", "on off"]
        ),
        new(
            IntakeField.FinalUrl,
            "Final URL",
            "Landing page of the ad or the keyword.",
            "https://tarnandfell.example/tuning",
            ["final url", "url", "landing page", "page", "link", "address"]
        ),
        .. Enumerable.Range(1, AdTextRoom.Headlines).Select(Headline),
        .. Enumerable.Range(1, AdTextRoom.Descriptions).Select(Description),
        new(
            IntakeField.Path1,
            "Path 1",
            "First part of the display path.",
            "tuning",
            ["path 1", "path", "display path", "display path 1"]
        ),
        new(IntakeField.Path2, "Path 2", "Second part of the display path.", "leeds", ["path 2", "display path 2"]),
        new(
            IntakeField.Device,
            "Device preference",
            "desktop, phone or tablet; empty for all.",
            "phone",
            ["device", "device preference", "preferred device"]
        ),
        new(
            IntakeField.Labels,
            "Labels",
            "Your own words for the item, with semicolons between. The network never sees them.",
            "spring; test",
            ["labels", "label"]
        ),
    ];

    private static readonly Dictionary<IntakeField, string> Names = All.ToDictionary(
        name => name.Field,
        name => name.Label
    );

    /// <summary>Name of a field for people.</summary>
    public static string LabelOf(IntakeField field) => Names.GetValueOrDefault(field, "leave out");

    /// <summary>The field of the headline with a number from 1 to <see cref="AdTextRoom.Headlines"/>.</summary>
    public static IntakeField HeadlineField(int number) =>
        number <= 3 ? IntakeField.Headline1 + (number - 1) : IntakeField.Headline4 + (number - 4);

    /// <summary>The field of the description with a number from 1 to <see cref="AdTextRoom.Descriptions"/>.</summary>
    public static IntakeField DescriptionField(int number) =>
        number <= 2 ? IntakeField.Description1 + (number - 1) : IntakeField.Description3 + (number - 3);

    private static IntakeFieldName Headline(int number) =>
        new(
            HeadlineField(number),
            $"Headline {number}",
            number == 1 ? "First headline of the ad." : $"Headline {number} of the ad.",
            number == 1 ? "Piano Tuning In Leeds" : "",
            [
                $"headline {number}",
                $"headline {Numbers[number - 1]}",
                $"title {number}",
                .. number == 1 ? new[] { "headline", "title" } : [],
            ]
        );

    private static IntakeFieldName Description(int number) =>
        new(
            DescriptionField(number),
            $"Description {number}",
            number == 1 ? "First description of the ad." : $"Description {number} of the ad.",
            number == 1 ? "Concert-trained tuners, same-week visits." : "",
            [
                $"description {number}",
                $"description {Numbers[number - 1]}",
                $"line {number}",
                .. number == 1 ? new[] { "description", "text" } : [],
            ]
        );
}
