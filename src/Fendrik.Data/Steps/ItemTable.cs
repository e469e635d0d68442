using Fendrik.Core.Accounts;

namespace Fendrik.Data.Steps;

/// <summary>Where the items of one kind are kept, and which of their columns are edited and published.</summary>
internal sealed record ItemTable(ItemKind Kind, string Name, IReadOnlyList<string> EditableColumns)
{
    /// <summary>All kinds, parents before children.</summary>
    public static IReadOnlyList<ItemTable> All { get; } =
    [
        new(
            ItemKind.Campaign,
            "campaign",
            ["name", "name_key", "state", "daily_budget", "start_date", "end_date", "networks"]
        ),
        new(ItemKind.AdGroup, "ad_group", ["name", "name_key", "state", "max_cpc"]),
        new(ItemKind.Keyword, "keyword", ["text", "text_key", "match_type", "state", "max_cpc", "final_url"]),
        new(ItemKind.NegativeKeyword, "negative_keyword", ["text", "text_key", "match_type"]),
        new(
            ItemKind.TextAd,
            "text_ad",
            ["state", "headlines", "descriptions", "display_path", "final_url", "device_preference", "content_key"]
        ),
    ];

    /// <summary>Rows (alias <c>i</c>) that differ from the live copy: a condition that the partial indexes serve.</summary>
    public const string Pending =
        "((i.is_live and (i.removed or i.live is not null)) or (not i.is_live and not i.removed))";

    /// <summary>As <see cref="Pending"/>, without rows that were edited back to what the network has.</summary>
    public const string TrulyPending =
        Pending + " and not (i.is_live and not i.removed and i.live = published_fields(i))";

    /// <summary>Keeps the published fields as they were, ahead of an edit of row <c>i</c>.</summary>
    public const string KeepLive = "live = case when i.is_live then coalesce(i.live, published_fields(i)) end";

    public static ItemTable Of(ItemKind kind) => All[(int)kind - 1];
}
