using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>
/// The items of one kind as a flat list. Its first rows come straight from the database, without being counted; for rows
/// further down, the order of all is found once for each revision of the account.
/// </summary>
internal sealed class FlatSheet(
    NpgsqlConnection connection,
    SheetGround ground,
    SheetRequest request,
    SheetMemory memory
)
{
    /// <summary>Rows from the top that are read without finding the whole order.</summary>
    private const int NearTheTop = 1_000;

    private readonly ItemTable _table = ItemTable.Of(request.Kind!.Value);
    private readonly DynamicParameters _parameters = SheetSql.Parameters(request, ground);

    /// <summary>The rows of the window; how many there are in all where that is known without counting.</summary>
    public async Task<(long? Total, List<SheetRow> Rows, IReadOnlyList<KindCount> Counts)> ReadAsync(
        CancellationToken cancellation
    )
    {
        long[] ids;
        long? total;
        if (IsNearTheTop(request))
        {
            // Sorted by identity alone, so that the sort carries nothing but its key; the columns come for the page only.
            ids = SheetOrder.WindowOfHighest(request, _table) is { } highest
                ? await IdsAsync(highest, cancellation)
                : [];
            if (ids.Length < request.Limit)
            {
                ids = await IdsAsync(SheetOrder.Window(request, _table), cancellation);
            }

            total =
                ids.Length < request.Limit && (ids.Length > 0 || request.Offset == 0)
                    ? request.Offset + ids.Length
                    : memory.Known<long?>(ground, Uncounted, "count");
        }
        else if (IsWalked(request, _table) && !IsOrderKnown)
        {
            // The names' own index is walked to the place faster than all are read; the order for later jumps is found meanwhile.
            ids = await IdsAsync(SheetOrder.Window(request, _table), cancellation);
            total = memory.Known<long?>(ground, Uncounted, "count");
        }
        else
        {
            var order = await OrderAsync();
            ids = order
                .AsSpan(Math.Min(request.Offset, order.Length)..)[
                    ..Math.Min(request.Limit, Math.Max(0, order.Length - request.Offset))
                ]
                .ToArray();
            total = order.Length;
        }

        var found = await SheetRows.ReadAsync(
            connection,
            _table,
            $"select {SheetRows.ColumnsOf(_table)} from {SheetPlaces.Tables(_table, SheetJoins.AdGroup | SheetJoins.Campaign)} where i.id = any(@ids)",
            new { ids }
        );
        var byId = found.ToDictionary(each => each.Row.Id, each => each.Row);
        return (total, [.. ids.Where(byId.ContainsKey).Select(id => byId[id])], Counted(total));
    }

    private async Task<long[]> IdsAsync(string sql, CancellationToken cancellation) =>
        [
            .. await connection.QueryAsync<long>(
                new CommandDefinition(sql, _parameters, cancellationToken: cancellation)
            ),
        ];

    /// <summary>True for a place far down that an index is walked to as long as the order of all is not known.</summary>
    public static bool IsWalked(SheetRequest request, ItemTable table) =>
        !IsNearTheTop(request) && SheetOrder.IsIndexed(request, table);

    private static bool IsNearTheTop(SheetRequest request) => request.Offset + request.Limit <= NearTheTop;

    /// <summary>True when the order of all rows is in memory.</summary>
    public bool IsOrderKnown => memory.Known<long[]>(ground, request, "order") is not null;

    /// <summary>Finds the order of all rows, so that any place is as near as the first.</summary>
    public Task FindOrderAsync() => OrderAsync();

    /// <summary>How many rows there are.</summary>
    public async Task<SheetCount> CountAsync()
    {
        var total = await memory.KeptAsync<long?>(
            ground,
            Uncounted,
            "count",
            _ => 100,
            async () =>
                await connection.ExecuteScalarAsync<long>(
                    $"select count(*) from {SheetSql.From(request, _table)} where {SheetSql.Where(request, _table)}",
                    _parameters
                )
        );
        return new SheetCount(total!.Value, Counted(total));
    }

    /// <summary>The row of an item, from 0; none when the filter hides it.</summary>
    public async Task<long?> PlaceAsync(long id)
    {
        var place = Array.IndexOf(await OrderAsync(), id);
        return place < 0 ? null : place;
    }

    /// <summary>The request as far as its count goes: the same in any order.</summary>
    private SheetRequest Uncounted => request with { Sort = null, Descending = false };

    private IReadOnlyList<KindCount> Counted(long? total) =>
        total is { } count ? [new KindCount(_table.Kind, count)] : [];

    private Task<long[]> OrderAsync() =>
        memory.KeptAsync(
            ground,
            request,
            "order",
            ids => ids.Length * 8L,
            async () =>
            {
                // A million numbers with their keys are sorted in memory, not on disk, and by several processes.
                await connection.ExecuteAsync(
                    "set work_mem = '192MB'; set parallel_tuple_cost = 0.0005; set parallel_setup_cost = 0"
                );
                try
                {
                    return (
                        await connection.ExecuteScalarAsync<long[]>(SheetOrder.Whole(request, _table), _parameters)
                    )!;
                }
                finally
                {
                    await connection.ExecuteAsync(
                        "reset work_mem; reset parallel_tuple_cost; reset parallel_setup_cost"
                    );
                }
            }
        );
}
