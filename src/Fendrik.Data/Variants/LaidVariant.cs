using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Variants;

/// <summary>
/// A connection on which the working copy reads as it would be with what is proposed in a look. It is rolled back when it is
/// disposed of: nothing is left, and nobody else sees any of it.
/// </summary>
internal sealed class LaidVariant : IAsyncDisposable
{
    private const int MostAttempts = 20;
    private static readonly TimeSpan PauseBetweenAttempts = TimeSpan.FromMilliseconds(200);

    private readonly NpgsqlTransaction _transaction;

    private LaidVariant(
        NpgsqlConnection connection,
        NpgsqlTransaction transaction,
        IReadOnlyList<ProposedItem> items,
        IReadOnlyDictionary<long, string> refused
    )
    {
        (Connection, _transaction, Refused) = (connection, transaction, refused);
        Proposed = items
            .Where(item => !refused.ContainsKey(item.Id))
            .ToDictionary(
                item => (item.Kind, item.ItemId),
                item =>
                    item.Before is null ? RowChange.New
                    : item.After is null ? RowChange.Removed
                    : RowChange.Edited
            );
    }

    /// <summary>Where it is read.</summary>
    public NpgsqlConnection Connection { get; }

    /// <summary>The items that are otherwise than in the working copy, and how.</summary>
    public IReadOnlyDictionary<(ItemKind Kind, long Id), RowChange> Proposed { get; }

    /// <summary>Proposals that could not be laid over, with the reason.</summary>
    public IReadOnlyDictionary<long, string> Refused { get; }

    /// <summary>Opens one.</summary>
    /// <exception cref="InvalidChangeException">No campaign is shown there.</exception>
    /// <exception cref="AccountBusyException">The items are being written by somebody for long.</exception>
    public static async Task<LaidVariant> OpenAsync(
        NpgsqlDataSource source,
        int accountId,
        long lookId,
        CancellationToken cancellation
    )
    {
        for (var attempt = 1; ; attempt++)
        {
            var connection = await source.OpenConnectionAsync(cancellation);
            try
            {
                return await LayAsync(connection, accountId, lookId, cancellation);
            }
            catch (PostgresException error)
                when (error.SqlState == PostgresErrorCodes.LockNotAvailable && attempt < MostAttempts)
            {
                await connection.DisposeAsync();
                await Task.Delay(PauseBetweenAttempts, cancellation);
            }
            catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.LockNotAvailable)
            {
                await connection.DisposeAsync();
                throw new AccountBusyException();
            }
            catch
            {
                await connection.DisposeAsync();
                throw;
            }
        }
    }

    private static async Task<LaidVariant> LayAsync(
        NpgsqlConnection connection,
        int accountId,
        long lookId,
        CancellationToken cancellation
    )
    {
        var transaction = await connection.BeginTransactionAsync(cancellation);
        // One after the other: who reads the same variant would wait for its rows anyway.
        await connection.ExecuteAsync(
            new CommandDefinition(
                "select pg_advisory_xact_lock(hashtextextended('variant', @lookId)); set local lock_timeout = '700ms'",
                new { lookId },
                cancellationToken: cancellation
            )
        );
        var campaign = await connection.ExecuteScalarAsync<long?>(
            new CommandDefinition(
                "select campaign_id from second_look where id = @lookId and account_id = @accountId",
                new { accountId, lookId },
                cancellationToken: cancellation
            )
        );
        if (campaign is null)
        {
            throw new InvalidChangeException("lookId", "No campaign is shown there.");
        }

        var account = await AccountFacts.ReadAsync(connection, accountId);
        var items = await ProposedRows.OpenAsync(connection, lookId, cancellation);
        var context = new StepContext(connection, account, 0, cancellation);
        var overlay = await ProposedChange.LayAsync(context, items);
        return new LaidVariant(connection, transaction, items, overlay.Refused);
    }

    public async ValueTask DisposeAsync()
    {
        await _transaction.DisposeAsync();
        await Connection.DisposeAsync();
    }
}
