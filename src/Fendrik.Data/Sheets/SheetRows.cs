using System.Data.Common;
using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>Reads items of a kind as rows of the sheet, with every field that the kind has.</summary>
internal static class SheetRows
{
    private const int Described = 13;

    /// <summary>The columns that <see cref="ReadAsync"/> reads, of row <c>i</c> with its places joined.</summary>
    public static string ColumnsOf(ItemTable table)
    {
        string Place(Level level) =>
            $"{SheetPlaces.IdOf(table, level) ?? "null::bigint"}, {SheetPlaces.NameOf(table, level, key: false) ?? "null::text"}";
        var fields = table.Type.Fields.Select(field => $"i.{field.Column}");
        var inherited = Inherited(table).Select(field => SheetPlaces.Inherited(table, field));
        return $"""
            i.id, {table.NameColumn}, {Place(Level.Campaign)}, {Place(Level.AdGroup)}, {Place(Level.List)},
            {table.ChangeOfRow}, i.review, i.review_reason, i.changed_by, {table.LevelOf("i")}::smallint, {string.Join(
                ", ",
                fields.Concat(inherited)
            )}
            """;
    }

    /// <summary>Rows of a query that selects <see cref="ColumnsOf"/>, with what stands behind those.</summary>
    public static async Task<List<(SheetRow Row, long? More)>> ReadAsync(
        NpgsqlConnection connection,
        ItemTable table,
        string sql,
        object parameters,
        bool more = false
    )
    {
        var rows = new List<(SheetRow, long?)>();
        var inherited = Inherited(table).ToArray();
        await using var reader = await connection.ExecuteReaderAsync(sql, parameters);
        while (await reader.ReadAsync())
        {
            rows.Add((RowOf(table, reader, inherited), more ? reader.GetInt64(reader.FieldCount - 1) : null));
        }

        return rows;
    }

    private static IEnumerable<Field> Inherited(ItemTable table) =>
        table.Type.Fields.Where(field => field.InheritedFrom is not null);

    private static SheetRow RowOf(ItemTable table, DbDataReader reader, Field[] inherited)
    {
        var values = new Dictionary<string, object>();
        var above = new Dictionary<string, object>();
        foreach (var field in table.Type.Fields)
        {
            Put(values, field, reader, Described + field.Ordinal);
        }

        for (var place = 0; place < inherited.Length; place++)
        {
            if (!values.ContainsKey(inherited[place].Name))
            {
                Put(above, inherited[place], reader, Described + table.Type.Fields.Count + place);
            }
        }

        return new SheetRow
        {
            Kind = table.Kind,
            Id = reader.GetInt64(0),
            Name = SeenName(table.Type, values) ?? reader.GetString(1),
            CampaignId = Id(reader, 2),
            Campaign = Name(reader, 3),
            AdGroupId = Id(reader, 4),
            AdGroup = Name(reader, 5),
            ListId = Id(reader, 6),
            List = Name(reader, 7),
            Change = (RowChange)reader.GetInt32(8),
            Review = (ReviewState)reader.GetInt16(9),
            ReviewReason = Name(reader, 10),
            Version = reader.GetInt64(11),
            Level = (Level)reader.GetInt16(12),
            Values = values,
            Inherited = above,
        };
    }

    /// <summary>Headlines as people see them, without the places that they are kept to; none of what has no lines for a name.</summary>
    private static string? SeenName(ItemType type, Dictionary<string, object> values) =>
        type.NameField is { Type: AdLinesValue lines } name && values.GetValueOrDefault(name.Name) is string[] written
            ? string.Join(FieldDifferences.NameSeparator, written.Select(lines.SeenOf))
            : null;

    private static void Put(Dictionary<string, object> values, Field field, DbDataReader reader, int column)
    {
        if (
            ItemReader.ReadValue(reader, column, field.Type.Storage) is { } value
            && (!field.Type.IsNothing(value) || value is Array)
        )
        {
            values[field.Name] = field.Type.ForScreen(value);
        }
    }

    private static long? Id(DbDataReader reader, int column) =>
        reader.IsDBNull(column) ? null : reader.GetInt64(column);

    private static string? Name(DbDataReader reader, int column) =>
        reader.IsDBNull(column) ? null : reader.GetString(column);
}
