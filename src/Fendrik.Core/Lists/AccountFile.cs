using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Lists;

/// <summary>
/// Items in a JSON file. What comes in is put into the cells of a row and read as those of any list; what goes out is
/// written by the types of the values.
/// </summary>
public static class AccountFile
{
    /// <summary>Value of <c>format</c>, by which such a file is known.</summary>
    public const string Format = "fendrik-account";

    /// <summary>Value of <c>version</c>.</summary>
    public const int Version = 1;

    /// <summary>The columns of the row that an item becomes.</summary>
    public static IReadOnlyList<ListColumn> Columns =>
        [.. ListColumns.All.Where(column => column.Role != ColumnRole.HolderValue)];

    /// <summary>Name of a field in a file.</summary>
    public static string NameOf(Field field) => field.FileName ?? field.Name;

    /// <summary>Writes an item.</summary>
    public static void Write(Utf8JsonWriter json, ListRow row)
    {
        var type = ItemTypes.Of(row.Kind);
        json.WriteStartObject();
        json.WriteString(ListColumns.Item, type.FileWord);
        if (row.Reference is { } reference && type.IsKnownByContent)
        {
            json.WriteString(ListColumns.Reference, reference.ToString(CultureInfo.InvariantCulture));
        }

        foreach (var level in Enum.GetValues<Level>())
        {
            if (row.NameAt(level) is { Length: > 0 } name)
            {
                json.WriteString(ListColumns.PlaceName(level), name);
            }
        }

        foreach (var field in type.Fields)
        {
            if (
                row.Values[field] is { } value
                && !field.Type.IsNothing(value)
                && !(type.Holds is not null && field == type.NameField)
                && field.Type is not ReferencesValue
            )
            {
                json.WritePropertyName(NameOf(field));
                field.Type.WriteFile(json, value);
            }
        }

        json.WriteEndObject();
    }

    /// <summary>Puts an item of a file into the cells of a row.</summary>
    /// <param name="item">The item.</param>
    /// <param name="placeOf">Place of each of <see cref="Columns"/> by its name.</param>
    /// <param name="cells">As many cells as <see cref="Columns"/>.</param>
    /// <returns>What is wrong with the form, as the end of a sentence; none when all is well.</returns>
    public static string? Read(JsonElement item, IReadOnlyDictionary<string, int> placeOf, string[] cells)
    {
        Array.Fill(cells, "");
        if (item.ValueKind != JsonValueKind.Object)
        {
            return "is no object";
        }

        // Which field "text" is depends on the item, which may stand behind it.
        var type =
            item.TryGetProperty(ListColumns.Item, out var kind) && kind.ValueKind == JsonValueKind.String
                ? ItemTypes.Named(kind.GetString()!)
                : null;
        foreach (var property in item.EnumerateObject())
        {
            var problem =
                FieldOf(type, property.Name) is { } field ? Value(cells, placeOf, field, property)
                : ListColumns.Find(property.Name) is { Role: not (ColumnRole.Value or ColumnRole.HolderValue) }
                    ? One(cells, placeOf[property.Name], property)
                : $"has “{property.Name}”, which is no field of the form";
            if (problem is not null)
            {
                return problem;
            }
        }

        return null;
    }

    private static Field? FieldOf(ItemType? type, string name)
    {
        bool Is(Field field) =>
            (NameOf(field) == name || field.FormerNames.Contains(name))
            && !(field.Of.Holds is not null && field == field.Of.NameField)
            && field.Type is not ReferencesValue;
        return type?.Fields.FirstOrDefault(Is) ?? ItemTypes.All.SelectMany(each => each.Fields).FirstOrDefault(Is);
    }

    private static string? Value(
        string[] cells,
        IReadOnlyDictionary<string, int> placeOf,
        Field field,
        JsonProperty property
    )
    {
        var name = ListColumns.NameOf(field);
        if (field.Type.Room is { } room)
        {
            if (TextsOf(property) is not { } texts)
            {
                return $"has “{property.Name}” that are no list of texts";
            }

            if (texts.Length > room)
            {
                return $"has {texts.Length} {property.Name}; there is room for {room}";
            }

            for (var part = 0; part < texts.Length; part++)
            {
                cells[placeOf[$"{name}.{part + 1}"]] = SpreadsheetCell.Guard(texts[part]);
            }

            return null;
        }

        if (field.Type.Form is not (ValueForm.Flags or ValueForm.Labels))
        {
            return One(cells, placeOf[name], property);
        }

        var separator = field.Type.Form == ValueForm.Flags ? "+" : LabelText.Separator.ToString();
        if (TextsOf(property) is not { } parts || parts.Any(text => text.Contains(separator, StringComparison.Ordinal)))
        {
            return $"has “{property.Name}” that are no list of texts without “{separator}”";
        }

        cells[placeOf[name]] = SpreadsheetCell.Guard(string.Join(separator, parts));
        return null;
    }

    private static string? One(string[] cells, int place, JsonProperty property)
    {
        switch (property.Value.ValueKind)
        {
            case JsonValueKind.String:
                cells[place] = SpreadsheetCell.Guard(property.Value.GetString()!);
                return null;
            case JsonValueKind.Number when property.Value.TryGetDecimal(out var number):
                cells[place] = PlainNumber(number);
                return null;
            case JsonValueKind.Null:
                return null;
            default:
                return $"has a “{property.Name}” that is neither a text nor a number";
        }
    }

    /// <summary>
    /// A number that stands in a file as a number, written so that it is read alike in every language: three decimal places
    /// could be thousands and become four.
    /// </summary>
    public static string PlainNumber(decimal number)
    {
        var text = number.ToString("0.##########", CultureInfo.InvariantCulture);
        return text.Length - text.IndexOf('.') == 4 && text.Contains('.') ? text + "0" : text;
    }

    private static string[]? TextsOf(JsonProperty property) =>
        property.Value.ValueKind == JsonValueKind.Array
        && property.Value.EnumerateArray().All(text => text.ValueKind == JsonValueKind.String)
            ? [.. property.Value.EnumerateArray().Select(text => text.GetString()!)]
            : null;
}
