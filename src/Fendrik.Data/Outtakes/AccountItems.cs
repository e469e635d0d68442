using System.Data.Common;
using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Sheets;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Outtakes;

/// <summary>The items of an account, or those selected, as rows of a list: each kind with every field that it has.</summary>
internal sealed class AccountItems(
    NpgsqlConnection connection,
    int accountId,
    bool selectedOnly,
    CancellationToken cancellation
)
{
    /// <summary>Ad groups whose contents are read with one statement: so rows come in order without a sort of all.</summary>
    private const int GroupsAtOnce = 500;

    private sealed record Group(long Id, string Campaign, string Name);

    /// <summary>Most parts in use of the values that have several columns, by the name of the field.</summary>
    public async Task<IReadOnlyDictionary<string, int>> PartsAsync()
    {
        var parts = new Dictionary<string, int>();
        foreach (var table in ItemTable.All)
        {
            foreach (var field in table.Type.Fields.Where(field => field.Type.Room is not null))
            {
                var most = await connection.ExecuteScalarAsync<int>(
                    Command(
                        $"select coalesce(max(cardinality(i.{field.Column})), 0) from {table.Name} i where {Mine(table)}"
                    )
                );
                parts[field.Name] = Math.Max(most, parts.GetValueOrDefault(field.Name));
            }
        }

        return parts;
    }

    /// <summary>How many rows there are.</summary>
    public async Task<long> CountAsync()
    {
        long count = 0;
        foreach (var table in ItemTable.All)
        {
            var rows = ReferencesOf(table) is { } shared
                ? $"coalesce(sum(1 + cardinality(i.{shared.Column})), 0)"
                : "count(*)";
            count += await connection.ExecuteScalarAsync<long>(
                Command($"select {rows} from {table.Name} i where {Mine(table)}")
            );
        }

        return count;
    }

    /// <summary>All rows, what holds others before what it holds.</summary>
    public async IAsyncEnumerable<ListRow> RowsAsync()
    {
        foreach (var table in ItemTable.All)
        {
            var rows = table is { HasLevels: false, Parents: [{ Level: Level.AdGroup }] }
                ? InGroupsAsync(table)
                : AnywhereAsync(table);
            await foreach (var row in rows)
            {
                yield return row;
            }
        }
    }

    private static Field? ReferencesOf(ItemTable table) =>
        // In a file only a list says which campaigns share it: a row for each.
        table.Type.Holds == Level.List
            ? table.Type.Fields.FirstOrDefault(field => field.Type is ReferencesValue { To: ItemKind.Campaign })
            : null;

    private IAsyncEnumerable<ListRow> AnywhereAsync(ItemTable table)
    {
        string Name(Level level) =>
            level == Level.List && table.Type.Holds == Level.List
                ? "i.name"
                : SheetPlaces.NameOf(table, level, key: false) ?? "null::text";
        string Key(Level level) =>
            level == Level.List && table.Type.Holds == Level.List
                ? "i.name_key"
                : SheetPlaces.NameOf(table, level, key: true) ?? "null::text";
        // A list has a row of its own, and one for each campaign that it holds for.
        var shared = ReferencesOf(table);
        var campaign = shared is null ? Name(Level.Campaign) : "x.name";
        var shares = shared is null
            ? ""
            : $"""
                join lateral (select null::text as name, '' as name_key
                  union all select c.name, c.name_key from campaign c where c.id = any(i.{shared.Column}) and not c.removed) x on true
                """;
        Level[] order =
            table.Type.StandsIn(Level.List) || table.Type.Holds == Level.List
                ? [Level.List, Level.Campaign, Level.AdGroup]
                : [Level.Campaign, Level.AdGroup];
        return ReadAsync(
            table,
            $"""
            select i.id, {Name(Level.List)}, {campaign}, {Name(Level.AdGroup)}, {Fields(table, "i")}
            from {SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign)} {shares} where {Mine(table)}
            order by {string.Concat(
                order.Select(level =>
                    $"{(level == Level.Campaign && shared is not null ? "x.name_key" : Key(level))} nulls {(level == Level.List ? "last" : "first")}, "
                )
            )}{SheetSql.OrderWithin(table)}
            """,
            null,
            (row, reader) =>
            {
                row.NegativeList = Text(reader, 1);
                row.Campaign = Text(reader, 2);
                row.AdGroup = Text(reader, 3);
                Fill(row, table, reader, 4);
                if (shared is not null && row.Campaign.Length > 0)
                {
                    row.Values["labels"] = null;
                }
            }
        );
    }

    private async IAsyncEnumerable<ListRow> InGroupsAsync(ItemTable table)
    {
        var withRows = selectedOnly
            ? $"g.id in (select i.ad_group_id from {table.Name} i where {ItemSelection.Holds(table.Kind)})"
            : "true";
        var groups = (
            await connection.QueryAsync<Group>(
                Command(
                    $"""
                    select g.id, c.name as campaign, g.name from ad_group g join campaign c on c.id = g.campaign_id
                    where g.account_id = @accountId and not g.removed and {withRows} order by c.name_key, g.name_key
                    """
                )
            )
        ).ToArray();
        for (var first = 0; first < groups.Length; first += GroupsAtOnce)
        {
            var some = groups.AsMemory(first, Math.Min(GroupsAtOnce, groups.Length - first));
            var rows = ReadAsync(
                table,
                $"""
                select i.id, g.place::int, {Fields(table, "i")} from unnest(@groups) with ordinality as g(id, place)
                join {table.Name} i on i.ad_group_id = g.id where {Mine(table)} order by g.place, {(
                    table.Type.NameField is { KeyColumn: null } name ? $"i.{name.Column}, " : ""
                )}{SheetSql.OrderWithin(table)}
                """,
                new NpgsqlParameter<long[]>("groups", [.. some.Span.ToArray().Select(group => group.Id)]),
                (row, reader) =>
                {
                    var group = some.Span[reader.GetInt32(1) - 1];
                    (row.Campaign, row.AdGroup) = (group.Campaign, group.Name);
                    Fill(row, table, reader, 2);
                }
            );
            await foreach (var each in rows)
            {
                yield return each;
            }
        }
    }

    private static string Fields(ItemTable table, string row) =>
        string.Join(", ", table.Type.Fields.Select(field => $"{row}.{field.Column}"));

    private static void Fill(ListRow row, ItemTable table, DbDataReader reader, int first)
    {
        foreach (var field in table.Type.Fields)
        {
            row.Values[field] = ItemReader.ReadValue(reader, first + field.Ordinal, field.Type.Storage);
        }
    }

    private string Mine(ItemTable table) =>
        "i.account_id = @accountId and not i.removed" + (selectedOnly ? $" and {ItemSelection.Holds(table.Kind)}" : "");

    private async IAsyncEnumerable<ListRow> ReadAsync(
        ItemTable table,
        string sql,
        NpgsqlParameter? parameter,
        Action<ListRow, DbDataReader> fill
    )
    {
        await using var command = new NpgsqlCommand(sql, connection) { CommandTimeout = 600 };
        command.Parameters.Add(new NpgsqlParameter<int>("accountId", NpgsqlDbType.Integer) { TypedValue = accountId });
        if (parameter is not null)
        {
            command.Parameters.Add(parameter);
        }

        await using var reader = await command.ExecuteReaderAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
        {
            var row = new ListRow { RowNumber = 0, Kind = table.Kind };
            if (table.Type.IsKnownByContent)
            {
                row.Reference = reader.GetInt64(0);
            }

            fill(row, reader);
            yield return row;
        }
    }

    private CommandDefinition Command(string sql) =>
        new(sql, new { accountId }, commandTimeout: 600, cancellationToken: cancellation);

    private static string Text(DbDataReader reader, int column) =>
        reader.IsDBNull(column) ? "" : reader.GetString(column);
}
