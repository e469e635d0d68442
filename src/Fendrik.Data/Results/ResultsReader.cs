using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What results are asked for.</summary>
/// <param name="Period">The days.</param>
/// <param name="Level">Campaigns, ad groups, keywords or ads.</param>
/// <param name="CampaignId">Only within this campaign.</param>
/// <param name="AdGroupId">Only within this ad group.</param>
public sealed record ResultsRequest(Period Period, ItemKind Level, long? CampaignId, long? AdGroupId);

/// <summary>One line of results with the period before.</summary>
public sealed record ResultsLine(
    long Id,
    string Name,
    MatchType? Match,
    string Campaign,
    long CampaignId,
    string? AdGroup,
    long? AdGroupId,
    bool Removed,
    Figures Now,
    Figures Before
);

/// <summary>One day of the chart.</summary>
public sealed record ResultsDay(DateOnly Day, Figures Figures);

/// <summary>Results of a period beside the period before it.</summary>
public sealed record ResultsReport(
    Figures Now,
    Figures Before,
    IReadOnlyList<ResultsDay> Days,
    IReadOnlyList<ResultsDay> DaysBefore,
    IReadOnlyList<ResultsLine> Lines,
    bool More
);

/// <summary>Reads results from the daily roll-up.</summary>
public sealed class ResultsReader(NpgsqlDataSource source)
{
    private const string Sums =
        "sum(p.impressions)::bigint as impressions, sum(p.clicks)::bigint as clicks, sum(p.cost) as cost, sum(p.conversions) as conversions, sum(p.value) as value";

    private const string Scope = """
        p.account_id = @accountId and (@CampaignId::bigint is null or p.campaign_id = @CampaignId)
          and (@AdGroupId::bigint is null or p.ad_group_id = @AdGroupId)
        """;

    public async Task<ResultsReport> ReadAsync(
        int accountId,
        ResultsRequest request,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var days = await DaysAsync(connection, accountId, request, request.Period, cancellation);
        var before = await DaysAsync(connection, accountId, request, request.Period.Before, cancellation);
        var lines = await LinesAsync(connection, accountId, request, most + 1, cancellation);
        return new ResultsReport(Total(days), Total(before), days, before, [.. lines.Take(most)], lines.Count > most);
    }

    private static Figures Total(IEnumerable<ResultsDay> days) =>
        days.Aggregate(Figures.Zero, (sum, day) => sum + day.Figures);

    private static async Task<List<ResultsDay>> DaysAsync(
        NpgsqlConnection connection,
        int accountId,
        ResultsRequest request,
        Period period,
        CancellationToken cancellation
    )
    {
        var rows = await connection.QueryAsync<(
            DateOnly Day,
            long Impressions,
            long Clicks,
            decimal Cost,
            decimal Conversions,
            decimal Value
        )>(
            new CommandDefinition(
                $"""
                select d::date, coalesce(s.impressions, 0), coalesce(s.clicks, 0), coalesce(s.cost, 0), coalesce(s.conversions, 0), coalesce(s.value, 0)
                from generate_series(@First::date, @Last::date, '1 day') d
                left join (select p.day, {Sums} from performance_day p where {Scope} and p.day between @First and @Last group by p.day) s on s.day = d::date
                order by d
                """,
                new
                {
                    accountId,
                    request.CampaignId,
                    request.AdGroupId,
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
                new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value)
            )),
        ];
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
        var match = table.Type.Find("match") is { } field ? $"i.{field.Column}" : "null::smallint";
        string Both(string figure) =>
            $"coalesce(sum(p.{figure}) filter (where p.day >= @First), 0) as {figure}, coalesce(sum(p.{figure}) filter (where p.day < @First), 0) as {figure}_before";
        var before = request.Period.Before;
        var rows = await connection.QueryAsync<LineRow>(
            new CommandDefinition(
                $"""
            select s.*, {table.NameColumn} as name, {match} as match, {ItemNames.Of(table)}, i.removed
            from {SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign)} join (
              select p.{table.Type.FigureColumn} as id, {string.Join(
                ", ",
                new[] { "impressions", "clicks", "cost", "conversions", "value" }.Select(Both)
            )}
              from performance_day p where {Scope} and p.day between @BeforeFirst and @Last group by p.{table.Type.FigureColumn}
            ) s on s.id = i.id
            order by s.cost desc, s.cost_before desc, s.id limit @most
            """,
                new
                {
                    accountId,
                    request.CampaignId,
                    request.AdGroupId,
                    request.Period.First,
                    request.Period.Last,
                    BeforeFirst = before.First,
                    most,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => row.ToLine())];
    }

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

        public ResultsLine ToLine() =>
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
                new Figures((long)ImpressionsBefore, (long)ClicksBefore, CostBefore, ConversionsBefore, ValueBefore)
            );
    }
}
