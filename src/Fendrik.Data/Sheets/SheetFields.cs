using Fendrik.Core.Items.Values;
using Fendrik.Data.Items;

namespace Fendrik.Data.Sheets;

/// <summary>What a field of the sheet holds, which says how it is held against values.</summary>
public enum FieldType
{
    Text = 1,
    Texts = 2,
    Amount = 3,
    Number = 4,

    /// <summary>A share, written in per cent.</summary>
    Share = 5,
    Date = 6,
    Choice = 7,

    /// <summary>Any of several choices at once.</summary>
    Flags = 8,
}

/// <summary>What has to be joined to read a field.</summary>
[Flags]
internal enum SheetJoins
{
    None = 0,
    AdGroup = 1,
    Campaign = 2,
    Figures = 4,
}

/// <summary>A field by which a sheet is filtered and ordered.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Label">What people call it.</param>
/// <param name="Type">What it holds.</param>
/// <param name="Choices">What there is to choose from.</param>
public sealed record SheetField(string Name, string Label, FieldType Type, IReadOnlyList<SheetChoice> Choices)
{
    /// <summary>The field of a row of a kind in SQL; none where the kind has no such field.</summary>
    internal Func<ItemTable, string?> Sql { get; init; } = _ => null;

    /// <summary>A text as it is written, for regular expressions.</summary>
    internal Func<ItemTable, string?>? Written { get; init; }

    internal SheetJoins Joins { get; init; }

    /// <summary>True for what was measured, which search terms have too.</summary>
    public bool IsFigure => Joins == SheetJoins.Figures;
}

/// <summary>A choice by its key, with its name and the number that stands for it in SQL.</summary>
public sealed record SheetChoice(string Key, string Name, int Number);

/// <summary>All fields of the sheet: those that the kinds describe, and what is known of every row.</summary>
public static class SheetFields
{
    private static (
        IReadOnlyList<ItemType> Types,
        IReadOnlyList<SheetField> Fields,
        Dictionary<string, SheetField> ByName
    ) _made = ([], [], []);

    private static readonly SheetChoice[] Changes = Numbered("none", "new", "edited", "removed");
    private static readonly SheetChoice[] Reviews = Numbered("none", "pending", "approved", "refused");
    private static readonly SheetChoice[] Weights = Numbered("none", "hint", "caution", "blocker");

    public static IReadOnlyList<SheetField> All => Current().Fields;

    public static SheetField? Find(string name) => Current().ByName.GetValueOrDefault(name);

    /// <summary>A figure as it stands in the sums, where nothing is not taken for zero: only rows with figures are found by it.</summary>
    internal static string Bare(string figure) =>
        figure.StartsWith("coalesce(f.", StringComparison.Ordinal)
            ? figure["coalesce(".Length..^", 0)".Length]
            : figure;

    private static (
        IReadOnlyList<ItemType> Types,
        IReadOnlyList<SheetField> Fields,
        Dictionary<string, SheetField> ByName
    ) Current()
    {
        if (!ReferenceEquals(_made.Types, ItemTypes.All))
        {
            SheetField[] fields = [.. Places(), .. Described(ItemTypes.All), .. OfEveryRow(), .. Figures()];
            _made = (ItemTypes.All, fields, fields.ToDictionary(field => field.Name));
        }

        return _made;
    }

    private static IEnumerable<SheetField> Places()
    {
        yield return Text("name", "Name or words", table => table.NameKey("i"), table => table.NameColumn);
        yield return Text(
            "campaign",
            "Campaign",
            table => SheetPlaces.NameOf(table, Level.Campaign, key: true),
            table => SheetPlaces.NameOf(table, Level.Campaign, key: false),
            SheetJoins.Campaign
        );
        yield return Text(
            "adGroup",
            "Ad group",
            table => SheetPlaces.NameOf(table, Level.AdGroup, key: true),
            table => SheetPlaces.NameOf(table, Level.AdGroup, key: false),
            SheetJoins.AdGroup
        );
    }

    /// <summary>Each field that kinds describe, once for all kinds that have one of its name.</summary>
    private static IEnumerable<SheetField> Described(IReadOnlyList<ItemType> types)
    {
        var fields = types
            .SelectMany(type => type.Fields)
            .Where(field => field != field.Of.NameField)
            .DistinctBy(field => field.Name);
        foreach (var field in fields)
        {
            yield return Of(
                field,
                field.Name,
                field.Label,
                inherits: field.InheritedFrom is not null || Inherits(types, field.Name)
            );
            if (Inherits(types, field.Name))
            {
                yield return Of(
                    field,
                    "own" + char.ToUpperInvariant(field.Name[0]) + field.Name[1..],
                    $"Own {field.LowLabel}",
                    inherits: false
                );
            }
        }
    }

    private static bool Inherits(IReadOnlyList<ItemType> types, string name) =>
        types.Any(type => type.Find(name)?.InheritedFrom is not null);

    private static SheetField Of(Field field, string name, string label, bool inherits)
    {
        string? Column(ItemTable table) =>
            table.Type.Find(field.Name) is not { } own ? null
            : inherits && own.InheritedFrom is not null ? SheetPlaces.Effective(table, own)
            : $"i.{own.Column}";
        string? Number(ItemTable table) => Column(table);
        var joins = inherits ? SheetJoins.AdGroup | SheetJoins.Campaign : SheetJoins.None;
        SheetChoice[] choices =
        [
            .. field.Type.Choices.Select(choice => new SheetChoice(choice.Key, choice.Name, choice.Number)),
        ];
        return field.Type.Form switch
        {
            ValueForm.Text => Text(
                name,
                label,
                table => Column(table) is { } text ? TextMeasures.KeyOf(text) : null,
                Column,
                joins
            ),
            ValueForm.Amount => new SheetField(name, label, FieldType.Amount, []) { Sql = Number, Joins = joins },
            ValueForm.Percent or ValueForm.Distance or ValueForm.Return or ValueForm.Whole => new SheetField(
                name,
                label,
                FieldType.Number,
                []
            )
            {
                Sql = Number,
                Joins = joins,
            },
            ValueForm.Day => new SheetField(name, label, FieldType.Date, []) { Sql = Number, Joins = joins },
            ValueForm.Choice => new SheetField(name, label, FieldType.Choice, choices) { Sql = Number, Joins = joins },
            ValueForm.Flags => new SheetField(name, label, FieldType.Flags, choices) { Sql = Number, Joins = joins },
            ValueForm.Lines or ValueForm.Labels => new SheetField(name, label, FieldType.Texts, [])
            {
                Sql = Column,
                Joins = joins,
            },
            ValueForm.References => new SheetField(name, label, FieldType.Number, [])
            {
                Sql = table => Column(table) is { } ids ? $"cardinality({ids})" : null,
            },
        };
    }

    private static IEnumerable<SheetField> OfEveryRow()
    {
        yield return new SheetField("change", "Changed since the last publish", FieldType.Choice, Changes)
        {
            Sql = table => table.ChangeOfRow,
        };
        yield return new SheetField("review", "Review", FieldType.Choice, Reviews) { Sql = _ => "i.review" };
        yield return new SheetField("need", "Check", FieldType.Choice, Weights)
        {
            Sql = table =>
                $"coalesce((select max(n.weight) from finding n where n.account_id = @account and n.kind = {table.Number} and n.item_id = i.id), 0)",
        };
        yield return new SheetField("words", "Number of words", FieldType.Number, [])
        {
            Sql = table =>
                table.Type.Fields.FirstOrDefault(field => field.Type is WordsValue) is { } words
                    ? TextMeasures.WordsOf($"i.{words.KeyColumn}")
                    : null,
        };
        yield return new SheetField("characters", "Number of characters", FieldType.Number, [])
        {
            Sql = table => TextMeasures.CharactersOf(table.NameColumn),
        };
    }

    private static IEnumerable<SheetField> Figures() =>
        [
            Figure("impressions", "Impressions", FieldType.Number, "coalesce(f.impressions, 0)"),
            Figure("clicks", "Clicks", FieldType.Number, "coalesce(f.clicks, 0)"),
            Figure("ctr", "CTR", FieldType.Share, "f.clicks::numeric / nullif(f.impressions, 0)"),
            Figure("cost", "Cost", FieldType.Amount, "coalesce(f.cost, 0)"),
            Figure("cpc", "CPC", FieldType.Amount, "f.cost / nullif(f.clicks, 0)"),
            Figure("conversions", "Conversions", FieldType.Number, "coalesce(f.conversions, 0)"),
            Figure("conversionRate", "Conversion rate", FieldType.Share, "f.conversions / nullif(f.clicks, 0)"),
            Figure("costPerConversion", "Cost per conversion", FieldType.Amount, "f.cost / nullif(f.conversions, 0)"),
            Figure("value", "Value", FieldType.Amount, "coalesce(f.value, 0)"),
        ];

    private static SheetField Figure(string name, string label, FieldType type, string sql) =>
        new(name, label, type, [])
        {
            Sql = table => table.Type.FigureColumn is null ? null : sql,
            Joins = SheetJoins.Figures,
        };

    private static SheetField Text(
        string name,
        string label,
        Func<ItemTable, string?> key,
        Func<ItemTable, string?> written,
        SheetJoins joins = SheetJoins.None
    ) =>
        new(name, label, FieldType.Text, [])
        {
            Sql = key,
            Written = written,
            Joins = joins,
        };

    private static SheetChoice[] Numbered(params string[] names) =>
        [.. names.Select((name, number) => new SheetChoice(name, name, number))];
}
