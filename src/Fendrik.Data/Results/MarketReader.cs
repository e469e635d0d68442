using Dapper;
using Fendrik.Core.Auctions;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>A rival beside one's own ads.</summary>
/// <param name="Rival">Who.</param>
/// <param name="CoShowShare">Share of one's own impressions with which it showed: 0 to 1.</param>
/// <param name="AboveUsShare">Share of those in which it was above: 0 to 1.</param>
/// <param name="CoShowShareBefore">The same in the days compared with; none without impressions then.</param>
/// <param name="AboveUsShareBefore">Likewise.</param>
/// <param name="Since">The first day on which it showed at all.</param>
public sealed record RivalLine(
    string Rival,
    decimal CoShowShare,
    decimal AboveUsShare,
    decimal? CoShowShareBefore,
    decimal? AboveUsShareBefore,
    DateOnly Since
);

/// <summary>What a page of a content site or an audience brought.</summary>
/// <param name="Name">The page, or the audience.</param>
/// <param name="Now">In the days asked for.</param>
/// <param name="Before">In those compared with.</param>
public sealed record ReachedLine(string Name, Figures Now, Figures Before);

/// <summary>A quality score on a day.</summary>
public sealed record QualityDay(
    DateOnly Day,
    int Score,
    PartStanding ClickLikelihood,
    PartStanding TextFit,
    PartStanding PageFit
);

/// <summary>Reads what the network reports of the market: rivals and quality scores.</summary>
public sealed class MarketReader(NpgsqlDataSource source)
{
    private const int MostReached = 500;

    private const string Scope = """
        account_id = @accountId and (@CampaignId::bigint is null or campaign_id = @CampaignId)
          and (@AdGroupId::bigint is null or ad_group_id = @AdGroupId)
        """;

    /// <summary>The rivals that showed with one's ads, the most frequent first.</summary>
    public async Task<IReadOnlyList<RivalLine>> RivalsAsync(
        int accountId,
        ResultsRequest request,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var before = request.Before;
        var rows = await connection.QueryAsync<RivalRow>(
            new CommandDefinition(
                $"""
                with own as (
                  select sum(impressions) filter (where day between @First and @Last) as now,
                    sum(impressions) filter (where day between @BeforeFirst and @BeforeLast) as before
                  from standing_day where {Scope} and (day between @First and @Last or day between @BeforeFirst and @BeforeLast)
                )
                select rival, coalesce(sum(shown_with) filter (where day between @First and @Last), 0) as shown,
                  coalesce(sum(above_us) filter (where day between @First and @Last), 0) as above,
                  coalesce(sum(shown_with) filter (where day between @BeforeFirst and @BeforeLast), 0) as shown_before,
                  coalesce(sum(above_us) filter (where day between @BeforeFirst and @BeforeLast), 0) as above_before,
                  min(day) as since, (select now from own) as own, (select before from own) as own_before
                from rival_day where {Scope} and day <= @Last group by rival
                order by 2 desc, rival
                """,
                new
                {
                    accountId,
                    request.CampaignId,
                    request.AdGroupId,
                    request.Period.First,
                    request.Period.Last,
                    BeforeFirst = before.First,
                    BeforeLast = before.Last,
                },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Where(row => row.Shown > 0)
                .Select(row => new RivalLine(
                    row.Rival,
                    row.Own > 0 ? row.Shown / row.Own.Value : 0,
                    row.Above / row.Shown,
                    row.OwnBefore > 0 ? row.ShownBefore / row.OwnBefore.Value : null,
                    row.ShownBefore > 0 ? row.AboveBefore / row.ShownBefore : null,
                    row.Since
                )),
        ];
    }

    /// <summary>What pages of content sites or audiences brought, the most expensive first.</summary>
    public async Task<IReadOnlyList<ReachedLine>> ReachedAsync(
        int accountId,
        ReachedBy by,
        ResultsRequest request,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var before = request.Before;
        const string now = "day between @First and @Last";
        const string then = "day between @BeforeFirst and @BeforeLast";
        static string Sums(string days, string ending) =>
            string.Join(
                ", ",
                new[] { "impressions", "clicks", "cost", "conversions", "value" }.Select(figure =>
                    $"coalesce(sum({figure}) filter (where {days}), 0){(figure is "impressions" or "clicks" ? "::bigint" : "")} as {figure}{ending}"
                )
            );
        var rows = await connection.QueryAsync<ReachedSums>(
            new CommandDefinition(
                $"""
                select name, {Sums(now, "")}, {Sums(then, "_before")}
                from reached_day where {Scope} and reached_by = @by and ({now} or {then}) group by name
                order by sum(cost) filter (where {now}) desc nulls last, name limit {MostReached}
                """,
                new
                {
                    accountId,
                    by = (short)by,
                    request.CampaignId,
                    request.AdGroupId,
                    request.Period.First,
                    request.Period.Last,
                    BeforeFirst = before.First,
                    BeforeLast = before.Last,
                },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new ReachedLine(
                row.Name,
                new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value),
                new Figures(
                    row.ImpressionsBefore,
                    row.ClicksBefore,
                    row.CostBefore,
                    row.ConversionsBefore,
                    row.ValueBefore
                )
            )),
        ];
    }

    /// <summary>Quality scores of keywords: the last before or on the first day, and each that came after it.</summary>
    public async Task<IReadOnlyDictionary<long, IReadOnlyList<QualityDay>>> QualitiesAsync(
        int accountId,
        IReadOnlyCollection<long> keywords,
        Period days,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<QualityRow>(
            new CommandDefinition(
                """
                select q.keyword_id, q.day, q.score::int as score, q.click_likelihood::int as click, q.text_fit::int as text, q.page_fit::int as page
                from unnest(@ids) as k(id)
                cross join lateral (
                  (select * from quality_day where account_id = @accountId and keyword_id = k.id and day <= @First order by day desc limit 1)
                  union all
                  (select * from quality_day where account_id = @accountId and keyword_id = k.id and day > @First and day <= @Last)
                ) q order by q.keyword_id, q.day
                """,
                new
                {
                    accountId,
                    ids = keywords.ToArray(),
                    days.First,
                    days.Last,
                },
                cancellationToken: cancellation
            )
        );
        return rows.GroupBy(row => row.KeywordId)
            .ToDictionary(
                same => same.Key,
                same =>
                    (IReadOnlyList<QualityDay>)
                        [
                            .. same.Select(row => new QualityDay(
                                row.Day,
                                row.Score,
                                (PartStanding)row.Click,
                                (PartStanding)row.Text,
                                (PartStanding)row.Page
                            )),
                        ]
            );
    }

    private sealed record RivalRow
    {
        public string Rival { get; init; } = "";
        public decimal Shown { get; init; }
        public decimal Above { get; init; }
        public decimal ShownBefore { get; init; }
        public decimal AboveBefore { get; init; }
        public DateOnly Since { get; init; }
        public decimal? Own { get; init; }
        public decimal? OwnBefore { get; init; }
    }

    private sealed record QualityRow
    {
        public long KeywordId { get; init; }
        public DateOnly Day { get; init; }
        public int Score { get; init; }
        public int Click { get; init; }
        public int Text { get; init; }
        public int Page { get; init; }
    }

    private sealed record ReachedSums
    {
        public required string Name { get; init; }
        public long Impressions { get; init; }
        public long Clicks { get; init; }
        public decimal Cost { get; init; }
        public decimal Conversions { get; init; }
        public decimal Value { get; init; }
        public long ImpressionsBefore { get; init; }
        public long ClicksBefore { get; init; }
        public decimal CostBefore { get; init; }
        public decimal ConversionsBefore { get; init; }
        public decimal ValueBefore { get; init; }
    }
}
