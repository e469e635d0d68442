using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>Figures of several items together. A click on a keyword that is selected with its campaign counts once.</summary>
public sealed record SheetTotals(long Items, Figures Figures)
{
    internal static async Task<SheetTotals> OfFilterAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        SheetRequest request
    )
    {
        var parts = SheetSql
            .TablesOf(request)
            .Select(table =>
                $"select {table.Number}::smallint as kind, i.id from {SheetSql.From(request, table)} where {SheetSql.Where(request, table)}"
            );
        return await SumAsync(connection, string.Join(" union all ", parts), SheetSql.Parameters(request, ground));
    }

    internal static Task<SheetTotals> OfItemsAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        IReadOnlyList<ItemReference> items
    )
    {
        var parameters = SheetSql.Parameters(new SheetRequest(), ground);
        parameters.Add("kinds", items.Select(item => (short)item.Kind).ToArray());
        parameters.Add("ids", items.Select(item => item.Id).ToArray());
        return SumAsync(connection, "select * from unnest(@kinds, @ids) as s(kind, id)", parameters);
    }

    private static async Task<SheetTotals> SumAsync(
        NpgsqlConnection connection,
        string chosen,
        DynamicParameters parameters
    )
    {
        var counted = ItemTable
            .All.Where(table => table.Type.FigureColumn is not null)
            .Select(table => $"p.{table.Type.FigureColumn} in (select id from chosen where kind = {table.Number})");
        var (items, impressions, clicks, cost, conversions, value) = await connection.QuerySingleAsync<(
            long,
            long,
            long,
            decimal,
            decimal,
            decimal
        )>(
            $"""
            with chosen as materialized ({chosen})
            select (select count(*) from chosen), coalesce(sum(impressions), 0)::bigint, coalesce(sum(clicks), 0)::bigint, coalesce(sum(cost), 0),
              coalesce(sum(conversions), 0), coalesce(sum(value), 0)
            from performance_day p where p.account_id = @account and p.day between @figuresFrom and @figuresTo and ({string.Join(
                " or ",
                counted
            )})
            """,
            parameters
        );
        return new SheetTotals(items, new Figures(impressions, clicks, cost, conversions, value));
    }
}
