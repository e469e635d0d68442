using CsCheck;
using Fendrik.Core.Auctions;

namespace Fendrik.Core.Tests.Auctions;

public class AuctionTests
{
    private static Placement[] Run(Auction auction, params Bid[] bids)
    {
        var placements = new Placement[auction.Places];
        var (_, won) = auction.Run(bids, new int[bids.Length], placements);
        return placements[..won];
    }

    /// <summary>Lots are drawn, and no two are the same.</summary>
    private static readonly Gen<Bid[]> Bids = Gen.Select(
            Gen.Long[0, 400],
            Gen.Int[1, 10],
            Gen.ULong,
            (amount, quality, lot) => new Bid(amount, quality, lot)
        )
        .Array[0, 9]
        .Select(bids => bids.Select((bid, at) => bid with { Lot = bid.Lot / 16 * 16 + (ulong)at }).ToArray());

    private static readonly Gen<Auction> Auctions = Gen.Select(
        Gen.Int[0, 4],
        Gen.Int[0, 3],
        Gen.Long[0, 900],
        Gen.Long[0, 400],
        Gen.Long[0, 20],
        (top, bottom, reserve, less, floor) => new Auction(top, bottom, reserve, Math.Max(0, reserve - less), floor)
    );

    // Edelman, Ostrovsky, Schwarz, “Internet Advertising and the Generalized Second-Price Auction”, AER 97(1), 2007:
    // bidders at $10, $4 and $2, places with 200 and 100 clicks. Under GSP the first pays $4 a click, the second $2:
    // $800 and $200 in all.
    [Fact]
    public void Charges_what_the_published_example_charges()
    {
        var placements = Run(new Auction(2, 0), new(1000, 1, 3), new(200, 1, 1), new(400, 1, 2));

        placements.Select(each => (each.Bidder, each.Price)).ShouldBe([(0, 401), (2, 200 + 1)]);
        // In the paper a price just draws level; in whole cents, without luck in the lot, it takes one cent more.
        Run(new Auction(2, 0), new(1000, 1, 1), new(200, 1, 3), new(400, 1, 2))
            .Select(each => each.Price)
            .ShouldBe([400, 200]);
    }

    // The same paper: VCG payments of the example are $600 and $200 in all; theorem 1 has an equilibrium of GSP with just these
    // payments, in which each bids what the place above costs under VCG for each of its clicks.
    [Fact]
    public void Charges_the_payments_of_VCG_in_the_equilibrium_of_the_paper()
    {
        long[] values = [1000, 400, 200];
        long[] clicks = [200, 100, 0];
        var payments = VickreyClarkeGroves(values, clicks);
        payments.ShouldBe([60_000, 20_000, 0]);

        var placements = Run(
            new Auction(2, 0),
            new(1000, 1, 1),
            new(payments[0] / clicks[0], 1, 2),
            new(payments[1] / clicks[1], 1, 3)
        );

        placements.Select(each => each.Price * clicks[each.Place - 1]).ShouldBe([60_000, 20_000]);
    }

    // Varian, “Position auctions”, IJIO 25, 2007: in a symmetric equilibrium nobody would rather have another place at its price.
    // Bids at the lower bound of such equilibria, with clicks that fall by halves so that amounts are whole.
    [Fact]
    public void Nobody_envies_another_place_at_the_prices_of_a_symmetric_equilibrium() =>
        Gen.Long[1, 300]
            .Array[2, 6]
            .Sample(drawn =>
            {
                long[] values = [.. drawn.Select(value => value * 64).OrderDescending()];
                long[] clicks = [.. Enumerable.Range(0, values.Length).Select(place => 64L >> place)];
                clicks[^1] = 0;
                var bids = new Bid[values.Length];
                var below = 0L;
                for (var place = values.Length - 1; place > 0; place--)
                {
                    // b(s) × x(s−1) = v(s) × (x(s−1) − x(s)) + b(s+1) × x(s)
                    below =
                        (values[place] * (clicks[place - 1] - clicks[place]) + below * clicks[place])
                        / clicks[place - 1];
                    bids[place] = new Bid(below, 1, (ulong)place);
                }

                bids[0] = new Bid(values[0] * 2, 1, 0);
                var won = Run(new Auction(values.Length - 1, 0), bids);
                return won.All(own =>
                    won.All(other =>
                        (values[own.Bidder] - own.Price) * clicks[own.Place - 1]
                        >= (values[own.Bidder] - other.Price) * clicks[other.Place - 1]
                    )
                );
            });

    // A rule of the trade (common practice, no source): the price of the same place goes with 1 ÷ quality, so that a score of 3
    // pays 7 ÷ 3 of what a score of 7 pays, 133 % more.
    [Fact]
    public void Charges_for_the_same_place_by_the_inverse_of_quality()
    {
        long PriceAt(int quality) => Run(new Auction(1, 0), new(5_000, quality, 1), new(420, 5, 2))[0].Price;

        PriceAt(7).ShouldBe(300);
        PriceAt(3).ShouldBe(700);
    }

    [Fact]
    public void Gives_places_above_only_to_ranks_that_reach_the_reserve_and_the_rest_below()
    {
        var placements = Run(new Auction(2, 1, 500, 200), new(100, 6, 1), new(60, 5, 2), new(30, 5, 3));

        placements
            .Select(each => (each.Bidder, each.IsTop, each.Price, each.SetBy))
            .ShouldBe([(0, true, 84, PriceSetter.Reserve), (1, false, 40, PriceSetter.Reserve)]);
    }

    [Fact]
    public void Charges_the_floor_where_nobody_is_behind()
    {
        Run(new Auction(4, 0, Floor: 5), new Bid(300, 5, 1))
            .Select(each => (each.Price, each.SetBy))
            .ShouldBe([(5, PriceSetter.Floor)]);
        Run(new Auction(4, 0, Floor: 100), new(99, 10, 1), new(100, 1, 2)).ShouldHaveSingleItem().Bidder.ShouldBe(1);
    }

    [Fact]
    public void Favours_nobody_among_equals()
    {
        Run(new Auction(1, 0), new(100, 1, 7), new(100, 1, 3))[0].Bidder.ShouldBe(1);
        Run(new Auction(1, 0), new(100, 1, 3), new(100, 1, 7))[0].Bidder.ShouldBe(0);
    }

    // The definition, tried out: with its price for a bid one keeps the place, with one minor unit less one does not.
    [Fact]
    public void Charges_the_least_that_keeps_the_place_and_never_more_than_the_bid() =>
        Gen.Select(Auctions, Bids)
            .Sample(
                (auction, bids) =>
                {
                    var won = Run(auction, bids);
                    bool Keeps(Placement place, long amount)
                    {
                        var others = bids.ToArray();
                        others[place.Bidder] = others[place.Bidder] with { Amount = amount };
                        return Run(auction, others)
                            .Any(each =>
                                each.Bidder == place.Bidder && each.Place == place.Place && each.IsTop == place.IsTop
                            );
                    }

                    return won.All(place =>
                        place.Price <= bids[place.Bidder].Amount
                        && place.Price >= auction.Floor
                        && Keeps(place, place.Price)
                        && (place.Price == 0 || !Keeps(place, place.Price - 1))
                    );
                },
                iter: 8_000
            );

    [Fact]
    public void The_amount_that_wins_a_place_wins_it_and_a_unit_less_does_not() =>
        Gen.Select(Auctions, Bids, Gen.Int[1, 10], Gen.Bool)
            .Sample(
                (auction, others, quality, top) =>
                {
                    bool Wins(long amount)
                    {
                        // With equal ranks it is the last by lot.
                        Bid[] bids = [new Bid(amount, quality, ulong.MaxValue), .. others];
                        var placements = new Placement[auction.Places];
                        var (_, won) = auction.Run(bids, new int[bids.Length], placements);
                        return placements.Take(won).Any(place => place.Bidder == 0 && (place.IsTop || !top));
                    }

                    if (top ? auction.TopPlaces == 0 : auction.Places == 0)
                    {
                        return;
                    }

                    var amount = auction.AmountToWin(others, quality, top);
                    Wins(amount).ShouldBeTrue();
                    if (amount > Math.Max(auction.Floor, 0))
                    {
                        Wins(amount - 1).ShouldBeFalse();
                    }
                },
                iter: 8_000
            );

    /// <summary>What each place costs the others, the published definition of the payments.</summary>
    private static long[] VickreyClarkeGroves(long[] values, long[] clicks) =>
        [
            .. values.Select(
                (_, place) =>
                    Enumerable
                        .Range(place + 1, values.Length - place - 1)
                        .Sum(other => values[other] * (clicks[other - 1] - clicks[other]))
            ),
        ];

    [Theory]
    [InlineData(0, 0, 0, 1)]
    [InlineData(1, 1, 1, 10)]
    public void Scores_quality_from_1_to_10(decimal click, decimal text, decimal page, int score) =>
        new QualityScore(click, text, page).Score.ShouldBe(score);

    [Fact]
    public void Counts_plurals_as_fitting() => QualityScore.ShareOfWords(["pianos", "york"], ["piano"]).ShouldBe(0.5m);
}
