using Dapper;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>What the network's reviewers said of items, and how far their words were read.</summary>
public sealed class ReviewRecords(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Number of the last of the reviewers' words that was read.</summary>
    public async Task<long> ReadUpToAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                "select review_sequence from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Writes down what the reviewers say, and who pays.</summary>
    public async Task RecordAsync(
        int accountId,
        NetworkReviews reviews,
        DateTimeOffset networkNow,
        AccountPayer payer,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(connection, accountId, new AccountWork(null, AccountDoing.Live), cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition("select set_config('fendrik.step', '0', true)", cancellationToken: cancellation)
        );
        var changed = await connection.ExecuteAsync(
            new CommandDefinition(
                """
                with was as (select id, payer, (network_now at time zone time_zone)::date as day from account where id = @accountId),
                heard as (update account a set payer = @Name, network_now = @networkNow from was
                  where a.id = was.id and (was.payer, was.day) is distinct from (@Name, (@networkNow at time zone a.time_zone)::date) returning a.id)
                insert into check_due select id, 0, 0 from heard
                """,
                new
                {
                    accountId,
                    payer.Name,
                    networkNow,
                },
                cancellationToken: cancellation
            )
        );
        foreach (var table in ItemTable.All)
        {
            var mine = reviews.Reviews.Where(review => review.Kind == table.Kind).ToArray();
            if (mine.Length > 0)
            {
                changed += await connection.ExecuteAsync(
                    new CommandDefinition(
                        $"""
                        with reviewed as (
                          update {table.Name} i set review = r.state, review_reason = r.reason
                          from unnest(@ids, @states, @reasons) as r(id, state, reason)
                          where i.id = r.id and i.account_id = @accountId and i.is_live and (i.review, i.review_reason) is distinct from (r.state, r.reason)
                          returning i.id)
                        insert into check_due select @accountId, {table.Number}, id from reviewed
                        """,
                        new
                        {
                            accountId,
                            ids = mine.Select(review => review.ItemId).ToArray(),
                            states = mine.Select(review => (short)review.State).ToArray(),
                            reasons = mine.Select(review => review.Reason).ToArray(),
                        },
                        cancellationToken: cancellation
                    )
                );
            }
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                $"""
            update account set live_read_at = @now, network_now = @networkNow, review_sequence = greatest(review_sequence, @Last) where id = @accountId;
            {(
                changed > 0
                    ? "select account_moved(@accountId)"
                    : ""
            )}
            """,
                new
                {
                    accountId,
                    now = clock.GetUtcNow(),
                    networkNow,
                    reviews.Last,
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }
}
