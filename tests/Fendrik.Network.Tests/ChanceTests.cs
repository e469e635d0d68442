using Fendrik.Network.Simulation;

namespace Fendrik.Network.Tests;

public class ChanceTests
{
    // SplitMix64 with the seed 1234567: the first outputs of the reference implementation (Vigna, “splitmix64.c”), as
    // they are listed on Rosetta Code, “Pseudo-random numbers/Splitmix64”; quoted from memory.
    [Fact]
    public void Gives_the_numbers_of_the_reference()
    {
        var chance = new Chance(1234567);

        new[] { chance.Next(), chance.Next(), chance.Next() }.ShouldBe([
            6457827717110365317UL,
            3203168211198807973UL,
            9817491932198370423UL,
        ]);
    }

    [Fact]
    public void Gives_other_numbers_in_a_stream_of_another_search()
    {
        var (one, other) = (Chance.Of(1, 2, 3, 4), Chance.Of(1, 2, 3, 5));

        one.Next().ShouldNotBe(other.Next());
    }

    [Fact]
    public void Picks_by_weight()
    {
        var chance = new Chance(7);
        var heavy = Enumerable.Range(0, 10_000).Count(_ => chance.Pick(["a", "b"], item => item == "a" ? 3 : 1) == "a");

        heavy.ShouldBeInRange(7_300, 7_700); // 7,500 expected, five standard deviations are 217
    }

    [Fact]
    public void Counts_as_many_as_expected_on_average()
    {
        // The mean of a Poisson distribution is its parameter, its variance too: 10,000 draws around 4 add up to 40,000
        // with a standard deviation of 200.
        var chance = new Chance(11);

        Enumerable.Range(0, 10_000).Sum(_ => chance.CountAround(4)).ShouldBeInRange(39_000, 41_000);
    }

    [Fact]
    public void Spreads_shares_evenly_from_0_to_1()
    {
        var chance = new Chance(13);
        var shares = Enumerable.Range(0, 10_000).Select(_ => chance.NextShare()).ToArray();

        shares.ShouldAllBe(share => share >= 0 && share < 1);
        shares.Average().ShouldBeInRange(0.485, 0.515);
    }

    [Fact]
    public void Plays_a_market_whose_parts_fit_together()
    {
        var market = Market.Default;

        market.Hours.Count.ShouldBe(24);
        market.Weekdays.Count.ShouldBe(7);
        (market.Devices.Phone + market.Devices.Desktop + market.Devices.Tablet).ShouldBe(1, 0.0001);
        (market.Sites.Search + market.Sites.Partners + market.Sites.Content).ShouldBe(1, 0.0001);
        market.Themes.ShouldAllBe(theme =>
            theme.Searches.Count > 0 && theme.Rivals.All(rival => rival.Bid > 0 && rival.Quality > 0)
        );
    }
}
