using CsCheck;
using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Sheets;

namespace Fendrik.Data.Tests;

/// <summary>What lists are sorted and filtered by is what is shown beside the rows.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class FigureFormulaTests(WorkingCopyFixture fixture)
{
    private static readonly Gen<long> Counts = Gen.OneOf(Gen.Const(0L), Gen.Long[1, 3_000_000]);
    private static readonly Gen<decimal> Amounts = Gen.OneOf(Gen.Const(0L), Gen.Long[1, 900_000_000])
        .Select(thousandths => thousandths / 1_000m);

    public static TheoryData<string> Names =>
        ["impressions", "clicks", "ctr", "cost", "cpc", "conversions", "conversionRate", "costPerConversion", "value"];

    private static decimal? Of(string name, Figures figures) =>
        name switch
        {
            "impressions" => figures.Impressions,
            "clicks" => figures.Clicks,
            "ctr" => figures.ClickThroughRate,
            "cost" => figures.Cost,
            "cpc" => figures.AverageCpc,
            "conversions" => figures.Conversions,
            "conversionRate" => figures.ConversionRate,
            "costPerConversion" => figures.CostPerConversion,
            "value" => figures.Value,
            _ => throw new ArgumentException(name, nameof(name)),
        };

    [Theory]
    [MemberData(nameof(Names))]
    public async Task A_figure_in_the_database_is_the_figure_in_Core(string name)
    {
        Figures[] rows =
        [
            .. Enumerable
                .Range(0, 500)
                .Select(_ => new Figures(
                    Counts.Single(),
                    Counts.Single(),
                    Amounts.Single(),
                    Amounts.Single(),
                    Amounts.Single()
                )),
        ];
        await using var connection = await fixture.Source.OpenConnectionAsync();

        var found = await connection.QueryAsync<decimal?>(
            $"""
            select ({SheetFields.Find(name)!.Sql(ItemTable.Of(ItemKind.Keyword))})::numeric(30, 8)
            from unnest(@impressions, @clicks, @cost, @conversions, @value) with ordinality as f(impressions, clicks, cost, conversions, value, place) order by place
            """,
            new
            {
                impressions = rows.Select(row => row.Impressions).ToArray(),
                clicks = rows.Select(row => row.Clicks).ToArray(),
                cost = rows.Select(row => row.Cost).ToArray(),
                conversions = rows.Select(row => row.Conversions).ToArray(),
                value = rows.Select(row => row.Value).ToArray(),
            }
        );

        found.ShouldBe(
            rows.Select(row =>
                Of(name, row) is { } figure ? Math.Round(figure, 8, MidpointRounding.AwayFromZero) : (decimal?)null
            )
        );
    }
}
