using Fendrik.Core.Accounts;

namespace Fendrik.Data.Steps;

/// <summary>Where the items of one kind are kept, and which of their columns are edited and published.</summary>
internal sealed record ItemTable(ItemKind Kind, string Name, IReadOnlyList<string> EditableColumns)
{
    /// <summary>All kinds, parents before children: the order in which they come to be and are published.</summary>
    public static IReadOnlyList<ItemTable> All { get; } =
    [
        new(
            ItemKind.Campaign,
            "campaign",
            ["name", "name_key", "state", "daily_budget", "start_date", "end_date", "networks", "labels"]
        ),
        new(ItemKind.AdGroup, "ad_group", ["name", "name_key", "state", "max_cpc", "labels"]),
        new(ItemKind.NegativeList, "negative_list", ["name", "name_key", "campaign_ids", "labels"]),
        new(ItemKind.Keyword, "keyword", ["text", "text_key", "match_type", "state", "max_cpc", "final_url", "labels"]),
        new(ItemKind.NegativeKeyword, "negative_keyword", ["text", "text_key", "match_type", "labels"]),
        new(
            ItemKind.TextAd,
            "text_ad",
            [
                "state",
                "headlines",
                "descriptions",
                "display_path",
                "final_url",
                "device_preference",
                "content_key",
                "labels",
            ]
        ),
    ];

    private static readonly Dictionary<ItemKind, ItemTable> ByKind = All.ToDictionary(table => table.Kind);

    /// <summary>Rows (alias <c>i</c>) that differ from the live copy: a condition that the partial indexes serve.</summary>
    public const string Pending =
        "((i.is_live and (i.removed or i.live is not null)) or (not i.is_live and not i.removed))";

    /// <summary>As <see cref="Pending"/>, without rows that were edited back to what the network has.</summary>
    public const string TrulyPending =
        Pending + " and not (i.is_live and not i.removed and i.live = published_fields(i))";

    /// <summary>Names the step that writes row <c>i</c>.</summary>
    public const string Version = "changed_by = current_step()";

    /// <summary>Keeps the published fields as they were, ahead of an edit of row <c>i</c>, and names the step.</summary>
    public const string KeepLive =
        "live = case when i.is_live then coalesce(i.live, published_fields(i)) end, " + Version;

    /// <summary>The name or words of row <c>i</c>.</summary>
    public string NameColumn =>
        Kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup or ItemKind.NegativeList => "i.name",
            ItemKind.TextAd => "array_to_string(i.headlines, ' – ')",
            _ => "i.text",
        };

    /// <summary>Rows <c>t</c> that stand in the same parent as row <c>i</c>.</summary>
    public string SameParent =>
        Kind switch
        {
            ItemKind.Campaign or ItemKind.NegativeList => "t.account_id = i.account_id",
            ItemKind.AdGroup => "t.campaign_id = i.campaign_id",
            ItemKind.NegativeKeyword =>
                "(coalesce(t.campaign_id, 0), coalesce(t.ad_group_id, 0), coalesce(t.list_id, 0)) = (coalesce(i.campaign_id, 0), coalesce(i.ad_group_id, 0), coalesce(i.list_id, 0))",
            _ => "t.ad_group_id = i.ad_group_id",
        };

    /// <summary>Columns that make two rows of the same parent twins.</summary>
    public IReadOnlyList<string> Identity =>
        Kind switch
        {
            ItemKind.Keyword or ItemKind.NegativeKeyword => ["text_key", "match_type"],
            ItemKind.TextAd => ["content_key"],
            _ => ["name_key"],
        };

    public static ItemTable Of(ItemKind kind) => ByKind[kind];
}
