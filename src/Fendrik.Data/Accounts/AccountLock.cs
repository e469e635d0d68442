using Dapper;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>Who wants to work on an account, as those behind are told.</summary>
/// <param name="PersonId">The person; none for what the server does by itself.</param>
/// <param name="Doing">What is being done, as <see cref="AccountDoings"/> words it.</param>
/// <param name="RequestId">Name of the request, by which its waiting is found.</param>
public sealed record AccountWork(string? PersonId, AccountDoing Doing, Guid? RequestId = null);

/// <summary>The account is held by somebody else for too long; nothing was changed.</summary>
public sealed class AccountBusyException()
    : Exception(
        "Somebody else's work on this account is not through yet, so yours has waited in vain. Nothing of yours was changed; try again."
    );

/// <summary>
/// Whoever changes something of an account holds its row, and takes it before anything else. Who holds it and who waits is told to
/// the database with the transaction itself, so that it is true whatever happens to either, on every server.
/// </summary>
internal static class AccountLock
{
    /// <summary>How long a person's work waits for another's.</summary>
    public static readonly TimeSpan LongestWait = TimeSpan.FromMinutes(2);

    /// <summary>Takes the account, after everybody who came before.</summary>
    /// <exception cref="AccountBusyException">It did not come free in time.</exception>
    public static async Task TakeAsync(
        NpgsqlConnection connection,
        int accountId,
        AccountWork work,
        CancellationToken cancellation
    )
    {
        // A person is waited for by a person; what the server does by itself has time.
        var longest = work.PersonId is null ? "0" : $"{(int)LongestWait.TotalMilliseconds}";
        try
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "select set_config('application_name', @name, true), set_config('lock_timeout', @longest, true)",
                    new { name = WorkName.OfWaiting(work), longest },
                    cancellationToken: cancellation
                )
            );
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "select from account where id = @accountId for no key update",
                    new { accountId },
                    commandTimeout: 0,
                    cancellationToken: cancellation
                )
            );
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "select set_config('application_name', @name, true)",
                    new { name = WorkName.OfHolding(work) },
                    cancellationToken: cancellation
                )
            );
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.LockNotAvailable)
        {
            throw new AccountBusyException();
        }
    }
}
