using System.Globalization;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results.Sums;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Results;

/// <summary>Takes in the network's reports, whole days at a time. Days taken in again replace themselves.</summary>
public sealed class PerformanceStore(NpgsqlDataSource source)
{
    /// <summary>The last day that is taken in, and the moment of the network's clock up to which its reports are known.</summary>
    public async Task<(DateOnly? Day, DateTimeOffset? Heard)> ReportedToAsync(
        int accountId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (day, heard) = await connection.QuerySingleAsync<(DateOnly?, DateTime?)>(
            new CommandDefinition(
                "select reported_to, reports_heard from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return (day, heard is { } moment ? new DateTimeOffset(DateTime.SpecifyKind(moment, DateTimeKind.Utc)) : null);
    }

    /// <summary>What days brought, in a sentence.</summary>
    public async Task<string> NewsAsync(int accountId, Period days, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (impressions, clicks, cost, conversions, code) = await connection.QuerySingleAsync<(
            decimal,
            decimal,
            decimal,
            decimal,
            string
        )>(
            new CommandDefinition(
                """
                select coalesce(sum(p.impressions), 0), coalesce(sum(p.clicks), 0), coalesce(sum(p.cost), 0), coalesce(sum(p.conversions), 0), a.currency
                from account a left join performance_campaign p on p.account_id = a.id and p.day between @First and @Last where a.id = @accountId group by a.currency
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
        var when =
            days.Days == 1
                ? $"on {days.First.ToString("ddd d MMM", CultureInfo.InvariantCulture)}"
                : $"from {days.First.ToString("ddd d MMM", CultureInfo.InvariantCulture)} to {days.Last.ToString("ddd d MMM", CultureInfo.InvariantCulture)}";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"New results {when}: {impressions:N0} impressions, {clicks:N0} clicks for {new Money(cost, Currency.Of(code))}, {conversions:0.#} conversions so far."
        );
    }

    /// <summary>Notes the moment of the network's clock up to which its reports are known.</summary>
    public async Task HeardAsync(int accountId, DateTimeOffset moment, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update account set reports_heard = @moment where id = @accountId",
                new { accountId, moment = moment.ToUniversalTime() },
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
                $"""
                insert into performance_day
                select account_id, day, campaign_id, ad_group_id, keyword_id, ad_id, device, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
                from performance where account_id = @accountId and day between @First and @Last group by 1, 2, 3, 4, 5, 6, 7;
                {RollUps.OfPerformance}
                -- Days that are taken in again were made under the modifiers of then, which are known.
                insert into modifier_day
                select a.id, d::date, c.id, c.item ->> 'hours', (c.item ->> 'desktopModifier')::numeric, (c.item ->> 'phoneModifier')::numeric, (c.item ->> 'tabletModifier')::numeric
                from account a join {Live(
                    ItemKind.Campaign
                )} c on c.account_id = a.id, generate_series(@First::date, @Last::date, '1 day') d
                where a.id = @accountId and (a.reported_to is null or d::date > a.reported_to)
                  and coalesce(c.item ->> 'hours', c.item ->> 'desktopModifier', c.item ->> 'phoneModifier', c.item ->> 'tabletModifier') is not null
                on conflict do nothing;
                insert into targeted_day
                select a.id, d::date, t.campaign_id, t.kind, t.item ->> 'text', (t.item ->> 'radius')::numeric, coalesce((t.item ->> 'side')::smallint, 1), (t.item ->> 'modifier')::numeric
                from account a join (
                  select {(int)ItemKind.Place}::smallint as kind, p.* from {Live(ItemKind.Place)} p
                  union all select {(int)ItemKind.Audience}, u.* from {Live(
                    ItemKind.Audience
                )} u where u.campaign_id is not null
                ) t on t.account_id = a.id, generate_series(@First::date, @Last::date, '1 day') d
                where a.id = @accountId and (a.reported_to is null or d::date > a.reported_to);
                insert into conversion_action_since
                select a.id, i.id, greatest(@First, coalesce(a.reported_to + 1, @First)) from account a join conversion_action i on i.account_id = a.id and i.is_live
                where a.id = @accountId and (a.reported_to is null or @Last > a.reported_to) on conflict do nothing;
                update account set report_revision = report_revision + 1, reported_to = greatest(coalesce(reported_to, @Last), @Last) where id = @accountId;
                -- What risky settings cost is told with them: it is another after a report.
                insert into check_due (account_id, kind, item_id) select distinct account_id, kind, item_id from finding where account_id = @accountId and code = any(@codes);
                -- And whether what strategies go by is still counted.
                insert into check_due (account_id, kind, item_id) select account_id, @campaign, id from campaign
                where account_id = @accountId and not removed and strategy = any(@counting)
                """,
                new
                {
                    accountId,
                    days.First,
                    days.Last,
                    codes = CampaignRisks.Codes.ToArray(),
                    campaign = (short)ItemKind.Campaign,
                    counting = Enum.GetValues<BidStrategy>()
                        .Where(each => new StrategyPlan(each).NeedsConversions)
                        .Select(each => (short)each)
                        .ToArray(),
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Items of a kind that stand on campaigns, or are some, as the network has them.</summary>
    private static string Live(ItemKind kind)
    {
        var table = ItemTable.Of(kind);
        var campaign =
            kind == ItemKind.Campaign ? "i.id"
            : table.HasLevels ? $"case when i.level = {(int)Level.Campaign} then i.campaign_id end"
            : "i.campaign_id";
        return $"(select i.account_id, i.id, {campaign} as campaign_id, coalesce(i.live, {table.Published("i")}) as item from {table.Name} i where i.is_live)";
    }

    internal static Task EnsureMonthsAsync(NpgsqlConnection connection, Period days) =>
        connection.ExecuteAsync(
            "select ensure_performance_month(m::date) from generate_series(date_trunc('month', @First::date), @Last::date, '1 month') m",
            new { days.First, days.Last }
        );
}
