using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>An amount above zero in the account's currency.</summary>
public sealed class AmountValue : ValueType
{
    /// <summary>Highest amount that is kept.</summary>
    public const decimal Highest = BidChange.Ceiling;

    /// <inheritdoc/>
    public override Storage Storage => Storage.Amount;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Amount;

    /// <summary>
    /// Reads <c>1.30</c>, <c>£1.30</c>, <c>1,234.50</c>; where it may be relative, <c>+0.10</c>, <c>−5</c>, <c>+10%</c> and
    /// <c>−8%</c> too, as a <see cref="BidChange"/>.
    /// </summary>
    public override Reading Read(string text, ReadingGround ground)
    {
        var amount = AmountText.Read(text, ground.Currency, ground.Language);
        if (amount.Problem is { } problem)
        {
            return Reading.Wrong(problem);
        }

        if (amount.Sign is not null || amount.IsPercent)
        {
            return ground.Relative
                ? Relative(amount, text)
                : Reading.Wrong(
                    $"“{Reading.Shortened(text)}” changes an amount that is there; write the amount itself, like {Example(ground.Currency)}"
                );
        }

        return amount.Number is <= 0 or > Highest
                ? Reading.Wrong(
                    $"“{Reading.Shortened(text)}” is not between {Plain(ground.Currency.SmallestAmount)} and 1,000,000"
                )
            : ground.Currency.Round(amount.Number) != amount.Number
                ? Reading.Wrong(
                    ground.Currency.MinorUnits == 0
                        ? $"“{Reading.Shortened(text)}” has decimal places; {ground.Currency.Code} has none"
                        : $"“{Reading.Shortened(text)}” has more than {ground.Currency.MinorUnits} decimal places"
                )
            : new Reading(amount.Number);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        ((decimal)value)
            .ToString(
                "F" + ground.Currency.MinorUnits.ToString(CultureInfo.InvariantCulture),
                CultureInfo.InvariantCulture
            )
            .Replace('.', ground.Language.DecimalMark);

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) => new Money((decimal)value, currency).ToString();

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.Number when element.TryGetDecimal(out var amount) => amount,
            _ => throw new JsonException("An amount is a number."),
        };

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) =>
        json.WriteNumberValue((decimal)value / 1.000000000000000000000000000000m);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if (limits.LeastIn(report.Currency) is { } least && (decimal)value < least)
        {
            var lowest = new Money(least, report.Currency);
            yield return report.Blocker(
                field,
                "low",
                $"{field.LowLabel} below {lowest}",
                $"{report.Network.Name} takes no {field.LowLabel} below {lowest}. Raise it."
            );
        }
    }

    private static Reading Relative(AmountText amount, string text)
    {
        var change = new BidChange(
            amount.IsPercent ? AmountOperation.AddPercent : AmountOperation.AddAmount,
            amount.Sign == '-' ? -amount.Number : amount.Number
        );
        return amount.Sign is null ? Reading.Wrong($"“{Reading.Shortened(text)}” needs a sign: + to raise, − to lower")
            : change.Problem() is { } problem
                ? Reading.Wrong(
                    $"“{Reading.Shortened(text)}” cannot be applied: {char.ToLowerInvariant(problem[0])}{problem[1..].TrimEnd('.')}"
                )
            : new Reading(change);
    }

    private static string Example(Currency currency) =>
        (1.2m).ToString("F" + currency.MinorUnits.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture);

    private static string Plain(decimal amount) => amount.ToString(CultureInfo.InvariantCulture);
}
