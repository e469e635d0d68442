using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>Reads windows of the sheet. The cost of a window does not grow with the account but for counting.</summary>
public sealed class SheetReader(NpgsqlDataSource source)
{
    /// <summary>Most rows in one window.</summary>
    public const int LargestWindow = 500;

    /// <summary>Days whose figures stand beside the rows.</summary>
    private const int FigureDays = 28;

    public async Task<SheetPage> ReadAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        request = request with
        {
            Limit = Math.Clamp(request.Limit, 1, LargestWindow),
            Offset = Math.Max(0, request.Offset),
        };
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (total, rows, counts) =
            request.View == SheetView.Outline
                ? await new Outline(connection, accountId, request).ReadAsync()
                : await FlatAsync(connection, accountId, request);
        await AddNeedsAsync(connection, accountId, rows);
        await AddFiguresAsync(connection, accountId, rows);
        return new SheetPage(total, rows, counts);
    }

    private static async Task<(long, List<SheetRow>, SheetCounts)> FlatAsync(
        NpgsqlConnection connection,
        int accountId,
        SheetRequest request
    )
    {
        var kind = (ItemKind)request.View;
        var (columns, from) = SheetSql.RowOf(kind);
        var where = SheetSql.Where(request, kind);
        var parameters = SheetSql.Parameters(request, accountId);

        // Sorted by identity alone, so that the sort carries nothing but its key; the columns come for the page only.
        var ids = (
            await connection.QueryAsync<long>(
                $"select i.id from {SheetSql.SortedFrom(request, kind)} where {where} order by {SheetSql.OrderBy(request, kind)} offset @offset limit @limit",
                parameters
            )
        ).ToArray();
        var found = await connection.QueryAsync<SheetRow>(
            $"select {columns} from {from} where i.id = any(@ids)",
            new { ids }
        );
        var byId = found.ToDictionary(row => row.Id);
        var rows = ids.Where(byId.ContainsKey).Select(id => byId[id]).ToList();
        var total = await connection.ExecuteScalarAsync<long>(
            $"select count(*) from {Steps.ItemTable.Of(kind).Name} i where {where}",
            parameters
        );
        long Of(ItemKind each) => each == kind ? total : 0;
        return (
            total,
            rows,
            new SheetCounts(
                Of(ItemKind.Campaign),
                Of(ItemKind.AdGroup),
                Of(ItemKind.Keyword),
                Of(ItemKind.NegativeKeyword),
                Of(ItemKind.TextAd)
            )
        );
    }

    private static async Task AddNeedsAsync(NpgsqlConnection connection, int accountId, List<SheetRow> rows)
    {
        var findings = await connection.QueryAsync<(
            short Kind,
            long ItemId,
            short Weight,
            string Message,
            string Detail,
            string? Field
        )>(
            """
            select f.kind, f.item_id, f.weight, f.message, f.detail, f.field
            from unnest(@kinds, @ids) as r(kind, id) join finding f on f.account_id = @accountId and f.kind = r.kind and f.item_id = r.id
            order by f.weight desc, f.id
            """,
            new
            {
                accountId,
                kinds = rows.Select(row => (short)row.Kind).ToArray(),
                ids = rows.Select(row => row.Id).ToArray(),
            }
        );
        var needs = findings.ToLookup(finding => ((ItemKind)finding.Kind, finding.ItemId));
        foreach (var row in rows)
        {
            row.Needs =
            [
                .. needs[(row.Kind, row.Id)]
                    .Select(need => new RowNeed((Weight)need.Weight, need.Message, need.Detail, need.Field)),
            ];
        }
    }

    private static async Task AddFiguresAsync(NpgsqlConnection connection, int accountId, List<SheetRow> rows)
    {
        foreach (
            var (kind, column) in new[]
            {
                (ItemKind.Campaign, "campaign_id"),
                (ItemKind.AdGroup, "ad_group_id"),
                (ItemKind.Keyword, "keyword_id"),
                (ItemKind.TextAd, "ad_id"),
            }
        )
        {
            var mine = rows.Where(row => row.Kind == kind).ToDictionary(row => row.Id);
            if (mine.Count == 0)
            {
                continue;
            }

            var figures = await connection.QueryAsync<(
                long Id,
                long Impressions,
                long Clicks,
                decimal Cost,
                decimal Conversions
            )>(
                $"""
                select {column}, sum(impressions)::bigint, sum(clicks)::bigint, sum(cost), sum(conversions) from performance_day
                where account_id = @accountId and {column} = any(@ids)
                  and day > (select reported_to from account where id = @accountId) - {FigureDays}
                group by {column}
                """,
                new { accountId, ids = mine.Keys.ToArray() }
            );
            foreach (var figure in figures)
            {
                var row = mine[figure.Id];
                (row.Impressions, row.Clicks, row.Cost, row.Conversions) = (
                    figure.Impressions,
                    figure.Clicks,
                    figure.Cost,
                    figure.Conversions
                );
                row.CostPerConversion = figure.Conversions == 0 ? null : figure.Cost / figure.Conversions;
            }
        }
    }
}
