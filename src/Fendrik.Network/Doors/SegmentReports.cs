using Fendrik.Core.Networks;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>What stood beside ads, which lines showed, whom they reached, and how good keywords were.</summary>
internal static class SegmentReports
{
    /// <summary>The visits of conversions, with what showed there.</summary>
    private const string ToldVisits =
        $"(select c.value as worth, v.* from (select search, value from conversion where {ReportDoor.Told}) c join visit v on v.account_id = @accountId and v.search = c.search and v.day between @first and @last)";

    public static IAsyncEnumerable<ExtensionRow> ExtensionsAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<ExtensionRow>(
            days,
            $"""
            select day, campaign_id, ad_group_id, kind::int as kind, extension_id, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks,
              sum(own_clicks)::bigint as own_clicks, sum(cost) * @unit as cost, sum(expected)::bigint / 1000000.0 as expected, sum(conversions) as conversions,
              sum(value) as value
            from (
              select day, campaign_id, ad_group_id, kind, extension_id, impressions, clicks, own_clicks, cost, expected, 0::numeric as conversions, 0::numeric as value
              from extension_day where account_id = @accountId and day between @first and @last
              union all
              select v.day, v.campaign_id, v.ad_group_id, b.kind, b.id, 0, 0, 0, 0, 0, 1, v.worth
              from {ToldVisits} v cross join unnest(v.beside_kinds, v.beside_ids) b(kind, id)
            ) told group by day, campaign_id, ad_group_id, kind, extension_id order by day, ad_group_id, kind, extension_id
            """,
            cancellation
        );

    public static IAsyncEnumerable<CombinationRow> CombinationsAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<
            (
                DateOnly Day,
                long Campaign,
                long AdGroup,
                long Ad,
                string[] Headlines,
                string[] Descriptions,
                long Impressions,
                long Clicks,
                decimal Cost,
                decimal Expected,
                decimal Conversions,
                decimal Value
            ),
            CombinationRow
        >(
            days,
            $"""
            select day, campaign_id, ad_group_id, ad_id, headlines, descriptions, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks,
              sum(cost) * @unit as cost, sum(expected)::bigint / 1000000.0 as expected, sum(conversions) as conversions, sum(value) as value
            from (
              select day, campaign_id, ad_group_id, ad_id, headlines, descriptions, impressions, clicks, cost, expected, 0::numeric as conversions, 0::numeric as value
              from combination_day where account_id = @accountId and day between @first and @last and cardinality(headlines) > 0
              union all
              select day, campaign_id, ad_group_id, ad_id, headlines, descriptions, 0, 0, 0, 0, 1, worth from {ToldVisits} v where cardinality(headlines) > 0
            ) told group by day, campaign_id, ad_group_id, ad_id, headlines, descriptions order by day, ad_id, headlines, descriptions
            """,
            (row, _) =>
                new CombinationRow(
                    row.Day,
                    row.Campaign,
                    row.AdGroup,
                    row.Ad,
                    row.Headlines,
                    row.Descriptions,
                    row.Impressions,
                    row.Clicks,
                    row.Cost,
                    row.Expected,
                    row.Conversions,
                    row.Value
                ),
            cancellation
        );

    public static IAsyncEnumerable<ReachedRow> ReachedAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<
            (
                DateOnly Day,
                long Campaign,
                long AdGroup,
                int By,
                string Name,
                long Impressions,
                long Clicks,
                decimal Cost,
                decimal Conversions,
                decimal Value
            ),
            ReachedRow
        >(
            days,
            $"""
            select day, campaign_id, ad_group_id, reached_by::int as reached_by, name, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks,
              sum(cost) * @unit as cost, sum(conversions) as conversions, sum(value) as value
            from (
              select day, campaign_id, ad_group_id, reached_by, name, impressions, clicks, cost, 0::numeric as conversions, 0::numeric as value
              from reached_day where account_id = @accountId and day between @first and @last
              union all
              select v.day, v.campaign_id, v.ad_group_id, r.reached_by, r.name, 0, 0, 0, 1, v.worth
              from {ToldVisits} v cross join unnest(v.reached_by, v.reached) r(reached_by, name)
            ) told group by day, campaign_id, ad_group_id, reached_by, name order by day, ad_group_id, reached_by, name
            """,
            (row, _) =>
                new ReachedRow(
                    row.Day,
                    row.Campaign,
                    row.AdGroup,
                    (ReachedBy)row.By,
                    row.Name,
                    row.Impressions,
                    row.Clicks,
                    row.Cost,
                    row.Conversions,
                    row.Value
                ),
            cancellation
        );

    public static IAsyncEnumerable<QualityRow> QualitiesAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<
            (DateOnly Day, long Keyword, int Score, decimal Likelihood, decimal Text, decimal Page),
            QualityRow
        >(
            days,
            """
            select day, keyword_id, score::int, likelihood, text_fit, page_fit from quality_day
            where account_id = @accountId and day between @first and @last order by day, keyword_id
            """,
            (row, _) =>
                new QualityRow(
                    row.Day,
                    row.Keyword,
                    row.Score,
                    Core.Auctions.QualityScore.StandingOf(row.Likelihood),
                    Core.Auctions.QualityScore.StandingOf(row.Text),
                    Core.Auctions.QualityScore.StandingOf(row.Page)
                ),
            cancellation
        );
}
