using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Tracking;
using Npgsql;

namespace Fendrik.Data.Links;

/// <summary>The accounts whose links are followed every night, since somebody chose so.</summary>
public sealed class NightlyLinks(NpgsqlDataSource source)
{
    /// <summary>True when the links of an account are followed every night.</summary>
    public async Task<bool> IsChosenAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from nightly_links where account_id = @accountId)",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Chooses whether the links of an account are followed every night, in the name of who chooses it.</summary>
    public async Task ChooseAsync(int accountId, string personId, bool chosen, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                chosen
                    ? "insert into nightly_links (account_id, person_id) values (@accountId, @personId) on conflict (account_id) do update set person_id = excluded.person_id"
                    : "delete from nightly_links where account_id = @accountId",
                new { accountId, personId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The accounts whose turn it is, with who chose it. The next who asks is told of them no more once their jobs are begun.</summary>
    /// <param name="connection">A connection within a transaction: other servers wait until it ends.</param>
    /// <param name="jobKind">The name of the jobs that follow links.</param>
    /// <param name="now">The moment.</param>
    public static async Task<IReadOnlyList<(int AccountId, string PersonId)>> DueAsync(
        NpgsqlConnection connection,
        string jobKind,
        DateTimeOffset now
    )
    {
        await connection.ExecuteAsync("select pg_advisory_xact_lock(7006)");
        var chosen = await connection.QueryAsync<(int Account, string Person, string Zone, DateTime? Last)>(
            """
            select n.account_id, n.person_id, a.time_zone, (select max(j.made_at) from job j where j.account_id = n.account_id and j.kind = @jobKind)
            from nightly_links n join account a on a.id = n.account_id order by n.account_id
            """,
            new { jobKind }
        );
        return
        [
            .. chosen
                .Where(each => NightRound.IsDue(each.Account, new AccountDay(each.Zone), each.Last, now))
                .Select(each => (each.Account, each.Person)),
        ];
    }
}
