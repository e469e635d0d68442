using Dapper;
using Fendrik.Core.Budgets;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>A campaign with what it may spend, from the working copy.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Budget">Its daily budget; none where it has none.</param>
/// <param name="Start">Its first day; none where it has none yet.</param>
/// <param name="End">Its last; none for open.</param>
/// <param name="Delivery">How it spends the budget.</param>
public sealed record BudgetedCampaign(
    long Id,
    long Version,
    string Name,
    ItemState State,
    decimal? Budget,
    DateOnly? Start,
    DateOnly? End,
    BudgetDelivery Delivery
)
{
    /// <summary>True on days on which it shows, as far as its state and dates go.</summary>
    public bool RunsOn(DateOnly day) =>
        State == ItemState.Running && (Start is null || Start <= day) && (End is null || day <= End);
}

/// <summary>A campaign's budget on a day.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Day">The day.</param>
/// <param name="Budget">The budget that the network held to; none where that is not known.</param>
/// <param name="RanOutMinute">Minutes after midnight at which it was spent; none where it lasted.</param>
public sealed record PacedDay(long CampaignId, DateOnly Day, decimal? Budget, int? RanOutMinute);

/// <summary>What an account may spend in a month.</summary>
/// <param name="ItemId">The item that says so: that of the account as a whole.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Amount">The amount; none where nobody said.</param>
/// <param name="Spent">Spent in the month that is asked for.</param>
public sealed record MonthBudget(long ItemId, long Version, decimal? Amount, decimal Spent);

/// <summary>Reads what campaigns may spend, spend and miss.</summary>
public sealed class BudgetReader(NpgsqlDataSource source)
{
    /// <summary>The campaigns that are not removed, by name.</summary>
    public async Task<IReadOnlyList<BudgetedCampaign>> CampaignsAsync(
        int accountId,
        int most,
        CancellationToken cancellation
    )
    {
        return await AskAsync<BudgetedCampaign>(
            """
            select id, changed_by as version, name, state::int as state, daily_budget as budget, start_date as start, end_date as end, delivery::int as delivery
            from campaign where account_id = @accountId and not removed order by name, id limit @most
            """,
            new { accountId, most },
            cancellation
        );
    }

    /// <summary>Ad groups by day, by the campaign that they are in.</summary>
    public async Task<ILookup<long, GroupDay>> GroupDaysAsync(
        int accountId,
        Period days,
        long? campaignId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var reader = await connection.ExecuteReaderAsync(
            new CommandDefinition(
                """
                with stood as (
                  select campaign_id, ad_group_id, day, sum(impressions)::bigint as shown, sum(top)::bigint as top, sum(first)::bigint as first, sum(places)::bigint as places,
                    sum(lost_to_rank)::bigint as lost_to_rank, sum(lost_to_budget)::bigint as lost_to_budget
                  from standing_day where account_id = @accountId and day between @First and @Last and (@campaignId::bigint is null or campaign_id = @campaignId) group by 1, 2, 3
                ), brought as (
                  select campaign_id, ad_group_id, day, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost, sum(conversions) as conversions, sum(value) as value
                  from performance_day where account_id = @accountId and day between @First and @Last and (@campaignId::bigint is null or campaign_id = @campaignId) group by 1, 2, 3
                )
                select campaign_id, ad_group_id, day, coalesce(shown, 0), coalesce(top, 0), coalesce(first, 0), coalesce(places, 0), coalesce(lost_to_rank, 0), coalesce(lost_to_budget, 0),
                  coalesce(impressions, 0), coalesce(clicks, 0), coalesce(cost, 0), coalesce(conversions, 0), coalesce(value, 0)
                from stood full join brought using (campaign_id, ad_group_id, day)
                """,
                new
                {
                    accountId,
                    days.First,
                    days.Last,
                    campaignId,
                },
                cancellationToken: cancellation
            )
        );
        // There are hundreds of thousands in a large account: they are read as they come.
        var cells = new List<(long Campaign, GroupDay Cell)>();
        while (await reader.ReadAsync(cancellation))
        {
            cells.Add(
                (
                    reader.GetInt64(0),
                    new GroupDay(
                        reader.GetInt64(1),
                        reader.GetFieldValue<DateOnly>(2),
                        new Standing(
                            reader.GetInt64(3),
                            reader.GetInt64(4),
                            reader.GetInt64(5),
                            reader.GetInt64(6),
                            reader.GetInt64(7),
                            reader.GetInt64(8)
                        ),
                        new Figures(
                            reader.GetInt64(9),
                            reader.GetInt64(10),
                            reader.GetDecimal(11),
                            reader.GetDecimal(12),
                            reader.GetDecimal(13)
                        )
                    )
                )
            );
        }

        return cells.ToLookup(each => each.Campaign, each => each.Cell);
    }

    /// <summary>What searches bring in the whole account; none before the first click.</summary>
    public async Task<SearchRates?> RatesAsync(int accountId, Period days, CancellationToken cancellation)
    {
        var (shown, lost, clicks, cost, conversions) = (
            await AskAsync<(long Shown, long Lost, long Clicks, decimal Cost, decimal Conversions)>(
                """
                select s.shown, s.lost, p.clicks, p.cost, p.conversions
                from (select coalesce(sum(impressions), 0)::bigint as shown, coalesce(sum(lost_to_rank), 0)::bigint as lost
                  from standing_day where account_id = @accountId and day between @First and @Last) s,
                  (select coalesce(sum(clicks), 0)::bigint as clicks, coalesce(sum(cost), 0) as cost, coalesce(sum(conversions), 0) as conversions
                  from performance_day where account_id = @accountId and day between @First and @Last) p
                """,
                new
                {
                    accountId,
                    days.First,
                    days.Last,
                },
                cancellation
            )
        ).Single();
        return SearchRates.Of(new Standing(shown, 0, 0, 0, lost, 0), new Figures(shown, clicks, cost, conversions, 0));
    }

    /// <summary>Budgets of days and when they ran out; days on which nobody searched are left out.</summary>
    public async Task<IReadOnlyList<PacedDay>> PacedDaysAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    )
    {
        return await AskAsync<PacedDay>(
            """
            select campaign_id, day, (array_agg(budget order by hour desc) filter (where budget is not null))[1] as budget, min(hour * 60 + stopped_minute)::int as ran_out_minute
            from pace_hour where account_id = @accountId and day between @First and @Last group by 1, 2
            """,
            new
            {
                accountId,
                days.First,
                days.Last,
            },
            cancellation
        );
    }

    /// <summary>What a campaign spent in each hour of the clock, and how many searches its budget missed in it, over all of the days together.</summary>
    public async Task<IReadOnlyList<BudgetHour>> HoursAsync(
        int accountId,
        long campaignId,
        Period days,
        CancellationToken cancellation
    )
    {
        return await AskAsync<BudgetHour>(
            """
            with paced as (
              select hour, sum(lost_to_budget)::bigint as missed from pace_hour
              where account_id = @accountId and campaign_id = @campaignId and day between @First and @Last group by 1
            ), spent as (
              select hour, sum(cost) as cost from performance
              where account_id = @accountId and campaign_id = @campaignId and day between @First and @Last group by 1
            )
            select h::int as hour, coalesce(spent.cost, 0) as spent, coalesce(paced.missed, 0) as missed
            from generate_series(0, 23) h left join paced on paced.hour = h left join spent on spent.hour = h order by h
            """,
            new
            {
                accountId,
                campaignId,
                days.First,
                days.Last,
            },
            cancellation
        );
    }

    /// <summary>What each campaign spent in each hour of the clock, 0 to 23, over all of the days together; none of those that spent nothing.</summary>
    public async Task<IReadOnlyDictionary<long, IReadOnlyList<double>>> SpentByHourAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    )
    {
        var found = new Dictionary<long, IReadOnlyList<double>>();
        foreach (
            var (campaign, hour, cost) in await AskAsync<(long, int, decimal)>(
                "select campaign_id, hour::int, sum(cost) from performance where account_id = @accountId and day between @First and @Last group by 1, 2",
                new
                {
                    accountId,
                    days.First,
                    days.Last,
                },
                cancellation
            )
        )
        {
            if (!found.TryGetValue(campaign, out var hours))
            {
                found.Add(campaign, hours = new double[24]);
            }

            ((double[])hours)[hour] = (double)cost;
        }

        return found;
    }

    /// <summary>Names of ad groups of a campaign that are not removed.</summary>
    public async Task<IReadOnlyDictionary<long, string>> AdGroupNamesAsync(
        int accountId,
        long campaignId,
        CancellationToken cancellation
    )
    {
        return (
            await AskAsync<(long Id, string Name)>(
                "select id, name from ad_group where account_id = @accountId and campaign_id = @campaignId and not removed",
                new { accountId, campaignId },
                cancellation
            )
        ).ToDictionary(row => row.Id, row => row.Name);
    }

    /// <summary>What the account may spend in a month, and spent in some days.</summary>
    public async Task<MonthBudget> MonthAsync(
        int accountId,
        DateOnly first,
        DateOnly before,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleAsync<MonthBudget>(
            new CommandDefinition(
                """
                select i.id as item_id, i.changed_by as version, i.month_budget as amount,
                  (select coalesce(sum(p.cost), 0) from performance_day p where p.account_id = i.account_id and p.day >= @first and p.day < @before) as spent
                from account_item i where i.account_id = @accountId and not i.removed
                """,
                new
                {
                    accountId,
                    first,
                    before,
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>What the account spent on each day of some, up to but without the last.</summary>
    public async Task<IReadOnlyList<(DateOnly Day, decimal Cost)>> SpentAsync(
        int accountId,
        DateOnly first,
        DateOnly before,
        CancellationToken cancellation
    )
    {
        return await AskAsync<(DateOnly, decimal)>(
            "select day, sum(cost) from performance_day where account_id = @accountId and day >= @first and day < @before group by day order by day",
            new
            {
                accountId,
                first,
                before,
            },
            cancellation
        );
    }

    private async Task<IReadOnlyList<T>> AskAsync<T>(string sql, object parameters, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<T>(new CommandDefinition(sql, parameters, cancellationToken: cancellation))
        ).AsList();
    }
}
