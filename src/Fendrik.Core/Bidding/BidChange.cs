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
public sealed record BidChange(AmountOperation Operation, decimal Value)
{
    /// <summary>Most that may be set: a slip of the keyboard above it is surely one.</summary>
    public const decimal Ceiling = 1_000_000m;

    /// <summary>
    /// The amount after the change, rounded to the minor unit (halves away from zero) and never below
    /// <paramref name="floor"/> or above <see cref="Ceiling"/>. None stays none unless an amount is set.
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
        return raw is { } amount ? Math.Clamp(currency.Round(amount), floor, Ceiling) : null;
    }

    /// <summary>What is wrong with the change itself, or none.</summary>
    public string? Problem() =>
        this switch
        {
            { Operation: AmountOperation.Set, Value: <= 0 } => "The amount must be above zero.",
            { Operation: AmountOperation.Set, Value: > Ceiling } => "The amount is above 1,000,000.",
            { Operation: AmountOperation.AddPercent, Value: <= -100 } =>
                "An amount cannot be lowered by 100% or more; pause the item instead.",
            { Operation: AmountOperation.AddPercent, Value: > 900 } =>
                "An amount can be raised by at most 900% in one step.",
            _ => null,
        };
}
