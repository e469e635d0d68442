using System.Text;
using Fendrik.Data.Items;

namespace Fendrik.Data.Sheets;

/// <summary>What an item stands in, in SQL: row <c>c</c> is its campaign, <c>g</c> its ad group, <c>l</c> its list.</summary>
internal static class SheetPlaces
{
    /// <summary>Identity of what stands at a level above an item, or of the item itself when it stands for that level.</summary>
    public static string? IdOf(ItemTable table, Level level) =>
        table.Type.Holds == level && level != Level.List ? "i.id"
        : Has(table, level) ? $"{RowOf(level)}.id"
        : null;

    /// <summary>Its name, as it is written or normalised.</summary>
    public static string? NameOf(ItemTable table, Level level, bool key)
    {
        var column = key ? "name_key" : "name";
        return table.Type.Holds == level && level != Level.List ? $"i.{column}"
            : Has(table, level) ? $"{RowOf(level)}.{column}"
            : null;
    }

    /// <summary>What a field comes to: the item's own value, or that of the nearest above that has one.</summary>
    public static string Effective(ItemTable table, Field field)
    {
        var parts = new List<string> { $"i.{field.Column}" };
        for (var from = field.InheritedFrom; from is { } kind; )
        {
            var holder = ItemTypes.Of(kind);
            var above = holder[field.Name];
            parts.Add(InheritedFrom(holder, above));
            from = above.InheritedFrom;
        }

        return $"coalesce({string.Join(", ", parts)})";
    }

    /// <summary>What a field comes to without the item's own value.</summary>
    public static string Inherited(ItemTable table, Field field) =>
        Effective(table, field).Replace($"coalesce(i.{field.Column}, ", "coalesce(", StringComparison.Ordinal);

    /// <summary>The table of a kind with what is above it.</summary>
    public static string Tables(ItemTable table, SheetJoins joins)
    {
        var sql = new StringBuilder($"{table.Name} i");
        var (group, campaign) = (joins.HasFlag(SheetJoins.AdGroup), joins.HasFlag(SheetJoins.Campaign));
        if (table.HasLevels && (group || campaign))
        {
            foreach (var parent in table.Parents)
            {
                sql.Append(
                    $" left join {parent.Holder.Table} {RowOf(parent.Level)} on {RowOf(parent.Level)}.id = i.{parent.Column}"
                );
            }
        }
        else if (!table.HasLevels && table.Type.StandsIn(Level.AdGroup))
        {
            sql.Append(group || campaign ? " join ad_group g on g.id = i.ad_group_id" : "");
            sql.Append(campaign ? " join campaign c on c.id = g.campaign_id" : "");
        }
        else if (!table.HasLevels && table.Type.StandsIn(Level.Campaign) && campaign)
        {
            sql.Append(" join campaign c on c.id = i.campaign_id");
        }

        if (joins.HasFlag(SheetJoins.Figures) && table.Type.FigureColumn is not null)
        {
            sql.Append(SheetFigures.Join(table));
        }

        return sql.ToString();
    }

    /// <summary>Only what is in a campaign, or stands for it.</summary>
    public static string InCampaign(ItemTable table) =>
        table.Type.Holds == Level.Campaign ? "i.id = @CampaignId"
        : table.Parents.Any(parent => parent.Level == Level.Campaign) ? "i.campaign_id = @CampaignId"
        : table.Parents.Any(parent => parent.Level == Level.AdGroup)
            ? "i.ad_group_id in (select id from ad_group where campaign_id = @CampaignId)"
        : table.Type.Fields.FirstOrDefault(field =>
            field.Type is Core.Items.Values.ReferencesValue { To: ItemKind.Campaign }
        )
            is { } references
            ? $"i.{references.Column} @> array[@CampaignId::bigint]"
        : "false";

    /// <summary>Only what is in an ad group, stands for it, or for its campaign.</summary>
    public static string InAdGroup(ItemTable table) =>
        table.Type.Holds switch
        {
            Level.Campaign => "i.id = (select campaign_id from ad_group where id = @AdGroupId)",
            Level.AdGroup => "i.id = @AdGroupId",
            Level.Account or Level.List or null => table.Parents.Any(parent => parent.Level == Level.AdGroup)
                ? "i.ad_group_id = @AdGroupId"
                : "false",
        };

    private static bool Has(ItemTable table, Level level) =>
        table.Parents.Any(parent => parent.Level == level)
        // What stands in an ad group alone is in that group's campaign.
        || (level == Level.Campaign && table.Type.StandsIn(Level.AdGroup));

    private static string RowOf(Level level) =>
        level switch
        {
            Level.Campaign => "c",
            Level.AdGroup => "g",
            Level.List => "l",
            Level.Account => "a",
        };

    private static string InheritedFrom(ItemType holder, Field field) =>
        holder.Holds is { } level
            ? $"{RowOf(level)}.{field.Column}"
            : $"(select x.{field.Column} from {holder.Table} x where x.account_id = i.account_id)";
}
