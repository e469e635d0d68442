using System.Text.Json.Nodes;
using Fendrik.Core.Items.Values;
using ValueType = Fendrik.Core.Items.Values.ValueType;

namespace Fendrik.Core.Lists;

/// <summary>The form of a JSON file of items as a JSON Schema (2020-12), made from the descriptions of kinds and fields.</summary>
public static class AccountFileSchema
{
    /// <summary>Where it is served.</summary>
    public const string Path = "/schemas/account-1.json";

    /// <summary>The schema.</summary>
    public static JsonObject Make() =>
        new()
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = "Items of a Fendrik account",
            ["type"] = "object",
            ["required"] = new JsonArray("format", "version", "items"),
            ["properties"] = new JsonObject
            {
                ["format"] = Is(AccountFile.Format),
                ["version"] = new JsonObject { ["const"] = AccountFile.Version },
                ["account"] = Text("Name of the account; for people."),
                ["currency"] = new JsonObject
                {
                    ["type"] = "string",
                    ["pattern"] = "^[A-Z]{3}$",
                    ["description"] = "Currency of all amounts, by its ISO 4217 code.",
                },
                ["timeZone"] = Text("IANA time zone of the account; for people."),
                ["items"] = new JsonObject
                {
                    ["type"] = "array",
                    ["items"] = new JsonObject { ["oneOf"] = new JsonArray([.. ItemTypes.All.SelectMany(OfKind)]) },
                },
            },
            ["additionalProperties"] = true,
        };

    /// <summary>A kind has a form for each way in which it may stand.</summary>
    private static IEnumerable<JsonNode> OfKind(ItemType type) => PlacesOf(type).Select(places => OfKind(type, places));

    private static IEnumerable<Level[]> PlacesOf(ItemType type) =>
        type.Holds switch
        {
            Level.Campaign =>
            [
                [Level.Campaign],
            ],
            Level.AdGroup =>
            [
                [Level.Campaign, Level.AdGroup],
            ],
            // A list names, in a row of its own, each campaign that it holds for.
            Level.List =>
            [
                [Level.List],
                [Level.List, Level.Campaign],
            ],
            Level.Account or null => type.Levels.Select(level =>
                level switch
                {
                    Level.Account => Array.Empty<Level>(),
                    Level.Campaign => [Level.Campaign],
                    Level.AdGroup => [Level.Campaign, Level.AdGroup],
                    Level.List => [Level.List],
                }
            ),
        };

    private static JsonObject OfKind(ItemType type, Level[] places)
    {
        var properties = new JsonObject
        {
            [ListColumns.Item] = Is(type.FileWord),
            [ListColumns.Action] = new JsonObject
            {
                ["enum"] = new JsonArray("add or change", "add", "change", "remove"),
                ["description"] = ListColumns.Find(ListColumns.Action)!.Meaning,
            },
        };
        var required = new JsonArray(ListColumns.Item);
        if (type.IsKnownByContent)
        {
            properties[ListColumns.Reference] = Text(ListColumns.Find(ListColumns.Reference)!.Meaning);
        }

        foreach (var level in places)
        {
            var name = ListColumns.PlaceName(level);
            properties[name] = Name(ListColumns.Find(name)!.Meaning);
            required.Add(name);
        }

        foreach (
            var field in type.Fields.Where(field =>
                !(type.Holds is not null && field == type.NameField) && field.Type is not ReferencesValue
            )
        )
        {
            properties[AccountFile.NameOf(field)] = Of(field);
            if (field.IsIdentity && (field == type.NameField || !type.IsKnownByContent))
            {
                required.Add(AccountFile.NameOf(field));
            }
        }

        return new JsonObject
        {
            ["type"] = "object",
            ["required"] = required,
            ["properties"] = properties,
            ["additionalProperties"] = false,
        };
    }

    private static JsonObject Of(Field field)
    {
        var schema = Of(field, field.Type);
        schema["description"] = field.Meaning;
        return schema;
    }

    private static JsonObject Of(Field field, ValueType type) =>
        type.Form switch
        {
            ValueForm.Amount => new JsonObject
            {
                ["type"] = "number",
                ["exclusiveMinimum"] = 0,
                ["maximum"] = AmountValue.Highest,
            },
            ValueForm.Percent => new JsonObject
            {
                ["type"] = "number",
                ["minimum"] = PercentValue.Lowest,
                ["maximum"] = PercentValue.Highest,
            },
            ValueForm.Distance => new JsonObject
            {
                ["type"] = "number",
                ["exclusiveMinimum"] = 0,
                ["maximum"] = DistanceValue.Longest,
            },
            ValueForm.Whole => new JsonObject { ["type"] = "integer", ["minimum"] = 0 },
            ValueForm.Return => new JsonObject
            {
                ["type"] = "number",
                ["minimum"] = ReturnValue.Lowest,
                ["maximum"] = ReturnValue.Highest,
            },
            ValueForm.Day => new JsonObject { ["type"] = "string", ["format"] = "date" },
            ValueForm.Choice => new JsonObject { ["enum"] = NamesOf(type) },
            ValueForm.Flags => ListOf(new JsonObject { ["enum"] = NamesOf(type) }, least: 1, most: null),
            ValueForm.Lines => ListOf(
                new JsonObject { ["type"] = "string", ["minLength"] = 1 },
                field == field.Of.NameField ? 1 : 0,
                type.Room
            ),
            ValueForm.Labels => ListOf(
                new JsonObject
                {
                    ["type"] = "string",
                    ["minLength"] = 1,
                    ["maxLength"] = LabelText.Longest,
                },
                0,
                LabelText.MostOnItem
            ),
            ValueForm.References => ListOf(new JsonObject { ["type"] = "integer" }, 0, null),
            ValueForm.Text => new JsonObject { ["type"] = "string", ["minLength"] = 1 },
        };

    private static JsonObject ListOf(JsonObject items, int least, int? most)
    {
        var schema = new JsonObject
        {
            ["type"] = "array",
            ["items"] = items,
            ["minItems"] = least,
        };
        if (most is { } known)
        {
            schema["maxItems"] = known;
        }

        return schema;
    }

    private static JsonArray NamesOf(ValueType type) => new([.. type.Choices.Select(choice => (JsonNode)choice.Name)]);

    private static JsonObject Is(string text) => new() { ["const"] = text };

    private static JsonObject Text(string description) => new() { ["type"] = "string", ["description"] = description };

    private static JsonObject Name(string description) =>
        new()
        {
            ["type"] = "string",
            ["minLength"] = 1,
            ["maxLength"] = TextValue.LongestName,
            ["description"] = description,
        };
}
