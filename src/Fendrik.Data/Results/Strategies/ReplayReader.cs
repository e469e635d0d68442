using Dapper;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results.Strategies;

/// <summary>Reads weeks of campaigns as they were, to be played again, and how campaigns stood in them.</summary>
public sealed class ReplayReader(NpgsqlDataSource source)
{
    private const int DaysOfWeek = 7;
    private const int WeeksOfRates = ConversionRates.Days / DaysOfWeek;

    /// <summary>Full weeks as they were, each with what was known before it, for a replay.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">The campaign.</param>
    /// <param name="weeks">How many weeks.</param>
    /// <param name="cancellation">Stops the reading.</param>
    /// <returns>The weeks, the oldest first; empty before anything is reported.</returns>
    public async Task<IReadOnlyList<ReplayWeek>> WeeksAsync(
        int accountId,
        long campaignId,
        int weeks,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var last = await connection.ExecuteScalarAsync<DateOnly?>(
            new CommandDefinition(
                "select reported_to from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        if (last is not { } end)
        {
            return [];
        }

        // All weeks at once, those before the first as far as rates look back: each week's rates are sums of weeks.
        var asked = new
        {
            accountId,
            campaignId,
            end,
            begin = end.AddDays(1 - DaysOfWeek * (weeks + WeeksOfRates)),
        };
        var rows = (
            await connection.QueryAsync<ReplayRow>(
                new CommandDefinition(
                    $"""
                    select (@end - p.day) / {DaysOfWeek} as back, p.campaign_id, p.ad_group_id, p.keyword_id, p.device::int as device, {EvidenceReader.Block} as block,
                      p.site::int as site, sum(p.clicks)::float8 as clicks, sum(p.conversions)::float8 as conversions, sum(p.value)::float8 as value, sum(p.cost) as cost,
                      max(coalesce(k.max_cpc, g.max_cpc)) as bid
                    from performance p left join keyword k on k.id = p.keyword_id left join ad_group g on g.id = p.ad_group_id
                    where p.account_id = @accountId and p.campaign_id = @campaignId and p.day between @begin and @end and p.clicks > 0
                    group by 1, 2, 3, 4, 5, 6, 7 order by 1, 2, 3, 4, 5, 6, 7
                    """,
                    asked,
                    cancellationToken: cancellation
                )
            )
        ).ToLookup(row => row.Back);
        var rooms = (
            await connection.QueryAsync<(int Back, double? Room)>(
                new CommandDefinition(
                    $"""
                    select (@end - day) / {DaysOfWeek}, sum(lost_to_rank)::float8 / nullif(sum(impressions), 0) from standing_day
                    where account_id = @accountId and campaign_id = @campaignId and day between @begin and @end group by 1
                    """,
                    asked,
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Back, row => row.Room ?? 0);
        return
        [
            .. from back in Enumerable.Range(0, weeks).Reverse()
            where rows.Contains(back)
            select new ReplayWeek(
                end.AddDays(1 - DaysOfWeek * (back + 1)),
                new ConversionRates(
                    [
                        .. Enumerable
                            .Range(back + 1, WeeksOfRates)
                            .SelectMany(week => rows[week])
                            .Select(row => row.Cell),
                    ],
                    [],
                    []
                ),
                [.. rows[back].Select(row => row.Replayed)],
                rooms.GetValueOrDefault(back)
            ),
        ];
    }

    /// <summary>Since when within days a campaign could show, and how many searches it lost to rank for each impression.</summary>
    public async Task<(DateOnly? First, double Room)> StoodAsync(
        int accountId,
        long campaignId,
        Period days,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (first, room) = await connection.QuerySingleAsync<(DateOnly? First, double? Room)>(
            new CommandDefinition(
                """
                select min(day), sum(lost_to_rank)::float8 / nullif(sum(impressions), 0) from standing_day
                where account_id = @accountId and campaign_id = @campaignId and day between @First and @Last
                """,
                new
                {
                    accountId,
                    campaignId,
                    days.First,
                    days.Last,
                },
                cancellationToken: cancellation
            )
        );
        return (first, room ?? 0);
    }

    private sealed record ReplayRow(
        int Back,
        long CampaignId,
        long AdGroupId,
        long KeywordId,
        int Device,
        int Block,
        int Site,
        double Clicks,
        double Conversions,
        double Value,
        decimal Cost,
        decimal? Bid
    ) : StrategyReader.CellRow(CampaignId, AdGroupId, KeywordId, Device, Block, Site, Clicks, Conversions, Value)
    {
        /// <summary>What was bid then is not kept: at least what a click cost, at most the max CPC of now.</summary>
        public ReplayCell Replayed => new(Cell, Cost, Math.Max(Bid ?? 0, Cost / (decimal)Clicks));
    }
}
