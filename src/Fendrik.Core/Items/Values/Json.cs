using System.Text.Json;

namespace Fendrik.Core.Items.Values;

/// <summary>Small parts of JSON that several types of value have in common.</summary>
internal static class Json
{
    public static string? Text(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.String => element.GetString(),
            _ => throw new JsonException("A text is expected."),
        };

    public static short? Number(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.Number when element.TryGetInt16(out var number) => number,
            _ => throw new JsonException("A small whole number is expected."),
        };

    public static T[] Array<T>(JsonElement element, Func<JsonElement, T> read) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => [],
            JsonValueKind.Array => [.. element.EnumerateArray().Select(read)],
            _ => throw new JsonException("A list is expected."),
        };

    public static void WriteTexts(Utf8JsonWriter json, IEnumerable<string> texts)
    {
        json.WriteStartArray();
        foreach (var text in texts)
        {
            json.WriteStringValue(text);
        }

        json.WriteEndArray();
    }
}
