using Fendrik.Core.Accounts;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Bidding;

/// <summary>A bid to begin with, and what it rests on.</summary>
/// <param name="Bid">The bid.</param>
/// <param name="Why">In a sentence.</param>
public sealed record StartingBid(decimal Bid, string Why);

/// <summary>
/// Bids to begin with, by match type and theme: what clicks on the same words cost in the account, else the rule of the trade. Broad lists
/// begin at 0.30 to 0.60, a targeted phrase list at 1.50 (common practice, no source); what lies between is Fendrik's own choice.
/// </summary>
public static class StartingBids
{
    private const decimal Broad = 0.45m;
    private const decimal AllWords = 0.90m;
    private const decimal Phrase = 1.50m;

    /// <summary>Prices are lower than bids: a bid begins so many times above what clicks cost.</summary>
    private const decimal AbovePrice = 1.25m;

    /// <summary>What a theme cost may move a bid this many times from the rule.</summary>
    private const decimal Farthest = 3;

    /// <summary>A bid to begin with.</summary>
    /// <param name="match">The match type.</param>
    /// <param name="priceOfTheme">What a click on keywords of the same match type and words cost in the account; none where there was none.</param>
    /// <param name="network">The network; its lowest bid tells what its currency is worth.</param>
    /// <param name="currency">The account's currency.</param>
    public static StartingBid Of(MatchType match, decimal? priceOfTheme, NetworkProfile network, Currency currency)
    {
        var rule =
            OfRule(match) * network.MinimumCpc(currency) / Math.Max(0.01m, network.MinimumCpc(Currency.Of("GBP")));
        return priceOfTheme is > 0 and { } price
            ? new StartingBid(
                currency.Round(Math.Clamp(price * AbovePrice, rule / Farthest, rule * Farthest)),
                $"Clicks on the same words cost {new Money(currency.Round(price), currency)}; a quarter above."
            )
            : new StartingBid(
                currency.Round(rule),
                $"Nothing is known of these words: as the trade begins with {Items.Values.Choices.NameOf(match)} lists."
            );
    }

    private static decimal OfRule(MatchType match) =>
        match switch
        {
            MatchType.Exact or MatchType.Phrase => Phrase,
            MatchType.AllWords => AllWords,
            MatchType.Broad => Broad,
        };
}
