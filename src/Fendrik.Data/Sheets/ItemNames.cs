using Fendrik.Data.Items;

namespace Fendrik.Data.Sheets;

/// <summary>Names and places of items of any kind, for lists that hold several kinds.</summary>
internal static class ItemNames
{
    /// <summary>
    /// A lateral join that gives <c>n.name</c>, <c>n.campaign</c>, <c>n.campaign_id</c>, <c>n.ad_group</c> and
    /// <c>n.ad_group_id</c> of an item; of a kind that does not match, a branch is not looked at.
    /// </summary>
    public static string Lateral(string kind, string id) =>
        $"""
            left join lateral ({string.Join(
                " union all ",
                ItemTable.All.Select(table =>
                    $"select {table.NameColumn} as name, {Of(table)} from {SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign)} where {kind} = {table.Number} and i.id = {id}"
                )
            )}) n on true
            """;

    /// <summary>Names and identities of what an item stands in.</summary>
    public static string Of(ItemTable table) =>
        $"{SheetPlaces.NameOf(table, Level.Campaign, key: false) ?? "null::text"} as campaign, {SheetPlaces.IdOf(table, Level.Campaign) ?? "null::bigint"} as campaign_id, {SheetPlaces.NameOf(table, Level.AdGroup, key: false) ?? "null::text"} as ad_group, {SheetPlaces.IdOf(table, Level.AdGroup) ?? "null::bigint"} as ad_group_id";
}
