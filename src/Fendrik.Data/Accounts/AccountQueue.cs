using Dapper;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>Somebody whose work on the account comes first.</summary>
/// <param name="Person">Name of the person; none for what the server does by itself.</param>
/// <param name="Doing">What is being done, in words.</param>
/// <param name="Since">Since when.</param>
/// <param name="Working">True for the one at work; the others wait as well.</param>
public sealed record AheadInQueue(string? Person, string Doing, DateTimeOffset Since, bool Working);

/// <summary>Tells who is ahead of a request that waits for an account.</summary>
public sealed class AccountQueue(NpgsqlDataSource source)
{
    /// <summary>Those whom a request waits for; none when it does not wait.</summary>
    public async Task<IReadOnlyList<AheadInQueue>> AheadOfAsync(Guid requestId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = (
            await connection.QueryAsync<(string Name, DateTime Since)>(
                new CommandDefinition(
                    """
                    select b.application_name, coalesce(b.xact_start, b.state_change) at time zone 'UTC'
                    from pg_stat_activity w cross join lateral unnest(pg_blocking_pids(w.pid)) ahead(pid) join pg_stat_activity b on b.pid = ahead.pid
                    where w.datname = current_database() and starts_with(w.application_name, @waiting) order by b.xact_start
                    """,
                    new { waiting = WorkName.BeginningsOf(requestId)[0] },
                    cancellationToken: cancellation
                )
            )
        ).Select(row => (Name: WorkName.Read(row.Name), row.Since)).ToArray();
        var people = (
            await connection.QueryAsync<(string Id, string Name)>(
                new CommandDefinition(
                    "select id, display_name from \"AspNetUsers\" where id = any(@ids)",
                    new { ids = rows.Select(row => row.Name?.PersonId).OfType<string>().ToArray() },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(person => person.Id, person => person.Name);
        return
        [
            .. rows.OrderByDescending(row => row.Name?.Holds ?? true)
                .Select(row => new AheadInQueue(
                    row.Name?.PersonId is { } id ? people.GetValueOrDefault(id) : null,
                    (row.Name?.Doing ?? AccountDoing.Edit).InWords(),
                    new DateTimeOffset(DateTime.SpecifyKind(row.Since, DateTimeKind.Utc)),
                    row.Name?.Holds ?? true
                )),
        ];
    }

    /// <summary>True while a server works on the request, or it waits for the account.</summary>
    internal static Task<bool> IsUnderWayAsync(
        NpgsqlConnection connection,
        Guid requestId,
        CancellationToken cancellation
    ) =>
        connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from pg_stat_activity a, unnest(@names) n(name) where a.datname = current_database() and starts_with(a.application_name, n.name))",
                new { names = WorkName.BeginningsOf(requestId) },
                cancellationToken: cancellation
            )
        );
}
