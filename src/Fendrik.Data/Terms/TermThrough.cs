using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Sums;
using Npgsql;

namespace Fendrik.Data.Terms;

/// <summary>A search term with an ad group that it came through, and what it brought there.</summary>
internal sealed class TermThrough : FigureColumns
{
    private const int LongestStatement = 600;

    public required string Term { get; init; }
    public long CampaignId { get; init; }
    public long AdGroupId { get; init; }

    /// <summary>The terms of days as they were reported, one by one: they may be very many.</summary>
    public static IAsyncEnumerable<TermThrough> OfDays(NpgsqlConnection connection, int accountId, Period days) =>
        connection.QueryUnbufferedAsync<TermThrough>(
            """
            select term, campaign_id as "campaignId", ad_group_id as "adGroupId", sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost,
              sum(conversions) as conversions, sum(value) as value
            from search_term_day where account_id = @accountId and day between @First and @Last group by 1, 2, 3
            """,
            new
            {
                accountId,
                days.First,
                days.Last,
            },
            commandTimeout: LongestStatement
        );

    /// <summary>The terms of kept sums.</summary>
    public static IAsyncEnumerable<TermThrough> Kept(NpgsqlConnection connection, long period) =>
        connection.QueryUnbufferedAsync<TermThrough>(
            """
            select term, campaign_id as "campaignId", ad_group_id as "adGroupId", impressions, clicks, cost, conversions, value from term_part where period_id = @period
            """,
            new { period },
            commandTimeout: LongestStatement
        );
}
