using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;

namespace Fendrik.Core.Tests.Auctions;

public class AuctionTests
{
    private static readonly Currency Dollar = Currency.Of("USD");

    // Edelman, Ostrovsky, Schwarz, “Internet Advertising and the Generalized Second-Price Auction”, AER 97(1), 2007:
    // bidders at $10, $4 and $2, places with 200 and 100 clicks. Under GSP the first pays $4 a click, the second $2:
    // $800 and $200 in all.
    [Fact]
    public void Charges_what_the_published_example_charges()
    {
        var placements = new Auction(2, 0, 0, Dollar).Run([new("ten", 10, 1), new("two", 2, 1), new("four", 4, 1)]);

        placements.Select(each => (each.Bidder.Name, each.Price)).ShouldBe([("ten", 4m), ("four", 2m)]);
        (placements[0].Price * 200, placements[1].Price * 100).ShouldBe((800m, 200m));
    }

    [Fact]
    public void Ranks_by_bid_times_quality_and_divides_the_price_by_ones_own_quality()
    {
        // £2.31 × 7 = 16.17 beats £1.76 × 5 = 8.80; 8.80 ÷ 7 = 1.257…, plus a penny, rounded up: £1.27.
        var placements = new Auction(4, 0.05m, 0.01m, Currency.Of("GBP")).Run([
            new("rival", 1.76m, 5),
            new("us", 2.31m, 7),
        ]);

        placements[0].Bidder.Name.ShouldBe("us");
        placements[0].Price.ShouldBe(1.27m);
        placements[0].SetBy!.Name.ShouldBe("rival");
    }

    [Fact]
    public void Charges_the_floor_where_nobody_is_behind()
    {
        var placement = new Auction(4, 0.05m, 0.01m, Dollar).Run([new("alone", 3, 5)]).ShouldHaveSingleItem();

        placement.Price.ShouldBe(0.05m);
        placement.SetBy.ShouldBeNull();
    }

    [Fact]
    public void Leaves_out_who_bids_below_the_floor() =>
        new Auction(4, 1m, 0.01m, Dollar)
            .Run([new("low", 0.99m, 10), new("high", 1m, 1)])
            .ShouldHaveSingleItem()
            .Bidder.Name.ShouldBe("high");

    [Fact]
    public void Breaks_a_tie_the_same_way_in_any_order()
    {
        var auction = new Auction(1, 0, 0, Dollar);

        auction.Run([new("b", 1, 1), new("a", 1, 1)])[0].Bidder.Name.ShouldBe("a");
        auction.Run([new("a", 1, 1), new("b", 1, 1)])[0].Bidder.Name.ShouldBe("a");
    }

    // Properties of the generalised second-price auction as defined in the papers above.
    [Fact]
    public void Never_charges_above_the_bid_or_below_the_floor_and_ranks_fall_from_place_to_place() =>
        Gen.Select(Gen.Decimal[0.01m, 10m], Gen.Int[1, 10])
            .Select((bid, quality) => (Math.Round(bid, 2), quality))
            .Array[0, 8]
            .Sample(drawn =>
            {
                var bidders = drawn.Select((each, number) => new Bidder($"b{number}", each.Item1, each.quality));
                var placements = new Auction(4, 0.05m, 0.01m, Dollar).Run(bidders);
                return placements.All(each => each.Price <= each.Bidder.Bid && each.Price >= 0.05m)
                    && placements.Zip(placements.Skip(1)).All(pair => pair.First.Bidder.Rank >= pair.Second.Bidder.Rank)
                    && placements
                        .Zip(placements.Skip(1))
                        .All(pair => pair.First.Price * pair.First.Bidder.Quality >= pair.Second.Bidder.Rank);
            });

    [Theory]
    [InlineData(0, 0, 0, 1)]
    [InlineData(1, 1, 1, 10)]
    public void Scores_quality_from_1_to_10(decimal click, decimal text, decimal page, int score) =>
        new QualityScore(click, text, page).Score.ShouldBe(score);

    [Fact]
    public void Counts_plurals_as_fitting() => QualityScore.ShareOfWords(["pianos", "york"], ["piano"]).ShouldBe(0.5m);
}
