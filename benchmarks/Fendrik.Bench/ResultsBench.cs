using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Breakdowns;
using Fendrik.Data.Results.Sums;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>
/// Results of a large account: half a million keywords with three months of days by hour and device, in tens of millions of facts. Each screen beside the
/// bare sums that it rests on.
/// </summary>
internal sealed class ResultsBench(NpgsqlDataSource source)
{
    private const int Keywords = 500_000;
    private const int Days = 182;
    private const int Groups = 2_000;
    private const int Campaigns = 50;
    private const int FactsOfDay = 60_000;
    private static readonly DateOnly First = new(2026, 1, 1);

    public async Task RunAsync()
    {
        var account = await AccountAsync();
        var last = First.AddDays(Days - 1);
        var (quarter, month) = (new Period(last.AddDays(-89), last), new Period(last.AddDays(-27), last));
        var reader = new ResultsReader(source);
        var breakdowns = new BreakdownReader(source);
        foreach (var (what, period) in new[] { ("28 days", month), ("90 days", quarter) })
        {
            foreach (var level in new[] { ItemKind.Campaign, ItemKind.AdGroup, ItemKind.Keyword })
            {
                var column = ItemTypes.Of(level).FigureColumn!;
                var read = await Measure.MedianAsync(
                    5,
                    () => reader.ReadAsync(account, new ResultsRequest(period, level, null, null), 500, default)
                );
                var bare = await Measure.MedianAsync(
                    3,
                    () =>
                        AskAsync(
                            $"""
                            select day, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value) from performance_campaign
                            where account_id = @account and day between @from and @to group by day;
                            select {column}, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value) from {(
                                level == ItemKind.Keyword ? "performance_day"
                                : level == ItemKind.AdGroup ? "performance_group"
                                : "performance_campaign"
                            )}
                            where account_id = @account and day between @from and @to group by {column} order by sum(cost) desc limit 500
                            """,
                            account,
                            new Period(period.Before.First, period.Last)
                        )
                );
                Measure.Print($"results of {what} by {level}", read, bare, "1.5 ×, under 300 ms");
            }

            foreach (
                var (by, then) in new (Breakdown, Breakdown?)[]
                {
                    (Breakdown.Device, null),
                    (Breakdown.Weekday, Breakdown.Hour),
                    (Breakdown.Week, Breakdown.Campaign),
                }
            )
            {
                var read = await Measure.MedianAsync(
                    3,
                    () =>
                        breakdowns.ReadAsync(
                            account,
                            new BreakdownRequest(period, period.Before, by, then, null, null),
                            1_000,
                            default
                        )
                );
                var bare = await Measure.MedianAsync(
                    1,
                    () =>
                        AskAsync(
                            """
                            select day, hour, device, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value) from performance_slot
                            where account_id = @account and day between @from and @to group by 1, 2, 3
                            """,
                            account,
                            new Period(period.Before.First, period.Last)
                        )
                );
                Measure.Print(
                    $"breakdown of {what} by {by}{(then is null ? "" : $" and {then}")}",
                    read,
                    bare,
                    "1.5 ×"
                );
            }
        }
    }

    private async Task AskAsync(string sql, int account, Period days)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var reader = await connection.ExecuteReaderAsync(
            sql,
            new
            {
                account,
                from = days.First,
                to = days.Last,
            },
            commandTimeout: 600
        );
        do
        {
            while (await reader.ReadAsync()) { }
        } while (await reader.NextResultAsync());
    }

    /// <summary>Few keywords show often and most seldom: so many of them a day as would be in an account of this size.</summary>
    private async Task<int> AccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        var account = await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id, payer) values ('Results', 'GBP', 'Europe/London', 'ostrel', 0, 'x') returning id"
        );
        await connection.ExecuteAsync(
            $"""
            select set_config('fendrik.step', '0', false), set_config('work_mem', '512MB', false);
            insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review)
              select @account, 'c ' || n, 'c ' || n, 1, 1, 1, 1, 1, 1, 20, 1, false, true, 0 from generate_series(1, {Campaigns}) n;
            create temp table c as select id, row_number() over (order by id) - 1 as n from campaign where account_id = @account;
            insert into ad_group (account_id, campaign_id, name, name_key, state, removed, is_live, review)
              select @account, c.id, 'g ' || n.n, 'g ' || n.n, 1, false, true, 0 from generate_series(0, {Groups} - 1) n(n) join c on c.n = n.n % {Campaigns};
            create temp table g as select id, campaign_id, row_number() over (order by id) - 1 as n from ad_group where account_id = @account;
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, removed, is_live, review)
              select @account, g.id, 'word ' || n.n, 'word ' || n.n, 1 + n.n % 3, 1, false, true, 0 from generate_series(0, {Keywords} - 1) n(n) join g on g.n = n.n % {Groups};
            create temp table k as select k.id, k.ad_group_id, g.campaign_id, row_number() over (order by k.id) - 1 as n from keyword k join g on g.id = k.ad_group_id;
            create unique index on k (n); analyze k;
            select ensure_performance_month(m::date) from generate_series(@First::date, @First::date + @Days, '1 month') m;
            insert into performance (account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value)
              select @account, @First::date + s.d, (s.k * 7 + s.d + s.n) % 24, k.campaign_id, k.ad_group_id, k.id, k.ad_group_id, 1 + (s.k + s.n) % 3, 1,
                1 + (s.k + s.d) % 9, case when (s.k + s.n) % 5 = 0 then 1 else 0 end, case when (s.k + s.n) % 5 = 0 then 0.4 + (s.k % 90) / 100.0 else 0 end,
                case when (s.k + s.n) % 215 = 0 then 1 else 0 end, 0
              from (select d, n, floor({Keywords} * power(((n * 7919::bigint + d * 104729) % 1000003) / 1000003.0, 2))::bigint as k
                from generate_series(0, @Days - 1) d, generate_series(1, {FactsOfDay}) n) s join k on k.n = s.k;
            insert into performance_day
              select account_id, day, campaign_id, ad_group_id, keyword_id, ad_id, device, impressions, clicks, cost, conversions, value
              from performance where account_id = @account;
            insert into standing_day (account_id, day, campaign_id, ad_group_id, keyword_id, impressions, top, first, places, lost_to_rank, lost_to_budget)
              select account_id, day, campaign_id, ad_group_id, keyword_id, impressions, impressions / 2, impressions / 4, impressions * 2, 1, 1
              from performance where account_id = @account;
            {RollUps.OfPerformance}
            {RollUps.OfStandings}
            update account set reported_to = @First::date + @Days - 1 where id = @account;
            analyze
            """,
            new
            {
                account,
                accountId = account,
                First,
                Last = First.AddDays(Days - 1),
                Days,
            },
            commandTimeout: 3_600
        );
        return account;
    }
}
