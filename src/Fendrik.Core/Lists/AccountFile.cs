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

    /// <summary>
    /// Puts an item of a file into the cells of a row. What is not in the form is said in the cell that it belongs to, as an
    /// <see cref="UnreadableCell"/>, so that this row is refused and named.
    /// </summary>
    /// <param name="item">The item.</param>
    /// <param name="placeOf">Place of each of <see cref="Columns"/> by its name.</param>
    /// <param name="cells">As many cells as <see cref="Columns"/>.</param>
    public static void Read(JsonElement item, IReadOnlyDictionary<string, int> placeOf, string[] cells)
    {
        Array.Fill(cells, "");
        if (item.ValueKind != JsonValueKind.Object)
        {
            cells[placeOf[ListColumns.Item]] = UnreadableCell.Of("is no object");
            return;
        }

        // Which field "text" is depends on the item, which may stand behind it.
        var type =
            item.TryGetProperty(ListColumns.Item, out var kind) && TextOf(kind) is { } word
                ? ItemTypes.Named(word)
                : null;
        var names = new HashSet<string>(StringComparer.Ordinal);
        foreach (var property in item.EnumerateObject())
        {
            if (NameOf(property) is not { } name)
            {
                Refuse(ListColumns.Item, "has a name with half a character in it");
            }
            else if (!names.Add(name))
            {
                Refuse(ColumnOf(type, name), $"has “{Reading.Shortened(name)}” twice");
            }
            else if (FieldOf(type, name) is { } field)
            {
                if (Value(cells, placeOf, field, name, property.Value) is { } problem)
                {
                    Refuse(ColumnOf(type, name), problem);
                }
            }
            else if (ListColumns.Find(name) is { Role: not (ColumnRole.Value or ColumnRole.HolderValue) })
            {
                if (One(cells, placeOf[name], name, property.Value) is { } problem)
                {
                    Refuse(name, problem);
                }
            }
            else
            {
                Refuse(ListColumns.Item, $"has “{Reading.Shortened(name)}”, which is no field of the form");
            }
        }

        void Refuse(string column, string problem) => cells[placeOf[column]] = UnreadableCell.Of(problem);
    }

    /// <summary>The column of a property, for what is wrong with it.</summary>
    private static string ColumnOf(ItemType? type, string property) =>
        FieldOf(type, property) is { } field ? ListColumns.NameOf(field) + (field.Type.Room is null ? "" : ".1")
        : ListColumns.Find(property) is { Role: not (ColumnRole.Value or ColumnRole.HolderValue) } ? property
        : ListColumns.Item;

    private static string? NameOf(JsonProperty property)
    {
        try
        {
            return property.Name;
        }
        catch (InvalidOperationException)
        {
            // A surrogate without its other half.
            return null;
        }
    }

    /// <summary>A text, or none when it is no text, or one with a surrogate that lacks its other half.</summary>
    private static string? TextOf(JsonElement value)
    {
        try
        {
            return value.ValueKind == JsonValueKind.String ? value.GetString() : null;
        }
        catch (InvalidOperationException)
        {
            return null;
        }
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
        string called,
        JsonElement said
    )
    {
        var name = ListColumns.NameOf(field);
        if (field.Type.Room is { } room)
        {
            if (TextsOf(said) is not { } texts)
            {
                return $"has “{called}” that are no list of texts";
            }

            if (texts.Length > room)
            {
                return $"has {texts.Length} {called}; there is room for {room}";
            }

            for (var part = 0; part < texts.Length; part++)
            {
                cells[placeOf[$"{name}.{part + 1}"]] = SpreadsheetCell.Guard(texts[part]);
            }

            return null;
        }

        if (field.Type.Form is not (ValueForm.Flags or ValueForm.Labels))
        {
            return One(cells, placeOf[name], called, said);
        }

        var separator = field.Type.Form == ValueForm.Flags ? "+" : LabelText.Separator.ToString();
        if (TextsOf(said) is not { } parts || parts.Any(text => text.Contains(separator, StringComparison.Ordinal)))
        {
            return $"has “{called}” that are no list of texts without “{separator}”";
        }

        cells[placeOf[name]] = SpreadsheetCell.Guard(string.Join(separator, parts));
        return null;
    }

    private static string? One(string[] cells, int place, string called, JsonElement said)
    {
        switch (said.ValueKind)
        {
            case JsonValueKind.String when TextOf(said) is { } text:
                cells[place] = SpreadsheetCell.Guard(text);
                return null;
            case JsonValueKind.String:
                return $"has a “{called}” with half a character in it";
            case JsonValueKind.Number when said.TryGetDecimal(out var number):
                cells[place] = PlainNumber(number);
                return null;
            case JsonValueKind.Number:
                return $"has a “{called}” of {Reading.Shortened(said.GetRawText())}, which is more than can be kept";
            case JsonValueKind.Null:
                return null;
            default:
                return $"has a “{called}” that is neither a text nor a number";
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

    private static string[]? TextsOf(JsonElement said)
    {
        if (said.ValueKind != JsonValueKind.Array)
        {
            return null;
        }

        var texts = said.EnumerateArray().Select(TextOf).OfType<string>().ToArray();
        return texts.Length == said.GetArrayLength() ? texts : null;
    }
}
