using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;

namespace Fendrik.Core.Serving;

/// <summary>One who bids, with a name.</summary>
/// <param name="Name">Who.</param>
/// <param name="Bid">The bid.</param>
/// <param name="Headline">What the ad says, where it is another's.</param>
/// <param name="Description">Likewise.</param>
public readonly record struct NamedBid(string Name, Bid Bid, string? Headline = null, string? Description = null);

/// <summary>Tells how an auction went.</summary>
/// <param name="auction">The auction.</param>
/// <param name="currency">The account's currency.</param>
public sealed class AuctionTrace(Auction auction, Currency currency)
{
    /// <summary>Holds the auction and tells how it went for one of those who bid.</summary>
    /// <param name="bids">All who bid.</param>
    /// <param name="own">One's own place among them.</param>
    /// <returns>The steps, and one's own placement; none when no place was won.</returns>
    public (TracedAuction Trace, Placement? Own) Run(IReadOnlyList<NamedBid> bids, int own)
    {
        Bid[] offers = [.. bids.Select(each => each.Bid)];
        var order = new int[offers.Length];
        var placements = new Placement[auction.Places];
        var (ranked, won) = auction.Run(offers, order, placements);
        Placement? placement = placements
            .Take(won)
            .Where(each => each.Bidder == own)
            .Cast<Placement?>()
            .FirstOrDefault();
        var ladder = order
            .Take(ranked)
            .Concat(Enumerable.Range(0, offers.Length).Except(order.Take(ranked)))
            .Select(
                (bidder, at) =>
                    Of(
                        bids[bidder],
                        bidder == own,
                        placements.Take(won).Where(each => each.Bidder == bidder),
                        at < ranked
                    )
            );
        return (
            new TracedAuction(
                [.. ladder],
                WhyOf(bids, own, placement, order.AsSpan(0, ranked)),
                placement is { } place ? AtOtherQualities(offers, own, place, order.AsSpan(0, ranked)) : []
            ),
            placement
        );
    }

    private TracedBidder Of(NamedBid bid, bool isOwn, IEnumerable<Placement> won, bool takesPart)
    {
        Placement? placement = won.Cast<Placement?>().FirstOrDefault();
        return new TracedBidder(
            bid.Name,
            isOwn,
            currency.FromMinor(bid.Bid.Amount),
            bid.Bid.Quality,
            currency.FromMinor(bid.Bid.Rank),
            placement?.Place,
            placement?.IsTop ?? false,
            placement is { } place ? currency.FromMinor(place.Price) : null,
            placement is not null ? null
                : !takesPart ? "below the lowest bid"
                : bid.Bid.Rank < auction.BottomReserve ? "below the reserve"
                : "no place left",
            bid.Headline,
            bid.Description
        );
    }

    private string WhyOf(IReadOnlyList<NamedBid> bids, int own, Placement? placement, ReadOnlySpan<int> order)
    {
        var bid = bids[own].Bid;
        if (placement is not { } place)
        {
            return bid.Amount < auction.Floor ? $"A click costs at least {Written(auction.Floor)} here."
                : bid.Rank < auction.BottomReserve
                    ? $"Bid × quality is {Ranked(bid.Rank)}; a place below the results asks for a rank of {Ranked(auction.BottomReserve)}. A bid of {Written(Auction.AmountFor(auction.BottomReserve, bid.Quality))} would reach it."
                : "Others rank higher in every place.";
        }

        return place.SetBy switch
        {
            PriceSetter.NextBidder => NextWhy(bids, order[place.Place], place, bid.Quality),
            PriceSetter.Reserve =>
                $"The place {(place.IsTop ? "above" : "below")} the results asks for a rank of {Ranked(place.IsTop ? auction.TopReserve : auction.BottomReserve)}, divided by your quality of {bid.Quality}, rounded up: {Written(place.Price)}.",
            PriceSetter.Floor => $"Nobody presses from below: the lowest price of a click, {Written(place.Price)}.",
        };
    }

    private string NextWhy(IReadOnlyList<NamedBid> bids, int next, Placement place, int quality) =>
        $"Enough to keep ahead of {bids[next].Name}: {Ranked(bids[next].Bid.Rank)} ÷ your quality of {quality}, rounded up: {Written(place.Price)}.";

    private PriceAtQuality[] AtOtherQualities(Bid[] bids, int own, Placement place, ReadOnlySpan<int> order)
    {
        // What the place takes is a rank; what makes that rank falls with the quality.
        var next = place.Place < order.Length ? bids[order[place.Place]] : default;
        var needed = Math.Max(
            place.IsTop ? auction.TopReserve : auction.BottomReserve,
            next.Quality == 0 ? 0
                : bids[own].Lot < next.Lot ? next.Rank
                : next.Rank + 1
        );
        return
        [
            .. Enumerable
                .Range(1, 10)
                .Select(quality =>
                {
                    var price = Math.Max(auction.Floor, Auction.AmountFor(needed, quality));
                    return new PriceAtQuality(
                        quality,
                        currency.FromMinor(price),
                        price <= bids[own].Amount,
                        quality == bids[own].Quality
                    );
                }),
        ];
    }

    private string Written(long minor) => new Money(currency.FromMinor(minor), currency).ToString();

    private string Ranked(long rank) =>
        currency.FromMinor(rank).ToString("N" + currency.MinorUnits, CultureInfo.InvariantCulture);
}
