using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Serving;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Network.Doors;

/// <summary>What campaigns spent on the day that is not over.</summary>
internal static class TodayDoor
{
    public static async Task<Results<Ok<NetworkToday>, NotFound>> ReadAsync(
        string accountId,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return TypedResults.NotFound();
        }

        var wall = TimeZoneInfo.ConvertTime(account.Clock, TimeZoneInfo.FindSystemTimeZoneById(account.TimeZone));
        var day = DateOnly.FromDateTime(wall.DateTime);
        var rows = await connection.QueryAsync<TodayRow>(
            new CommandDefinition(
                """
                with spent as (
                  select campaign_id, hour::int as hour, count(*) filter (where click <> 0) as clicks, coalesce(sum(price) filter (where click <> 0), 0) * @unit as cost
                  from shown where account_id = @accountId and day = @day group by 1, 2
                ), budgets as (
                  select h.campaign_id, extract(hour from to_timestamp(h.hour * 3600) at time zone a.time_zone)::int as hour, max(h.budget) as budget,
                    min(h.stopped_at) / 60 as stopped_minute
                  from campaign_hour h join account a on a.id = h.account_id
                  where h.account_id = @accountId and (to_timestamp(h.hour * 3600) at time zone a.time_zone)::date = @day
                    and h.hour between extract(epoch from @day::date)::bigint / 3600 - 24 and extract(epoch from @day::date)::bigint / 3600 + 48
                  group by 1, 2
                )
                select campaign_id, hour, coalesce(clicks, 0) as clicks, coalesce(cost, 0) as cost, budget, stopped_minute::int as stopped_minute
                from spent full join budgets using (campaign_id, hour) order by 1, 2
                """,
                new
                {
                    accountId,
                    day,
                    unit = Currency.Of(account.Currency).FromMinor(1),
                },
                cancellationToken: cancellation
            )
        );
        const int MinutesOfHour = 60;
        return TypedResults.Ok(new NetworkToday(day, wall.Hour * MinutesOfHour + wall.Minute, [.. rows]));
    }
}
