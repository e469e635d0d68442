using System.Text.Json;
using Dapper;
using Fendrik.Core.Checks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>What a reading of the sheet rests on: the account at one revision.</summary>
internal sealed record SheetGround(int AccountId, long Revision, FigurePeriod Figures);

/// <summary>
/// Reads windows of the sheet. The first rows come straight from the database; for rows further down, the order of all
/// is found once for each revision of the account, so that any place of it is as near as the first.
/// </summary>
public sealed class SheetReader(NpgsqlDataSource source) : IDisposable
{
    /// <summary>Most rows in one window.</summary>
    public const int LargestWindow = 500;

    /// <summary>Most days whose figures can stand beside the rows.</summary>
    private const int MostFigureDays = 800;

    /// <summary>Rows from the top that are read without finding the whole order.</summary>
    private const int NearTheTop = 1_000;

    private readonly SheetOrders _orders = new();

    public async Task<SheetPage> ReadAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        request = request with
        {
            Limit = Math.Clamp(request.Limit, 1, LargestWindow),
            Offset = Math.Max(0, request.Offset),
        };
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var ground = await GroundAsync(connection, accountId, request);
        return await SearchLimit.RunAsync(
            connection,
            request,
            async () =>
            {
                var (total, rows, counts) = request.Kind is null
                    ? await new Outline(connection, ground, request).ReadAsync(MemoryOf(ground, request))
                    : await FlatAsync(connection, ground, request);
                await AddNeedsAsync(connection, accountId, rows);
                await AddFiguresAsync(connection, ground, rows);
                await AddRemovalsAsync(connection, accountId, rows);
                return new SheetPage(total, rows, counts);
            }
        );
    }

    /// <summary>Sums for all that a filter lets through.</summary>
    public async Task<SheetTotals> TotalsAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var ground = await GroundAsync(connection, accountId, request);
        return await SearchLimit.RunAsync(
            connection,
            request,
            () =>
                KeptAsync(
                    ground,
                    request with
                    {
                        Sort = null,
                    },
                    "totals",
                    _ => 200,
                    () => SheetTotals.OfFilterAsync(connection, ground, request)
                )
        );
    }

    /// <summary>Sums for chosen items.</summary>
    public async Task<SheetTotals> TotalsAsync(
        int accountId,
        IReadOnlyList<ItemReference> items,
        SheetRequest period,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var ground = await GroundAsync(connection, accountId, period);
        return await SheetTotals.OfItemsAsync(connection, ground, items);
    }

    /// <summary>The place of an item in the sheet, or none where the filter hides it.</summary>
    public async Task<long?> PlaceAsync(
        int accountId,
        SheetRequest request,
        ItemReference item,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var ground = await GroundAsync(connection, accountId, request);
        return await SearchLimit.RunAsync(
            connection,
            request,
            async () =>
            {
                if (request.Kind is null)
                {
                    return await new Outline(connection, ground, request).PlaceAsync(item, MemoryOf(ground, request));
                }

                if (item.Kind != request.Kind)
                {
                    return null;
                }

                var place = Array.IndexOf(
                    await OrderAsync(connection, ground, request, ItemTable.Of(item.Kind)),
                    item.Id
                );
                return place < 0 ? (long?)null : place;
            }
        );
    }

    public void Dispose() => _orders.Dispose();

    internal static async Task<SheetGround> GroundAsync(
        NpgsqlConnection connection,
        int accountId,
        SheetRequest request
    )
    {
        var (revision, reportedTo) = await connection.QuerySingleAsync<(long, DateOnly?)>(
            "select revision, reported_to from account where id = @accountId",
            new { accountId }
        );
        var to = request.FiguresTo ?? reportedTo ?? DateOnly.MinValue;
        var days = Math.Clamp(request.FigureDays, 1, MostFigureDays);
        var from = request.FiguresFrom ?? (to.DayNumber < days ? to : to.AddDays(1 - days));
        return new SheetGround(accountId, revision, new FigurePeriod(from, to));
    }

    private OutlineMemory MemoryOf(SheetGround ground, SheetRequest request) =>
        new(
            find => KeptAsync(ground, WithoutFolds(request), "outline", counts => counts.Size, find),
            find => KeptAsync(ground, request, "layout", layout => layout.Size, find)
        );

    private static SheetRequest WithoutFolds(SheetRequest request) =>
        request with
        {
            FoldedCampaigns = [],
            FoldedAdGroups = [],
        };

    private Task<T> KeptAsync<T>(
        SheetGround ground,
        SheetRequest request,
        string question,
        Func<T, long> size,
        Func<Task<T>> find
    )
        where T : notnull
    {
        // Findings come and go without a revision: what rests on them is found each time.
        if (request.Needs || request.Conditions.Any(condition => condition.Field == "need"))
        {
            return find();
        }

        var asked = request with { Offset = 0, Limit = 0 };
        return _orders.GetAsync((ground, question, JsonSerializer.Serialize(asked)), size, find);
    }

    private Task<long[]> OrderAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        SheetRequest request,
        ItemTable table
    ) =>
        KeptAsync(
            ground,
            request,
            "order",
            ids => ids.Length * 8L,
            async () =>
            {
                // A million numbers with their keys are sorted in memory, not on disk.
                await connection.ExecuteAsync("set work_mem = '192MB'");
                try
                {
                    return (
                        await connection.QueryAsync<long>(
                            $"select i.id from {SheetSql.From(request, table, sorted: true)} where {SheetSql.Where(request, table)} order by {SheetSql.OrderBy(request, table)}",
                            SheetSql.Parameters(request, ground.AccountId, ground.Figures)
                        )
                    ).ToArray();
                }
                finally
                {
                    await connection.ExecuteAsync("reset work_mem");
                }
            }
        );

    private async Task<(long, List<SheetRow>, IReadOnlyList<KindCount>)> FlatAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        SheetRequest request
    )
    {
        var table = ItemTable.Of(request.Kind!.Value);
        var parameters = SheetSql.Parameters(request, ground.AccountId, ground.Figures);
        long[] ids;
        if (request.Offset + request.Limit <= NearTheTop)
        {
            // Sorted by identity alone, so that the sort carries nothing but its key; the columns come for the page only.
            ids =
            [
                .. await connection.QueryAsync<long>(
                    $"select i.id from {SheetSql.From(request, table, sorted: true)} where {SheetSql.Where(request, table)} order by {SheetSql.OrderBy(request, table)} offset @offset limit @limit",
                    parameters
                ),
            ];
        }
        else
        {
            var order = await OrderAsync(connection, ground, request, table);
            ids = [.. order.Skip(request.Offset).Take(request.Limit)];
        }

        var found = await SheetRows.ReadAsync(
            connection,
            table,
            $"select {SheetRows.ColumnsOf(table)} from {SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign)} where i.id = any(@ids)",
            new { ids }
        );
        var byId = found.ToDictionary(each => each.Row.Id, each => each.Row);
        var rows = ids.Where(byId.ContainsKey).Select(id => byId[id]).ToList();
        var total = await KeptAsync(
            ground,
            request with
            {
                Sort = null,
                Descending = false,
            },
            "count",
            _ => 100,
            () =>
                connection.ExecuteScalarAsync<long>(
                    $"select count(*) from {SheetSql.From(request, table)} where {SheetSql.Where(request, table)}",
                    parameters
                )
        );
        return (total, rows, [new KindCount(table.Kind, total)]);
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

    private static async Task AddRemovalsAsync(NpgsqlConnection connection, int accountId, List<SheetRow> rows)
    {
        var removed = rows.Where(row => row.Change == RowChange.Removed).ToArray();
        if (removed.Length == 0)
        {
            return;
        }

        var steps = await connection.QueryAsync<(long Id, string Label, string Person, DateTimeOffset MadeAt)>(
            """
            select s.id, s.label, coalesce(p.display_name, '') as person, s.made_at from step s left join "AspNetUsers" p on p.id = s.person_id
            where s.id = any(@ids) and s.account_id = @accountId
            """,
            new { accountId, ids = removed.Select(row => row.Version).Distinct().ToArray() }
        );
        var byId = steps.ToDictionary(step => step.Id);
        foreach (var row in removed)
        {
            row.Removal = byId.TryGetValue(row.Version, out var step)
                ? new RowRemoval(step.Id, step.Label, step.Person, step.MadeAt)
                : null;
        }
    }

    private static async Task AddFiguresAsync(NpgsqlConnection connection, SheetGround ground, List<SheetRow> rows)
    {
        foreach (var type in ItemTypes.All.Where(type => type.FigureColumn is not null))
        {
            var column = type.FigureColumn;
            var mine = rows.Where(row => row.Kind == type.Kind).ToDictionary(row => row.Id);
            if (mine.Count == 0)
            {
                continue;
            }

            var figures = await connection.QueryAsync<(
                long Id,
                long Impressions,
                long Clicks,
                decimal Cost,
                decimal Conversions,
                decimal Value
            )>(
                $"""
                select {column}, sum(impressions)::bigint, sum(clicks)::bigint, sum(cost), sum(conversions), sum(value) from performance_day
                where account_id = @AccountId and {column} = any(@ids) and day between @From and @To
                group by {column}
                """,
                new
                {
                    ground.AccountId,
                    ids = mine.Keys.ToArray(),
                    ground.Figures.From,
                    ground.Figures.To,
                }
            );
            foreach (var figure in figures)
            {
                mine[figure.Id].Figures = RowFigures.Of(
                    new Figures(figure.Impressions, figure.Clicks, figure.Cost, figure.Conversions, figure.Value)
                );
            }
        }
    }
}
