using Fendrik.Data.Items;

namespace Fendrik.Data.Sheets;

/// <summary>Finds items of any kind by their name or words: parameters <c>accountId</c>, <c>like</c> and <c>most</c> of each kind.</summary>
public static class ItemSearch
{
    /// <summary>The query: kind, id, name, what it is inside, campaign, ad group and match type.</summary>
    public static string Sql =>
        string.Join(
            " union all ",
            ItemTable
                .All.Where(table => table.Type is { ComesAndGoes: true, NameField.KeyColumn: not null })
                .Select(table =>
                    $"""
                        (select {table.Number} as kind, i.id, {table.NameColumn} as name, {Inside(
                            table
                        )} as inside, {SheetPlaces.IdOf(table, Level.Campaign) ?? "null::bigint"} as campaign_id,
                           {SheetPlaces.IdOf(table, Level.AdGroup) ?? "null::bigint"} as ad_group_id, {(
                            table.Type.Find("match") is { } match ? $"i.{match.Column}" : "null::smallint"
                        )} as match
                         from {SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign)}
                         where i.account_id = @accountId and not i.removed and {table.NameKey(
                            "i"
                        )} like @like order by {table.NameKey("i")} limit @most)
                        """
                )
        );

    private static string Inside(ItemTable table)
    {
        string[] names =
        [
            .. new[] { Level.List, Level.Campaign, Level.AdGroup }
                .Where(level => table.Type.Holds != level)
                .Select(level => SheetPlaces.NameOf(table, level, key: false))
                .OfType<string>(),
        ];
        return names.Length == 0 ? "null::text" : $"nullif(concat_ws(' / ', {string.Join(", ", names)}), '')";
    }
}
