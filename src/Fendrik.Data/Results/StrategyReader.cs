using Dapper;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What a decision about a strategy rests on.</summary>
/// <param name="Version">Version of the campaign, against which edits hold.</param>
/// <param name="Plan">Its plan in the working copy.</param>
/// <param name="Facts">What is known of it.</param>
/// <param name="Standing">Where the strategy that runs stands; none while people set the bids.</param>
/// <param name="Runs">The plan of the strategy that runs, as it was published.</param>
/// <param name="Judged">What came of the days of that strategy whose conversions are known.</param>
/// <param name="Months">Full months, the latest first.</param>
/// <param name="ReportedTo">The last day that is reported.</param>
/// <param name="Rates">How likely its clicks are to convert.</param>
public sealed record StrategyBasis(
    long Version,
    StrategyPlan Plan,
    StrategyFacts Facts,
    StrategyRow? Standing,
    StrategyPlan? Runs,
    Figures Judged,
    IReadOnlyList<Figures> Months,
    DateOnly? ReportedTo,
    ConversionRates Rates
);

/// <summary>Reads what strategies go by: what clicks brought, part by part, and where the network's strategies stand.</summary>
public sealed class StrategyReader(NpgsqlDataSource source)
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
        if (today is not { } before)
        {
            return bidding.Keys.ToDictionary(id => id, id => new StrategyNow(ConversionRates.Unknown, 1));
        }

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

        var found = new List<ReplayWeek>();
        for (var back = weeks; back > 0; back--)
        {
            var first = end.AddDays(1 - 7 * back);
            var rows = await connection.QueryAsync<ReplayRow>(
                new CommandDefinition(
                    $"""
                    select p.campaign_id, p.ad_group_id, p.keyword_id, p.device::int as device, {EvidenceReader.Block} as block, p.site::int as site,
                      sum(p.clicks)::float8 as clicks, sum(p.conversions)::float8 as conversions, sum(p.value)::float8 as value, sum(p.cost) as cost,
                      max(coalesce(k.max_cpc, g.max_cpc)) as bid
                    from performance p left join keyword k on k.id = p.keyword_id left join ad_group g on g.id = p.ad_group_id
                    where p.account_id = @accountId and p.campaign_id = @campaignId and p.day between @first and @last and p.clicks > 0
                    group by 1, 2, 3, 4, 5, 6 order by 1, 2, 3, 4, 5, 6
                    """,
                    new
                    {
                        accountId,
                        campaignId,
                        first,
                        last = first.AddDays(6),
                    },
                    cancellationToken: cancellation
                )
            );
            ReplayCell[] cells = [.. rows.Select(row => row.Replayed)];
            if (cells.Length > 0)
            {
                var rates = await RatesAsync(connection, accountId, [campaignId], first, cancellation);
                var (_, room) = await StoodAsync(
                    accountId,
                    campaignId,
                    new Period(first, first.AddDays(6)),
                    cancellation
                );
                found.Add(new ReplayWeek(first, rates[campaignId], cells, room));
            }
        }

        return found;
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

    /// <summary>The plan of a campaign in the working copy; none when there is no such campaign.</summary>
    public async Task<StrategyPlan?> PlanAsync(int accountId, long campaignId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
            await connection.ExecuteScalarAsync<short?>(
                new CommandDefinition(
                    "select strategy from campaign where account_id = @accountId and id = @campaignId and not removed",
                    new { accountId, campaignId },
                    cancellationToken: cancellation
                )
            )
                is { } strategy
            ? new StrategyPlan((BidStrategy)strategy)
            : null;
    }

    /// <summary>What is known of a campaign before its strategy is changed.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">The campaign.</param>
    /// <param name="cancellation">Stops the reading.</param>
    /// <returns>None when there is no such campaign.</returns>
    public async Task<StrategyBasis?> BasisAsync(int accountId, long campaignId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        CommandDefinition Asked(string sql, DateOnly? since = null) =>
            new(
                sql,
                new
                {
                    accountId,
                    campaignId,
                    days = StrategyFacts.Days,
                    fresh = TargetLevel.FreshDays,
                    since,
                    months = MostMonths,
                },
                cancellationToken: cancellation
            );
        if (
            await connection.QuerySingleOrDefaultAsync<CampaignPlanRow>(
                Asked(
                    """
                    select changed_by as version, strategy::int as strategy, target_cpa, target_roas, lowest_bid, highest_bid, daily_budget, objective::int as objective,
                      case when live is null then target_cpa else (live ->> 'targetCpa')::numeric end as live_cpa,
                      case when live is null then target_roas else (live ->> 'targetRoas')::numeric end as live_roas,
                      case when live is null then highest_bid else (live ->> 'highestBid')::numeric end as live_highest
                    from campaign where account_id = @accountId and id = @campaignId and not removed
                    """
                )
            )
            is not { } campaign
        )
        {
            return null;
        }

        const string Of = "p.account_id = @accountId and p.campaign_id = @campaignId";
        var reported = await connection.ExecuteScalarAsync<DateOnly?>(
            Asked("select reported_to from account where id = @accountId")
        );
        async Task<Figures> SumAsync(string days, DateOnly? since = null) =>
            (
                await connection.QuerySingleAsync<SumRow>(
                    Asked(
                        $"""
                        select coalesce(sum(p.impressions), 0)::bigint as impressions, coalesce(sum(p.clicks), 0)::bigint as clicks, coalesce(sum(p.cost), 0) as cost,
                          coalesce(sum(p.conversions), 0) as conversions, coalesce(sum(p.value), 0) as value
                        from performance_day p where {Of} and {days}
                        """,
                        since
                    )
                )
            ).Figures;
        const string Reported = "(select reported_to from account where id = @accountId)";
        var standing = (await StandingAsync(connection, accountId, cancellation)).GetValueOrDefault(campaignId);
        var recent = await SumAsync($"p.day > {Reported} - @days");
        var months = await connection.QueryAsync<SumRow>(
            Asked(
                $"""
                select coalesce(sum(p.impressions), 0)::bigint as impressions, coalesce(sum(p.clicks), 0)::bigint as clicks, coalesce(sum(p.cost), 0) as cost,
                  coalesce(sum(p.conversions), 0) as conversions, coalesce(sum(p.value), 0) as value
                from generate_series(1, @months) back
                left join performance_day p on {Of}
                  and p.day >= date_trunc('month', {Reported} + 1) - back * interval '1 month' and p.day < date_trunc('month', {Reported} + 1) - (back - 1) * interval '1 month'
                group by back order by back
                """
            )
        );
        var counted = await connection.ExecuteScalarAsync<decimal?>(
            Asked(
                $"select sum(p.conversions) from performance_day p where p.account_id = @accountId and p.day > {Reported} - @days"
            )
        );
        return new StrategyBasis(
            campaign.Version,
            new StrategyPlan(
                (BidStrategy)campaign.Strategy,
                campaign.TargetCpa,
                campaign.TargetRoas,
                campaign.LowestBid,
                campaign.HighestBid
            ),
            new StrategyFacts(
                recent,
                counted ?? 0,
                campaign.DailyBudget,
                standing?.Strategy ?? BidStrategy.ManualCpc,
                standing?.Since is { } begun && reported is { } last ? last.DayNumber - begun.DayNumber + 1 : null,
                standing?.Since is { } from ? await SumAsync("p.day >= @since", from) : recent,
                (Objective)campaign.Objective
            ),
            standing,
            standing is null
                ? null
                : new StrategyPlan(standing.Strategy, campaign.LiveCpa, campaign.LiveRoas, null, campaign.LiveHighest),
            // Of what was clicked in the last days conversions may still come.
            standing?.Since
                is { } first
                ? await SumAsync($"p.day >= @since and p.day <= {Reported} - @fresh", first)
                : Figures.Zero,
            [.. months.Select(month => month.Figures)],
            reported,
            reported is { } day
                ? (await RatesAsync(connection, accountId, [campaignId], day.AddDays(1), cancellation))[campaignId]
                : ConversionRates.Unknown
        );
    }

    /// <summary>Months that are looked back on: two years and the one that is asked about.</summary>
    private const int MostMonths = 25;

    private sealed record CampaignPlanRow(
        long Version,
        int Strategy,
        decimal? TargetCpa,
        decimal? TargetRoas,
        decimal? LowestBid,
        decimal? HighestBid,
        decimal? DailyBudget,
        int Objective,
        decimal? LiveCpa,
        decimal? LiveRoas,
        decimal? LiveHighest
    );

    private sealed record SumRow(long Impressions, long Clicks, decimal Cost, decimal Conversions, decimal Value)
    {
        public Figures Figures => new(Impressions, Clicks, Cost, Conversions, Value);
    }

    private record CellRow(
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

    private sealed record ReplayRow(
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
    ) : CellRow(CampaignId, AdGroupId, KeywordId, Device, Block, Site, Clicks, Conversions, Value)
    {
        /// <summary>What was bid then is not kept: at least what a click cost, at most the max CPC of now.</summary>
        public ReplayCell Replayed => new(Cell, Cost, Math.Max(Bid ?? 0, Cost / (decimal)Clicks));
    }
}
