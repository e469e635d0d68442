using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results.Sums;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>Reads results from the daily roll-up.</summary>
public sealed class ResultsReader(NpgsqlDataSource source)
{
    private const string Sums =
        "sum(p.impressions)::bigint as impressions, sum(p.clicks)::bigint as clicks, sum(p.cost) as cost, sum(p.conversions) as conversions, sum(p.value) as value";

    private const string StandingSums =
        "sum(p.impressions)::bigint as impressions, sum(p.top)::bigint as top, sum(p.first)::bigint as first, sum(p.places)::bigint as places, sum(p.lost_to_rank)::bigint as lost_to_rank, sum(p.lost_to_budget)::bigint as lost_to_budget";

    public async Task<ResultsReport> ReadAsync(
        int accountId,
        ResultsRequest request,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var days = await DaysAsync(connection, accountId, request, request.Period, cancellation);
        var before = await DaysAsync(connection, accountId, request, request.Before, cancellation);
        var lines = await LinesAsync(connection, accountId, request, most + 1, cancellation);
        if (request.Level == ItemKind.Campaign && lines.Count <= most)
        {
            lines.AddRange(
                await SilentAsync(connection, accountId, request, lines, most + 1 - lines.Count, cancellation)
            );
        }

        var books = new BookedReader(connection, accountId, request, cancellation);
        (days, before) = await books.OnDaysAsync(days, before);
        lines = await books.OnLinesAsync(lines);
        return new ResultsReport(
            Total(days),
            Total(before),
            StoodIn(days),
            StoodIn(before),
            days,
            before,
            [.. lines.Take(most)],
            lines.Count > most
        );
    }

    private static Figures Total(IEnumerable<ResultsDay> days) =>
        days.Aggregate(Figures.Zero, (sum, day) => sum + day.Figures);

    private static Standing StoodIn(IEnumerable<ResultsDay> days) =>
        days.Aggregate(Standing.Zero, (sum, day) => sum + day.Standing);

    private static async Task<List<ResultsDay>> DaysAsync(
        NpgsqlConnection connection,
        int accountId,
        ResultsRequest request,
        Period period,
        CancellationToken cancellation
    )
    {
        var of = ResultsSums.ForDays(request);
        var rows = await connection.QueryAsync<DayRow>(
            new CommandDefinition(
                $"""
                select d::date as day, coalesce(s.impressions, 0) as impressions, coalesce(s.clicks, 0) as clicks, coalesce(s.cost, 0) as cost,
                  coalesce(s.conversions, 0) as conversions, coalesce(s.value, 0) as value, coalesce(t.impressions, 0) as stood, coalesce(t.top, 0) as top,
                  coalesce(t.first, 0) as first, coalesce(t.places, 0) as places, coalesce(t.lost_to_rank, 0) as lost_to_rank,
                  coalesce(t.lost_to_budget, 0) as lost_to_budget
                from generate_series(@First::date, @Last::date, '1 day') d
                left join (select p.day, {Sums} from {ResultsSums.Brought(of)} p where {ResultsSums.Within(
                    request,
                    of,
                    stands: false
                )} and p.day between @First and @Last group by p.day) s on s.day = d::date
                left join (select p.day, {StandingSums} from {ResultsSums.Stood(of)} p where {ResultsSums.Within(
                    request,
                    of,
                    stands: true
                )} and p.day between @First and @Last group by p.day) t on t.day = d::date
                order by d
                """,
                new
                {
                    accountId,
                    request.CampaignId,
                    request.AdGroupId,
                    campaigns = request.Campaigns?.ToArray(),
                    items = request.Items?.ToArray(),
                    period.First,
                    period.Last,
                },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new ResultsDay(
                row.Day,
                new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value),
                new Standing(row.Stood, row.Top, row.First, row.Places, row.LostToRank, row.LostToBudget),
                null
            )),
        ];
    }

    private sealed record DayRow
    {
        public DateOnly Day { get; init; }
        public long Impressions { get; init; }
        public long Clicks { get; init; }
        public decimal Cost { get; init; }
        public decimal Conversions { get; init; }
        public decimal Value { get; init; }
        public long Stood { get; init; }
        public long Top { get; init; }
        public long First { get; init; }
        public long Places { get; init; }
        public long LostToRank { get; init; }
        public long LostToBudget { get; init; }
    }

    /// <summary>
    /// The dearest keywords, by sums that are kept until the next report; none where all of them are listed, or only some are looked at. Of half a million the
    /// others need not be added up. Those that cost nothing are not told apart by it: what they cost before would be.
    /// </summary>
    private static async Task<long[]?> DearestAsync(
        NpgsqlConnection connection,
        int accountId,
        ResultsRequest request,
        int most,
        CancellationToken cancellation
    )
    {
        if (request is not { Level: ItemKind.Keyword, CampaignId: null, AdGroupId: null, Campaigns: null, Items: null })
        {
            return null;
        }

        var period = await SheetFigures.KeptAsync(
            connection,
            accountId,
            ItemTable.Of(ItemKind.Keyword),
            request.Period,
            cancellation
        );
        var dearest = (
            await connection.QueryAsync<long>(
                new CommandDefinition(
                    """
                    select f.item_id from figure_sum f where f.period_id = @period and f.cost > 0 and exists (select from keyword k where k.id = f.item_id and k.account_id = @accountId)
                    order by f.cost desc, f.item_id limit @most
                    """,
                    new
                    {
                        accountId,
                        period,
                        most,
                    },
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        return dearest.Length < most ? null : dearest;
    }

    private static async Task<List<ResultsLine>> LinesAsync(
        NpgsqlConnection connection,
        int accountId,
        ResultsRequest request,
        int most,
        CancellationToken cancellation
    )
    {
        var table = ItemTable.Of(request.Level);
        var dearest = await DearestAsync(connection, accountId, request, most, cancellation);
        var match = table.Type.Find("match") is { } field ? $"i.{field.Column}" : "null::smallint";
        var parameters = request.Parameters(accountId);
        var sums = new ItemSums(request, table, dearest is not null, parameters);
        // What an ad brings is known; where it stood is its keyword's.
        var stands = table.Type is not AdType;
        var stood = stands
            ? $"""
                full join (
                  {sums.Sql(
                    "stood_id",
                    stands: true,
                    ("impressions", "stood"),
                    ("top", "top"),
                    ("first", "first"),
                    ("places", "places"),
                    ("lost_to_rank", "lost_to_rank"),
                    ("lost_to_budget", "lost_to_budget")
                )}
                ) t on t.stood_id = f.figure_id
                """
            : "";
        parameters.Add("most", most);
        parameters.Add("dearest", dearest);
        var rows = await connection.QueryAsync<LineRow>(
            new CommandDefinition(
                $"""
                select s.*, {table.NameColumn} as name, {match} as match, {ItemNames.Of(table)}, i.removed
                from {SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign)} join (
                  select {(stands ? "coalesce(f.figure_id, t.stood_id)" : "f.figure_id")} as id, * from (
                    {sums.Sql(
                    "figure_id",
                    stands: false,
                    ("impressions", "impressions"),
                    ("clicks", "clicks"),
                    ("cost", "cost"),
                    ("conversions", "conversions"),
                    ("value", "value")
                )}
                  ) f {stood}
                ) s on s.id = i.id
                order by s.cost desc nulls last, s.cost_before desc nulls last, s.id limit @most
                """,
                parameters,
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => row.ToLine(stands))];
    }

    /// <summary>Campaigns that brought nothing: they are campaigns all the same.</summary>
    private static async Task<IEnumerable<ResultsLine>> SilentAsync(
        NpgsqlConnection connection,
        int accountId,
        ResultsRequest request,
        IReadOnlyCollection<ResultsLine> lines,
        int most,
        CancellationToken cancellation
    ) =>
        (
            await connection.QueryAsync<(long Id, string Name)>(
                new CommandDefinition(
                    """
                    select id, name from campaign where account_id = @accountId and not removed and id <> all(@known)
                      and (@CampaignId::bigint is null or id = @CampaignId) and @AdGroupId::bigint is null and (@campaigns::bigint[] is null or id = any(@campaigns)) and (@items::bigint[] is null or id = any(@items))
                    order by name, id limit @most
                    """,
                    new
                    {
                        accountId,
                        known = lines.Select(line => line.Id).ToArray(),
                        request.CampaignId,
                        request.AdGroupId,
                        campaigns = request.Campaigns?.ToArray(),
                        items = request.Items?.ToArray(),
                        most,
                    },
                    cancellationToken: cancellation
                )
            )
        ).Select(row => new ResultsLine(
            row.Id,
            row.Name,
            null,
            row.Name,
            row.Id,
            null,
            null,
            false,
            Figures.Zero,
            Figures.Zero,
            Standing.Zero,
            Standing.Zero
        ));

    private sealed record LineRow
    {
        public long Id { get; init; }
        public string Name { get; init; } = "";
        public MatchType? Match { get; init; }
        public string Campaign { get; init; } = "";
        public long CampaignId { get; init; }
        public string? AdGroup { get; init; }
        public long? AdGroupId { get; init; }
        public bool Removed { get; init; }
        public decimal Impressions { get; init; }
        public decimal Clicks { get; init; }
        public decimal Cost { get; init; }
        public decimal Conversions { get; init; }
        public decimal Value { get; init; }
        public decimal ImpressionsBefore { get; init; }
        public decimal ClicksBefore { get; init; }
        public decimal CostBefore { get; init; }
        public decimal ConversionsBefore { get; init; }
        public decimal ValueBefore { get; init; }
        public decimal Stood { get; init; }
        public decimal StoodBefore { get; init; }
        public decimal Top { get; init; }
        public decimal TopBefore { get; init; }
        public decimal First { get; init; }
        public decimal FirstBefore { get; init; }
        public decimal Places { get; init; }
        public decimal PlacesBefore { get; init; }
        public decimal LostToRank { get; init; }
        public decimal LostToRankBefore { get; init; }
        public decimal LostToBudget { get; init; }
        public decimal LostToBudgetBefore { get; init; }

        public ResultsLine ToLine(bool stands) =>
            new(
                Id,
                Name,
                Match,
                Campaign,
                CampaignId,
                AdGroup,
                AdGroupId,
                Removed,
                new Figures((long)Impressions, (long)Clicks, Cost, Conversions, Value),
                new Figures((long)ImpressionsBefore, (long)ClicksBefore, CostBefore, ConversionsBefore, ValueBefore),
                stands
                    ? new Standing(
                        (long)Stood,
                        (long)Top,
                        (long)First,
                        (long)Places,
                        (long)LostToRank,
                        (long)LostToBudget
                    )
                    : null,
                stands
                    ? new Standing(
                        (long)StoodBefore,
                        (long)TopBefore,
                        (long)FirstBefore,
                        (long)PlacesBefore,
                        (long)LostToRankBefore,
                        (long)LostToBudgetBefore
                    )
                    : null
            );
    }
}
