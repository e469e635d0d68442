using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>What a lead may cost: what it brings on average, of which so much is left.</summary>
/// <param name="AverageSale">What a customer pays on average, in the account's currency.</param>
/// <param name="ClosingRate">How many of a hundred leads become customers.</param>
/// <param name="Margin">How much of a hundred of the sale is left when the work is paid.</param>
public readonly record struct LeadWorth(decimal AverageSale, decimal ClosingRate, decimal Margin)
{
    /// <summary>
    /// Average sale × closing rate × margin: the value of one, and the cost at which nothing is won or lost, rounded to the currency's
    /// minor unit.
    /// </summary>
    public decimal Value(Currency currency) => currency.Round(AverageSale * ClosingRate / 100 * Margin / 100);

    /// <summary>How it comes about, in a sentence.</summary>
    public string InWords(Currency currency) =>
        $"{new Money(AverageSale, currency)} × {ClosingRate:0.##}% × {Margin:0.##}% = {new Money(Value(currency), currency)}: at that cost a conversion wins nothing and loses nothing.";
}
