using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>What an action counted in a campaign.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="ActionId">The action; 0 for what was counted before there were any.</param>
/// <param name="Conversions">How many.</param>
/// <param name="Value">What they are worth.</param>
public sealed record CountedInCampaign(long CampaignId, long ActionId, decimal Conversions, decimal Value);

/// <summary>A day whose conversions are still coming in.</summary>
/// <param name="Day">The day.</param>
/// <param name="Clicks">Clicks of it.</param>
/// <param name="SoFar">Clicks that led to a conversion, as far as is told.</param>
/// <param name="Age">Days since its clicks.</param>
public sealed record OpenDay(DateOnly Day, double Clicks, double SoFar, double Age);

/// <summary>What an action is worked out from, as far as somebody said.</summary>
public sealed record WorthOfAction(long Id, decimal? AverageSale, decimal? ClosingRate, decimal? Margin);

/// <summary>The conversions of an account: what its actions count, what counts in which campaign, and what there is to find fault with.</summary>
/// <param name="Period">The days whose clicks are looked at; none before anything is reported.</param>
/// <param name="Currency">The account's currency.</param>
/// <param name="Actions">The actions, with how they stand.</param>
/// <param name="Days">Conversions of each action on each day of the period, by the day of the click.</param>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="Counted">What actions counted in campaigns.</param>
/// <param name="Spent">What campaigns spent, and how many clicks that bought.</param>
/// <param name="Findings">What an audit found.</param>
/// <param name="Curve">How long conversions take; none before anything is reported.</param>
/// <param name="Open">Days whose conversions are still coming in, the latest first.</param>
/// <param name="PagesRead">Landing pages whose tags are known.</param>
/// <param name="Worths">What the values of actions are worked out from.</param>
public sealed record AccountConversions(
    Period? Period,
    Currency Currency,
    IReadOnlyList<AuditedAction> Actions,
    ILookup<long, (DateOnly Day, decimal Conversions)> Days,
    IReadOnlyList<Campaign> Campaigns,
    IReadOnlyList<CountedInCampaign> Counted,
    IReadOnlyDictionary<long, (decimal Cost, long Clicks)> Spent,
    IReadOnlyList<AuditFinding> Findings,
    DelayCurve? Curve,
    IReadOnlyList<OpenDay> Open,
    int PagesRead,
    IReadOnlyDictionary<long, WorthOfAction> Worths
);

/// <summary>Reads the conversions of accounts.</summary>
public sealed class ConversionReader(NpgsqlDataSource source)
{
    /// <summary>Days over which actions are judged, and clicks are followed: the longest window.</summary>
    private const int JudgedDays = 90;

    /// <summary>Days that are told of as still coming in.</summary>
    private const int OpenDays = 14;

    private const int MostCampaigns = 500;

    private const double HoursOfDay = 24;

    /// <summary>A conversion action of the working copy; none when there is no such one.</summary>
    public async Task<ConversionAction?> ActionAsync(int accountId, long actionId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (await ConversionActions.ReadAsync(connection, accountId, cancellation)).FirstOrDefault(action =>
            action.Id == actionId
        );
    }

    /// <summary>The running actions that count calls.</summary>
    public async Task<IReadOnlyList<ConversionAction>> CallActionsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. (await ConversionActions.ReadAsync(connection, accountId, cancellation)).Where(action =>
                action.State == ItemState.Running && ConversionRule.IsCall(action.Source)
            ),
        ];
    }

    /// <summary>Everything about the conversions of an account in the last days that are reported.</summary>
    public async Task<AccountConversions> ReadAsync(int accountId, int days, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var moment = await connection.BeginTransactionAsync(
            System.Data.IsolationLevel.RepeatableRead,
            cancellation
        );
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var actions = await ConversionActions.ReadAsync(connection, accountId, cancellation);
        var campaigns = (await ConversionActions.CampaignsAsync(connection, accountId, only: null, cancellation))
            .Take(MostCampaigns)
            .ToArray();
        var worths = (
            await connection.QueryAsync<WorthOfAction>(
                new CommandDefinition(
                    "select id, average_sale, closing_rate, margin from conversion_action where account_id = @accountId and not removed",
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Id);
        if (await HeardAsync(connection, accountId, cancellation) is not var (last, heard))
        {
            return Unreported(account, actions, campaigns, worths);
        }

        var period = new Period(last.AddDays(1 - days), last);
        var asked = new
        {
            accountId,
            first = period.First,
            last,
            judged = last.AddDays(1 - JudgedDays),
            account.TimeZone,
            heard = heard.UtcDateTime,
        };
        CommandDefinition Ask(string sql) => new(sql, asked, cancellationToken: cancellation);
        var audited = await JudgeAsync(connection, Ask, actions, new Period(last.AddDays(1 - JudgedDays), last));
        var counted = (
            await connection.QueryAsync<CountedInCampaign>(
                Ask(
                    """
                    select campaign_id, action_id, count(*)::numeric as conversions, sum(value) as value from conversion
                    where account_id = @accountId and day between @first and @last group by 1, 2
                    """
                )
            )
        ).AsList();
        var spent = (
            await connection.QueryAsync<(long Campaign, decimal Cost, long Clicks)>(
                Ask(
                    "select campaign_id, sum(cost), sum(clicks)::bigint from performance_day where account_id = @accountId and day between @first and @last group by 1"
                )
            )
        ).ToDictionary(row => row.Campaign, row => (row.Cost, row.Clicks));
        var byDay = (
            await connection.QueryAsync<(long Action, DateOnly Day, decimal Conversions)>(
                Ask(
                    "select action_id, day, count(*)::numeric from conversion where account_id = @accountId and day between @first and @last group by 1, 2"
                )
            )
        ).ToLookup(row => row.Action, row => (row.Day, row.Conversions));
        var (curve, open) = await DelaysAsync(connection, Ask, accountId, heard, account);
        var pages = await PagesAsync(connection, Ask);
        var facts = new AuditFacts(
            audited,
            Audited(campaigns),
            await TwiceAsync(connection, Ask),
            pages,
            Math.Min(JudgedDays, await ReportedDaysAsync(connection, Ask))
        );
        return new AccountConversions(
            period,
            account.Currency,
            audited,
            byDay,
            campaigns,
            counted,
            spent,
            ConversionAudit.Of(facts),
            curve,
            open,
            pages.Count,
            worths
        );
    }

    /// <summary>What can be said of an account that has no reports yet.</summary>
    private static AccountConversions Unreported(
        AccountFacts account,
        IReadOnlyList<ConversionAction> actions,
        IReadOnlyList<Campaign> campaigns,
        IReadOnlyDictionary<long, WorthOfAction> worths
    )
    {
        var audited = actions.Select(action => new AuditedAction(action, ActionHealth.Of(action, []))).ToArray();
        return new AccountConversions(
            null,
            account.Currency,
            audited,
            Array.Empty<(DateOnly, decimal)>().ToLookup(_ => 0L),
            campaigns,
            [],
            new Dictionary<long, (decimal, long)>(),
            ConversionAudit.Of(new AuditFacts(audited, Audited(campaigns), [], [], 0)),
            null,
            [],
            0,
            worths
        );
    }

    private static AuditedCampaign[] Audited(IEnumerable<Campaign> campaigns) =>
        [
            .. campaigns
                .Where(campaign => campaign.State == ItemState.Running)
                .Select(campaign => new AuditedCampaign(campaign.Id, campaign.Name, campaign.Goals, campaign.Bidding)),
        ];

    private static async Task<(DateOnly Last, DateTimeOffset Heard)?> HeardAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    )
    {
        var (last, heard) = await connection.QuerySingleAsync<(DateOnly?, DateTime?)>(
            new CommandDefinition(
                "select reported_to, reports_heard from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return last is { } day && heard is { } moment
            ? (day, new DateTimeOffset(DateTime.SpecifyKind(moment, DateTimeKind.Utc)))
            : null;
    }

    private static async Task<int> ReportedDaysAsync(
        NpgsqlConnection connection,
        Func<string, CommandDefinition> ask
    ) =>
        await connection.ExecuteScalarAsync<int>(
            ask(
                "select coalesce(@last::date - min(day) + 1, 0) from performance_day where account_id = @accountId and day between @judged and @last"
            )
        );

    /// <summary>How actions stand: conversions by the day on which they were made, beside the clicks of the ad groups that led to any.</summary>
    private static async Task<IReadOnlyList<AuditedAction>> JudgeAsync(
        NpgsqlConnection connection,
        Func<string, CommandDefinition> ask,
        IReadOnlyList<ConversionAction> actions,
        Period judged
    )
    {
        var made = (
            await connection.QueryAsync<(long Action, DateOnly Day, double Conversions)>(
                ask(
                    """
                    select action_id, (at at time zone @TimeZone)::date, count(*)::float8 from conversion
                    where account_id = @accountId and day between @judged and @last group by 1, 2
                    """
                )
            )
        ).ToLookup(row => row.Action, row => (row.Day, row.Conversions));
        var clicks = (
            await connection.QueryAsync<(long Action, DateOnly Day, double Clicks)>(
                ask(
                    """
                    with led as (select distinct action_id, ad_group_id from conversion where account_id = @accountId and day between @judged and @last)
                    select led.action_id, p.day, sum(p.clicks)::float8
                    from (select ad_group_id, day, sum(clicks) as clicks from performance_day where account_id = @accountId and day between @judged and @last group by 1, 2) p
                    join led using (ad_group_id) group by 1, 2
                    """
                )
            )
        ).ToLookup(row => row.Action, row => (row.Day, row.Clicks));
        var all = (
            await connection.QueryAsync<(DateOnly Day, double Clicks)>(
                ask(
                    "select day, sum(clicks)::float8 from performance_day where account_id = @accountId and day between @judged and @last group by 1"
                )
            )
        ).ToDictionary(row => row.Day, row => row.Clicks);
        DateOnly[] days =
        [
            .. Enumerable.Range(0, judged.Days).Select(judged.First.AddDays).SkipWhile(day => !all.ContainsKey(day)),
        ];
        return
        [
            .. actions.Select(action =>
            {
                var mine = made[action.Id].ToDictionary(row => row.Day, row => row.Conversions);
                var through = mine.Count == 0 ? all : clicks[action.Id].ToDictionary(row => row.Day, row => row.Clicks);
                return new AuditedAction(
                    action,
                    ActionHealth.Of(
                        action,
                        [.. days.Select(day => (day, through.GetValueOrDefault(day), mine.GetValueOrDefault(day)))]
                    )
                );
            }),
        ];
    }

    /// <summary>Pairs of actions that counted the same clicks.</summary>
    private static async Task<IReadOnlyList<CountedTwice>> TwiceAsync(
        NpgsqlConnection connection,
        Func<string, CommandDefinition> ask
    )
    {
        var rows = await connection.QueryAsync<(
            long First,
            long Second,
            int Both,
            int OfFirst,
            int OfSecond,
            double Hours
        )>(
            ask(
                """
                with once as (
                  select click_id, action_id, min(at) as at from conversion
                  where account_id = @accountId and day between @first and @last and action_id <> 0 group by 1, 2
                ), sums as (select action_id, count(*)::int as clicks from once group by 1)
                select a.action_id, b.action_id, count(*)::int, (select clicks from sums where action_id = a.action_id), (select clicks from sums where action_id = b.action_id),
                  (percentile_cont(0.5) within group (order by abs(extract(epoch from b.at - a.at))) / 3600)::float8
                from once a join once b on b.click_id = a.click_id and b.action_id > a.action_id group by 1, 2 order by 1, 2
                """
            )
        );
        return
        [
            .. rows.Select(row => new CountedTwice(
                row.First,
                row.Second,
                row.Both,
                row.OfFirst,
                row.OfSecond,
                row.Hours
            )),
        ];
    }

    private static async Task<IReadOnlyList<AuditedPage>> PagesAsync(
        NpgsqlConnection connection,
        Func<string, CommandDefinition> ask
    ) =>
        [
            .. (
                await connection.QueryAsync<(string Page, short Tag)>(
                    ask("select page, tag from page_text where account_id = @accountId and tag <> 0 order by page")
                )
            ).Select(row => new AuditedPage(Bare(row.Page), (PageTag)row.Tag)),
        ];

    private static string Bare(string page) =>
        Uri.TryCreate(page, UriKind.Absolute, out var uri) ? (uri.Host + uri.AbsolutePath).TrimEnd('/') : page;

    /// <summary>How long after their clicks conversions are told of; each click counts once, by its first conversion that counts.</summary>
    private static async Task<(DelayCurve Curve, IReadOnlyList<OpenDay> Open)> DelaysAsync(
        NpgsqlConnection connection,
        Func<string, CommandDefinition> ask,
        int accountId,
        DateTimeOffset heard,
        AccountFacts account
    )
    {
        var converted = (
            await connection.QueryAsync<(DateOnly Day, double Hours, double Clicks)>(
                ask(
                    """
                    select day, hours, count(*)::float8 from (
                      select day, click_id, ceil(extract(epoch from min(told - clicked_at)) / 3600)::float8 as hours from conversion
                      where account_id = @accountId and day between @judged and @last and counts group by 1, 2
                    ) c group by 1, 2
                    """
                )
            )
        ).AsList();
        var clicks = (
            await connection.QueryAsync<(DateOnly Day, double Clicks)>(
                ask(
                    "select day, sum(clicks)::float8 from performance_day where account_id = @accountId and day between @judged and @last group by 1 order by 1"
                )
            )
        ).AsList();
        var led = converted.GroupBy(row => row.Day).ToDictionary(same => same.Key, same => same.Sum(row => row.Clicks));
        var zone = new AccountDay(account.TimeZone);
        // Clicks of a day are taken as made in the middle of it.
        double AgeOf(DateOnly day) => Math.Max(0, (heard - zone.StartOf(day)).TotalDays - 0.5);
        var curve = new DelayCurve(
            converted
                .Select(row => new AgedClicks(row.Hours / HoursOfDay, row.Clicks, 0))
                .Concat(
                    clicks.Select(row => new AgedClicks(
                        AgeOf(row.Day),
                        0,
                        Math.Max(0, row.Clicks - led.GetValueOrDefault(row.Day))
                    ))
                )
        );
        return (
            curve,
            [
                .. clicks
                    .OrderByDescending(row => row.Day)
                    .Take(OpenDays)
                    .Select(row => new OpenDay(row.Day, row.Clicks, led.GetValueOrDefault(row.Day), AgeOf(row.Day))),
            ]
        );
    }
}
