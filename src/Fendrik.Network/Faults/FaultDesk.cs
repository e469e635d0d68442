using Dapper;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Faults;

/// <summary>A fault that the stand-in is told to show.</summary>
/// <param name="Kind"><c>slow</c>, <c>fail</c>, <c>drop</c> (do the work, then break the connection) or <c>refuse</c>.</param>
/// <param name="Times">How many requests it hits.</param>
/// <param name="Milliseconds">Delay, for <c>slow</c>.</param>
/// <param name="Wording">What is refused, for <c>refuse</c>.</param>
[method: ExplicitConstructor]
public sealed record Fault(string Kind, int Times, int Milliseconds = 0, string? Wording = null);

/// <summary>Keeps faults and hands each out as often as it was asked for.</summary>
public sealed class FaultDesk(NetworkStore store)
{
    public static readonly string[] Kinds = ["slow", "fail", "drop", "refuse"];

    public async Task AddAsync(string accountId, Fault fault, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        await connection.ExecuteAsync(
            "insert into fault (account_id, kind, times, milliseconds, wording) values (@accountId, @Kind, @Times, @Milliseconds, @Wording)",
            new
            {
                accountId,
                fault.Kind,
                fault.Times,
                fault.Milliseconds,
                fault.Wording,
            }
        );
    }

    public async Task ClearAsync(string accountId, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        await connection.ExecuteAsync("delete from fault where account_id = @accountId", new { accountId });
    }

    /// <summary>The faults that hit this request; each is used up by one.</summary>
    public async Task<IReadOnlyList<Fault>> TakeAsync(string accountId, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        var faults = await connection.QueryAsync<Fault>(
            "update fault set times = times - 1 where account_id = @accountId and times > 0 returning kind, times, milliseconds, wording",
            new { accountId }
        );
        return [.. faults];
    }
}
