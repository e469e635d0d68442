using System.Runtime.CompilerServices;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Checking;

/// <summary>Checks of what stands on campaigns against what these and the account say: placements and sites, numbers and answering hours.</summary>
internal static class TargetChecks
{
    private const int LongestStatement = 600;

    /// <summary>Campaigns in which ad groups with broad keywords starve each other.</summary>
    public static async IAsyncEnumerable<Finding> OfBroadGroupsAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        CheckScope scope,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var within = scope.IsWhole ? "true" : "i.id in (select t.id from touched_campaign t)";
        var campaigns = connection.QueryUnbufferedAsync<(long Id, int Groups)>(
            $"""
            select i.id, count(*)::int from campaign i join ad_group g on g.campaign_id = i.id and not g.removed and g.state = {(int)
                ItemState.Running}
            where i.account_id = @Id and not i.removed and {within}
              and exists (select from keyword k where k.ad_group_id = g.id and not k.removed and k.state = {(int)
                ItemState.Running} and k.match_type = {(int)MatchType.Broad})
            group by i.id having count(*) > {AcrossItems.MostBroadGroups}
            """,
            new { account.Id },
            commandTimeout: LongestStatement
        );
        await foreach (var (id, groups) in campaigns.WithCancellation(cancellation))
        {
            if (AcrossItems.TooManyBroadGroups(id, groups) is { } many)
            {
                yield return many;
            }
        }
    }

    /// <summary>Numbers that ring while nobody takes calls.</summary>
    public static async IAsyncEnumerable<Finding> OfNumbersAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        CheckScope scope,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var kinds = CheckScope.Numbers.Where(kind => scope.Touches(kind)).ToArray();
        if (kinds.Length == 0)
        {
            yield break;
        }

        if ((await AnsweringHoursReader.ReadAsync(connection, account.Id, cancellation)).Hours is not { } answering)
        {
            yield break;
        }

        foreach (var kind in kinds)
        {
            var numbers = connection.QueryUnbufferedAsync<(long Id, string? Hours)>(
                $"select i.id, i.hours from {ItemTable.Of(kind).Name} i where i.account_id = @Id and not i.removed and i.state = {(int)ItemState.Running} and {scope.Holds(kind)}",
                new { account.Id },
                commandTimeout: LongestStatement
            );
            await foreach (var (id, hours) in numbers.WithCancellation(cancellation))
            {
                if (
                    AcrossItems.RingsUnanswered(kind, id, hours is null ? null : WeekHours.Of(hours), answering) is
                    { } rings
                )
                {
                    yield return rings;
                }
            }
        }
    }

    /// <summary>Placements where nothing shows.</summary>
    public static async IAsyncEnumerable<Finding> OfPlacementsAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        CheckScope scope,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        if (!scope.Touches(ItemKind.Placement))
        {
            yield break;
        }

        var placements = connection.QueryUnbufferedAsync<(long Id, short Sites)>(
            $"select i.id, c.networks from placement i join campaign c on c.id = i.campaign_id where i.account_id = @Id and not i.removed and {scope.Holds(ItemKind.Placement)}",
            new { account.Id },
            commandTimeout: LongestStatement
        );
        await foreach (var (id, sites) in placements.WithCancellation(cancellation))
        {
            if (AcrossItems.IdlePlacement(id, (SiteKinds)sites) is { } idle)
            {
                yield return idle;
            }
        }
    }
}
