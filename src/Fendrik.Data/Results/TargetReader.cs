using Dapper;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>A place or an audience that a campaign had.</summary>
/// <param name="Day">On which day.</param>
/// <param name="Kind">Which of the two.</param>
/// <param name="Text">The place's full name, or the audience.</param>
/// <param name="Radius">Kilometres around a town; none for the place alone.</param>
/// <param name="Side">In or out; audiences are in.</param>
/// <param name="Modifier">Per cent more or less; none for as it is.</param>
/// <param name="Id">The item; none for one of the past.</param>
/// <param name="Version">Its version, against which edits hold.</param>
public sealed record TargetedDay(
    DateOnly Day,
    ItemKind Kind,
    string Text,
    decimal? Radius,
    PlacementSide Side,
    decimal? Modifier,
    long? Id,
    long? Version
);

/// <summary>Reads what places and audiences of a campaign brought, and which it had.</summary>
public sealed class TargetReader(NpgsqlDataSource source)
{
    /// <summary>What places, or audiences, of a campaign brought by day: the key of the place, or the audience's name.</summary>
    public async Task<IReadOnlyList<(DateOnly Day, string Name, Figures Figures)>> ReachedAsync(
        int accountId,
        Period days,
        long campaignId,
        ReachedBy by,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. (
                await connection.QueryAsync<(
                    DateOnly Day,
                    string Name,
                    long Impressions,
                    long Clicks,
                    decimal Cost,
                    decimal Conversions,
                    decimal Value
                )>(
                    new CommandDefinition(
                        $"select p.day, p.name, {EvidenceReader.Sums} from reached_day p where p.account_id = @accountId and p.campaign_id = @campaignId and p.reached_by = @by and p.day between @First and @Last group by 1, 2",
                        new
                        {
                            accountId,
                            campaignId,
                            by = (short)by,
                            days.First,
                            days.Last,
                        },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row =>
                (row.Day, row.Name, new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value))
            ),
        ];
    }

    /// <summary>The places and audiences that a campaign had on the network on each day, as items of no identity.</summary>
    public async Task<IReadOnlyList<TargetedDay>> TargetedAsync(
        int accountId,
        Period days,
        long campaignId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<TargetedDay>(
                new CommandDefinition(
                    "select day, kind::int as kind, text, radius, side::int as side, modifier, null::bigint as id, null::bigint as version from targeted_day where account_id = @accountId and campaign_id = @campaignId and day between @First and @Last",
                    new
                    {
                        accountId,
                        campaignId,
                        days.First,
                        days.Last,
                    },
                    cancellationToken: cancellation
                )
            )
        ).AsList();
    }

    /// <summary>The places and audiences of a campaign in the working copy.</summary>
    public async Task<IReadOnlyList<TargetedDay>> TargetsAsync(
        int accountId,
        long campaignId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<TargetedDay>(
                new CommandDefinition(
                    $"""
                    select 'today'::date as day, {(int)
                        ItemKind.Place} as kind, text, radius, side::int as side, modifier, id, changed_by as version from place where account_id = @accountId and campaign_id = @campaignId and not removed
                    union all
                    select 'today'::date, {(int)
                        ItemKind.Audience}, text, null, 1, modifier, id, changed_by from audience where account_id = @accountId and campaign_id = @campaignId and ad_group_id is null and not removed
                    """,
                    new { accountId, campaignId },
                    cancellationToken: cancellation
                )
            )
        ).AsList();
    }
}
