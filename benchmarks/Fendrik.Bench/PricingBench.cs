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
