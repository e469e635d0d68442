using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Npgsql;
using NpgsqlTypes;

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
    ) =>
        StoreAsync(
            accountId,
            days,
            "standing_day",
            "campaign_id, ad_group_id, keyword_id, impressions, top, first, places, lost_to_rank, lost_to_budget",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write(row.KeywordId);
                copy.Write(row.Impressions);
                copy.Write(row.Top);
                copy.Write(row.First);
                copy.Write(row.Places);
                copy.Write(row.LostToRank);
                copy.Write(row.LostToBudget);
            },
            cancellation
        );

    /// <summary>Takes in how campaigns and their budgets went through the hours.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<PaceRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "pace_hour",
            "hour, campaign_id, budget, impressions, lost_to_rank, lost_to_budget, stopped_minute",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write((short)row.Hour);
                copy.Write(row.CampaignId);
                Write(copy, row.Budget);
                copy.Write(row.Impressions);
                copy.Write(row.LostToRank);
                copy.Write(row.LostToBudget);
                Write(copy, (short?)row.StoppedMinute);
            },
            cancellation
        );

    private static void Write<T>(NpgsqlBinaryImporter copy, T? value)
        where T : struct
    {
        if (value is { } known)
        {
            copy.Write(known);
        }
        else
        {
            copy.WriteNull();
        }
    }

    /// <summary>Takes in who else showed.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<RivalRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "rival_day",
            "campaign_id, ad_group_id, keyword_id, rival, shown_with, above_us",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write(row.KeywordId);
                copy.Write(row.Rival);
                copy.Write(row.ShownWith);
                copy.Write(row.AboveUs);
            },
            cancellation
        );

    /// <summary>Takes in quality scores.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<QualityRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "quality_day",
            "keyword_id, score, click_likelihood, text_fit, page_fit",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.KeywordId);
                copy.Write((short)row.Score);
                copy.Write((short)row.ClickLikelihood);
                copy.Write((short)row.TextFit);
                copy.Write((short)row.PageFit);
            },
            cancellation
        );

    /// <summary>Takes in what came of ads beside which extensions showed.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<ExtensionRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "extension_day",
            "campaign_id, ad_group_id, kind, extension_id, impressions, clicks, own_clicks, cost, expected, conversions, value",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write((short)row.Kind);
                copy.Write(row.ExtensionId);
                copy.Write(row.Impressions);
                copy.Write(row.Clicks);
                copy.Write(row.OwnClicks);
                copy.Write(row.Cost);
                copy.Write(row.Expected);
                copy.Write(row.Conversions);
                copy.Write(row.Value);
            },
            cancellation
        );

    /// <summary>Takes in what came of responsive ads, by the lines that showed together.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<CombinationRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "combination_day",
            "campaign_id, ad_group_id, ad_id, headlines, descriptions, impressions, clicks, cost, expected, conversions, value",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write(row.AdId);
                copy.Write(row.Headlines, NpgsqlDbType.Array | NpgsqlDbType.Text);
                copy.Write(row.Descriptions, NpgsqlDbType.Array | NpgsqlDbType.Text);
                copy.Write(row.Impressions);
                copy.Write(row.Clicks);
                copy.Write(row.Cost);
                copy.Write(row.Expected);
                copy.Write(row.Conversions);
                copy.Write(row.Value);
            },
            cancellation
        );

    /// <summary>Takes in what placements and audiences brought.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<ReachedRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "reached_day",
            "campaign_id, ad_group_id, reached_by, name, impressions, clicks, cost, conversions, value",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write((short)row.By);
                copy.Write(row.Name);
                copy.Write(row.Impressions);
                copy.Write(row.Clicks);
                copy.Write(row.Cost);
                copy.Write(row.Conversions);
                copy.Write(row.Value);
            },
            cancellation
        );

    /// <summary>Takes in conversions, one by one.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<ConversionRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "conversion",
            "hour, campaign_id, ad_group_id, keyword_id, ad_id, device, action_id, click_id, clicked_at, at, told, value, counts, steers",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write((short)row.Hour);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write(row.KeywordId);
                copy.Write(row.AdId);
                copy.Write((short)row.Device);
                copy.Write(row.ActionId);
                copy.Write(row.ClickId);
                copy.Write(row.ClickedAt.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                copy.Write(row.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                copy.Write(row.Told.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                copy.Write(row.Value);
                copy.Write(row.Counts);
                copy.Write(row.Steers);
            },
            cancellation
        );

    /// <summary>Takes in calls, one by one.</summary>
    public Task StoreAsync(
        int accountId,
        Period days,
        IAsyncEnumerable<CallRow> rows,
        CancellationToken cancellation
    ) =>
        StoreAsync(
            accountId,
            days,
            "phone_call",
            "campaign_id, ad_group_id, keyword_id, ad_id, device, from_ad, click_id, clicked_at, cost, at, rang, talked, call_end, area, caller",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write(row.KeywordId);
                copy.Write(row.AdId);
                copy.Write((short)row.Device);
                copy.Write(row.FromAd);
                copy.Write(row.ClickId);
                copy.Write(row.ClickedAt.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                copy.Write(row.Cost);
                copy.Write(row.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
                copy.Write(row.Rang);
                copy.Write(row.Talked);
                copy.Write((short)row.End);
                copy.Write(row.Area);
                copy.Write(row.Caller);
            },
            cancellation
        );

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
    ) =>
        StoreAsync(
            accountId,
            days,
            "search_term_day",
            "term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value",
            rows,
            (copy, row) =>
            {
                copy.Write(row.Day, NpgsqlDbType.Date);
                copy.Write(row.Term);
                copy.Write(row.CampaignId);
                copy.Write(row.AdGroupId);
                copy.Write(row.KeywordId);
                copy.Write(row.Impressions);
                copy.Write(row.Clicks);
                copy.Write(row.Cost);
                copy.Write(row.Conversions);
                copy.Write(row.Value);
            },
            cancellation
        );

    private async Task StoreAsync<T>(
        int accountId,
        Period days,
        string table,
        string columns,
        IAsyncEnumerable<T> rows,
        Action<NpgsqlBinaryImporter, T> write,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await PerformanceStore.EnsureMonthsAsync(connection, days);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                $"delete from {table} where account_id = @accountId and day between @First and @Last",
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
                $"copy {table} (account_id, day, {columns}) from stdin (format binary)",
                cancellation
            )
        )
        {
            await foreach (var row in rows.WithCancellation(cancellation))
            {
                copy.StartRow();
                copy.Write(accountId);
                write(copy, row);
            }

            await copy.CompleteAsync(cancellation);
        }

        await transaction.CommitAsync(cancellation);
    }
}
