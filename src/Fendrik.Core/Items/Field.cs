using Fendrik.Core.Items.Values;
using ValueType = Fendrik.Core.Items.Values.ValueType;

namespace Fendrik.Core.Items;

/// <summary>One field of a kind of item, described once: its column, its words, what may be done with it.</summary>
public sealed class Field
{
    private ItemType? _of;

    /// <summary>Name in JSON, filters and commands, for example <c>maxCpc</c>; the same on every kind that has such a field.</summary>
    public required string Name { get; init; }

    /// <summary>What people call it, for example <c>Max CPC</c>.</summary>
    public required string Label { get; init; }

    /// <summary>What stands in it, in a sentence, for those who fill in a list.</summary>
    public required string Meaning { get; init; }

    /// <summary>An example of a cell.</summary>
    public string Example { get; init; } = "";

    /// <summary>Column in the database.</summary>
    public required string Column { get; init; }

    /// <summary>What else a column of a list with it may be called, in lower case and without punctuation.</summary>
    public IReadOnlyList<string> Headers { get; init; } = [];

    /// <summary>Headers of a column that says it of the holder in rows of what is inside; none when there is no such column.</summary>
    public IReadOnlyList<string> HeadersInside { get; init; } = [];

    /// <summary>True when a row of something inside may say it, where that has no such field itself: a campaign's budget.</summary>
    public bool IsSaidInside { get; init; }

    /// <summary>True when a row in which it is filled is of this kind, unless the row says otherwise.</summary>
    public bool TellsKind { get; init; }

    /// <summary>Name of its column in lists, where that differs from <see cref="Name"/>.</summary>
    public string? ListName { get; init; }

    /// <summary>Name in JSON files, where that differs from <see cref="Name"/>.</summary>
    public string? FileName { get; init; }

    /// <summary>Names that it had in JSON files before; they still come in.</summary>
    public IReadOnlyList<string> FormerNames { get; init; } = [];

    /// <summary>The type of its value.</summary>
    public required ValueType Type { get; init; }

    /// <summary>True when the network gets it.</summary>
    public bool IsPublished { get; init; } = true;

    /// <summary>True when it may be empty.</summary>
    public bool IsClearable { get; init; }

    /// <summary>True when an item cannot be published without it.</summary>
    public bool IsNeeded { get; init; }

    /// <summary>Name of another field of the kind that makes this one unneeded when it is filled; none where nothing does.</summary>
    public string? UnlessFilled { get; init; }

    /// <summary>What it is when nothing is said of a new item; what an emptied cell goes back to where it may not be empty.</summary>
    public object? Default { get; init; }

    /// <summary>What it is of a new item that a list brings in without a word about it.</summary>
    public Arrival Arrival { get; init; } = Arrival.Default;

    /// <summary>The kind that it is taken from when the item has none of its own, by the same name; none when it is not inherited.</summary>
    public ItemKind? InheritedFrom { get; init; }

    /// <summary>True when it is part of what tells the item from its siblings.</summary>
    public bool IsIdentity { get; init; }

    /// <summary>Column with the normalised text by which identity goes; none when the value itself does.</summary>
    public string? KeyColumn { get; init; }

    /// <summary>False when lists of items cannot be ordered by it.</summary>
    public bool IsSortable { get; init; } = true;

    /// <summary>True when it has a column of its own in the sheet of its kind unless a person chooses otherwise.</summary>
    public bool IsUsual { get; init; }

    /// <summary>Width of its column in the sheet, in pixels.</summary>
    public int Width { get; init; } = 120;

    /// <summary>The weight of the finding that it is missing: a short line, and what to do.</summary>
    public string MissingAdvice { get; init; } = "";

    /// <summary>True when the network's reviewers look at the item anew after it changed.</summary>
    public bool IsReviewed { get; init; } = true;

    /// <summary>The kind of item that it belongs to.</summary>
    public ItemType Of => _of ?? throw new InvalidOperationException($"The field {Name} belongs to no kind yet.");

    /// <summary>Its place among the fields of its kind, from 0.</summary>
    public int Ordinal { get; private set; } = -1;

    /// <summary>The label inside a sentence: small letters but for abbreviations.</summary>
    public string LowLabel =>
        Label.Length > 1 && char.IsUpper(Label[1]) ? Label : char.ToLowerInvariant(Label[0]) + Label[1..];

    /// <summary>True when the text of it can be found and replaced.</summary>
    public bool IsText => Type.IsText;

    /// <summary>Reads a cell, empty ones among them.</summary>
    public Reading Read(string cell, ReadingGround ground)
    {
        var text = cell.Trim();
        return text is "" or "—" ? Empty() : NotNothing(Type.Read(text, ground));
    }

    /// <summary>Reads parts that came one by one.</summary>
    public Reading Read(IReadOnlyList<string> parts, ReadingGround ground) =>
        parts.All(string.IsNullOrWhiteSpace) ? Empty() : NotNothing(Type.Read(parts, ground));

    /// <summary>A value, or what stands for nothing where the column always has a value.</summary>
    public object? OrNothing(object? value) =>
        value
        ?? (
            Type.Storage switch
            {
                Storage.Texts => (object?)Array.Empty<string>(),
                Storage.References => Array.Empty<long>(),
                Storage.Text or Storage.Amount or Storage.Day or Storage.Number => Default,
            }
        );

    internal void BelongTo(ItemType type, int ordinal) => (_of, Ordinal) = (type, ordinal);

    private Reading NotNothing(Reading reading) =>
        reading.Problem is null && Type.IsNothing(reading.Value) && reading.Also is null ? Empty() : reading;

    private Reading Empty() =>
        IsClearable ? new Reading(OrNothing(null))
        : Default is not null ? new Reading(Default)
        : Reading.Wrong("is empty; fill it in");
}
