using System.Text.Json;
using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Variants;

/// <summary>What belongs to a campaign that is shown.</summary>
internal static class ShownCampaign
{
    /// <summary>The place of the first item that neither was nor would be in the campaign; none where all are.</summary>
    /// <param name="connection">Where ad groups are looked up, those that are removed among them.</param>
    /// <param name="campaign">The campaign.</param>
    /// <param name="items">Items before and after; ad groups that are new among them.</param>
    /// <param name="proposed">What is proposed; new ad groups among it.</param>
    /// <param name="cancellation">Ends it.</param>
    public static async Task<int?> OutsideAsync(
        NpgsqlConnection connection,
        long campaign,
        IReadOnlyList<(ItemKind Kind, JsonElement? Before, JsonElement? After)> items,
        IEnumerable<ProposedItem> proposed,
        CancellationToken cancellation
    )
    {
        var named = items
            .SelectMany(item => Both(item).SelectMany(each => ItemTypes.Of(item.Kind).ParentsOf(each)))
            .Where(parent => parent.Kind == ItemKind.AdGroup)
            .Select(parent => parent.Id)
            .Distinct()
            .ToArray();
        var groups = (
            await connection.QueryAsync<long>(
                new CommandDefinition(
                    "select id from ad_group where id = any(@named) and campaign_id = @campaign",
                    new { named, campaign },
                    cancellationToken: cancellation
                )
            )
        ).ToHashSet();
        groups.UnionWith(
            items
                .Concat(proposed.Select(item => (item.Kind, item.Before, item.After)))
                .Where(item => item.Kind == ItemKind.AdGroup)
                .SelectMany(Both)
                .Where(group => ItemTypes.Of(ItemKind.AdGroup).ParentsOf(group).Contains((ItemKind.Campaign, campaign)))
                .Select(group => group.GetProperty("id").GetInt64())
        );
        for (var place = 0; place < items.Count; place++)
        {
            var type = ItemTypes.Of(items[place].Kind);
            if (!Both(items[place]).Any(item => IsInside(type, item, campaign, groups)))
            {
                return place;
            }
        }

        return null;
    }

    /// <summary>True where a look shows a campaign in which an item is, or is proposed to be.</summary>
    public static async Task<bool> ShowsAsync(
        NpgsqlConnection connection,
        int accountId,
        long lookId,
        ItemReference item,
        CancellationToken cancellation
    )
    {
        var campaign = await connection.ExecuteScalarAsync<long?>(
            new CommandDefinition(
                "select campaign_id from second_look where id = @lookId and account_id = @accountId",
                new { accountId, lookId },
                cancellationToken: cancellation
            )
        );
        if (campaign is null || ItemTable.All.FirstOrDefault(table => table.Kind == item.Kind) is not { } table)
        {
            return false;
        }

        var open = await ProposedRows.OpenAsync(connection, lookId, cancellation);
        if (open.Any(each => each.Kind == item.Kind && each.ItemId == item.Id))
        {
            return true;
        }

        var row = await connection.ExecuteScalarAsync<string?>(
            new CommandDefinition(
                $"select {table.Everything("i")}::text from {table.Name} i where i.id = @id and i.account_id = @accountId",
                new { accountId, id = item.Id },
                cancellationToken: cancellation
            )
        );
        return ProposedRows.Parse(row) is { } there
            && await OutsideAsync(connection, campaign.Value, [(item.Kind, there, null)], open, cancellation) is null;
    }

    private static IEnumerable<JsonElement> Both((ItemKind Kind, JsonElement? Before, JsonElement? After) item) =>
        new[] { item.Before, item.After }.OfType<JsonElement>();

    private static bool IsInside(ItemType type, JsonElement item, long campaign, HashSet<long> groups) =>
        (type.Kind == ItemKind.Campaign && item.GetProperty("id").GetInt64() == campaign)
        || type.ParentsOf(item)
            .Any(parent =>
                parent == (ItemKind.Campaign, campaign)
                || (parent.Kind == ItemKind.AdGroup && groups.Contains(parent.Id))
            )
        || type.Fields.Any(field =>
            field.Type is ReferencesValue { To: ItemKind.Campaign }
            && item.TryGetProperty(field.Name, out var stored)
            && field.Type.ReadStored(stored) is long[] campaigns
            && campaigns.Contains(campaign)
        );
}
