using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>
/// Takes in what a network reports by day and keyword beside the figures: how it stood, who else showed, its quality score, what was searched for. Days taken
/// in again replace themselves.
/// </summary>
public sealed class DayReports(NpgsqlDataSource source)
{
    /// <summary>Takes in how keywords stood.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<StandingRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Standing, rows, cancellation);

    /// <summary>Takes in how campaigns and their budgets went through the hours.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<PaceRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Pace, rows, cancellation);

    /// <summary>Takes in who else showed.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<RivalRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Rival, rows, cancellation);

    /// <summary>Takes in quality scores.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<QualityRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Quality, rows, cancellation);

    /// <summary>Takes in what came of ads beside which extensions showed.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<ExtensionRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Extension, rows, cancellation);

    /// <summary>Takes in what came of responsive ads, by the lines that showed together.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<CombinationRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Combination, rows, cancellation);

    /// <summary>Takes in what placements and audiences brought.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<ReachedRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Reached, rows, cancellation);

    /// <summary>Takes in conversions, one by one.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<ConversionRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Conversion, rows, cancellation);

    /// <summary>Takes in calls, one by one.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<CallRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.Call, rows, cancellation);

    /// <summary>Takes in where strategies stand; what stood before is forgotten.</summary>
    public async Task StoreAsync(int accountId, IReadOnlyList<StrategyRow> rows, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Two who take in reports at once come one after the other.
        await connection.ExecuteAsync("select from account where id = @accountId for update", new { accountId });
        await connection.ExecuteAsync("delete from strategy_now where account_id = @accountId", new { accountId });
        await connection.ExecuteAsync(
            """
            insert into strategy_now (account_id, campaign_id, strategy, since, level, learning_days, learnt_from, learning_needs, is_learning)
            values (@accountId, @CampaignId, @Strategy, @Since, @Level, @LearningDays, @LearntFrom, @LearningNeeds, @IsLearning)
            """,
            rows.Select(row => new
            {
                accountId,
                row.CampaignId,
                Strategy = (short)row.Strategy,
                row.Since,
                row.Level,
                row.LearningDays,
                row.LearntFrom,
                row.LearningNeeds,
                row.IsLearning,
            })
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Takes in what was searched for.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<SearchTermRow> rows,
        CancellationToken cancellation
    ) => StoreAsync(accountId, days, ReportTables.SearchTerm, rows, cancellation);

    private async Task StoreAsync<T>(
        int accountId,
        Period days,
        ReportTable<T> table,
        IAsyncEnumerable<T> rows,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await PerformanceStore.EnsureMonthsAsync(connection, days);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                $"delete from {table.Name} where account_id = @accountId and day between @First and @Last",
                new
                {
                    accountId,
                    days.First,
                    days.Last,
                },
                cancellationToken: cancellation
            )
        );
        await using (
            var copy = await connection.BeginBinaryImportAsync(
                $"copy {table.Name} (account_id, day, {table.Columns}) from stdin (format binary)",
                cancellation
            )
        )
        {
            await foreach (var row in rows.WithCancellation(cancellation))
            {
                copy.StartRow();
                copy.Write(accountId);
                table.Write(copy, row);
            }

            await copy.CompleteAsync(cancellation);
        }

        if (table.RollUp is { } sums)
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    sums,
                    new
                    {
                        accountId,
                        days.First,
                        days.Last,
                    },
                    cancellationToken: cancellation
                )
            );
        }

        await transaction.CommitAsync(cancellation);
    }
}
