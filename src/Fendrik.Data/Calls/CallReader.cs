using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Calls;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Calls;

/// <summary>A call with what led to it.</summary>
/// <param name="Call">The call.</param>
/// <param name="CampaignId">Campaign of the click.</param>
/// <param name="Campaign">Its name.</param>
/// <param name="AdGroupId">Ad group of the click.</param>
/// <param name="AdGroup">Its name.</param>
/// <param name="KeywordId">Keyword of the click.</param>
/// <param name="Keyword">Its words; none when it is gone.</param>
/// <param name="Match">Its match type; none likewise.</param>
/// <param name="Device">Device of the click.</param>
/// <param name="Area">Where the caller is.</param>
/// <param name="Dialled">The rented number that was called; empty for one of the network's.</param>
/// <param name="Origin">What is known of where it came from.</param>
public sealed record CallInLog(
    LoggedCall Call,
    long CampaignId,
    string Campaign,
    long AdGroupId,
    string AdGroup,
    long KeywordId,
    string? Keyword,
    MatchType? Match,
    Device Device,
    string Area,
    string Dialled,
    CallOrigin Origin
);

/// <summary>Reads the calls of accounts.</summary>
public sealed class CallReader(NpgsqlDataSource source)
{
    /// <summary>Most calls that are read; more are told of as being there.</summary>
    public const int MostCalls = 200_000;

    /// <summary>Calls that were made on the days of a period, the latest first.</summary>
    public async Task<IReadOnlyList<CallInLog>> ReadAsync(
        int accountId,
        Period period,
        long? campaignId,
        long? adGroupId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var zone = new AccountDay(account.TimeZone);
        // A call comes within weeks of its click: days long before have none of these.
        var rows = await connection.QueryAsync<CallRow>(
            new CommandDefinition(
                """
                select p.at at time zone @TimeZone as at, p.rang, p.talked, p.call_end::int as call_end, p.from_ad, p.caller, p.click_id, p.cost,
                  p.campaign_id, coalesce(c.name, '') as campaign, p.ad_group_id, coalesce(g.name, '') as ad_group, p.keyword_id, k.text as keyword,
                  k.match_type::int as match, p.device::int as device, p.area, p.dialled, p.origin::int as origin
                from phone_call p left join campaign c on c.id = p.campaign_id and c.account_id = p.account_id
                  left join ad_group g on g.id = p.ad_group_id and g.account_id = p.account_id
                  left join keyword k on k.id = p.keyword_id and k.account_id = p.account_id
                where p.account_id = @accountId and p.at >= @from and p.at < @until and p.day between @first and @last
                  and (@campaignId::bigint is null or p.campaign_id = @campaignId) and (@adGroupId::bigint is null or p.ad_group_id = @adGroupId)
                order by p.at desc, p.click_id limit @MostCalls
                """,
                new
                {
                    accountId,
                    account.TimeZone,
                    from = zone.StartOf(period.First).UtcDateTime,
                    until = zone.StartOf(period.Last.AddDays(1)).UtcDateTime,
                    first = period.First.AddDays(-90),
                    last = period.Last,
                    campaignId,
                    adGroupId,
                    MostCalls,
                },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new CallInLog(
                new LoggedCall(
                    row.At,
                    row.Rang,
                    row.Talked,
                    (CallEnd)row.CallEnd,
                    row.FromAd,
                    row.Caller,
                    row.ClickId,
                    row.Cost
                ),
                row.CampaignId,
                row.Campaign,
                row.AdGroupId,
                row.AdGroup,
                row.KeywordId,
                row.Keyword,
                (MatchType?)row.Match,
                (Device)row.Device,
                row.Area,
                row.Dialled,
                (CallOrigin)row.Origin
            )),
        ];
    }

    /// <summary>Names of campaigns of the account.</summary>
    public async Task<IReadOnlyDictionary<long, string>> CampaignNamesAsync(
        int accountId,
        IReadOnlyCollection<long> ids,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<(long Id, string Name)>(
                new CommandDefinition(
                    "select id, name from campaign where account_id = @accountId and id = any(@ids)",
                    new { accountId, ids = ids.ToArray() },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Id, row => row.Name);
    }

    /// <summary>Visits that begin in a busy hour: of the hours of the day that have most clicks, the mean of these days.</summary>
    public async Task<double> BusiestHourAsync(int accountId, Period period, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<double>(
            new CommandDefinition(
                """
                select coalesce(max(s.clicks), 0)::float8 / @Days from (
                  select sum(clicks) as clicks from performance_slot where account_id = @accountId and day between @First and @Last group by hour) s
                """,
                new
                {
                    accountId,
                    period.First,
                    period.Last,
                    period.Days,
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Hours after which 19 of 20 callers from the site have called; none where nobody has.</summary>
    public async Task<double?> HoursUntilCallAsync(int accountId, Period period, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<double?>(
            new CommandDefinition(
                """
                select percentile_cont(0.95) within group (order by extract(epoch from at - clicked_at) / 3600)
                from phone_call where account_id = @accountId and day between @First and @Last and not from_ad
                """,
                new
                {
                    accountId,
                    period.First,
                    period.Last,
                },
                cancellationToken: cancellation
            )
        );
    }

    private sealed class CallRow
    {
        public DateTime At { get; init; }
        public int Rang { get; init; }
        public int Talked { get; init; }
        public int CallEnd { get; init; }
        public bool FromAd { get; init; }
        public string Caller { get; init; } = "";
        public string ClickId { get; init; } = "";
        public decimal Cost { get; init; }
        public long CampaignId { get; init; }
        public string Campaign { get; init; } = "";
        public long AdGroupId { get; init; }
        public string AdGroup { get; init; } = "";
        public long KeywordId { get; init; }
        public string? Keyword { get; init; }
        public int? Match { get; init; }
        public int Device { get; init; }
        public string Area { get; init; } = "";
        public string Dialled { get; init; } = "";
        public int Origin { get; init; }
    }
}
