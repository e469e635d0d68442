namespace Fendrik.Core.Auctions;

/// <summary>One who bids for a place.</summary>
/// <param name="Amount">Most to be paid for a click, in minor units of the currency; at least 0.</param>
/// <param name="Quality">Quality score: 1 to 10.</param>
/// <param name="Lot">Decides between equal ranks, the lower first: a draw of the search, so that ties favour nobody.</param>
public readonly record struct Bid(long Amount, int Quality, ulong Lot)
{
    /// <summary>Bid × quality: what places are given by.</summary>
    public long Rank => Amount * Quality;

    internal bool IsBefore(in Bid other) => Rank != other.Rank ? Rank > other.Rank : Lot < other.Lot;
}

/// <summary>What set a price.</summary>
public enum PriceSetter
{
    /// <summary>Keeping ahead of the next bidder.</summary>
    NextBidder = 1,

    /// <summary>The rank that the place asks for.</summary>
    Reserve = 2,

    /// <summary>The lowest price of a click.</summary>
    Floor = 3,
}

/// <summary>A place won.</summary>
/// <param name="Bidder">Who won it: the place in the list of bids, counted from 0.</param>
/// <param name="Place">1 is the top.</param>
/// <param name="IsTop">True above the results, false below them.</param>
/// <param name="Price">What a click costs there, in minor units.</param>
/// <param name="SetBy">What the price rests on.</param>
public readonly record struct Placement(int Bidder, int Place, bool IsTop, long Price, PriceSetter SetBy);

/// <summary>
/// The generalised second-price auction: places by bid × quality, and each pays just what it takes to keep its place, divided by
/// its own quality. Edelman, Ostrovsky, Schwarz, “Internet Advertising and the Generalized Second-Price Auction”, AER 97(1),
/// 2007; with quality as in Varian, “Position auctions”, IJIO 25, 2007. All amounts are whole minor units of the currency.
/// </summary>
/// <param name="TopPlaces">Most places above the results.</param>
/// <param name="BottomPlaces">Most places below them.</param>
/// <param name="TopReserve">Least rank (bid × quality) for a place above.</param>
/// <param name="BottomReserve">Least rank for a place below; not above <paramref name="TopReserve"/>.</param>
/// <param name="Floor">Least price of a click. Who bids below it takes no part.</param>
public readonly record struct Auction(
    int TopPlaces,
    int BottomPlaces,
    long TopReserve = 0,
    long BottomReserve = 0,
    long Floor = 0
)
{
    /// <summary>A rank that nobody reaches: for places that are not there.</summary>
    private const long Never = long.MaxValue / 16;

    /// <summary>Most places on a page.</summary>
    public int Places => TopPlaces + BottomPlaces;

    /// <summary>Runs the auction.</summary>
    /// <param name="bids">The bids in any order.</param>
    /// <param name="order">Room for as many numbers as there are bids: filled with all that took part, the highest rank first.</param>
    /// <param name="placements">Room for <see cref="Places"/>: filled from the top.</param>
    /// <returns>How many took part, and how many places were won.</returns>
    public (int Ranked, int Won) Run(ReadOnlySpan<Bid> bids, Span<int> order, Span<Placement> placements)
    {
        var ranked = 0;
        for (var bidder = 0; bidder < bids.Length; bidder++)
        {
            ref readonly var bid = ref bids[bidder];
            if (bid.Amount < Floor || bid.Quality <= 0)
            {
                continue;
            }

            // Few bid for a search: sorting by insertion is quicker than any other.
            var at = ranked++;
            while (at > 0 && bid.IsBefore(bids[order[at - 1]]))
            {
                order[at] = order[at - 1];
                at--;
            }

            order[at] = bidder;
        }

        var won = 0;
        var top = 0;
        while (won < ranked && won < Places)
        {
            ref readonly var bid = ref bids[order[won]];
            var isTop = top < TopPlaces && bid.Rank >= TopReserve;
            if (!isTop && (bid.Rank < BottomReserve || won - top >= BottomPlaces))
            {
                break;
            }

            top += isTop ? 1 : 0;
            // With an equal rank the lot decides: who would lose it must be ahead by something.
            var nextNeeds = 0L;
            if (won + 1 < ranked)
            {
                ref readonly var next = ref bids[order[won + 1]];
                nextNeeds = next.Rank + (bid.Lot < next.Lot ? 0 : 1);
            }

            var (price, setBy) = PriceOf(bid, nextNeeds, isTop);
            placements[won] = new Placement(order[won], won + 1, isTop, price, setBy);
            won++;
        }

        return (ranked, won);
    }

    /// <summary>The least amount in whole minor units that wins a place against others.</summary>
    /// <param name="others">Who else bids.</param>
    /// <param name="quality">Quality score: 1 to 10.</param>
    /// <param name="top">True for a place above the results, false for any.</param>
    public long AmountToWin(ReadOnlySpan<Bid> others, int quality, bool top)
    {
        Span<int> order = stackalloc int[others.Length];
        Span<Placement> placements = stackalloc Placement[Places];
        var (_, won) = Run(others, order, placements);
        var above = 0;
        for (var at = 0; at < won; at++)
        {
            above += placements[at].IsTop ? 1 : 0;
        }

        // Where a place is free its reserve is enough; else the last of those who have one has to be outranked.
        long OutrankAt(int place, Span<int> ranked, ReadOnlySpan<Bid> bids) => bids[ranked[place - 1]].Rank + 1;
        var toTop =
            TopPlaces == 0 ? Never
            : above < TopPlaces ? TopReserve
            : Math.Max(TopReserve, OutrankAt(above, order, others));
        var toBottom =
            BottomPlaces == 0 ? Never
            : won - above < BottomPlaces ? BottomReserve
            : Math.Max(BottomReserve, OutrankAt(won, order, others));
        return Math.Max(Floor, AmountFor(top ? toTop : Math.Min(toTop, toBottom), quality));
    }

    /// <summary>The least amount in whole minor units that makes a rank with some quality.</summary>
    /// <param name="rank">The rank that is needed.</param>
    /// <param name="quality">Quality score: 1 to 10.</param>
    public static long AmountFor(long rank, int quality) =>
        // Most ranks are small, and dividing those is several times as quick.
        rank < int.MaxValue - 10
            ? (uint)(rank + quality - 1) / (uint)quality
            : (rank + quality - 1) / quality;

    private (long Price, PriceSetter SetBy) PriceOf(in Bid bid, long nextNeeds, bool isTop)
    {
        var reserve = isTop ? TopReserve : BottomReserve;
        var price = AmountFor(Math.Max(reserve, nextNeeds), bid.Quality);
        return price <= Floor ? (Math.Min(Floor, bid.Amount), PriceSetter.Floor)
            : nextNeeds > reserve ? (Math.Min(price, bid.Amount), PriceSetter.NextBidder)
            : (Math.Min(price, bid.Amount), PriceSetter.Reserve);
    }
}
