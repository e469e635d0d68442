using System.Data;
using Dapper;
using Npgsql;

namespace Fendrik.Data.Terms;

/// <summary>
/// Kept sums of terms at one moment: a report, or others who look at other periods, may drop them at any time, and whoever reads them is not to find half
/// of a page.
/// </summary>
internal sealed class TermMoment : IAsyncDisposable
{
    private readonly NpgsqlTransaction _transaction;

    private TermMoment(NpgsqlConnection connection, NpgsqlTransaction transaction, long period)
    {
        (Connection, _transaction, Period) = (connection, transaction, period);
    }

    /// <summary>The connection, which is in the moment.</summary>
    public NpgsqlConnection Connection { get; }

    /// <summary>The period by which the sums are found.</summary>
    public long Period { get; }

    /// <summary>The moment, if the sums are still there.</summary>
    public static async Task<TermMoment?> FindAsync(
        NpgsqlDataSource source,
        long period,
        CancellationToken cancellation,
        string? snapshot = null
    )
    {
        var connection = await source.OpenConnectionAsync(cancellation);
        try
        {
            var transaction = await connection.BeginTransactionAsync(IsolationLevel.RepeatableRead, cancellation);
            if (snapshot is not null)
            {
                // The name is the database's own, and cannot be a parameter.
                await connection.ExecuteAsync($"set transaction snapshot '{snapshot}'");
            }

            if (
                await connection.ExecuteScalarAsync<bool>(
                    "select exists (select from term_period where id = @period)",
                    new { period }
                )
            )
            {
                return new TermMoment(connection, transaction, period);
            }
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }

        await connection.DisposeAsync();
        return null;
    }

    /// <summary>The same moment on a connection of its own, for whoever reads something while rows still come.</summary>
    public async Task<TermMoment> BesideAsync(NpgsqlDataSource source, CancellationToken cancellation) =>
        (
            await FindAsync(
                source,
                Period,
                cancellation,
                await Connection.QuerySingleAsync<string>("select pg_export_snapshot()")
            )
        )!;

    public async ValueTask DisposeAsync()
    {
        await _transaction.DisposeAsync();
        await Connection.DisposeAsync();
    }
}
