using System.Text.Json;
using Dapper;
using Fendrik.Core.Estimates;
using Fendrik.Core.Networks;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>An estimate as it was made.</summary>
/// <param name="KeywordId">The keyword.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="AskedOn">Day in the account's time zone.</param>
/// <param name="Bid">What the keyword bid then; none without a max CPC.</param>
/// <param name="Network">What the network said.</param>
/// <param name="Own">What Fendrik estimated at that bid; none where it had no estimate.</param>
public sealed record KeptEstimate(
    long KeywordId,
    long CampaignId,
    DateOnly AskedOn,
    decimal? Bid,
    NetworkEstimate Network,
    WeekEstimate? Own
);

/// <summary>An estimate beside the week that followed it.</summary>
/// <param name="KeywordId">The keyword.</param>
/// <param name="AskedOn">When it was made.</param>
/// <param name="NetworkClicks">Clicks by the network.</param>
/// <param name="OwnClicks">By Fendrik.</param>
/// <param name="CameClicks">As they came.</param>
/// <param name="FullClicks">As they would have come with budget enough, which estimates are made for.</param>
/// <param name="NetworkCost">Cost by the network.</param>
/// <param name="OwnCost">By Fendrik.</param>
/// <param name="CameCost">As it came.</param>
public sealed record ComparedEstimate(
    long KeywordId,
    DateOnly AskedOn,
    double? NetworkClicks,
    double? OwnClicks,
    double CameClicks,
    double FullClicks,
    double? NetworkCost,
    double? OwnCost,
    double CameCost
);

/// <summary>Keeps estimates, and holds them against what happened.</summary>
public sealed class EstimateBook(NpgsqlDataSource source)
{
    /// <summary>Estimates made within so many days are compared.</summary>
    private const int DaysCompared = 180;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Keeps estimates.</summary>
    public async Task KeepAsync(
        int accountId,
        IReadOnlyCollection<KeptEstimate> estimates,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into keyword_estimate (account_id, campaign_id, keyword_id, asked_on, bid, reason, weeks, first_page, top,
                  network_impressions, network_clicks, network_cost, own_impressions, own_clicks, own_cost)
                values (@accountId, @CampaignId, @KeywordId, @AskedOn, @Bid, @Reason, @Weeks::jsonb, @FirstPage, @Top,
                  @NetworkImpressions, @NetworkClicks, @NetworkCost, @OwnImpressions, @OwnClicks, @OwnCost)
                """,
                estimates.Select(each =>
                {
                    var at = each.Bid is { } bid ? Estimator.At(each.Network, bid) : null;
                    return new
                    {
                        accountId,
                        each.CampaignId,
                        each.KeywordId,
                        each.AskedOn,
                        each.Bid,
                        each.Network.Reason,
                        Weeks = JsonSerializer.Serialize(each.Network.Weeks, Json),
                        each.Network.FirstPage,
                        each.Network.Top,
                        NetworkImpressions = at?.Impressions,
                        NetworkClicks = at?.Clicks,
                        NetworkCost = (double?)at?.Cost,
                        OwnImpressions = each.Own?.Impressions.Likely,
                        OwnClicks = each.Own?.Clicks.Likely,
                        OwnCost = each.Own?.Cost.Likely,
                    };
                }),
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>What the network said last of keywords.</summary>
    public async Task<IReadOnlyDictionary<long, KeptEstimate>> LatestAsync(
        int accountId,
        IReadOnlyCollection<long> keywords,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                """
                select e.keyword_id, e.campaign_id, e.asked_on, e.bid, e.reason, e.weeks::text as weeks, e.first_page, e.top, k.text, k.match_type as match
                from unnest(@keywords) as asked(id)
                cross join lateral (select * from keyword_estimate where account_id = @accountId and keyword_id = asked.id order by id desc limit 1) e
                join keyword k on k.id = e.keyword_id
                """,
                new { accountId, keywords = keywords.ToArray() },
                cancellationToken: cancellation
            )
        );
        return rows.ToDictionary(
            row => row.KeywordId,
            row => new KeptEstimate(
                row.KeywordId,
                row.CampaignId,
                row.AskedOn,
                row.Bid,
                new NetworkEstimate(
                    row.Text,
                    row.Match,
                    row.KeywordId,
                    row.Reason,
                    JsonSerializer.Deserialize<List<EstimatedWeek>>(row.Weeks, Json)!,
                    row.FirstPage,
                    row.Top
                ),
                null
            )
        );
    }

    /// <summary>Estimates of the account beside the week that followed each, where the keyword bids what it bid then.</summary>
    public async Task<IReadOnlyList<ComparedEstimate>> ComparedAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<ComparedEstimate>(
                new CommandDefinition(
                    """
                    select e.keyword_id, e.asked_on, e.network_clicks, e.own_clicks, coalesce(p.clicks, 0)::float8 as came_clicks,
                      coalesce(p.clicks * (1 + s.missed / nullif(s.asked, 0)), p.clicks, 0)::float8 as full_clicks,
                      e.network_cost, e.own_cost, coalesce(p.cost, 0)::float8 as came_cost
                    from (
                      select distinct on (keyword_id, asked_on) * from keyword_estimate
                      where account_id = @accountId and bid is not null and asked_on > (select reported_to from account where id = @accountId) - @days
                        and asked_on + 6 <= (select reported_to from account where id = @accountId) order by keyword_id, asked_on, id desc
                    ) e
                    join keyword k on k.id = e.keyword_id and not k.removed and k.is_live join ad_group g on g.id = k.ad_group_id
                    left join lateral (select sum(clicks) as clicks, sum(cost) as cost from performance_day
                      where account_id = @accountId and keyword_id = e.keyword_id and day between e.asked_on and e.asked_on + 6) p on true
                    left join lateral (select sum(lost_to_budget)::float8 as missed, sum(impressions + lost_to_rank)::float8 as asked from standing_day
                      where account_id = @accountId and keyword_id = e.keyword_id and day between e.asked_on and e.asked_on + 6) s on true
                    where coalesce(k.max_cpc, g.max_cpc) = e.bid order by e.asked_on desc, e.keyword_id
                    """,
                    new { accountId, days = DaysCompared },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    private sealed record Row
    {
        public long KeywordId { get; init; }
        public long CampaignId { get; init; }
        public DateOnly AskedOn { get; init; }
        public decimal? Bid { get; init; }
        public string? Reason { get; init; }
        public string Weeks { get; init; } = "[]";
        public decimal? FirstPage { get; init; }
        public decimal? Top { get; init; }
        public string Text { get; init; } = "";
        public MatchType Match { get; init; }
    }
}
