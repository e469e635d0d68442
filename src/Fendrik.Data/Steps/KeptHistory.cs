using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>
/// Rows as they were before a step are kept for a time. What was removed stays for ever, with its name, place and figures;
/// only how it was changed step by step is forgotten.
/// </summary>
public sealed class KeptHistory(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Days for which steps can be taken back, unless set otherwise.</summary>
    public const int UsualDays = 90;

    private const int RowsAtOnce = 50_000;

    /// <summary>Forgets rows as they were before steps older than so many days, some at a time, and says how many they were.</summary>
    public async Task<long> ForgetAsync(int days, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        // What can no longer be taken back is said before the first row goes.
        var last = await connection.ExecuteScalarAsync<long?>(
            new CommandDefinition(
                """
                with old as (select account_id, max(id) as last from step where made_at < @before group by account_id),
                noted as (update account a set history_from = o.last + 1 from old o where o.account_id = a.id and a.history_from <= o.last)
                select max(last) from old
                """,
                new { before = clock.GetUtcNow().AddDays(-days) },
                cancellationToken: cancellation
            )
        );
        if (last is null)
        {
            return 0;
        }

        long forgotten = 0;
        foreach (var table in ItemTable.All)
        {
            int gone;
            do
            {
                gone = await connection.ExecuteAsync(
                    new CommandDefinition(
                        $"""
                        delete from {table.Before} where ctid in (select b.ctid from {table.Before} b join account a on a.id = b.account_id
                          where b.step_id <= @last and b.step_id < a.history_from limit {RowsAtOnce})
                        """,
                        new { last },
                        commandTimeout: 600,
                        cancellationToken: cancellation
                    )
                );
                forgotten += gone;
            } while (gone == RowsAtOnce);
        }

        return forgotten;
    }

    /// <exception cref="InvalidChangeException">The rows as they were before the step are no longer kept.</exception>
    internal static async Task RefuseOlderAsync(StepContext context, long stepId)
    {
        if (
            await context.ScalarAsync<bool>(
                "select history_from > @stepId from account where id = @account",
                new { stepId, account = context.Account.Id }
            )
        )
        {
            throw new InvalidChangeException(
                "step",
                "This step is too old to be taken back: how things were before it is no longer kept."
            );
        }
    }
}
