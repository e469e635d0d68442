using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Items.Values;

/// <summary>A whole number with what it counts: 28 days, 70 s.</summary>
/// <param name="lowest">The lowest that is taken.</param>
/// <param name="highest">The highest.</param>
/// <param name="unit">What it counts: days.</param>
/// <param name="otherUnits">What else people write for that.</param>
public sealed class WholeNumberValue(int lowest, int highest, string unit, params string[] otherUnits) : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Amount;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Whole;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        var number = otherUnits
            .Append(unit)
            .OrderByDescending(word => word.Length)
            .Where(word => text.EndsWith(word, StringComparison.OrdinalIgnoreCase))
            .Select(word => text[..^word.Length].TrimEnd())
            .FirstOrDefault(text);
        return !int.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var whole)
                ? Reading.Wrong($"“{Reading.Shortened(text)}” is no whole number of {unit}")
            : whole < lowest || whole > highest
                ? Reading.Wrong($"“{Reading.Shortened(text)}” is not between {lowest} and {highest} {unit}")
            : new Reading((decimal)whole);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        string.Create(CultureInfo.InvariantCulture, $"{(decimal)value:0} {unit}");

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) => Write(value, ReadingGround.Plain(currency));

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.Number when element.TryGetDecimal(out var number) => number,
            _ => throw new JsonException($"A number of {unit} is expected."),
        };

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteNumberValue((int)(decimal)value);
}
