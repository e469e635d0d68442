using Fendrik.Core.Accounts;

namespace Fendrik.Core.Auctions;

/// <summary>One who bids for a place.</summary>
/// <param name="Name">For a person, and to break ties the same way every time.</param>
/// <param name="Bid">Most to be paid for a click.</param>
/// <param name="Quality">Quality score; above zero.</param>
public sealed record Bidder(string Name, decimal Bid, decimal Quality)
{
    /// <summary>Bid × quality: what places are given by.</summary>
    public decimal Rank => Bid * Quality;
}

/// <summary>A place won.</summary>
/// <param name="Bidder">Who won it.</param>
/// <param name="Place">1 is the top.</param>
/// <param name="Price">What a click costs there.</param>
/// <param name="SetBy">Whose rank sets the price; none when the floor does.</param>
public sealed record Placement(Bidder Bidder, int Place, decimal Price, Bidder? SetBy);

/// <summary>
/// The generalised second-price auction: places by bid × quality, and each pays just what it takes to keep ahead of the
/// next, divided by its own quality. Edelman, Ostrovsky, Schwarz, “Internet Advertising and the Generalized
/// Second-Price Auction”, AER 97(1), 2007; with quality as in Varian, “Position auctions”, IJIO 25, 2007.
/// </summary>
/// <param name="Places">Places on the page; at least 1.</param>
/// <param name="Floor">Least price of a click. Who bids below it takes no part.</param>
/// <param name="Increment">Added to the price that would only draw level, for example 0.01; zero in the published form.</param>
/// <param name="Currency">Prices are rounded up to its minor unit.</param>
public sealed record Auction(int Places, decimal Floor, decimal Increment, Currency Currency)
{
    /// <summary>Runs the auction: the places from the top, fewer than <see cref="Places"/> when few take part.</summary>
    /// <remarks>
    /// A price is never above one's own bid: where the increment or rounding would lift it above, it is the bid.
    /// </remarks>
    public IReadOnlyList<Placement> Run(IEnumerable<Bidder> bidders)
    {
        var ranked = bidders.Where(bidder => bidder.Bid >= Floor && bidder.Quality > 0).ToArray();
        Array.Sort(ranked, ByRank);
        var placements = new Placement[Math.Min(Places, ranked.Length)];
        for (var place = 0; place < placements.Length; place++)
        {
            var bidder = ranked[place];
            var next = place + 1 < ranked.Length ? ranked[place + 1] : null;
            var (price, setBy) = PriceOf(bidder, next);
            placements[place] = new Placement(bidder, place + 1, price, setBy);
        }

        return placements;
    }

    private (decimal Price, Bidder? SetBy) PriceOf(Bidder bidder, Bidder? next)
    {
        if (next is null)
        {
            return (Floor, null);
        }

        var ahead = Currency.RoundUp(next.Rank / bidder.Quality + Increment);
        return ahead > Floor ? (Math.Min(ahead, bidder.Bid), next) : (Floor, null);
    }

    private static int ByRank(Bidder left, Bidder right)
    {
        var byRank = right.Rank.CompareTo(left.Rank);
        return byRank != 0 ? byRank : string.CompareOrdinal(left.Name, right.Name);
    }
}
