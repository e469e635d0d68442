using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Results.Own;

/// <summary>What went out to the network on a day.</summary>
/// <param name="Day">The day, by the network's clock.</param>
/// <param name="Items">How many items.</param>
/// <param name="Says">What, in words: counts by kind, then the steps that made it.</param>
public sealed record OwnChange(DateOnly Day, int Items, string Says);

/// <summary>Reads what was published in days that figures are read of, by the days of the network.</summary>
public sealed class OwnChangeReader(NpgsqlDataSource source)
{
    private const int MostSteps = 3;
    private const int MostDays = 200;

    /// <summary>What was published in these days, the earliest first.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="days">The days.</param>
    /// <param name="campaignId">Only what belongs to this campaign; none for all.</param>
    /// <param name="cancellation">Stops it.</param>
    public async Task<IReadOnlyList<OwnChange>> ReadAsync(
        int accountId,
        Period days,
        long? campaignId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var parts = ItemTable.All.Select(table =>
            $"""
            select o.day, b.kind, b.action, i.id from out o join publish_item b on b.publish_id = o.id and b.kind = {table.Number} and b.outcome = {(int)
                PublishOutcome.Accepted}
            join {SheetPlaces.Tables(table, campaignId is null ? SheetJoins.None : SheetJoins.AdGroup | SheetJoins.Campaign)} on i.id = b.item_id
            where {(campaignId is null ? "true" : SheetPlaces.InCampaign(table))}
            """
        );
        var parameters = new
        {
            accountId,
            days.First,
            days.Last,
            CampaignId = campaignId,
            MostSteps,
        };
        const string Out = """
            with out as (
              select p.id, p.made_at, (p.network_at at time zone a.time_zone)::date as day,
                coalesce((select max(q.made_at) from publish q where q.account_id = p.account_id and q.id < p.id), '-infinity') as after
              from publish p join account a on a.id = p.account_id
              where p.account_id = @accountId and p.network_at >= @First::timestamp at time zone a.time_zone
                and p.network_at < (@Last::timestamp + interval '1 day') at time zone a.time_zone)
            """;
        var counted = (
            await connection.QueryAsync<(DateOnly Day, ItemKind Kind, short Action, int Items)>(
                new CommandDefinition(
                    $"{Out} select day, kind, action, count(distinct id)::int from ({string.Join(" union all ", parts)}) b group by 1, 2, 3 order by 1, 4 desc, 2",
                    parameters,
                    cancellationToken: cancellation
                )
            )
        ).AsList();
        var steps = (
            await connection.QueryAsync<(DateOnly Day, string Label, int All)>(
                new CommandDefinition(
                    $"""
                    {Out} select day, label, all_of_day from (
                      select day, label, row_number() over (partition by day order by items desc, label) as place, count(*) over (partition by day)::int as all_of_day from (
                        select o.day, s.label, max(s.items) as items from out o join step s on s.account_id = @accountId and s.kind = 1 and s.reverted_by is null
                          and s.made_at > o.after and s.made_at <= o.made_at group by 1, 2) named) placed
                    where place <= @MostSteps order by day, place
                    """,
                    parameters,
                    cancellationToken: cancellation
                )
            )
        ).ToLookup(step => step.Day);
        return
        [
            .. counted
                .GroupBy(row => row.Day)
                .Take(MostDays)
                .Select(day => new OwnChange(
                    day.Key,
                    day.Sum(row => row.Items),
                    InWords(
                        [.. day],
                        campaignId is null ? [.. steps[day.Key].Select(step => (step.Label, step.All))] : []
                    )
                )),
        ];
    }

    private static string InWords(
        IReadOnlyCollection<(DateOnly Day, ItemKind Kind, short Action, int Items)> rows,
        IReadOnlyList<(string Label, int All)> steps
    )
    {
        const short Removal = 2;
        static string Count(ItemKind kind, int items) => ItemTypes.Count(items, [kind]);
        string Counts(bool removed) =>
            string.Join(
                ", ",
                rows.Where(row => row.Action == Removal == removed).Select(row => Count(row.Kind, row.Items))
            );
        var put = Counts(removed: false);
        var gone = Counts(removed: true);
        var counts = string.Join(
            ", ",
            new[] { put, gone.Length > 0 ? $"{gone} removed" : "" }.Where(text => text.Length > 0)
        );
        if (steps.Count == 0)
        {
            return counts;
        }

        // The largest steps are named; of the others it is said how many there are.
        var more = steps[0].All - steps.Count;
        return $"{string.Join("; ", steps.Select(step => step.Label))}{(more > 0 ? $"; and {more} more" : "")} ({counts})";
    }
}
