using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Intake;

/// <summary>
/// Items as JSON, as <c>/schemas/account-1.json</c> describes them: written from what <see cref="RowWriter"/>
/// writes as cells, and turned into such cells on the way in, so that every form of file is read by the same rules.
/// </summary>
public static class JsonItems
{
    /// <summary>Says in a file what it is.</summary>
    public const string Format = "fendrik-account";

    /// <summary>Version of the form; a higher one is not read.</summary>
    public const int Version = 1;

    private static readonly Dictionary<string, IntakeField> Single = new(StringComparer.Ordinal)
    {
        ["item"] = IntakeField.Item,
        ["action"] = IntakeField.Action,
        ["campaign"] = IntakeField.Campaign,
        ["dailyBudget"] = IntakeField.DailyBudget,
        ["startDate"] = IntakeField.StartDate,
        ["endDate"] = IntakeField.EndDate,
        ["adGroup"] = IntakeField.AdGroup,
        ["negativeList"] = IntakeField.NegativeList,
        ["matchType"] = IntakeField.MatchType,
        ["maxCpc"] = IntakeField.MaxCpc,
        ["state"] = IntakeField.State,
        ["finalUrl"] = IntakeField.FinalUrl,
        ["devicePreference"] = IntakeField.Device,
    };

    /// <summary>The columns that items have as cells.</summary>
    public static IReadOnlyList<IntakeField> Columns { get; } =
    [IntakeField.Action, .. RowWriter.ColumnsFor(AdTextRoom.Headlines, AdTextRoom.Descriptions)];

    private static readonly Dictionary<IntakeField, int> ColumnOf = Columns
        .Index()
        .ToDictionary(c => c.Item, c => c.Index);

    /// <summary>Writes one item as an object.</summary>
    public static void Write(Utf8JsonWriter json, IntakeRow row)
    {
        json.WriteStartObject();
        json.WriteString("item", RowWriter.ItemName(row.Kind));
        OptionalText(json, "negativeList", row.NegativeList);
        OptionalText(json, "campaign", row.Campaign);
        OptionalText(json, "adGroup", row.AdGroup);
        if (row.Kind is ItemKind.Keyword or ItemKind.NegativeKeyword)
        {
            json.WriteString("text", row.Text);
            json.WriteString("matchType", RowWriter.MatchName(row.Match));
        }

        if (row.Kind == ItemKind.TextAd)
        {
            Texts(json, "headlines", row.Headlines);
            Texts(json, "descriptions", row.Descriptions);
            Texts(json, "displayPath", row.DisplayPath);
        }

        if (row.State is { } state)
        {
            json.WriteString("state", state == ItemState.Running ? "running" : "paused");
        }

        OptionalAmount(json, "dailyBudget", row.DailyBudget);
        OptionalAmount(json, "maxCpc", row.Kind == ItemKind.AdGroup ? row.AdGroupMaxCpc : row.MaxCpc);
        OptionalText(json, "startDate", row.StartDate?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        OptionalText(json, "endDate", row.EndDate?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        if (row.Networks is { } networks)
        {
            Texts(json, "networks", RowWriter.NetworkNames(networks));
        }

        OptionalText(json, "finalUrl", row.FinalUrl);
        OptionalText(json, "devicePreference", row.DevicePreference?.ToString().ToLowerInvariant());
        if (row.Labels is { Count: > 0 } labels)
        {
            Texts(json, "labels", labels);
        }

        json.WriteEndObject();
    }

    /// <summary>Turns an object into the cells of a row with <see cref="Columns"/>.</summary>
    /// <param name="item">The object.</param>
    /// <param name="cells">As many cells as there are columns.</param>
    /// <returns>What is wrong with the object, in a sentence without its subject; none when all is well.</returns>
    public static string? Read(JsonElement item, string[] cells)
    {
        Array.Fill(cells, "");
        if (item.ValueKind != JsonValueKind.Object)
        {
            return "is no object";
        }

        // Whether "text" is a keyword or a negative depends on the item, which may stand behind it.
        var negative =
            item.TryGetProperty("item", out var kind)
            && kind.ValueKind == JsonValueKind.String
            && CellValues.TryItem(kind.GetString()!, out var read)
            && read == ItemKind.NegativeKeyword;
        foreach (var property in item.EnumerateObject())
        {
            var problem = property.Name switch
            {
                "text" => One(cells, negative ? IntakeField.NegativeKeyword : IntakeField.Keyword, property),
                "headlines" => Many(cells, IntakeFieldName.HeadlineField, AdTextRoom.Headlines, property),
                "descriptions" => Many(cells, IntakeFieldName.DescriptionField, AdTextRoom.Descriptions, property),
                "displayPath" => Many(
                    cells,
                    number => IntakeField.Path1 + (number - 1),
                    AdTextRoom.PathParts,
                    property
                ),
                "networks" => Joined(cells, IntakeField.Networks, "+", property),
                "labels" => Joined(cells, IntakeField.Labels, ";", property),
                _ when Single.TryGetValue(property.Name, out var field) => One(cells, field, property),
                _ => $"has “{property.Name}”, which is no field of the form",
            };
            if (problem is not null)
            {
                return problem;
            }
        }

        return null;
    }

    private static string? One(string[] cells, IntakeField field, JsonProperty property)
    {
        switch (property.Value.ValueKind)
        {
            case JsonValueKind.String:
                cells[ColumnOf[field]] = SpreadsheetCell.Guard(property.Value.GetString()!);
                return null;
            case JsonValueKind.Number when property.Value.TryGetDecimal(out var number):
                cells[ColumnOf[field]] = number.ToString("0.##########", CultureInfo.InvariantCulture);
                return null;
            case JsonValueKind.Null:
                return null;
            default:
                return $"has a “{property.Name}” that is neither a text nor a number";
        }
    }

    private static string? Many(string[] cells, Func<int, IntakeField> numbered, int room, JsonProperty property)
    {
        if (TextsOf(property) is not { } texts)
        {
            return $"has “{property.Name}” that are no list of texts";
        }

        if (texts.Length > room)
        {
            return $"has {texts.Length} {property.Name}; there is room for {room}";
        }

        for (var place = 0; place < texts.Length; place++)
        {
            cells[ColumnOf[numbered(place + 1)]] = SpreadsheetCell.Guard(texts[place]);
        }

        return null;
    }

    private static string? Joined(string[] cells, IntakeField field, string separator, JsonProperty property)
    {
        if (TextsOf(property) is not { } texts || texts.Any(text => text.Contains(separator, StringComparison.Ordinal)))
        {
            return $"has “{property.Name}” that are no list of texts without “{separator}”";
        }

        cells[ColumnOf[field]] = SpreadsheetCell.Guard(string.Join(separator, texts));
        return null;
    }

    private static string[]? TextsOf(JsonProperty property) =>
        property.Value.ValueKind == JsonValueKind.Array
        && property.Value.EnumerateArray().All(text => text.ValueKind == JsonValueKind.String)
            ? [.. property.Value.EnumerateArray().Select(text => text.GetString()!)]
            : null;

    private static void OptionalText(Utf8JsonWriter json, string name, string? text)
    {
        if (!string.IsNullOrEmpty(text))
        {
            json.WriteString(name, text);
        }
    }

    private static void OptionalAmount(Utf8JsonWriter json, string name, decimal? amount)
    {
        if (amount is { } known)
        {
            json.WriteNumber(name, known / 1.000000000000000000000000000000m);
        }
    }

    private static void Texts(Utf8JsonWriter json, string name, IReadOnlyList<string> texts)
    {
        json.WriteStartArray(name);
        foreach (var text in texts)
        {
            json.WriteStringValue(text);
        }

        json.WriteEndArray();
    }
}
