using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>A return on spend in per cent: 400 % is a value of 4 for each 1 that is spent.</summary>
public sealed class ReturnValue : ValueType
{
    /// <summary>The lowest that is kept.</summary>
    public const decimal Lowest = 1;

    /// <summary>The highest that is kept.</summary>
    public const decimal Highest = 100_000;

    /// <inheritdoc/>
    public override Storage Storage => Storage.Amount;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Return;

    /// <summary>In words.</summary>
    public static string Words(decimal percent) => percent.ToString("#,0.#", CultureInfo.InvariantCulture) + "%";

    /// <summary>Reads <c>400%</c>, <c>400</c>; <c>4x</c> and <c>4 to 1</c> are the same.</summary>
    public override Reading Read(string text, ReadingGround ground)
    {
        var lower = text.Trim().ToLowerInvariant();
        var times = lower.EndsWith('x') || lower.EndsWith(" to 1", StringComparison.Ordinal);
        var number = times ? lower[..^(lower.EndsWith('x') ? 1 : 5)] : lower;
        var amount = AmountText.Read(number, ground.Currency, ground.Language);
        if (amount.Problem is not null || amount.Sign is not null || times && amount.IsPercent)
        {
            return Reading.Wrong(
                $"“{Reading.Shortened(text)}” is no return on spend; write per cent, such as 400%, or 4x"
            );
        }

        var percent = times ? amount.Number * 100 : amount.Number;
        return percent is < Lowest or > Highest
                ? Reading.Wrong($"“{Reading.Shortened(text)}” is not between 1% and 100,000%")
            : decimal.Round(percent, 1) != percent
                ? Reading.Wrong($"“{Reading.Shortened(text)}” has more than one decimal place")
            : new Reading(percent);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        ((decimal)value).ToString("0.#", CultureInfo.InvariantCulture).Replace('.', ground.Language.DecimalMark) + "%";

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) => Words((decimal)value);

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.Number when element.TryGetDecimal(out var percent) => percent,
            _ => throw new JsonException("A return on spend is a number of per cent."),
        };

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) =>
        json.WriteNumberValue((decimal)value / 1.000000000000000000000000000000m);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report) =>
        [];
}
