using Dapper;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>What the network reports of an account's days.</summary>
internal static class ReportDoor
{
    /// <summary>A conversion is known when it was told, belongs to the click that it came from, and is a goal of the campaign.</summary>
    internal const string Told =
        "account_id = @accountId and day between @first and @last and counts and not taken_back and told <= @now";

    /// <summary>The click of an ad shown, and what it cost.</summary>
    private const string Paid =
        "case when click = 0 then 0 else 1 end, case when click = 0 then 0 else price * @unit end";

    public static void Map(RouteGroupBuilder account)
    {
        account.MapGet("/reports", ReportAsync);
        account.MapGet("/reports/days", DaysAsync);
        account.MapGet("/search-terms", SearchTermsAsync);
        account.MapGet("/standings", StandingsAsync);
        account.MapGet("/paces", PacesAsync);
        account.MapGet("/today", TodayDoor.ReadAsync);
        account.MapGet("/rivals", RivalsAsync);
        account.MapGet("/qualities", SegmentReports.QualitiesAsync);
        account.MapGet("/extensions", SegmentReports.ExtensionsAsync);
        account.MapGet("/combinations", SegmentReports.CombinationsAsync);
        account.MapGet("/reached", SegmentReports.ReachedAsync);
        account.MapGet("/conversions", ConversionReports.ConversionsAsync);
        account.MapGet("/calls", ConversionReports.CallsAsync);
        account.MapGet("/clicks", ConversionReports.ClicksAsync);
        account.MapGet(
            "/strategies",
            (string accountId, StrategyDesk desk, CancellationToken cancellation) =>
                desk.ReadAsync(accountId, cancellation)
        );
    }

    private static IAsyncEnumerable<PerformanceRow> ReportAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<PerformanceRow>(
            days,
            $"""
            select day, hour::int, campaign_id, ad_group_id, keyword_id, ad_id, device::int, site::int, sum(impressions)::bigint as impressions,
              sum(clicks)::bigint as clicks, sum(cost) as cost, sum(conversions) as conversions, sum(value) as value
            from (
              select day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value
              from performance where account_id = @accountId and day between @first and @last
              union all
              select day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, 1, {Paid}, 0, 0
              from shown where account_id = @accountId and day between @first and @last
              union all
              select day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, 0, 0, 0, 1, value from conversion where {Told}
            ) told group by day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site
            order by day, hour, keyword_id, ad_id, device, site
            """,
            cancellation
        );

    /// <summary>Days of whose clicks a conversion or a call was told after a moment: their reports are not what they were.</summary>
    private static async Task<IEnumerable<DateOnly>> DaysAsync(
        string accountId,
        DateTimeOffset since,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        return await connection.QueryAsync<DateOnly>(
            """
            select c.day from conversion c join account a on a.id = c.account_id where c.account_id = @accountId and c.told > @since and c.told <= a.now
            union
            select c.day from phone_call c join account a on a.id = c.account_id
            where c.account_id = @accountId and c.at + make_interval(secs => c.rang + c.talked) > @since and c.at + make_interval(secs => c.rang + c.talked) <= a.now
            order by 1
            """,
            new { accountId, since = since.ToUniversalTime() }
        );
    }

    private static IAsyncEnumerable<SearchTermRow> SearchTermsAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<SearchTermRow>(
            days,
            $"""
            select day, term, campaign_id, ad_group_id, keyword_id, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost,
              sum(conversions) as conversions, sum(value) as value
            from (
              select day, term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value
              from search_term where account_id = @accountId and day between @first and @last
              union all
              select day, term, campaign_id, ad_group_id, keyword_id, 1, {Paid}, 0, 0
              from shown where account_id = @accountId and day between @first and @last
              union all
              select day, term, campaign_id, ad_group_id, keyword_id, 0, 0, 0, 1, value from conversion where {Told}
            ) told group by day, term, campaign_id, ad_group_id, keyword_id order by day, term, keyword_id
            """,
            cancellation
        );

    private static IAsyncEnumerable<StandingRow> StandingsAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<StandingRow>(
            days,
            """
            select day, campaign_id, ad_group_id, keyword_id, sum(impressions)::bigint as impressions, sum(top)::bigint as top, sum(first)::bigint as first,
              sum(places)::bigint as places, sum(lost_to_rank)::bigint as lost_to_rank, sum(lost_to_budget)::bigint as lost_to_budget
            from standing where account_id = @accountId and day between @first and @last group by day, campaign_id, ad_group_id, keyword_id order by day, keyword_id
            """,
            cancellation
        );

    /// <summary>Hours without a search that the campaign could have answered are left out: nothing is to be told of them.</summary>
    private static IAsyncEnumerable<PaceRow> PacesAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<PaceRow>(
            days,
            """
            with asked as (
              select day, hour::int as hour, campaign_id, sum(impressions)::bigint as impressions, sum(lost_to_rank)::bigint as lost_to_rank,
                sum(lost_to_budget)::bigint as lost_to_budget
              from standing where account_id = @accountId and day between @first and @last group by 1, 2, 3
            ), budgets as (
              -- The hour that is there twice in a night of autumn is one hour of the clock.
              select (to_timestamp(h.hour * 3600) at time zone a.time_zone)::date as day,
                extract(hour from to_timestamp(h.hour * 3600) at time zone a.time_zone)::int as hour, h.campaign_id,
                max(h.budget) as budget, min(h.stopped_at) / 60 as stopped_minute
              from campaign_hour h join account a on a.id = h.account_id
              where h.account_id = @accountId and h.hour between extract(epoch from @first::date)::bigint / 3600 - 24 and extract(epoch from @last::date)::bigint / 3600 + 48
              group by 1, 2, 3
            )
            select asked.day, asked.hour, asked.campaign_id, budgets.budget, asked.impressions, asked.lost_to_rank, asked.lost_to_budget, budgets.stopped_minute
            from asked left join budgets using (day, hour, campaign_id) order by 1, 2, 3
            """,
            cancellation
        );

    private static IAsyncEnumerable<RivalRow> RivalsAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<RivalRow>(
            days,
            """
            select day, campaign_id, ad_group_id, keyword_id, rival, sum(shown_with)::bigint as shown_with, sum(above_us)::bigint as above_us
            from rival_day where account_id = @accountId and day between @first and @last
            group by day, campaign_id, ad_group_id, keyword_id, rival order by day, keyword_id, rival
            """,
            cancellation
        );
}
