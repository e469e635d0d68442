using Fendrik.Core.Accounts;

namespace Fendrik.Core.Bidding;

/// <summary>How a change of a max CPC or a budget is said.</summary>
public enum AmountOperation
{
    /// <summary>Becomes the amount.</summary>
    Set = 1,

    /// <summary>Goes up (or down, when negative) by the amount.</summary>
    AddAmount = 2,

    /// <summary>Goes up (or down, when negative) by this percentage of itself.</summary>
    AddPercent = 3,

    /// <summary>Is taken away, so that the level above decides.</summary>
    Inherit = 4,
}

/// <summary>A change of an amount of money that can be applied to one value or, as data, to many rows at once.</summary>
/// <param name="Operation">What is done.</param>
/// <param name="Value">An amount in the account's currency, or a percentage (10 means 10%); not used to inherit.</param>
/// <param name="RoundTo">Step that the result is rounded to, such as 0.05; none for the currency's minor unit.</param>
/// <param name="AtLeast">Floor of the result, or none.</param>
/// <param name="AtMost">Ceiling of the result, or none.</param>
public sealed record BidChange(
    AmountOperation Operation,
    decimal Value,
    decimal? RoundTo = null,
    decimal? AtLeast = null,
    decimal? AtMost = null
)
{
    /// <summary>Most that may be set: a slip of the keyboard above it is surely one.</summary>
    public const decimal Ceiling = 1_000_000m;

    /// <summary>
    /// The amount after the change, rounded to the step (halves away from zero), then held between
    /// <see cref="AtLeast"/> and <see cref="AtMost"/>, and never below <paramref name="floor"/> or above
    /// <see cref="Ceiling"/>. None stays none unless an amount is set.
    /// </summary>
    public decimal? Apply(decimal? current, Currency currency, decimal floor)
    {
        decimal? raw = Operation switch
        {
            AmountOperation.Set => Value,
            AmountOperation.AddAmount => current + Value,
            AmountOperation.AddPercent => current * (1 + Value / 100m),
            _ => null,
        };
        if (raw is not { } amount)
        {
            return null;
        }

        var step = Step(currency);
        var rounded = Math.Round(amount / step, MidpointRounding.AwayFromZero) * step;
        if (Operation == AmountOperation.AddPercent && current is { } before)
        {
            // A small amount would be rounded back to what it was: it moves to the next step in its direction.
            rounded =
                Value > 0 ? Math.Max(rounded, (Math.Floor(before / step) + 1) * step)
                : Value < 0 ? Math.Min(rounded, (Math.Ceiling(before / step) - 1) * step)
                : rounded;
        }

        return Math.Clamp(rounded, Floor(floor), Math.Max(Floor(floor), AtMost ?? Ceiling));
    }

    /// <summary>The step that results are rounded to.</summary>
    public decimal Step(Currency currency) => RoundTo ?? currency.SmallestAmount;

    /// <summary>The floor of results, given the network's.</summary>
    public decimal Floor(decimal networkFloor) => Math.Max(networkFloor, AtLeast ?? networkFloor);

    /// <summary>What is wrong with the change itself, or none.</summary>
    public string? Problem() =>
        this switch
        {
            { Operation: AmountOperation.Set, Value: <= 0 } => "The amount must be above zero.",
            { Operation: AmountOperation.Set, Value: > Ceiling } => "The amount is above 1,000,000.",
            { Operation: AmountOperation.AddAmount, Value: > Ceiling or < -Ceiling } =>
                "The amount is above 1,000,000.",
            { Operation: AmountOperation.AddPercent, Value: <= -100 } =>
                "An amount cannot be lowered by 100% or more; pause the item instead.",
            { Operation: AmountOperation.AddPercent, Value: > 900 } =>
                "An amount can be raised by at most 900% in one step.",
            { RoundTo: <= 0 or > 1_000 } => "Round to a step above zero and at most 1,000.",
            { AtLeast: < 0 or > Ceiling } or { AtMost: <= 0 or > Ceiling } =>
                "Floor and ceiling must be above zero and at most 1,000,000.",
            { AtLeast: { } least, AtMost: { } most } when least > most =>
                "The floor is above the ceiling. Exchange the two.",
            _ => null,
        };
}
