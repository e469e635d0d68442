using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Lists;

/// <summary>What a column of a list holds of the row that it is in.</summary>
public enum ColumnRole
{
    /// <summary>What kind of item the row is.</summary>
    Item = 1,

    /// <summary>What is to be done with it.</summary>
    Action = 2,

    /// <summary>The item's own reference, by which it is known when its content changes.</summary>
    Reference = 3,

    /// <summary>The name of something that holds the item, or of the item itself when it holds others.</summary>
    Place = 4,

    /// <summary>A value of the item, or of what holds it.</summary>
    Value = 5,

    /// <summary>A value of what holds the item, in a column of its own.</summary>
    HolderValue = 6,
}

/// <summary>A column that a list can have. All of them follow from the descriptions of kinds and fields.</summary>
/// <param name="Role">What it holds.</param>
/// <param name="Name">Its name in settings and in JSON, for example <c>maxCpc</c> or <c>headlines.2</c>.</param>
/// <param name="Label">Its title.</param>
/// <param name="Meaning">What stands in it, in a sentence.</param>
/// <param name="Example">An example of a cell.</param>
/// <param name="Headers">What people call such a column, in lower case and without punctuation.</param>
public sealed record ListColumn(
    ColumnRole Role,
    string Name,
    string Label,
    string Meaning,
    string Example,
    IReadOnlyList<string> Headers
)
{
    /// <summary>The fields, of one kind or several, that it is the column of.</summary>
    public IReadOnlyList<Field> Fields { get; init; } = [];

    /// <summary>Its label as headers are compared: in lower case and without punctuation.</summary>
    public string LabelWords { get; } = string.Join(' ', Matching.Words.Of(Label));

    /// <summary>Number of the part, from 1, for values of several parts.</summary>
    public int? Part { get; init; }

    /// <summary>The level whose name it holds, or whose value.</summary>
    public Level? Level { get; init; }

    /// <summary>True when its cells are amounts.</summary>
    public bool IsAmount => Fields.Any(each => each.Type.Form == ValueForm.Amount);

    /// <summary>True when its cells are days.</summary>
    public bool IsDay => Fields.Any(each => each.Type.Form == ValueForm.Day);

    /// <summary>The field of a kind that the column is of, or none.</summary>
    public Field? Of(ItemType type) => Fields.FirstOrDefault(field => field.Of == type);
}

/// <summary>All columns of lists.</summary>
public static class ListColumns
{
    /// <summary>Name of the column that says what a row is.</summary>
    public const string Item = "item";

    /// <summary>Name of the column that says what is to be done.</summary>
    public const string Action = "action";

    /// <summary>Name of the column with an item's own reference.</summary>
    public const string Reference = "reference";

    private static readonly string[] Numbers =
    [
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
    ];

    private static (
        IReadOnlyList<ItemType> Types,
        IReadOnlyList<ListColumn> Columns,
        Dictionary<string, ListColumn> ByName
    ) _made = Make([]);

    /// <summary>The columns, in the order of files.</summary>
    public static IReadOnlyList<ListColumn> All => Current().Columns;

    /// <summary>The column with this name, or none.</summary>
    public static ListColumn? Find(string name) => Current().ByName.GetValueOrDefault(name);

    /// <summary>Name of the column of the names that stand at a level.</summary>
    public static string PlaceName(Level level) => Networks.NetworkProfile.KeyOf(ItemTypes.HolderOf(level)!.Kind);

    /// <summary>Name of the column of a field.</summary>
    public static string NameOf(Field field) => field.ListName ?? field.Name;

    private static (
        IReadOnlyList<ItemType> Types,
        IReadOnlyList<ListColumn> Columns,
        Dictionary<string, ListColumn> ByName
    ) Current()
    {
        if (!ReferenceEquals(_made.Types, ItemTypes.All))
        {
            _made = Make(ItemTypes.All);
        }

        return _made;
    }

    private static (IReadOnlyList<ItemType>, IReadOnlyList<ListColumn>, Dictionary<string, ListColumn>) Make(
        IReadOnlyList<ItemType> types
    )
    {
        var words = string.Join(", ", types.Select(type => type.FileWord));
        var columns = new List<ListColumn>
        {
            new(
                ColumnRole.Item,
                Item,
                "Item",
                $"What the row is: {words}. Without it, the filled cells tell.",
                "keyword",
                ["item", "kind", "item kind", "kind of item", "row type", "level", .. KnownHeaders.Of(Item)]
            ),
            new(
                ColumnRole.Action,
                Action,
                "Action",
                "What is to be done: add, change or remove. Empty: what is chosen for the whole list.",
                "remove",
                ["action", "what to do", "operation", .. KnownHeaders.Of(Action)]
            ),
            new(
                ColumnRole.Reference,
                Reference,
                "Reference",
                "Fendrik's own number of an ad, as it is taken out. With it a row can change what the ad says.",
                "48213",
                ["reference", "ref", "ad reference", "item reference"]
            ),
        };
        foreach (var holder in types.Where(type => type.Holds is not null))
        {
            var name = holder.NameField!;
            columns.Add(
                new ListColumn(
                    ColumnRole.Place,
                    Networks.NetworkProfile.KeyOf(holder.Kind),
                    char.ToUpperInvariant(holder.Noun[0]) + holder.Noun[1..],
                    name.Meaning,
                    name.Example,
                    [.. name.Headers, .. KnownHeaders.Of(Networks.NetworkProfile.KeyOf(holder.Kind))]
                )
                {
                    Level = holder.Holds,
                }
            );
            columns.AddRange(
                holder
                    .Fields.Where(field => field.IsSaidInside && field.HeadersInside.Count == 0)
                    .SelectMany(field => OfField(field, types))
            );
            columns.AddRange(
                holder
                    .Fields.Where(field => field.HeadersInside.Count > 0)
                    .Select(field => new ListColumn(
                        ColumnRole.HolderValue,
                        $"{Networks.NetworkProfile.KeyOf(holder.Kind)}.{field.Name}",
                        $"{char.ToUpperInvariant(holder.Noun[0])}{holder.Noun[1..]} {field.LowLabel}",
                        $"{field.Label} of the {holder.Noun}, in rows of what is in it.",
                        "1.10",
                        [
                            .. field.HeadersInside,
                            .. KnownHeaders.Of($"{Networks.NetworkProfile.KeyOf(holder.Kind)}.{field.Name}"),
                        ]
                    )
                    {
                        Level = holder.Holds,
                        Fields = [field],
                    })
            );
        }

        columns.AddRange(
            types
                .OrderBy(type => type.Holds is not null || !type.ComesAndGoes)
                .SelectMany(type => type.Fields)
                .OrderBy(field => field.Name == "labels")
                .Where(field =>
                    !(field.Of.Holds is not null && field == field.Of.NameField) && field.Type is not ReferencesValue
                )
                .SelectMany(field => OfField(field, types))
        );
        var all = columns.DistinctBy(column => column.Name).ToArray();
        return (types, all, all.ToDictionary(column => column.Name, StringComparer.Ordinal));
    }

    private static IEnumerable<ListColumn> OfField(Field field, IReadOnlyList<ItemType> types)
    {
        var name = NameOf(field);
        Field[] fields =
        [
            .. types
                .SelectMany(type => type.Fields)
                .Where(each => NameOf(each) == name && !(each.Of.Holds is not null && each == each.Of.NameField)),
        ];
        if (field.Type.Room is not { } room)
        {
            yield return new ListColumn(
                ColumnRole.Value,
                name,
                field.Label,
                field.Meaning,
                field.Example,
                [.. field.Headers, .. KnownHeaders.Of(name)]
            )
            {
                Fields = fields,
            };
            yield break;
        }

        string[] headers = [.. field.Headers, .. KnownHeaders.Of(name)];

        for (var part = 1; part <= room; part++)
        {
            yield return new ListColumn(
                ColumnRole.Value,
                $"{name}.{part}",
                $"{field.Label} {part}",
                part == 1 ? field.Meaning : $"{field.Label} {part}.",
                part == 1 ? field.Example : "",
                [
                    .. headers.SelectMany(header => new[] { $"{header} {part}", $"{header} {Numbers[part - 1]}" }),
                    .. part == 1 ? headers : [],
                ]
            )
            {
                Fields = fields,
                Part = part,
            };
        }
    }
}
