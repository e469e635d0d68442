using Fendrik.Network.Simulation;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Writes down what hours added up: what showed, as what, and what came of it.</summary>
internal static class KeptTallies
{
    private const string Counted = "impressions, clicks, cost, expected";

    /// <summary>What showed beside ads.</summary>
    public static Task BesideAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        CancellationToken cancellation
    ) =>
        WriteAsync(
            connection,
            accountId,
            "extension_day",
            "own_clicks, day, campaign_id, ad_group_id, kind, extension_id",
            hours.SelectMany(hour => hour.Beside),
            (rows, key, tallies) =>
            {
                rows.Write(tallies.Sum(each => each.OwnClicks));
                rows.Write(key.Day);
                rows.Write(key.CampaignId);
                rows.Write(key.AdGroupId);
                rows.Write((short)key.Kind);
                rows.Write(key.Id);
            },
            cancellation
        );

    /// <summary>Ads, responsive ones with the lines that showed.</summary>
    public static Task CombinationsAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        CancellationToken cancellation
    ) =>
        WriteAsync(
            connection,
            accountId,
            "combination_day",
            "day, campaign_id, ad_group_id, ad_id, headlines, descriptions",
            hours.SelectMany(hour => hour.Combinations),
            (rows, key, _) =>
            {
                rows.Write(key.Day);
                rows.Write(key.CampaignId);
                rows.Write(key.AdGroupId);
                rows.Write(key.AdId);
                rows.Write(key.Headlines);
                rows.Write(key.Descriptions);
            },
            cancellation
        );

    /// <summary>Pages of content sites, and audiences.</summary>
    public static Task ReachedAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<HourKept> hours,
        CancellationToken cancellation
    ) =>
        WriteAsync(
            connection,
            accountId,
            "reached_day",
            "day, campaign_id, ad_group_id, reached_by, name",
            hours.SelectMany(hour => hour.Reached),
            (rows, key, _) =>
            {
                rows.Write(key.Day);
                rows.Write(key.CampaignId);
                rows.Write(key.AdGroupId);
                rows.Write((short)key.By);
                rows.Write(key.Name);
            },
            cancellation
        );

    private static async Task WriteAsync<TKey>(
        NpgsqlConnection connection,
        string accountId,
        string table,
        string columns,
        IEnumerable<KeyValuePair<TKey, ShownTally>> tallies,
        Action<NpgsqlBinaryImporter, TKey, IReadOnlyList<ShownTally>> write,
        CancellationToken cancellation
    )
    {
        await using var rows = await connection.BeginBinaryImportAsync(
            $"copy {table} (account_id, {columns}, {Counted}) from stdin (format binary)",
            cancellation
        );
        foreach (var same in tallies.GroupBy(each => each.Key, each => each.Value))
        {
            ShownTally[] all = [.. same];
            rows.StartRow();
            rows.Write(accountId);
            write(rows, same.Key, all);
            rows.Write(all.Sum(each => each.Impressions));
            rows.Write(all.Sum(each => each.Clicks));
            rows.Write(all.Sum(each => each.Cost));
            rows.Write(all.Sum(each => each.Expected));
        }

        await rows.CompleteAsync(cancellation);
    }
}
