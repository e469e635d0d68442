using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>Reads the conversions of accounts.</summary>
public sealed class ConversionReader(NpgsqlDataSource source)
{
    /// <summary>Days over which actions are judged, and clicks are followed: the longest window.</summary>
    private const int JudgedDays = 90;

    private const int MostCampaigns = 500;

    /// <summary>A conversion action of the working copy; none when there is no such one.</summary>
    public async Task<ConversionAction?> ActionAsync(int accountId, long actionId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (await ConversionActions.ReadAsync(connection, accountId, cancellation)).FirstOrDefault(action =>
            action.Id == actionId
        );
    }

    /// <summary>The conversion actions of the working copy.</summary>
    public async Task<IReadOnlyList<ConversionAction>> ActionsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await ConversionActions.ReadAsync(connection, accountId, cancellation);
    }

    /// <summary>Names of campaigns and ad groups, and the words of keywords.</summary>
    public async Task<IReadOnlyDictionary<(ItemKind, long), string>> NamesAsync(
        int accountId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<(int Kind, long Id, string Name)>(
                new CommandDefinition(
                    $"""
                    select {(int)ItemKind.Campaign}, id, name from campaign where account_id = @accountId
                    union all select {(int)ItemKind.AdGroup}, id, name from ad_group where account_id = @accountId
                    union all select {(int)ItemKind.Keyword}, id, text from keyword k where account_id = @accountId
                      and exists (select from performance_day p where p.account_id = k.account_id and p.keyword_id = k.id and p.clicks > 0)
                    """,
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => ((ItemKind)row.Kind, row.Id), row => row.Name);
    }

    /// <summary>The running actions that count calls.</summary>
    public async Task<IReadOnlyList<(ConversionAction Action, long Version)>> CallActionsAsync(
        int accountId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var versions = await ConversionActions.VersionsAsync(connection, accountId, cancellation);
        return
        [
            .. (await ConversionActions.ReadAsync(connection, accountId, cancellation))
                .Where(action => action.State == ItemState.Running && ConversionRule.IsCall(action.Source))
                .Select(action => (action, versions.GetValueOrDefault((ItemKind.ConversionAction, action.Id)))),
        ];
    }

    /// <summary>The past of a campaign, as its goals are read against it; none when there is no such campaign.</summary>
    public async Task<CampaignPast?> CampaignAsync(
        int accountId,
        long campaignId,
        int days,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var campaigns = await ConversionActions.CampaignsAsync(connection, accountId, [campaignId], cancellation);
        if (campaigns is not [var campaign])
        {
            return null;
        }

        var asked = new
        {
            accountId,
            campaignId,
            days,
        };
        CommandDefinition Ask(string sql) => new(sql, asked, cancellationToken: cancellation);
        const string Within =
            "account_id = @accountId and campaign_id = @campaignId and day > (select reported_to - @days from account where id = @accountId)";
        return new CampaignPast(
            campaign,
            account.Currency,
            await ConversionActions.ReadAsync(connection, accountId, cancellation),
            (
                await connection.QueryAsync<CountedInCampaign>(
                    Ask(
                        $"select campaign_id, action_id, count(*)::numeric as conversions, sum(value) as value from conversion where {Within} group by 1, 2"
                    )
                )
            ).AsList(),
            await connection.ExecuteScalarAsync<decimal?>(Ask($"select sum(cost) from performance_day where {Within}"))
                ?? 0
        );
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
        var every = await ConversionActions.CampaignsAsync(connection, accountId, only: null, cancellation);
        var campaigns = every.Take(MostCampaigns).ToArray();
        var versions = await ConversionActions.VersionsAsync(connection, accountId, cancellation);
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
            return Unreported(account, actions, every, versions, worths);
        }

        var period = new Period(last.AddDays(1 - days), last);
        var asked = new
        {
            accountId,
            first = period.First,
            last,
        };
        CommandDefinition Ask(string sql) => new(sql, asked, cancellationToken: cancellation);
        var judged = new Period(last.AddDays(1 - JudgedDays), last);
        var clicks = await ClickDays.ReadAsync(connection, accountId, judged, cancellation);
        var audited = await ActionJudge.ReadAsync(connection, account, actions, judged, clicks, cancellation);
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
        var spent = clicks.SpentFrom(period.First);
        var byDay = (
            await connection.QueryAsync<(long Action, DateOnly Day, decimal Conversions)>(
                Ask(
                    "select action_id, day, count(*)::numeric from conversion where account_id = @accountId and day between @first and @last group by 1, 2"
                )
            )
        ).ToLookup(row => row.Action, row => (row.Day, row.Conversions));
        var (curve, open) = await ConversionDelays.ReadAsync(
            connection,
            accountId,
            judged,
            clicks,
            heard,
            new AccountDay(account.TimeZone),
            cancellation
        );
        var pages = await PagesAsync(connection, Ask);
        var facts = new AuditFacts(audited, Audited(every), await TwiceAsync(connection, Ask), pages);
        return new AccountConversions(
            period,
            account.Currency,
            audited,
            byDay,
            campaigns,
            every.Count > campaigns.Length,
            counted,
            spent,
            ConversionAudit.Of(facts),
            curve,
            open,
            pages.Count,
            versions,
            worths
        );
    }

    /// <summary>What can be said of an account that has no reports yet.</summary>
    private static AccountConversions Unreported(
        AccountFacts account,
        IReadOnlyList<ConversionAction> actions,
        IReadOnlyList<Campaign> campaigns,
        IReadOnlyDictionary<(ItemKind Kind, long Id), long> versions,
        IReadOnlyDictionary<long, WorthOfAction> worths
    )
    {
        var audited = actions.Select(action => new AuditedAction(action, ActionHealth.Of(action, []))).ToArray();
        return new AccountConversions(
            null,
            account.Currency,
            audited,
            Array.Empty<(DateOnly, decimal)>().ToLookup(_ => 0L),
            [.. campaigns.Take(MostCampaigns)],
            campaigns.Count > MostCampaigns,
            [],
            new Dictionary<long, (decimal, long)>(),
            ConversionAudit.Of(new AuditFacts(audited, Audited(campaigns), [], [])),
            null,
            [],
            0,
            versions,
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
}
