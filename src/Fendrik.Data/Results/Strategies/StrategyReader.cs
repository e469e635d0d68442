using Dapper;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results.Strategies;

/// <summary>Reads what strategies go by: what clicks brought, part by part, and where the network's strategies stand.</summary>
public static class StrategyReader
{
    /// <summary>How likely clicks of campaigns are to convert, from the reports of the days before one.</summary>
    /// <param name="connection">To the database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="campaigns">The campaigns.</param>
    /// <param name="before">The day.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public static async Task<IReadOnlyDictionary<long, ConversionRates>> RatesAsync(
        NpgsqlConnection connection,
        int accountId,
        IReadOnlyCollection<long> campaigns,
        DateOnly before,
        CancellationToken cancellation
    )
    {
        CommandDefinition Asked(string sql) =>
            new(
                sql,
                new
                {
                    accountId,
                    campaigns = campaigns.ToArray(),
                    from = before.AddDays(-ConversionRates.Days),
                    to = before.AddDays(-1),
                    byPlace = (short)ReachedBy.Place,
                },
                cancellationToken: cancellation
            );
        const string Scope =
            "p.account_id = @accountId and p.campaign_id = any(@campaigns) and p.day between @from and @to and p.clicks > 0";
        var cells = (
            await connection.QueryAsync<CellRow>(
                Asked(
                    $"""
                    select p.campaign_id, p.ad_group_id, p.keyword_id, p.device::int as device, {EvidenceReader.Block} as block, p.site::int as site,
                      sum(p.clicks)::float8 as clicks, sum(p.conversions)::float8 as conversions, sum(p.value)::float8 as value
                    from performance p where {Scope} group by 1, 2, 3, 4, 5, 6 order by 1, 2, 3, 4, 5, 6
                    """
                )
            )
        ).ToLookup(row => row.CampaignId, row => row.Cell);
        var terms = (
            await connection.QueryAsync<(long Campaign, long Keyword, string Term, double Clicks, double Conversions)>(
                Asked(
                    $"select p.campaign_id, p.keyword_id, p.term, sum(p.clicks)::float8, sum(p.conversions)::float8 from search_term_day p where {Scope} group by 1, 2, 3"
                )
            )
        ).ToLookup(row => row.Campaign, row => new TermCell(row.Keyword, row.Term, row.Clicks, row.Conversions));
        var places = (
            await connection.QueryAsync<(long Campaign, string Place, double Clicks, double Conversions)>(
                Asked(
                    $"select p.campaign_id, p.name, sum(p.clicks)::float8, sum(p.conversions)::float8 from reached_day p where {Scope} and p.reached_by = @byPlace group by 1, 2"
                )
            )
        ).ToLookup(row => row.Campaign, row => new PlaceCell(row.Place, row.Clicks, row.Conversions));
        return campaigns.ToDictionary(id => id, id => new ConversionRates([.. cells[id]], terms[id], places[id]));
    }

    /// <summary>Where the strategies of campaigns stood on the network at the last report.</summary>
    public static async Task<IReadOnlyDictionary<long, StrategyRow>> StandingAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        (
            await connection.QueryAsync<StrategyRow>(
                new CommandDefinition(
                    """
                    select campaign_id, strategy::int as strategy, since, level, learning_days, learnt_from, learning_needs, is_learning
                    from strategy_now where account_id = @accountId
                    """,
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.CampaignId);

    /// <summary>What the strategies of campaigns go by; campaigns whose bids are people's alone are left out.</summary>
    /// <param name="connection">To the database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="campaigns">The campaigns as they are to be.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public static async Task<IReadOnlyDictionary<long, StrategyNow>> NowAsync(
        NpgsqlConnection connection,
        int accountId,
        IEnumerable<Campaign> campaigns,
        CancellationToken cancellation
    )
    {
        var bidding = campaigns.Where(each => each.Strategy != BidStrategy.ManualCpc).ToDictionary(each => each.Id);
        if (bidding.Count == 0)
        {
            return new Dictionary<long, StrategyNow>();
        }

        var today = (
            await connection.ExecuteScalarAsync<DateOnly?>(
                new CommandDefinition(
                    "select reported_to from account where id = @accountId",
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        )?.AddDays(1);
        // Before anything is reported strategies begin at the bids that people set.
        var before = today ?? new DateOnly(2000, 1, 1);
        var rates = await RatesAsync(connection, accountId, bidding.Keys, before, cancellation);
        var standing = await StandingAsync(connection, accountId, cancellation);
        var paid = (
            await connection.QueryAsync<(long Campaign, decimal Cost, double Clicks, decimal? MaxCpc)>(
                new CommandDefinition(
                    """
                    select c.id, coalesce(p.cost, 0), coalesce(p.clicks, 0)::float8, b.usual from campaign c
                    left join lateral (select sum(cost) as cost, sum(clicks) as clicks from performance p
                      where p.account_id = @accountId and p.campaign_id = c.id and p.day between @from and @to) p on true
                    left join lateral (select avg(coalesce(k.max_cpc, g.max_cpc)) as usual from ad_group g join keyword k on k.ad_group_id = g.id and not k.removed
                      where g.campaign_id = c.id and not g.removed) b on true
                    where c.account_id = @accountId and c.id = any(@ids)
                    """,
                    new
                    {
                        accountId,
                        ids = bidding.Keys.ToArray(),
                        from = before.AddDays(-TargetLevel.Days),
                        to = before.AddDays(-1),
                    },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Campaign);
        return bidding.Values.ToDictionary(
            campaign => campaign.Id,
            campaign => new StrategyNow(
                rates[campaign.Id],
                standing.TryGetValue(campaign.Id, out var row) && row.Strategy == campaign.Strategy ? row.Level
                    : paid.TryGetValue(campaign.Id, out var known)
                        ? StrategyNow.OpeningLevel(
                            campaign.Bidding,
                            rates[campaign.Id],
                            known.Cost,
                            known.Clicks,
                            known.MaxCpc,
                            campaign.DailyBudget
                        )
                    : 1
            )
        );
    }

    internal record CellRow(
        long CampaignId,
        long AdGroupId,
        long KeywordId,
        int Device,
        int Block,
        int Site,
        double Clicks,
        double Conversions,
        double Value
    )
    {
        public ClickCell Cell =>
            new(AdGroupId, KeywordId, (Device)Device, Block, (SiteKinds)Site, Clicks, Conversions, Value);
    }
}
