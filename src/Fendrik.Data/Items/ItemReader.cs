using System.Data.Common;
using Fendrik.Core.Items.Values;

namespace Fendrik.Data.Items;

/// <summary>Values of fields from the columns of a row.</summary>
internal static class ItemReader
{
    /// <summary>Values of fields, in order, from a column on.</summary>
    public static ItemValues ReadValues(ItemType type, DbDataReader reader, int first, IReadOnlyList<Field> fields)
    {
        var values = new ItemValues(type);
        for (var place = 0; place < fields.Count; place++)
        {
            values[fields[place]] = ReadValue(reader, first + place, fields[place].Type.Storage);
        }

        return values;
    }

    /// <summary>One value as its storage has it.</summary>
    public static object? ReadValue(DbDataReader reader, int column, Storage storage) =>
        reader.IsDBNull(column)
            ? null
            : storage switch
            {
                Storage.Text => reader.GetString(column),
                Storage.Amount => reader.GetDecimal(column),
                Storage.Day => reader.GetFieldValue<DateOnly>(column),
                Storage.Number => reader.GetInt16(column),
                Storage.Texts => reader.GetFieldValue<string[]>(column),
                Storage.References => reader.GetFieldValue<long[]>(column),
            };
}
