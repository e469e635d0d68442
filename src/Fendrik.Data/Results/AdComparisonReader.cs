using Dapper;
using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>The ads of an ad group against one another.</summary>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="Campaign">Name of that.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="AdGroup">Its name.</param>
/// <param name="Since">The first day on which all of them could show.</param>
/// <param name="Ads">The ads, the best first.</param>
/// <param name="Names">First headline of each, by its number.</param>
/// <param name="Kinds">Kind of each.</param>
public sealed record ComparedAds(
    long CampaignId,
    string Campaign,
    long AdGroupId,
    string AdGroup,
    DateOnly Since,
    IReadOnlyList<ComparedAd> Ads,
    IReadOnlyDictionary<long, string> Names,
    IReadOnlyDictionary<long, ItemKind> Kinds
);

/// <summary>
/// Compares running ads by what they brought where they had the same chances: from the day on which the youngest first showed, on the
/// devices that at least two of them showed on.
/// </summary>
public sealed class AdComparisonReader(NpgsqlDataSource source)
{
    /// <summary>What is older says little of the ads among today's searches.</summary>
    private const int DaysOfHistory = 182;

    private const int DaysOfPace = 28;
    private const double WeeksOfPace = DaysOfPace / 7.0;

    /// <summary>Compares the ads of each ad group of what one is looking at; ad groups with one ad are left out.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">A campaign, or none for all.</param>
    /// <param name="adGroupId">An ad group, or none for all.</param>
    /// <param name="measure">By what.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<IReadOnlyList<ComparedAds>> ReadAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        AdMeasure measure,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                $"""
                with ads as ({AdTables.Where(
                    "account_id = @accountId and not removed and state = @running"
                )}), shown as materialized (
                  select p.ad_group_id, p.ad_id, p.device, p.day, sum(p.impressions) as impressions, sum(p.clicks) as clicks, sum(p.cost) as cost,
                    sum(p.conversions) as conversions, sum(p.value) as value
                  from performance_day p join ads a on a.id = p.ad_id and a.ad_group_id = p.ad_group_id
                  where p.account_id = @accountId and p.day > (select reported_to - @DaysOfHistory from account where id = @accountId)
                    and (@campaignId::bigint is null or p.campaign_id = @campaignId)
                    and (@adGroupId::bigint is null or p.ad_group_id = @adGroupId)
                  group by 1, 2, 3, 4 having sum(p.impressions) > 0),
                since as (
                  select ad_group_id, device, max(first) as day from (
                    select ad_group_id, ad_id, device, min(day) as first from shown group by 1, 2, 3) f
                  group by 1, 2 having count(*) > 1)
                select c.id as campaign_id, c.name as campaign, g.id as ad_group_id, g.name as ad_group, s.ad_id, (select kind from ads where id = s.ad_id) as kind, coalesce((select headlines[1] from ads where id = s.ad_id), '') as headline, max(n.since) as since,
                  sum(s.impressions)::bigint as impressions, sum(s.clicks)::bigint as clicks, sum(s.cost) as cost, sum(s.conversions) as conversions, sum(s.value) as value,
                  coalesce(sum(s.impressions) filter (where s.day > a.reported_to - @DaysOfPace), 0)::bigint as of_late
                from shown s join since t on t.ad_group_id = s.ad_group_id and t.device = s.device and s.day >= t.day
                join (select ad_group_id, max(day) as since from since group by 1) n on n.ad_group_id = s.ad_group_id
                join ad_group g on g.id = s.ad_group_id and not g.removed join campaign c on c.id = g.campaign_id and not c.removed
                join account a on a.id = @accountId
                group by c.id, g.id, s.ad_id order by c.name_key, g.name_key, g.id, s.ad_id
                """,
                new
                {
                    accountId,
                    campaignId,
                    adGroupId,
                    DaysOfPace,
                    DaysOfHistory,
                    running = (short)ItemState.Running,
                },
                commandTimeout: 60,
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.GroupBy(row => row.AdGroupId)
                .Select(group => new ComparedAds(
                    group.First().CampaignId,
                    group.First().Campaign,
                    group.Key,
                    group.First().AdGroup,
                    group.First().Since,
                    AdComparison.Compare(group.Select(row => row.Ad), measure),
                    group.ToDictionary(row => row.AdId, row => AdLine.FallbackOf(PlacedLine.Of(row.Headline).Text)),
                    group.ToDictionary(row => row.AdId, row => row.Kind)
                ))
                .Where(compared => compared.Ads.Count > 0),
        ];
    }

    [method: ExplicitConstructor]
    private sealed record Row(
        long CampaignId,
        string Campaign,
        long AdGroupId,
        string AdGroup,
        long AdId,
        ItemKind Kind,
        string Headline,
        DateOnly Since,
        long Impressions,
        long Clicks,
        decimal Cost,
        decimal Conversions,
        decimal Value,
        long OfLate
    )
    {
        public AdToCompare Ad =>
            new(AdId, new Figures(Impressions, Clicks, Cost, Conversions, Value), OfLate / WeeksOfPace);
    }
}
