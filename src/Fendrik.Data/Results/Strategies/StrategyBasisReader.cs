using Dapper;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results.Strategies;

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

/// <summary>Reads what a decision about a strategy rests on.</summary>
public sealed class StrategyBasisReader(NpgsqlDataSource source)
{
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
        var standing = (await StrategyReader.StandingAsync(connection, accountId, cancellation)).GetValueOrDefault(
            campaignId
        );
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
                ? (await StrategyReader.RatesAsync(connection, accountId, [campaignId], day.AddDays(1), cancellation))[
                    campaignId
                ]
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
}
