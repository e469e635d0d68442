using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;

namespace Fendrik.Data.Sheets;

/// <summary>What the values of a field are.</summary>
public enum FieldType
{
    Text = 1,

    /// <summary>Several texts, of which one has to pass.</summary>
    Texts = 2,
    Amount = 3,
    Number = 4,

    /// <summary>A share of one, such as a rate; written as a percentage.</summary>
    Share = 5,
    Date = 6,

    /// <summary>One of a few names.</summary>
    Choice = 7,
}

/// <summary>The tables beside the item's own that an expression reads.</summary>
[Flags]
internal enum SheetJoins
{
    None = 0,
    AdGroup = 1,
    Campaign = 2,
    Figures = 4,
}

/// <summary>A field that sheets can be filtered and sorted by.</summary>
/// <param name="Name">Name in requests.</param>
/// <param name="Label">Name for people.</param>
/// <param name="Type">What its values are.</param>
/// <param name="Choices">The names it may have, for a choice.</param>
public sealed record SheetField(string Name, string Label, FieldType Type, IReadOnlyList<string> Choices)
{
    /// <summary>The SQL of a field for a kind of item (alias <c>i</c>), or none where the kind has no such field.</summary>
    internal Func<ItemKind, string?> Sql { get; init; } = _ => null;

    /// <summary>The text as written, where <see cref="Sql"/> is its normalised form.</summary>
    internal Func<ItemKind, string?>? Written { get; init; }
    internal SheetJoins Joins { get; init; }
}

/// <summary>All fields of the sheet.</summary>
public static class SheetFields
{
    private static readonly string[] NoChoices = [];
    private static readonly string[] Matches = ["exact", "phrase", "allWords", "broad"];
    private static readonly string[] States = ["running", "paused"];
    private static readonly string[] Devices = ["desktop", "phone", "tablet"];
    private static readonly string[] Changes = ["new", "edited", "removed", "none"];
    private static readonly string[] Reviews = ["none", "pending", "approved", "refused"];
    private static readonly string[] Weights = ["blocker", "caution", "hint", "none"];

    internal const string ChangeOfRow =
        "case when i.removed then 3 when not i.is_live then 1 when i.live is not null and i.live is distinct from published_fields(i) then 2 else 0 end";

    public static IReadOnlyList<SheetField> All { get; } =
    [
        Text("name", "Name or words", NameKey, NameAsWritten),
        Text(
            "campaign",
            "Campaign",
            kind =>
                kind == ItemKind.Campaign ? "i.name_key"
                : kind == ItemKind.NegativeList ? null
                : "c.name_key",
            kind =>
                kind == ItemKind.Campaign ? "i.name"
                : kind == ItemKind.NegativeList ? null
                : "c.name",
            SheetJoins.Campaign
        ),
        Text(
            "adGroup",
            "Ad group",
            kind =>
                kind switch
                {
                    ItemKind.AdGroup => "i.name_key",
                    ItemKind.Campaign or ItemKind.NegativeList => null,
                    _ => "g.name_key",
                },
            kind =>
                kind switch
                {
                    ItemKind.AdGroup => "i.name",
                    ItemKind.Campaign or ItemKind.NegativeList => null,
                    _ => "g.name",
                },
            SheetJoins.AdGroup
        ),
        Choice("match", "Match type", Matches, kind => HasMatch(kind) ? "i.match_type - 1" : null),
        Choice("state", "State", States, kind => HasState(kind) ? "i.state - 1" : null),
        new("maxCpc", "Max CPC", FieldType.Amount, NoChoices)
        {
            Sql = kind =>
                kind switch
                {
                    ItemKind.Keyword => "coalesce(i.max_cpc, g.max_cpc)",
                    ItemKind.AdGroup => "i.max_cpc",
                    _ => null,
                },
            Joins = SheetJoins.AdGroup,
        },
        new("ownMaxCpc", "Own max CPC", FieldType.Amount, NoChoices)
        {
            Sql = kind => kind is ItemKind.Keyword or ItemKind.AdGroup ? "i.max_cpc" : null,
        },
        new("dailyBudget", "Daily budget", FieldType.Amount, NoChoices)
        {
            Sql = kind => kind == ItemKind.Campaign ? "i.daily_budget" : null,
        },
        new("startDate", "Start date", FieldType.Date, NoChoices)
        {
            Sql = kind => kind == ItemKind.Campaign ? "i.start_date" : null,
        },
        new("endDate", "End date", FieldType.Date, NoChoices)
        {
            Sql = kind => kind == ItemKind.Campaign ? "i.end_date" : null,
        },
        Text(
            "finalUrl",
            "Final URL",
            kind => HasUrl(kind) ? "lower(i.final_url)" : null,
            kind => HasUrl(kind) ? "i.final_url" : null
        ),
        Texts("headlines", "Headline", kind => kind == ItemKind.TextAd ? "i.headlines" : null),
        Texts("descriptions", "Description", kind => kind == ItemKind.TextAd ? "i.descriptions" : null),
        Texts("displayPath", "Display path", kind => kind == ItemKind.TextAd ? "i.display_path" : null),
        Choice(
            "device",
            "Device preference",
            Devices,
            kind => kind == ItemKind.TextAd ? "i.device_preference - 1" : null
        ),
        Texts("label", "Label", _ => "i.labels"),
        Choice("change", "Changed since the last publish", Changes, _ => $"(array[3, 0, 1, 2])[{ChangeOfRow} + 1]"),
        Choice("review", "Review", Reviews, _ => "i.review"),
        Choice(
            "need",
            "Check",
            Weights,
            kind =>
                $"coalesce((select 3 - max(n.weight) from finding n where n.account_id = @account and n.kind = {(int)kind} and n.item_id = i.id), 3)"
        ),
        new("words", "Number of words", FieldType.Number, NoChoices)
        {
            Sql = kind => HasMatch(kind) ? "cardinality(string_to_array(i.text_key, ' '))" : null,
        },
        new("characters", "Number of characters", FieldType.Number, NoChoices)
        {
            Sql = kind => NameAsWritten(kind) is { } name ? $"char_length({name})" : null,
        },
        Figure("impressions", "Impressions", FieldType.Number, "coalesce(f.impressions, 0)"),
        Figure("clicks", "Clicks", FieldType.Number, "coalesce(f.clicks, 0)"),
        Figure("ctr", "CTR", FieldType.Share, "f.clicks::numeric / nullif(f.impressions, 0)"),
        Figure("cost", "Cost", FieldType.Amount, "coalesce(f.cost, 0)"),
        Figure("cpc", "CPC", FieldType.Amount, "f.cost / nullif(f.clicks, 0)"),
        Figure("conversions", "Conversions", FieldType.Number, "coalesce(f.conversions, 0)"),
        Figure("conversionRate", "Conversion rate", FieldType.Share, "f.conversions / nullif(f.clicks, 0)"),
        Figure("costPerConversion", "Cost per conversion", FieldType.Amount, "f.cost / nullif(f.conversions, 0)"),
        Figure("value", "Value", FieldType.Amount, "coalesce(f.value, 0)"),
    ];

    private static readonly Dictionary<string, SheetField> ByName = All.ToDictionary(field => field.Name);

    /// <summary>A field by its name, or none.</summary>
    public static SheetField? Find(string name) => ByName.GetValueOrDefault(name);

    /// <summary>A figure that is none, not nought, where nothing was counted.</summary>
    internal static string Bare(string figure) =>
        figure.StartsWith("coalesce(f.", StringComparison.Ordinal)
            ? figure["coalesce(".Length..^", 0)".Length]
            : figure;

    internal static bool HasFigures(ItemKind kind) => FigureColumn(kind) is not null;

    /// <summary>The column of the facts that holds the identity of this kind.</summary>
    internal static string? FigureColumn(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign => "campaign_id",
            ItemKind.AdGroup => "ad_group_id",
            ItemKind.Keyword => "keyword_id",
            ItemKind.TextAd => "ad_id",
            _ => null,
        };

    internal static string NameKey(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup or ItemKind.NegativeList => "i.name_key",
            ItemKind.TextAd => "lower(array_to_string(i.headlines, ' – '))",
            _ => "i.text_key",
        };

    internal static string NameAsWritten(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup or ItemKind.NegativeList => "i.name",
            ItemKind.TextAd => "array_to_string(i.headlines, ' – ')",
            _ => "i.text",
        };

    private static bool HasMatch(ItemKind kind) => kind is ItemKind.Keyword or ItemKind.NegativeKeyword;

    private static bool HasState(ItemKind kind) => kind is not (ItemKind.NegativeKeyword or ItemKind.NegativeList);

    private static bool HasUrl(ItemKind kind) => kind is ItemKind.Keyword or ItemKind.TextAd;

    private static SheetField Text(
        string name,
        string label,
        Func<ItemKind, string?> key,
        Func<ItemKind, string?> written,
        SheetJoins joins = SheetJoins.None
    ) =>
        new(name, label, FieldType.Text, NoChoices)
        {
            Sql = key,
            Written = written,
            Joins = joins,
        };

    private static SheetField Texts(string name, string label, Func<ItemKind, string?> sql) =>
        new(name, label, FieldType.Texts, NoChoices) { Sql = sql };

    private static SheetField Choice(string name, string label, string[] choices, Func<ItemKind, string?> sql) =>
        new(name, label, FieldType.Choice, choices) { Sql = sql };

    private static SheetField Figure(string name, string label, FieldType type, string sql) =>
        new(name, label, type, NoChoices) { Sql = kind => HasFigures(kind) ? sql : null, Joins = SheetJoins.Figures };
}
