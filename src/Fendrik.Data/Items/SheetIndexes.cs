using Dapper;
using Fendrik.Core.Items.Values;
using Npgsql;

namespace Fendrik.Data.Items;

/// <summary>
/// Indexes by which the sheet counts and orders items. They follow from the descriptions and hold nothing of their own, so they
/// are made at the start when they are missing.
/// </summary>
internal static class SheetIndexes
{
    /// <summary>The rows that the sheet shows unless removed ones are asked for.</summary>
    public const string Shown = "(not removed or is_live)";

    /// <summary>
    /// True for a field by whose values items are found in order without sorting them: an amount that is taken from above where
    /// the item has none of its own.
    /// </summary>
    public static bool IsOrdered(Field field) =>
        field is { Type: AmountValue, InheritedFrom: not null } && ItemTable.Of(field.Of.Kind) is { HasLevels: false };

    /// <summary>Makes what is missing.</summary>
    public static async Task EnsureAsync(NpgsqlConnection connection)
    {
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select pg_advisory_xact_lock(7004)");
        // A kind whose table is still to be made gets them when it is there.
        var there = await connection.QueryAsync<string>(
            "select name from unnest(@names) as t(name) where to_regclass(name) is not null",
            new { names = ItemTable.All.Select(table => table.Name).ToArray() }
        );
        var tables = there.Select(name => ItemTable.All.First(table => table.Name == name));
        await connection.ExecuteAsync(
            $"set local client_min_messages = warning; {string.Join('\n', tables.SelectMany(Of))}",
            commandTimeout: 3600
        );
        await transaction.CommitAsync();
    }

    private static IEnumerable<string> Of(ItemTable table)
    {
        string Index(string name, IEnumerable<string> columns, string where) =>
            $"create index if not exists {table.Name}_{name} on {table.Name} ({string.Join(", ", columns)}) where {where};";
        var parents = table.Parents.Select(parent => parent.Column).ToArray();

        // Few different places for many items: such an index is small, and counting by place reads nothing else.
        yield return Index("shown_by_place", parents.Prepend("account_id"), Shown);
        yield return Index("removed", ["account_id", "id"], "removed");
        if (table.Type.NameField is { KeyColumn: { } key })
        {
            yield return Index("shown_by_name", ["account_id", key, "id"], Shown);
        }

        foreach (var field in table.Type.Fields.Where(IsOrdered))
        {
            yield return Index($"shown_by_{field.Column}", ["account_id", field.Column, .. parents, "id"], Shown);
        }
    }
}
