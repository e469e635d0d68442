using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;

namespace Fendrik.Data.Commands;

/// <summary>What a person gave for a field: the text of a cell, or several parts. The field reads it, as everywhere.</summary>
[JsonConverter(typeof(FieldInputConverter))]
public sealed record FieldInput(string? Text, IReadOnlyList<string>? Parts = null)
{
    public static implicit operator FieldInput(string? text) => new(text);

    public static implicit operator FieldInput(string[] parts) => new(null, parts);

    internal Reading Read(Field field, ReadingGround ground) =>
        Parts is { } parts ? field.Read(parts, ground) : field.Read(Text ?? "", ground);
}

/// <summary>In JSON an input is a text, a number, a list of texts, or nothing.</summary>
internal sealed class FieldInputConverter : JsonConverter<FieldInput>
{
    public override bool HandleNull => true;

    public override FieldInput Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        switch (reader.TokenType)
        {
            case JsonTokenType.Null:
                return new FieldInput("");
            case JsonTokenType.String:
                return new FieldInput(reader.GetString());
            case JsonTokenType.Number when reader.TryGetDecimal(out var number):
                return new FieldInput(Core.Lists.AccountFile.PlainNumber(number));
            case JsonTokenType.StartArray:
                var parts = new List<string>();
                while (reader.Read() && reader.TokenType != JsonTokenType.EndArray)
                {
                    parts.Add(
                        reader.TokenType switch
                        {
                            JsonTokenType.String => reader.GetString()!,
                            JsonTokenType.Number when reader.TryGetInt64(out var id) => id.ToString(
                                CultureInfo.InvariantCulture
                            ),
                            _ => throw new JsonException("A value is a text, a number or a list of texts."),
                        }
                    );
                }

                return new FieldInput(null, parts);
            default:
                throw new JsonException("A value is a text, a number or a list of texts.");
        }
    }

    public override void Write(Utf8JsonWriter writer, FieldInput value, JsonSerializerOptions options)
    {
        if (value.Parts is { } parts)
        {
            JsonSerializer.Serialize(writer, parts, options);
        }
        else
        {
            writer.WriteStringValue(value.Text);
        }
    }
}

/// <summary>Reads what a command says of an item's fields.</summary>
internal static class FieldInputs
{
    /// <summary>Most fields that one command may name.</summary>
    private const int MostFields = 50;

    /// <summary>The values that are said, by field; with what a cell says of another field besides its own.</summary>
    /// <exception cref="InvalidChangeException">A field is not one of the kind, or its text cannot be read.</exception>
    public static Dictionary<Field, object?> Read(
        ItemType type,
        IReadOnlyDictionary<string, FieldInput> said,
        ReadingGround ground
    )
    {
        if (said.Count > MostFields)
        {
            throw new InvalidChangeException("values", $"At most {MostFields} fields can be set at once.");
        }

        var values = new Dictionary<Field, object?>();
        foreach (var (name, input) in said)
        {
            var field =
                type.Find(name)
                ?? throw new InvalidChangeException(
                    name,
                    $"{Article(type.Noun)} {type.Noun} has no field “{Reading.Shortened(name)}”."
                );
            var reading = (input ?? new FieldInput("")).Read(field, ground);
            if (reading.Problem is { } problem)
            {
                throw new InvalidChangeException(name, $"{field.Label} {problem}.");
            }

            values[field] = reading.Value;
            if (reading.Also is { } also && type.Find(also.Field) is { } other && !said.ContainsKey(also.Field))
            {
                values[other] = also.Value;
            }
        }

        return values;
    }

    /// <summary>An or a, by the word that follows.</summary>
    public static string Article(string noun) => "aeiou".Contains(noun[0]) ? "An" : "A";
}
