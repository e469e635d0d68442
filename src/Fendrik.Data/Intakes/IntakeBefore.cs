using System.Text.Json;
using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>For rows that change what is there: what stood in each cell before, where the row says otherwise.</summary>
internal static class IntakeBefore
{
    /// <summary>A row that changes an item.</summary>
    /// <param name="Number">Its number.</param>
    /// <param name="Kind">The kind of the item.</param>
    /// <param name="ItemId">The item; none where the row only says something of what holds it.</param>
    /// <param name="CampaignId">The campaign that it is in, or is, if there is one.</param>
    /// <param name="AdGroupId">The ad group that it is in, or is, if there is one.</param>
    public sealed record Changed(int Number, ItemKind Kind, long? ItemId, long? CampaignId, long? AdGroupId);

    /// <summary>The texts of before, by row and column; none where nothing changes.</summary>
    public static async Task<IReadOnlyDictionary<int, string?[]>> ReadAsync(
        NpgsqlConnection connection,
        ReadingGround ground,
        IReadOnlyList<string> columns,
        IReadOnlyList<(Changed Row, IReadOnlyList<string> Cells)> rows
    )
    {
        var items = new Dictionary<(ItemKind, long), ItemValues>();
        var wanted = rows.SelectMany(row =>
                new[]
                {
                    (row.Row.Kind, row.Row.ItemId),
                    (ItemKind.Campaign, row.Row.CampaignId),
                    (ItemKind.AdGroup, row.Row.AdGroupId),
                }
            )
            .Where(item => item.Item2 is not null)
            .Distinct()
            .GroupBy(item => item.Item1, item => item.Item2!.Value);
        foreach (var kind in wanted)
        {
            var table = ItemTable.Of(kind.Key);
            var found = await connection.QueryAsync<(long Id, string Item)>(
                $"select i.id, {table.Everything("i")}::text from {table.Name} i where i.id = any(@ids)",
                new { ids = kind.ToArray() }
            );
            foreach (var (id, item) in found)
            {
                items[(kind.Key, id)] = ItemValues.ReadStored(table.Type, JsonDocument.Parse(item).RootElement);
            }
        }

        ListColumn?[] known = [.. columns.Select(ListColumns.Find)];
        return rows.ToDictionary(row => row.Row.Number, row => Of(items, ground, known, row.Row, row.Cells));
    }

    private static string?[] Of(
        Dictionary<(ItemKind, long), ItemValues> items,
        ReadingGround ground,
        ListColumn?[] columns,
        Changed row,
        IReadOnlyList<string> cells
    )
    {
        var before = new string?[columns.Length];
        for (var place = 0; place < columns.Length; place++)
        {
            if (
                columns[place] is not { } column
                || cells.ElementAtOrDefault(place) is not { Length: > 0 } cell
                || Holding(items, column, row) is not var (field, values)
            )
            {
                continue;
            }

            var value = values[field];
            var (text, same) = column.Part is { } part
                ? (value as string[])?.ElementAtOrDefault(part - 1) is { } line
                    ? (line, line == cell.Trim())
                    : ("", false)
                : (
                    value is null ? "" : field.Type.Write(value, ground),
                    field.Read(cell, ground) is { Problem: null, Value: var read }
                        && Equals(
                            read is null ? null : field.Type.Write(read, ground),
                            value is null ? null : field.Type.Write(value, ground)
                        )
                );
            before[place] = same ? null : text;
        }

        return before;
    }

    /// <summary>The item whose field a cell is of: the row's own, or what holds it.</summary>
    private static (Field Field, ItemValues Values)? Holding(
        Dictionary<(ItemKind, long), ItemValues> items,
        ListColumn column,
        Changed row
    )
    {
        foreach (
            var (kind, id) in new[]
            {
                (row.Kind, row.ItemId),
                (ItemKind.AdGroup, row.AdGroupId),
                (ItemKind.Campaign, row.CampaignId),
            }
        )
        {
            if (
                id is { } known
                && (column.Role != ColumnRole.HolderValue || kind != row.Kind || row.ItemId is null)
                && items.TryGetValue((kind, known), out var values)
                && column.Of(values.Type) is { } field
                && field != values.Type.NameField
            )
            {
                return (field, values);
            }
        }

        return null;
    }
}
