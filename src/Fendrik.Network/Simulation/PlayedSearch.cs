using Fendrik.Core.Auctions;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>What one search came to.</summary>
/// <param name="Person">Who searched; none for a search that nobody in particular makes.</param>
/// <param name="Search">The search.</param>
/// <param name="Answer">What answered.</param>
/// <param name="Bids">All who bid, one's own first; empty when nothing answered.</param>
public sealed record PlayedSearch(
    Person? Person,
    Search Search,
    AnswerToSearch Answer,
    IReadOnlyList<(Rival? Rival, Bid Bid)> Bids
)
{
    /// <summary>Holds the auction.</summary>
    /// <returns>Who took part, the highest rank first, and the places won from the top.</returns>
    public (int[] Order, Placement[] Won) Hold(Auction auction)
    {
        Span<Bid> bids = stackalloc Bid[Bids.Count];
        for (var at = 0; at < bids.Length; at++)
        {
            bids[at] = Bids[at].Bid;
        }

        Span<int> order = stackalloc int[bids.Length];
        Span<Placement> placements = stackalloc Placement[auction.Places];
        var (ranked, won) = auction.Run(bids, order, placements);
        return (order[..ranked].ToArray(), placements[..won].ToArray());
    }
}
