using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
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

    /// <summary>All that may show now, as Core's types.</summary>
    public static async Task<ServedAccount> ServedAsync(NpgsqlConnection connection, NetworkAccount account)
    {
        var rows = (
            await connection.QueryAsync<(short Kind, string Item)>(
                "select kind, item::text from item where account_id = @Id and review in (0, 2) order by kind, item_id",
                new { account.Id }
            )
        ).ToLookup(row => (ItemKind)row.Kind, row => row.Item);
        List<T> Of<T>(ItemKind kind) => [.. rows[kind].Select(item => JsonSerializer.Deserialize<T>(item, Json)!)];
        return new ServedAccount(
            NetworkProfile.Of(account.Network),
            Core.Accounts.Currency.Of(account.Currency),
            Of<Campaign>(ItemKind.Campaign),
            Of<AdGroup>(ItemKind.AdGroup),
            Of<Keyword>(ItemKind.Keyword),
            Of<NegativeKeyword>(ItemKind.NegativeKeyword),
            Of<NegativeList>(ItemKind.NegativeList),
            Of<TextAd>(ItemKind.TextAd)
        );
    }
}
