using Dapper;
using Fendrik.Core.Auctions;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Extensions;

/// <summary>Reads the extensions that ads in a place of the working copy could show, and how they did.</summary>
internal static class PlacedExtensionReader
{
    private static readonly System.Text.Json.JsonSerializerOptions Json = new(
        System.Text.Json.JsonSerializerDefaults.Web
    );

    /// <summary>What would show, kind by kind, and what keeps the rest away.</summary>
    /// <param name="connection">To the database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="network">Its network.</param>
    /// <param name="campaignId">The campaign; none for the account itself.</param>
    /// <param name="adGroupId">The ad group; none for a campaign itself.</param>
    /// <param name="at">When and on what.</param>
    public static async Task<IReadOnlyList<ConsideredExtension>> ConsiderAsync(
        NpgsqlConnection connection,
        int accountId,
        NetworkProfile network,
        long? campaignId,
        long? adGroupId,
        ShownAt at
    )
    {
        var considered = new List<ConsideredExtension>();
        foreach (var type in ItemTypes.Extensions)
        {
            var extensions = await ReadAsync(connection, accountId, type, campaignId, adGroupId);
            var records = await RecordsAsync(connection, accountId, type, [.. extensions.Select(each => each.Id)]);
            considered.AddRange(
                ShownExtensions.Choose(network.Extensions, type, extensions, at, id => records.GetValueOrDefault(id))
            );
        }

        return considered;
    }

    /// <summary>Those of a kind that stand on the account, the campaign and the ad group; what reviewers refused is left out.</summary>
    private static async Task<IReadOnlyList<PlacedExtension>> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        ExtensionType type,
        long? campaignId,
        long? adGroupId
    )
    {
        var table = ItemTable.Of(type.Kind);
        return
        [
            .. (
                await connection.QueryAsync<string>(
                    $"""
                    select {table.Published("i")}::text from {table.Name} i
                    where i.account_id = @accountId and not i.removed and i.review <> {(int)ReviewState.Refused}
                      and (i.campaign_id is null or i.campaign_id = @campaignId and (i.ad_group_id is null or i.ad_group_id = @adGroupId))
                    order by i.id
                    """,
                    new
                    {
                        accountId,
                        campaignId,
                        adGroupId,
                    }
                )
            ).Select(item => System.Text.Json.JsonSerializer.Deserialize<PlacedExtension>(item, Json)!),
        ];
    }

    private static async Task<Dictionary<long, ClickRecord>> RecordsAsync(
        NpgsqlConnection connection,
        int accountId,
        ExtensionType type,
        long[] ids
    ) =>
        ids.Length == 0
            ? []
            : (
                await connection.QueryAsync<(long Id, double Made, double Expected)>(
                    """
                    select extension_id, sum(clicks)::float8, sum(expected)::float8 from extension_day
                    where account_id = @accountId and kind = @kind and extension_id = any(@ids) group by extension_id
                    """,
                    new
                    {
                        accountId,
                        kind = (short)type.Kind,
                        ids,
                    }
                )
            ).ToDictionary(row => row.Id, row => new ClickRecord(row.Made, row.Expected));
}
