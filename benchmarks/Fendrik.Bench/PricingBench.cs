using Dapper;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>Modifiers on evidence over all campaigns of a large account, against the bare sums by the same segments.</summary>
internal sealed class PricingBench(NpgsqlDataSource source)
{
    private const int Campaigns = 5_000;
    private const int Days = 90;
    private static readonly DateOnly First = new(2026, 2, 1);

    public async Task RunAsync()
    {
        var account = await AccountAsync();
        var period = new Period(First, First.AddDays(Days - 1));
        var reader = new EvidenceReader(source);
        var proposed = 0;
        var weighed = await Measure.MedianAsync(
            3,
            async () =>
            {
                var figures = await reader.ByCampaignAsync(account, period, CancellationToken.None);
                proposed = figures.Values.Sum(each =>
                    ModifierEvidence.CountSure(each, [SegmentKind.Device, SegmentKind.Hours], _ => 0, 700)
                );
            }
        );
        long cells = 0;
        var summed = await Measure.MedianAsync(3, async () => cells = await SumAsync(account, period));
        Measure.Print(
            $"evidence of {Campaigns:N0} campaigns × {Days} days ({cells:N0} cells, {proposed:N0} proposed)",
            weighed,
            summed,
            "at most 1.2 ×"
        );
        await BudgetsAsync();
    }

    /// <summary>What all campaigns could spend, with the trial on the weeks before, against the bare sums by ad group and day that it rests on.</summary>
    private async Task BudgetsAsync()
    {
        const int weeks = 4;
        var account = await FundedAccountAsync();
        var period = new Period(First.AddDays(weeks * 7), First.AddDays(2 * weeks * 7 - 1));
        var demand = new AccountDemand(new BudgetReader(source));
        var missed = 0L;
        var reckoned = await Measure.MedianAsync(
            3,
            async () =>
            {
                var money = await demand.ReadAsync(account, period, CancellationToken.None);
                missed = money.Campaigns.Sum(each => each.Demand.Standing.LostToBudget);
            }
        );
        long cells = 0;
        var summed = await Measure.MedianAsync(
            3,
            async () => cells = await SumDaysAsync(account, new Period(First, period.Last))
        );
        Measure.Print(
            $"budgets of {Campaigns:N0} campaigns × {2 * weeks} weeks ({cells:N0} cells, {missed:N0} searches missed)",
            reckoned,
            summed,
            "at most 2 ×"
        );
    }

    /// <summary>The sums by ad group and day, read by whoever asks for them.</summary>
    private async Task<long> SumDaysAsync(int account, Period period)
    {
        await using var connection = await source.OpenConnectionAsync();
        long rows = 0;
        foreach (
            var sql in new[]
            {
                "select campaign_id, ad_group_id, day, sum(impressions)::bigint, sum(lost_to_rank)::bigint, sum(lost_to_budget)::bigint from standing_day where account_id = @account and day between @first and @last group by 1, 2, 3",
                "select campaign_id, ad_group_id, day, sum(clicks)::bigint, sum(conversions), sum(cost) from performance_day where account_id = @account and day between @first and @last group by 1, 2, 3",
            }
        )
        {
            await using var command = new NpgsqlCommand(sql, connection);
            command.Parameters.AddWithValue("account", account);
            command.Parameters.AddWithValue("first", period.First);
            command.Parameters.AddWithValue("last", period.Last);
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                rows += reader.GetInt64(3) >= 0 ? 1 : 0;
            }
        }

        return rows;
    }

    private async Task<int> FundedAccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        var account = await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id, payer) values ('Many', 'GBP', 'Europe/London', 'ostrel', 0, 'x') returning id"
        );
        await connection.ExecuteAsync(
            """
            select set_config('fendrik.step', '0', false);
            insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review)
              select @account, 'c ' || n, 'c ' || n, 1, 1, 1, 1, 1, 1, 20, 1, false, true, 0 from generate_series(1, @Campaigns) n;
            create temp table funded as select account_id, id, row_number() over (order by id) as n from campaign where account_id = @account;
            insert into standing_day (account_id, day, campaign_id, ad_group_id, keyword_id, impressions, top, first, places, lost_to_rank, lost_to_budget)
              select f.account_id, @First::date + d, f.id, f.id * 10 + k % 2, f.id * 10 + k, 60, 10, 5, 90, 20, case when (f.n + d + k) % 3 = 0 then 15 else 0 end
              from funded f, generate_series(0, 55) d, generate_series(0, 3) k;
            insert into performance_day (account_id, day, campaign_id, ad_group_id, keyword_id, ad_id, device, impressions, clicks, cost, conversions, value)
              select f.account_id, @First::date + d, f.id, f.id * 10 + k % 2, f.id * 10 + k, f.id, 1 + k % 3, 60, 4, 3.1, case when (f.n * 7 + d + k) % 9 = 0 then 1 else 0 end, 0
              from funded f, generate_series(0, 55) d, generate_series(0, 3) k;
            insert into pace_hour (account_id, day, hour, campaign_id, budget, impressions, lost_to_rank, lost_to_budget, stopped_minute)
              select f.account_id, @First::date + d, h * 6, f.id, 20, 60, 20, 8, case when h = 3 and (f.n + d) % 4 = 0 then 12 end from funded f, generate_series(0, 55) d, generate_series(0, 3) h;
            analyze standing_day; analyze performance_day; analyze pace_hour
            """,
            new
            {
                account,
                Campaigns,
                First,
            },
            commandTimeout: 1_200
        );
        return account;
    }

    /// <summary>The sums by the same segments, read by whoever asks for them.</summary>
    private async Task<long> SumAsync(int account, Period period)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var command = new NpgsqlCommand(
            """
            select campaign_id, device, extract(isodow from day) >= 6, width_bucket(hour, array[0, 6, 9, 12, 15, 18, 21]), site,
              sum(impressions)::bigint, sum(clicks)::bigint, sum(cost), sum(conversions), sum(value)
            from performance where account_id = @account and day between @first and @last group by 1, 2, 3, 4, 5
            """,
            connection
        );
        command.Parameters.AddWithValue("account", account);
        command.Parameters.AddWithValue("first", period.First);
        command.Parameters.AddWithValue("last", period.Last);
        await using var reader = await command.ExecuteReaderAsync();
        long rows = 0;
        while (await reader.ReadAsync())
        {
            rows += reader.GetDecimal(7) >= 0 ? 1 : 0;
        }

        return rows;
    }

    private async Task<int> AccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            "select ensure_performance_month(m::date) from generate_series(@First::date, @First::date + 89, '1 month') m",
            new { First }
        );
        const int Account = 900_001;
        await connection.ExecuteAsync(
            """
            insert into performance (account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value)
            select @Account, @First::date + d, (c * 7 + d * 5 + n * 3) % 24, c, c, c, c, 1 + (c + n) % 3, 1 << ((d + n) % 2), 40, 3, 2.4, case when (c * 31 + d * 17 + n) % (4 + n) = 0 then 1 else 0 end, 0
            from generate_series(1, @Campaigns) c, generate_series(0, @Days - 1) d, generate_series(0, 3) n;
            analyze performance
            """,
            new
            {
                Account,
                First,
                Campaigns,
                Days,
            },
            commandTimeout: 1_200
        );
        return Account;
    }
}
