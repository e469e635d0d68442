using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>A bid modifier: per cent more or less, from −100 on. +50 multiplies by 1.5, −100 means never.</summary>
public sealed class PercentValue : ValueType
{
    /// <summary>The lowest: nothing is left.</summary>
    public const decimal Lowest = -100;

    /// <summary>The highest that is kept. What a network takes is its profile's business, and less.</summary>
    public const decimal Highest = 100_000;

    /// <inheritdoc/>
    public override Storage Storage => Storage.Amount;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Percent;

    /// <summary>Reads <c>+50%</c>, <c>−20 %</c>, <c>50</c>; without a sign it is more.</summary>
    public override Reading Read(string text, ReadingGround ground)
    {
        var amount = AmountText.Read(text, ground.Currency, ground.Language);
        if (amount.Problem is not null)
        {
            return Reading.Wrong($"“{Reading.Shortened(text)}” is not per cent; write it like +50% or −20%");
        }

        var percent = amount.Sign == '-' ? -amount.Number : amount.Number;
        return percent is < Lowest or > Highest
                ? Reading.Wrong($"“{Reading.Shortened(text)}” is not between −100% and +100,000%")
            : decimal.Round(percent, 1) != percent
                ? Reading.Wrong($"“{Reading.Shortened(text)}” has more than one decimal place")
            : new Reading(percent);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        ((decimal)value)
            .ToString("+0.#;-0.#;+0", CultureInfo.InvariantCulture)
            .Replace('.', ground.Language.DecimalMark) + "%";

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) => Words((decimal)value);

    /// <summary>Per cent as people read them: +50%, −20%, ±0%.</summary>
    public static string Words(decimal percent) =>
        percent.ToString("+#,0.#;−#,0.#;±0", CultureInfo.InvariantCulture) + "%";

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.Number when element.TryGetDecimal(out var percent) => percent,
            _ => throw new JsonException("Per cent are a number."),
        };

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) =>
        json.WriteNumberValue((decimal)value / 1.000000000000000000000000000000m);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if ((decimal)value > limits.HighestPercent)
        {
            var highest = InWords(limits.HighestPercent.Value, report.Currency);
            yield return report.Blocker(
                field,
                "high",
                $"{field.LowLabel} above {highest}",
                $"{report.Network.Name} takes no {field.LowLabel} above {highest}. Lower it."
            );
        }
    }
}
