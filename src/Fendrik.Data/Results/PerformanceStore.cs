using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Results;

/// <summary>Takes in the network's reports, whole days at a time. Days taken in again replace themselves.</summary>
public sealed class PerformanceStore(NpgsqlDataSource source)
{
    public async Task<DateOnly?> ReportedToAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<DateOnly?>(
            new CommandDefinition(
                "select reported_to from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    public async Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<PerformanceRow> rows,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await EnsureMonthsAsync(connection, days);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from performance where account_id = @accountId and day between @First and @Last; delete from performance_day where account_id = @accountId and day between @First and @Last",
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
            var importer = await connection.BeginBinaryImportAsync(
                """
                copy performance (account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value)
                from stdin (format binary)
                """,
                cancellation
            )
        )
        {
            await foreach (var row in rows.WithCancellation(cancellation))
            {
                await importer.StartRowAsync(cancellation);
                await importer.WriteAsync(accountId, NpgsqlDbType.Integer, cancellation);
                await importer.WriteAsync(row.Day, NpgsqlDbType.Date, cancellation);
                await importer.WriteAsync((short)row.Hour, NpgsqlDbType.Smallint, cancellation);
                await importer.WriteAsync(row.CampaignId, NpgsqlDbType.Bigint, cancellation);
                await importer.WriteAsync(row.AdGroupId, NpgsqlDbType.Bigint, cancellation);
                await importer.WriteAsync(row.KeywordId, NpgsqlDbType.Bigint, cancellation);
                await importer.WriteAsync(row.AdId, NpgsqlDbType.Bigint, cancellation);
                await importer.WriteAsync((short)row.Device, NpgsqlDbType.Smallint, cancellation);
                await importer.WriteAsync((short)row.Site, NpgsqlDbType.Smallint, cancellation);
                await importer.WriteAsync(row.Impressions, NpgsqlDbType.Bigint, cancellation);
                await importer.WriteAsync(row.Clicks, NpgsqlDbType.Bigint, cancellation);
                await importer.WriteAsync(row.Cost, NpgsqlDbType.Numeric, cancellation);
                await importer.WriteAsync(row.Conversions, NpgsqlDbType.Numeric, cancellation);
                await importer.WriteAsync(row.Value, NpgsqlDbType.Numeric, cancellation);
            }

            await importer.CompleteAsync(cancellation);
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into performance_day
                select account_id, day, campaign_id, ad_group_id, keyword_id, ad_id, device, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
                from performance where account_id = @accountId and day between @First and @Last group by 1, 2, 3, 4, 5, 6, 7;
                update account set report_revision = report_revision + 1, reported_to = greatest(coalesce(reported_to, @Last), @Last) where id = @accountId
                """,
                new
                {
                    accountId,
                    days.First,
                    days.Last,
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Takes in what was searched for. Days taken in again replace themselves.</summary>
    public async Task StoreTermsAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<SearchTermRow> terms,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await EnsureMonthsAsync(connection, days);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from search_term_day where account_id = @accountId and day between @First and @Last",
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
            var importer = await connection.BeginBinaryImportAsync(
                """
                copy search_term_day (account_id, day, term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value)
                from stdin (format binary)
                """,
                cancellation
            )
        )
        {
            await foreach (var row in terms.WithCancellation(cancellation))
            {
                await importer.WriteRowAsync(
                    cancellation,
                    accountId,
                    row.Day,
                    row.Term,
                    row.CampaignId,
                    row.AdGroupId,
                    row.KeywordId,
                    row.Impressions,
                    row.Clicks,
                    row.Cost,
                    row.Conversions,
                    row.Value
                );
            }

            await importer.CompleteAsync(cancellation);
        }

        await transaction.CommitAsync(cancellation);
    }

    private static Task EnsureMonthsAsync(NpgsqlConnection connection, Period days) =>
        connection.ExecuteAsync(
            "select ensure_performance_month(m::date) from generate_series(date_trunc('month', @First::date), @Last::date, '1 month') m",
            new { days.First, days.Last }
        );
}
