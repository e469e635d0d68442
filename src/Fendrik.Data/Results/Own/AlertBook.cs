using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Alerts;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Results.Sums;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Results.Own;

/// <summary>An alert of an account.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Alert">What it looks for.</param>
public sealed record KeptAlert(long Id, Alert Alert);

/// <summary>What an alert found on a day.</summary>
/// <param name="AlertId">The alert.</param>
/// <param name="Day">The last day that it looked at.</param>
/// <param name="CampaignId">The campaign; none for the account.</param>
/// <param name="Campaign">Its name.</param>
/// <param name="Figure">The figure.</param>
/// <param name="Cost">What was spent in these days.</param>
public sealed record FoundAlert(
    long AlertId,
    DateOnly Day,
    long? CampaignId,
    string? Campaign,
    decimal Figure,
    decimal Cost
);

/// <summary>Keeps alerts, looks whether they go off when reports of a day are in, and remembers what they found.</summary>
public sealed class AlertBook(NpgsqlDataSource source, MeasureBook measures)
{
    /// <summary>Most alerts of an account.</summary>
    public const int MostAlerts = 100;

    /// <summary>The alerts of an account, in the order in which they were made.</summary>
    public async Task<IReadOnlyList<KeptAlert>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await ListAsync(connection, accountId, cancellation);
    }

    /// <summary>Keeps an alert, and looks at once whether it goes off on the last day that is reported.</summary>
    /// <exception cref="InvalidChangeException">It cannot be.</exception>
    public async Task<long> AddAsync(int accountId, Alert alert, CancellationToken cancellation)
    {
        if ((await measures.AllAsync(accountId, cancellation)).All(measure => measure.Key != alert.Measure))
        {
            throw new InvalidChangeException("measure", $"There is no measure “{alert.Measure}”.");
        }

        if (alert.Days is < 1 or > Alert.MostDays)
        {
            throw new InvalidChangeException("days", $"Choose 1 to {Alert.MostDays} days.");
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var last = await connection.QuerySingleAsync<DateOnly?>(
            new CommandDefinition(
                "select reported_to from account where id = @accountId for update",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        if (
            await connection.ExecuteScalarAsync<int>(
                new CommandDefinition(
                    "select count(*)::int from alert where account_id = @accountId",
                    new { accountId },
                    cancellationToken: cancellation
                )
            ) >= MostAlerts
        )
        {
            throw new InvalidChangeException("measure", $"There are {MostAlerts} alerts already. Remove one first.");
        }

        if (
            alert.CampaignId is { } campaign
            && !await connection.ExecuteScalarAsync<bool>(
                new CommandDefinition(
                    "select exists (select from campaign where id = @campaign and account_id = @accountId)",
                    new { campaign, accountId },
                    cancellationToken: cancellation
                )
            )
        )
        {
            throw new InvalidChangeException("campaignId", "There is no such campaign in this account.");
        }

        var id = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                """
                insert into alert (account_id, measure, above, threshold, days, each_day, each_campaign, campaign_id)
                values (@accountId, @Measure, @Above, @Threshold, @Days, @EachDay, @EachCampaign, @CampaignId) returning id
                """,
                new
                {
                    accountId,
                    alert.Measure,
                    alert.Above,
                    alert.Threshold,
                    alert.Days,
                    alert.EachDay,
                    alert.EachCampaign,
                    alert.CampaignId,
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
        if (last is { } day)
        {
            await LookAsync(accountId, day, cancellation);
        }

        return id;
    }

    /// <summary>Removes an alert with what it found.</summary>
    /// <returns>False where there is none.</returns>
    public async Task<bool> RemoveAsync(int accountId, long id, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    "delete from alert where id = @id and account_id = @accountId",
                    new { id, accountId },
                    cancellationToken: cancellation
                )
            ) > 0;
    }

    /// <summary>Looks whether alerts go off when a day is over, and remembers those that do. What was found before stays as it was.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="day">The day, of which the reports are in.</param>
    /// <param name="cancellation">Stops it.</param>
    public async Task LookAsync(int accountId, DateOnly day, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var alerts = await ListAsync(connection, accountId, cancellation);
        if (alerts.Count == 0)
        {
            return;
        }

        var known = (await measures.AllAsync(accountId, cancellation)).ToDictionary(measure => measure.Key);
        var first = day.AddDays(1 - alerts.Max(each => each.Alert.Days));
        var rows = await DaysAsync(connection, accountId, new Period(first, day), cancellation);
        var byCampaign = rows.ToLookup(row => row.CampaignId);
        foreach (var (id, alert) in alerts)
        {
            var days = new Period(day.AddDays(1 - alert.Days), day);
            var scopes =
                alert.EachCampaign ? byCampaign.Select(group => (Campaign: group.Key, Rows: group.AsEnumerable()))
                : alert.CampaignId is { } only ? [(Campaign: only, Rows: byCampaign[only])]
                : [(Campaign: 0L, Rows: rows)];
            foreach (var (campaign, measured) in scopes)
            {
                var parts = DaysOf(measured, days);
                if (alert.GoesOff(known[alert.Measure], parts) is { } figure)
                {
                    await connection.ExecuteAsync(
                        new CommandDefinition(
                            """
                            insert into alert_found (alert_id, day, campaign_id, figure, cost) values (@id, @day, @campaign, round(@figure, 6), @cost)
                            on conflict do nothing
                            """,
                            new
                            {
                                id,
                                day,
                                campaign,
                                figure,
                                cost = parts.Sum(part => part.Figures.Cost),
                            },
                            cancellationToken: cancellation
                        )
                    );
                }
            }
        }
    }

    /// <summary>What alerts found on these days, the newest first.</summary>
    public async Task<IReadOnlyList<FoundAlert>> FoundAsync(int accountId, Period days, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. (
                await connection.QueryAsync<(
                    long Alert,
                    DateOnly Day,
                    long Campaign,
                    string? Name,
                    decimal Figure,
                    decimal Cost
                )>(
                    new CommandDefinition(
                        """
                        select f.alert_id, f.day, f.campaign_id, c.name, f.figure, f.cost from alert_found f join alert a on a.id = f.alert_id and a.account_id = @accountId
                        left join campaign c on c.id = f.campaign_id where f.day between @First and @Last order by f.day desc, f.cost desc, f.alert_id, f.campaign_id limit 1000
                        """,
                        new
                        {
                            accountId,
                            days.First,
                            days.Last,
                        },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row => new FoundAlert(
                row.Alert,
                row.Day,
                row.Campaign == 0 ? null : row.Campaign,
                row.Name,
                row.Figure,
                row.Cost
            )),
        ];
    }

    /// <summary>The names of the campaigns that alerts look at.</summary>
    public async Task<IReadOnlyDictionary<long, string>> CampaignNamesAsync(
        int accountId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<(long Id, string Name)>(
                new CommandDefinition(
                    "select c.id, c.name from campaign c join alert a on a.campaign_id = c.id where a.account_id = @accountId",
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        )
            .Distinct()
            .ToDictionary(row => row.Id, row => row.Name);
    }

    private static async Task<IReadOnlyList<KeptAlert>> ListAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        [
            .. (
                await connection.QueryAsync<Row>(
                    new CommandDefinition(
                        """
                        select id, measure, above, threshold, days, each_day as "eachDay", each_campaign as "eachCampaign", campaign_id as "campaignId"
                        from alert where account_id = @accountId order by id
                        """,
                        new { accountId },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row => new KeptAlert(
                row.Id,
                new Alert(
                    row.Measure,
                    row.Above,
                    row.Threshold,
                    row.Days,
                    row.EachDay,
                    row.EachCampaign,
                    row.CampaignId
                )
            )),
        ];

    /// <summary>What was measured on each of the days: a day on which nothing was is a day all the same.</summary>
    private static IReadOnlyList<Measured> DaysOf(IEnumerable<DayOfCampaign> rows, Period days)
    {
        var byDay = rows.ToLookup(row => row.Day);
        return
        [
            .. Enumerable
                .Range(0, days.Days)
                .Select(at => byDay[days.First.AddDays(at)])
                .Select(day => new Measured(
                    day.Aggregate(Figures.Zero, (sum, row) => sum + row.Figures),
                    day.Aggregate(Standing.Zero, (sum, row) => sum + row.Standing)
                )),
        ];
    }

    private static async Task<IReadOnlyList<DayOfCampaign>> DaysAsync(
        NpgsqlConnection connection,
        int accountId,
        Period days,
        CancellationToken cancellation
    ) =>
        (
            await connection.QueryAsync<DayOfCampaign>(
                new CommandDefinition(
                    """
                    select campaign_id as "campaignId", day, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost, sum(conversions) as conversions,
                      sum(value) as value, sum(stood)::bigint as stood, sum(top)::bigint as top, sum(first)::bigint as first, sum(places)::bigint as places,
                      sum(lost_to_rank)::bigint as "lostToRank", sum(lost_to_budget)::bigint as "lostToBudget"
                    from (
                      select campaign_id, day, impressions, clicks, cost, conversions, value, 0 as stood, 0 as top, 0 as first, 0 as places, 0 as lost_to_rank, 0 as lost_to_budget
                      from performance_campaign where account_id = @accountId and day between @First and @Last
                      union all
                      select campaign_id, day, 0, 0, 0, 0, 0, impressions, top, first, places, lost_to_rank, lost_to_budget
                      from standing_campaign where account_id = @accountId and day between @First and @Last) d
                    group by 1, 2
                    """,
                    new
                    {
                        accountId,
                        days.First,
                        days.Last,
                    },
                    cancellationToken: cancellation
                )
            )
        ).AsList();

    private sealed class DayOfCampaign : FigureColumns
    {
        public long CampaignId { get; init; }
        public DateOnly Day { get; init; }
        public long Stood { get; init; }
        public long Top { get; init; }
        public long First { get; init; }
        public long Places { get; init; }
        public long LostToRank { get; init; }
        public long LostToBudget { get; init; }

        public Standing Standing => new(Stood, Top, First, Places, LostToRank, LostToBudget);
    }

    private sealed class Row
    {
        public long Id { get; init; }
        public string Measure { get; init; } = "";
        public bool Above { get; init; }
        public decimal Threshold { get; init; }
        public int Days { get; init; }
        public bool EachDay { get; init; }
        public bool EachCampaign { get; init; }
        public long? CampaignId { get; init; }
    }
}
