using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>An account as the network knows it.</summary>
[method: ExplicitConstructor]
public sealed record NetworkAccount(
    string Id,
    string Network,
    string Currency,
    string TimeZone,
    long Seed,
    DateTime Now,
    DateTime StartedAt
)
{
    public DateTimeOffset Clock => new(DateTime.SpecifyKind(Now, DateTimeKind.Utc));
}

/// <summary>The network's own database.</summary>
public sealed class NetworkStore(NpgsqlDataSource source)
{
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web);

    public async Task PrepareAsync()
    {
        using var stream = typeof(NetworkStore).Assembly.GetManifestResourceStream(
            "Fendrik.Network.Schema.network.sql"
        )!;
        using var reader = new StreamReader(stream);
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync(await reader.ReadToEndAsync());
    }

    public async Task<NpgsqlConnection> OpenAsync(CancellationToken cancellation) =>
        await source.OpenConnectionAsync(cancellation);

    public static Task<NetworkAccount?> FindAsync(NpgsqlConnection connection, string id, bool locking = false) =>
        connection.QuerySingleOrDefaultAsync<NetworkAccount?>(
            $"select id, network, currency, time_zone, seed, now at time zone 'UTC' as now, started_at at time zone 'UTC' as started_at from account where id = @id {(locking ? "for update" : "")}",
            new { id }
        );

    /// <summary>All that the network has of an account, ready to answer searches.</summary>
    public static async Task<LiveAccount> LiveAsync(NpgsqlConnection connection, NetworkAccount account)
    {
        var rows = (
            await connection.QueryAsync<(short Kind, short Review, string Item)>(
                "select kind, review, item::text from item where account_id = @Id order by kind, item_id",
                new { account.Id }
            )
        ).ToLookup(row => (ItemKind)row.Kind);
        List<(T Item, ReviewState Review)> Of<T>(ItemKind kind) =>
            [.. rows[kind].Select(row => (JsonSerializer.Deserialize<T>(row.Item, Json)!, (ReviewState)row.Review))];
        var network = NetworkProfile.Of(account.Network);
        var reach = network.ReachWith([.. Of<RelatedWord>(ItemKind.RelatedWords).Select(each => each.Item)]);
        var campaigns = Of<Campaign>(ItemKind.Campaign).ToDictionary(each => each.Item.Id, each => each.Item);
        var groups = Of<AdGroup>(ItemKind.AdGroup).ToDictionary(each => each.Item.Id, each => each.Item);
        var ads = Of<TextAd>(ItemKind.TextAd)
            .Where(each => each is { Item.State: ItemState.Running, Review: ReviewState.Approved })
            .ToLookup(each => each.Item.AdGroupId, each => each.Item);
        var lists = Of<NegativeList>(ItemKind.NegativeList)
            .ToDictionary(each => each.Item.Id, each => each.Item.CampaignIds);
        return new LiveAccount(
            new ServedAccount(
                network,
                Currency.Of(account.Currency),
                new IndexedKeywords(
                    new KeywordIndex<ServedKeyword>(
                        from keyword in Of<Keyword>(ItemKind.Keyword)
                        let @group = groups.GetValueOrDefault(keyword.Item.AdGroupId)
                        // A database of before may have keywords whose campaign is gone.
                        where @group is not null && campaigns.ContainsKey(@group.CampaignId)
                        select (
                            new ServedKeyword(
                                keyword.Item,
                                @group,
                                campaigns[@group.CampaignId],
                                keyword.Review,
                                [.. ads[@group.Id]]
                            ),
                            keyword.Item.Text,
                            keyword.Item.Match
                        ),
                        reach
                    )
                ),
                new KeywordIndex<PlacedNegative>(
                    from negative in Of<NegativeKeyword>(ItemKind.NegativeKeyword)
                    select (
                        new PlacedNegative(
                            negative.Item,
                            negative.Item.ListId is { } list ? lists.GetValueOrDefault(list, []) : []
                        ),
                        negative.Item.Text,
                        negative.Item.Match
                    ),
                    network.Reach.ForNegatives
                )
            ),
            [.. campaigns.Values]
        );
    }
}

/// <summary>An account as the network has it.</summary>
/// <param name="Served">How it answers searches.</param>
/// <param name="Campaigns">All its campaigns.</param>
public sealed record LiveAccount(ServedAccount Served, IReadOnlyList<Campaign> Campaigns);
