using System.Text.Json;

namespace Fendrik.Core.Items;

/// <summary>The values of one item's fields. A field that nothing is said of is none.</summary>
/// <param name="type">The kind of the item.</param>
public sealed class ItemValues(ItemType type)
{
    private readonly object?[] _values = new object?[type.Fields.Count];

    /// <summary>The kind of the item.</summary>
    public ItemType Type => type;

    /// <summary>The value of a field: as its type of value keeps it, or none.</summary>
    public object? this[Field field]
    {
        get => _values[field.Ordinal];
        set => _values[field.Ordinal] = value;
    }

    /// <summary>The value of a field by its name.</summary>
    /// <exception cref="KeyNotFoundException">The kind has no such field.</exception>
    public object? this[string name]
    {
        get => this[type[name]];
        set => this[type[name]] = value;
    }

    /// <summary>The text of a field; empty when it has none.</summary>
    public string Text(string name) => (string?)this[name] ?? "";

    /// <summary>The lines of a field; none when it has none.</summary>
    public IReadOnlyList<string> Lines(string name) => (string[]?)this[name] ?? [];

    /// <summary>What an item that says no more than this is: defaults where nothing is said.</summary>
    public ItemValues WithDefaults()
    {
        foreach (var field in type.Fields)
        {
            this[field] = field.OrNothing(this[field]);
        }

        return this;
    }

    /// <summary>Reads an item as it is kept and travels to the network. Fields that are not there are none.</summary>
    /// <exception cref="JsonException">A value has another form than its field.</exception>
    public static ItemValues ReadStored(ItemType type, JsonElement item)
    {
        var values = new ItemValues(type);
        foreach (var field in type.Fields)
        {
            values[field] = item.TryGetProperty(field.Name, out var value) ? field.Type.ReadStored(value) : null;
        }

        return values;
    }
}
