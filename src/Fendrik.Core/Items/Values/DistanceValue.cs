using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>A distance in kilometres, to a tenth.</summary>
public sealed class DistanceValue : ValueType
{
    /// <summary>The longest that is kept, in kilometres: to the other side of the earth.</summary>
    public const decimal Longest = 20_000;

    private const decimal KilometresOfMile = 1.609344m;

    /// <inheritdoc/>
    public override Storage Storage => Storage.Amount;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Distance;

    /// <summary>In words.</summary>
    public static string Words(decimal kilometres) =>
        string.Create(CultureInfo.InvariantCulture, $"{kilometres:0.#} km");

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        var lower = text.Trim().ToLowerInvariant();
        var miles = lower.EndsWith("mi", StringComparison.Ordinal) || lower.EndsWith("miles", StringComparison.Ordinal);
        var number = lower.TrimEnd('k', 'm', 'i', 'l', 'e', 's', ' ');
        if (
            !decimal.TryParse(
                number.Replace(ground.Language.DecimalMark, '.'),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var distance
            )
        )
        {
            return Reading.Wrong($"“{Reading.Shortened(text)}” is no distance; write kilometres, such as 25 or 25 km");
        }

        var kilometres = decimal.Round(miles ? distance * KilometresOfMile : distance, 1);
        return kilometres is <= 0 or > Longest
            ? Reading.Wrong($"“{Reading.Shortened(text)}” is not between 0.1 and 20,000 km")
            : new Reading(kilometres);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        ((decimal)value).ToString("0.#", CultureInfo.InvariantCulture).Replace('.', ground.Language.DecimalMark)
        + " km";

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) => Words((decimal)value);

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.Number when element.TryGetDecimal(out var kilometres) => kilometres,
            _ => throw new JsonException("Kilometres are a number."),
        };

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) =>
        json.WriteNumberValue((decimal)value / 1.000000000000000000000000000000m);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if ((decimal)value > limits.HighestDistance)
        {
            yield return report.Blocker(
                field,
                "far",
                $"{field.LowLabel} above {Words(limits.HighestDistance.Value)}",
                $"{report.Network.Name} takes no {field.LowLabel} above {Words(limits.HighestDistance.Value)}. Choose a region or a country instead."
            );
        }
    }
}
