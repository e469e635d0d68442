using System.Globalization;

namespace Fendrik.Core.Accounts;

/// <summary>An amount in one currency. Amounts of two currencies are never added or compared.</summary>
/// <param name="Amount">The amount in major units (pounds, not pence).</param>
/// <param name="Currency">The currency of the account that the amount belongs to.</param>
public readonly record struct Money(decimal Amount, Currency Currency)
{
    /// <summary>Sum of two amounts of the same currency.</summary>
    /// <exception cref="InvalidOperationException">The currencies differ.</exception>
    public static Money operator +(Money left, Money right) =>
        left.Currency == right.Currency
            ? left with
            {
                Amount = left.Amount + right.Amount,
            }
            : throw new InvalidOperationException(
                $"{left.Currency.Code} and {right.Currency.Code} cannot be added without a rate."
            );

    /// <summary>Sum of two amounts of the same currency.</summary>
    public static Money Add(Money left, Money right) => left + right;

    /// <summary>The amount with its sign and the digits of its minor unit: <c>£1.30</c>, <c>¥130</c>, <c>KWD 1.300</c>.</summary>
    public override string ToString() =>
        Currency.Sign
        + Amount.ToString(
            "N" + Currency.MinorUnits.ToString(CultureInfo.InvariantCulture),
            CultureInfo.InvariantCulture
        );
}
