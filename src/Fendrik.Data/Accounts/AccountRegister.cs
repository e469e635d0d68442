using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>The accounts there are: made, renamed, put away and brought back.</summary>
public sealed class AccountRegister(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Makes an account, with whoever makes it as its owner. Nothing is kept where the network does not take it.</summary>
    /// <param name="account">The account.</param>
    /// <param name="networkAccount">What it is called on the network, where it was there before.</param>
    /// <param name="personId">Who makes it.</param>
    /// <param name="onNetwork">Makes it known to the network, by its identity here.</param>
    /// <param name="within">What else is kept with it.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <returns>Its identity.</returns>
    /// <exception cref="InvalidChangeException">Something is wrong with it, or it is here already.</exception>
    public async Task<int> AddAsync(
        NewAccount account,
        string? networkAccount,
        string personId,
        Func<int, Task> onNetwork,
        Func<NpgsqlConnection, int, Task>? within,
        CancellationToken cancellation
    )
    {
        if (account.Problem is { } problem)
        {
            throw new InvalidChangeException(problem.Field, problem.Message);
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        int id;
        try
        {
            id = await connection.ExecuteScalarAsync<int>(
                new CommandDefinition(
                    """
                    insert into account (name, currency, time_zone, network_id, last_step_id, payer, network_account)
                    values (@Name, @Currency, @TimeZone, @NetworkId, 0, @Payer, @networkAccount) returning id
                    """,
                    new
                    {
                        Name = account.Name.Trim(),
                        account.Currency,
                        account.TimeZone,
                        account.NetworkId,
                        account.Payer,
                        networkAccount,
                    },
                    cancellationToken: cancellation
                )
            );
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            throw new InvalidChangeException(
                "networkAccount",
                "This account is connected already. Ask one of its owners to invite you."
            );
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                "insert into account_member (account_id, person_id, role) values (@id, @personId, @owner)",
                new
                {
                    id,
                    personId,
                    owner = (short)AccountRole.Owner,
                },
                cancellationToken: cancellation
            )
        );
        if (within is not null)
        {
            await within(connection, id);
        }

        await onNetwork(id);
        await transaction.CommitAsync(cancellation);
        return id;
    }

    /// <summary>What was done up to now is where the account begins: nobody takes it back by the key that takes back their own last step.</summary>
    public async Task BeginHistoryAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update account set history_from = last_step_id + 1 where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Gives an account another name.</summary>
    /// <exception cref="InvalidChangeException">The name cannot be.</exception>
    public async Task RenameAsync(int accountId, string? name, CancellationToken cancellation)
    {
        if (NewAccount.NameProblem(name) is { } problem)
        {
            throw new InvalidChangeException("name", problem);
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update account set name = @name where id = @accountId",
                new { accountId, name = name!.Trim() },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Puts an account away, or brings it back. What runs on the network runs on.</summary>
    public async Task ArchiveAsync(int accountId, bool away, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update account set archived_at = case when @away then coalesce(archived_at, @now) end where id = @accountId",
                new
                {
                    accountId,
                    away,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
    }
}
