using System.Runtime.CompilerServices;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Networks;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Fendrik.Data.Conversions;
using Npgsql;

namespace Fendrik.Data.Checking;

/// <summary>Checks of the settings of campaigns: risky ones with what they cost, and places that contradict one another.</summary>
internal static class SettingChecks
{
    private const int LongestStatement = 600;

    public static async IAsyncEnumerable<Finding> FindAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        CheckScope scope,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var within = scope.IsWhole ? "true" : "c.id in (select t.id from touched_setting t)";
        var places = (
            await connection.QueryAsync<PlacedPlace>(
                new CommandDefinition(
                    $"""
                    select p.id, p.campaign_id, p.text, p.radius, p.side::int as side, p.modifier from place p join campaign c on c.id = p.campaign_id
                    where p.account_id = @Id and not p.removed and {within}
                    """,
                    new { account.Id },
                    commandTimeout: LongestStatement,
                    cancellationToken: cancellation
                )
            )
        ).ToLookup(place => place.CampaignId);
        foreach (var finding in places.SelectMany(PlaceContradictions.Of))
        {
            yield return finding;
        }

        await foreach (var finding in OfStrategiesAsync(connection, account, within, cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in OfGoalsAsync(connection, account, within, cancellation))
        {
            yield return finding;
        }

        CampaignRisks[] risky =
        [
            .. (
                await connection.QueryAsync<(long Id, short Networks, short Objective, short People, bool HasHours)>(
                    new CommandDefinition(
                        $"select c.id, c.networks, c.objective, c.people, c.hours is not null from campaign c where c.account_id = @Id and not c.removed and {within}",
                        new { account.Id },
                        commandTimeout: LongestStatement,
                        cancellationToken: cancellation
                    )
                )
            )
                .Select(row => new CampaignRisks(
                    row.Id,
                    (SiteKinds)row.Networks,
                    (Objective)row.Objective,
                    (PlaceReach)row.People,
                    row.HasHours,
                    places[row.Id].Any(place => place.Side == PlacementSide.In)
                ))
                .Where(each => each.IsAny),
        ];
        if (risky.Length == 0)
        {
            yield break;
        }

        var costs = await RiskCosts.ReadAsync(connection, account.Id, risky, cancellation);
        var answering = (await AnsweringHoursReader.ReadAsync(connection, account.Id, cancellation)).Hours;
        foreach (var finding in risky.SelectMany(each => costs.FindingsOf(each, answering, account.Currency)))
        {
            yield return finding;
        }
    }

    private static async IAsyncEnumerable<Finding> OfGoalsAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        string within,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var goals = new ConversionGoals(await ConversionActions.ReadAsync(connection, account.Id, cancellation));
        if (goals.Actions.Count == 0)
        {
            yield break;
        }

        var campaigns = await connection.QueryAsync<(
            long Id,
            string Name,
            string? Goals,
            short Strategy,
            short Objective,
            bool Runs
        )>(
            new CommandDefinition(
                $"""
                select c.id, c.name, c.goals, c.strategy, c.objective, c.is_live and coalesce((c.live ->> 'strategy')::smallint, c.strategy) = c.strategy
                from campaign c where c.account_id = @Id and not c.removed and {within}
                """,
                new { account.Id },
                commandTimeout: LongestStatement,
                cancellationToken: cancellation
            )
        );
        foreach (
            var finding in campaigns.SelectMany(row =>
                GoalChecks.Of(
                    row.Id,
                    row.Name,
                    row.Goals,
                    new StrategyPlan((BidStrategy)row.Strategy),
                    (Objective)row.Objective,
                    goals,
                    row.Runs
                )
            )
        )
        {
            yield return finding;
        }
    }

    private static async IAsyncEnumerable<Finding> OfStrategiesAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        string within,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var bidding = (
            await connection.QueryAsync<(
                long Id,
                short Strategy,
                short Objective,
                decimal? Desktop,
                decimal? Phone,
                decimal? Tablet,
                string? Hours,
                bool Runs
            )>(
                new CommandDefinition(
                    $"""
                    select c.id, c.strategy, c.objective, c.desktop_modifier, c.phone_modifier, c.tablet_modifier, c.hours,
                      c.is_live and coalesce((c.live ->> 'strategy')::smallint, c.strategy) = c.strategy from campaign c
                    where c.account_id = @Id and not c.removed and c.strategy <> {(int)
                        BidStrategy.ManualCpc} and {within}
                    """,
                    new { account.Id },
                    commandTimeout: LongestStatement,
                    cancellationToken: cancellation
                )
            )
        ).AsList();
        if (bidding.Count == 0)
        {
            yield break;
        }

        // One that is counted is enough to know: nothing is added up.
        var counts = await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                """
                select exists (select from performance_day p where p.account_id = @Id and p.conversions > 0
                  and p.day > (select reported_to from account where id = @Id) - @days)
                """,
                new { account.Id, days = StrategyFacts.Days },
                commandTimeout: LongestStatement,
                cancellationToken: cancellation
            )
        );
        static bool Counts(decimal? percent) => percent is not (null or 0 or Core.Items.Values.PercentValue.Lowest);
        foreach (var row in bidding)
        {
            var plan = row.Hours is null ? null : WeekPlan.Of(row.Hours);
            foreach (
                var finding in StrategyChecks.Of(
                    row.Id,
                    new StrategyPlan((BidStrategy)row.Strategy),
                    (Objective)row.Objective,
                    Counts(row.Desktop)
                        || Counts(row.Phone)
                        || Counts(row.Tablet)
                        || plan?.Spans.Any(span => Counts(span.Percent)) == true,
                    counts,
                    row.Runs
                )
            )
            {
                yield return finding;
            }
        }
    }

    /// <summary>What parts of campaigns cost in the last weeks that are reported.</summary>
    private sealed record RiskCosts(
        ILookup<long, (string Place, bool ByInterest, RiskFigures Figures)> Places,
        ILookup<long, (SiteKinds Site, RiskFigures Figures)> Sites,
        ILookup<long, (int Hour, RiskFigures Figures)> Hours
    )
    {
        private const string LastDays =
            "p.account_id = @accountId and p.campaign_id = any(@campaigns) and p.day > (select reported_to from account where id = @accountId) - @days";

        public static async Task<RiskCosts> ReadAsync(
            NpgsqlConnection connection,
            int accountId,
            CampaignRisks[] risky,
            CancellationToken cancellation
        )
        {
            CommandDefinition Asked(string sql, IEnumerable<CampaignRisks> some) =>
                new(
                    sql,
                    new
                    {
                        accountId,
                        campaigns = some.Select(each => each.CampaignId).ToArray(),
                        days = CampaignRisks.Days,
                    },
                    commandTimeout: LongestStatement,
                    cancellationToken: cancellation
                );
            var places = await connection.QueryAsync<(
                long Campaign,
                string Name,
                bool Interest,
                decimal Cost,
                decimal Brought
            )>(
                Asked(
                    $"""
                    select p.campaign_id, p.name, p.reached_by = {(int)
                        ReachedBy.Interest}, sum(p.cost), sum(p.conversions) from reached_day p
                    where {LastDays} and p.reached_by in ({(int)ReachedBy.Place}, {(int)
                        ReachedBy.Interest}) group by 1, 2, 3
                    """,
                    risky
                )
            );
            var parts = (
                await connection.QueryAsync<(long Campaign, short Site, int Hour, decimal Cost, decimal Brought)>(
                    Asked(
                        $"""
                        select p.campaign_id, p.site, ((extract(isodow from p.day)::int - 1) * 24 + p.hour)::int, sum(p.cost), sum(p.conversions) from performance p
                        where {LastDays} group by 1, 2, 3
                        """,
                        risky.Where(each => each.AsksSitesAndHours)
                    )
                )
            ).ToArray();
            return new RiskCosts(
                places.ToLookup(
                    row => row.Campaign,
                    row => (row.Name, row.Interest, new RiskFigures(row.Cost, row.Brought))
                ),
                parts.ToLookup(
                    row => row.Campaign,
                    row => ((SiteKinds)row.Site, new RiskFigures(row.Cost, row.Brought))
                ),
                parts.ToLookup(row => row.Campaign, row => (row.Hour, new RiskFigures(row.Cost, row.Brought)))
            );
        }

        public IEnumerable<Finding> FindingsOf(CampaignRisks risks, WeekHours? answering, Currency currency) =>
            risks.Findings(
                [.. Places[risks.CampaignId]],
                Summed(Sites[risks.CampaignId]),
                Summed(Hours[risks.CampaignId]),
                answering,
                currency
            );

        private static Dictionary<T, RiskFigures> Summed<T>(IEnumerable<(T Key, RiskFigures Figures)> parts)
            where T : notnull =>
            parts
                .GroupBy(part => part.Key)
                .ToDictionary(
                    same => same.Key,
                    same => new RiskFigures(
                        same.Sum(part => part.Figures.Cost),
                        same.Sum(part => part.Figures.Conversions)
                    )
                );
    }
}
