using System.Text.Json;
using Dapper;
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
    /// <summary>When it began on the network.</summary>
    public DateTimeOffset Start => new(DateTime.SpecifyKind(StartedAt, DateTimeKind.Utc));

    /// <summary>Where its clock stands.</summary>
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
}
