using Dapper;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>A keyword with what it bids, what that brought, and what the network said of it last.</summary>
public sealed record KeywordBid
{
    /// <summary>The keyword.</summary>
    public long Id { get; init; }

    /// <summary>Its version, against which edits hold.</summary>
    public long Version { get; init; }

    /// <summary>Its words.</summary>
    public string Text { get; init; } = "";

    /// <summary>Its match type.</summary>
    public MatchType Match { get; init; }

    /// <summary>Running or paused.</summary>
    public ItemState State { get; init; }

    /// <summary>Its ad group.</summary>
    public long AdGroupId { get; init; }

    /// <summary>Name of that.</summary>
    public string AdGroup { get; init; } = "";

    /// <summary>Its version, against which edits hold.</summary>
    public long AdGroupVersion { get; init; }

    /// <summary>The ad group's max CPC.</summary>
    public decimal? BaseBid { get; init; }

    /// <summary>Its own.</summary>
    public decimal? OwnBid { get; init; }

    /// <summary>What it bids.</summary>
    public decimal? Bid => OwnBid ?? BaseBid;

    /// <summary>The ad group's modifiers of devices, which come before the campaign's.</summary>
    public decimal? Desktop { get; init; }

    /// <summary>Of phones.</summary>
    public decimal? Phone { get; init; }

    /// <summary>Of tablets.</summary>
    public decimal? Tablet { get; init; }

    /// <summary>Times shown.</summary>
    public long Impressions { get; init; }

    /// <summary>Clicks.</summary>
    public long Clicks { get; init; }

    /// <summary>What they cost.</summary>
    public decimal Cost { get; init; }

    /// <summary>Conversions.</summary>
    public decimal Conversions { get; init; }

    /// <summary>What they are worth.</summary>
    public decimal Value { get; init; }

    /// <summary>Searches in which it won no place.</summary>
    public long LostToRank { get; init; }

    /// <summary>Searches that the budget did not reach for.</summary>
    public long LostToBudget { get; init; }

    /// <summary>Times shown above the results.</summary>
    public long TopShown { get; init; }

    /// <summary>Quality score as it was reported last.</summary>
    public int? Quality { get; init; }

    /// <summary>True when the network has it.</summary>
    public bool IsLive { get; init; }

    /// <summary>The bid that mostly wins a place, as the network said last.</summary>
    public decimal? FirstPage { get; init; }

    /// <summary>The bid that mostly wins one above the results.</summary>
    public decimal? Top { get; init; }

    /// <summary>When the network was asked last.</summary>
    public DateOnly? AskedOn { get; init; }

    /// <summary>What it brought.</summary>
    public Figures Figures => new(Impressions, Clicks, Cost, Conversions, Value);
}

/// <summary>Reads what keywords bid, and what came of it.</summary>
public sealed class KeywordBidReader(NpgsqlDataSource source)
{
    /// <summary>Keywords of a campaign, the dearest first.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">The campaign.</param>
    /// <param name="adGroupId">Only of this ad group; none for all.</param>
    /// <param name="keywords">Only these; none for all.</param>
    /// <param name="days">Days of the figures; none before anything is reported.</param>
    /// <param name="most">Most keywords.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public async Task<IReadOnlyList<KeywordBid>> ReadAsync(
        int accountId,
        long campaignId,
        long? adGroupId,
        IReadOnlyCollection<long>? keywords,
        Period? days,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<KeywordBid>(
                new CommandDefinition(
                    """
                    with figures as (
                      select p.keyword_id, sum(p.impressions)::bigint as impressions, sum(p.clicks)::bigint as clicks, sum(p.cost) as cost,
                        sum(p.conversions) as conversions, sum(p.value) as value
                      from performance_day p where p.account_id = @accountId and p.campaign_id = @campaignId and p.day between @first and @last
                        and (@adGroupId::bigint is null or p.ad_group_id = @adGroupId) group by 1
                    ), stood as (
                      select s.keyword_id, sum(s.lost_to_rank)::bigint as lost_to_rank, sum(s.lost_to_budget)::bigint as lost_to_budget, sum(s.top)::bigint as top_shown
                      from standing_day s where s.account_id = @accountId and s.campaign_id = @campaignId and s.day between @first and @last
                        and (@adGroupId::bigint is null or s.ad_group_id = @adGroupId) group by 1
                    ), chosen as (
                      select k.id, k.changed_by as version, k.text, k.match_type as match, k.state, g.id as ad_group_id, g.name as ad_group, g.changed_by as ad_group_version, g.max_cpc as base_bid,
                        k.max_cpc as own_bid, g.desktop_modifier as desktop, g.phone_modifier as phone, g.tablet_modifier as tablet, k.is_live,
                        coalesce(f.impressions, 0) as impressions, coalesce(f.clicks, 0) as clicks, coalesce(f.cost, 0) as cost,
                        coalesce(f.conversions, 0) as conversions, coalesce(f.value, 0) as value,
                        coalesce(s.lost_to_rank, 0) as lost_to_rank, coalesce(s.lost_to_budget, 0) as lost_to_budget, coalesce(s.top_shown, 0) as top_shown
                      from ad_group g join keyword k on k.ad_group_id = g.id and not k.removed
                      left join figures f on f.keyword_id = k.id left join stood s on s.keyword_id = k.id
                      where g.account_id = @accountId and g.campaign_id = @campaignId and not g.removed
                        and (@adGroupId::bigint is null or g.id = @adGroupId) and (@keywords::bigint[] is null or k.id = any(@keywords))
                      order by coalesce(f.cost, 0) desc, coalesce(s.lost_to_rank, 0) desc, k.id limit @most
                    )
                    select c.*, q.score::int as quality, e.first_page, e.top, e.asked_on
                    from chosen c
                    left join lateral (select score from quality_day where account_id = @accountId and keyword_id = c.id order by day desc limit 1) q on true
                    left join lateral (select first_page, top, asked_on from keyword_estimate where account_id = @accountId and keyword_id = c.id order by id desc limit 1) e on true
                    order by c.cost desc, c.lost_to_rank desc, c.id
                    """,
                    new
                    {
                        accountId,
                        campaignId,
                        adGroupId,
                        keywords = keywords?.ToArray(),
                        first = days?.First,
                        last = days?.Last,
                        most,
                    },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>What clicks cost on keywords of the account that share words with some, by these: of the same match type, the most alike.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="keywords">The keywords.</param>
    /// <param name="days">Days of the figures.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public async Task<IReadOnlyDictionary<long, decimal>> PricesOfThemesAsync(
        int accountId,
        IReadOnlyCollection<long> keywords,
        Period days,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return (
            await connection.QueryAsync<(long Id, decimal Price)>(
                new CommandDefinition(
                    """
                    with paid as (
                      select k.id, k.match_type, string_to_array(lower(k.text), ' ') as words, f.cost, f.clicks
                      from (select keyword_id, sum(cost) as cost, sum(clicks) as clicks from performance_day
                        where account_id = @accountId and day between @first and @last group by 1 having sum(clicks) > 0) f
                      join keyword k on k.id = f.keyword_id and not k.removed
                    )
                    select a.id, sum(p.cost) / sum(p.clicks) as price from keyword a
                    join lateral (
                      select p.cost, p.clicks from paid p
                      where p.match_type = a.match_type and p.id <> a.id and p.words && string_to_array(lower(a.text), ' ')
                      order by cardinality(array(select unnest(p.words) intersect select unnest(string_to_array(lower(a.text), ' ')))) desc, p.clicks desc limit 10
                    ) p on true
                    where a.account_id = @accountId and a.id = any(@keywords) group by a.id
                    """,
                    new
                    {
                        accountId,
                        keywords = keywords.ToArray(),
                        first = days.First,
                        last = days.Last,
                    },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Id, row => row.Price);
    }
}
