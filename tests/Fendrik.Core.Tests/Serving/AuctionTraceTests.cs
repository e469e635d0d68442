using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Tests.Serving;

public class AuctionTraceTests
{
    private static readonly AuctionTrace Pounds = new(new Auction(2, 1, 300, 100, 5), Currency.Of("GBP"));

    private static NamedBid Of(string name, long amount, int quality, ulong lot) =>
        new(name, new Bid(amount, quality, lot));

    // A rule of the trade (common practice, no source): the price of the same place goes with 1 ÷ quality.
    [Fact]
    public void Tells_the_ladder_what_ones_price_rests_on_and_what_other_scores_would_pay()
    {
        var (trace, own) = Pounds.Run([Of("You", 231, 7, 2), Of("Rival A", 176, 5, 1), Of("Rival B", 4, 4, 3)], 0);

        own!.Value.Price.ShouldBe(126);
        trace
            .Ladder.Select(each => (each.Name, each.Place, each.Price, each.Note))
            .ShouldBe([
                ("You", 1, 1.26m, null),
                ("Rival A", 2, 0.60m, null),
                ("Rival B", null, null, "below the lowest bid"),
            ]);
        trace.Why.ShouldBe("Enough to keep ahead of Rival A: 8.80 ÷ your quality of 7, rounded up: £1.26.");
        trace.AtOtherQualities.Select(each => each.Price).Take(5).ShouldBe([8.81m, 4.41m, 2.94m, 2.21m, 1.77m]);
        trace
            .AtOtherQualities.Where(each => each.WithinBid)
            .Select(each => each.Quality)
            .ShouldBe([4, 5, 6, 7, 8, 9, 10]);
    }

    [Fact]
    public void Tells_a_bid_that_wins_nothing_what_would_win()
    {
        var (trace, own) = Pounds.Run([Of("You", 15, 4, 2), Of("Rival A", 176, 5, 1)], 0);

        own.ShouldBeNull();
        trace.Why.ShouldBe(
            "Bid × quality is 0.60; a place below the results asks for a rank of 1.00. A bid of £0.25 would reach it."
        );
        trace.AtOtherQualities.ShouldBeEmpty();
    }
}
