using Fendrik.Network.Simulation;

namespace Fendrik.Network.Tests;

public class ChanceTests
{
    // Random123, kat_vectors: philox4x32 with ten rounds; quoted from memory. The third has the digits of π.
    [Theory]
    [InlineData(0u, 0u, 0u, 0u, 0u, 0u, "6627e8d5 e169c58d bc57ac4c 9b00dbd8")]
    [InlineData(~0u, ~0u, ~0u, ~0u, ~0u, ~0u, "408f276d 41c83b0e a20bc7c6 6d5451fd")]
    [InlineData(
        0x243f6a88u,
        0x85a308d3u,
        0x13198a2eu,
        0x03707344u,
        0xa4093822u,
        0x299f31d0u,
        "d16cfe09 94fdcceb 5001e420 24126ea1"
    )]
    public void Gives_the_numbers_of_the_reference(
        uint one,
        uint two,
        uint three,
        uint four,
        uint left,
        uint right,
        string drawn
    )
    {
        var (first, second, third, fourth) = Philox.Draw((one, two, three, four), (left, right));

        string.Join(' ', new[] { first, second, third, fourth }.Select(each => each.ToString("x8"))).ShouldBe(drawn);
    }

    [Fact]
    public void Draws_by_seed_search_purpose_and_index_and_by_nothing_else()
    {
        var draws = new[]
        {
            new Chance(1, 2).Number(Purpose.Click),
            new Chance(2, 2).Number(Purpose.Click),
            new Chance(1, 3).Number(Purpose.Click),
            new Chance(1, 2).Number(Purpose.Ad),
            new Chance(1, 2).Number(Purpose.Click, 1),
        };

        draws.ShouldBeUnique();
        new Chance(1, 2).Number(Purpose.Click).ShouldBe(draws[0]);
    }

    [Fact]
    public void Names_every_search_by_itself() =>
        new[]
        {
            Chance.NameOf(500_000, 0, 0),
            Chance.NameOf(500_000, 0, 1),
            Chance.NameOf(500_000, 1, 0),
            Chance.NameOf(500_001, 0, 0),
            Chance.NameOf(500_000, 0, (1 << 28) - 1),
            Chance.NameOf(500_000, 0, 0, 1),
        }.ShouldBeUnique();

    [Fact]
    public void Tells_from_the_name_of_a_search_what_it_is_and_whose()
    {
        var name = Chance.NameOf(500_000, 311, 77_777, 4);

        Chance.Read(name).ShouldBe((500_000, 311, 77_777, 4));
        Chance.PersonOf(name).ShouldBe(Chance.NameOf(500_000, 311, 77_777));
    }

    [Fact]
    public void Picks_by_weight()
    {
        var heavy = Enumerable
            .Range(0, 10_000)
            .Count(search =>
                new Chance(7, (ulong)search).Pick(Purpose.Home, ["a", "b"], item => item == "a" ? 3 : 1) == "a"
            );

        heavy.ShouldBeInRange(7_300, 7_700); // 7,500 expected, five standard deviations are 217
    }

    // Pearson's chi-square against the Poisson distribution of MathNet.Numerics, in bins of at least 20 expected draws; the limit is the
    // quantile at one in a million. One mean for each of the two ways, and one far above what multiplying shares could reach.
    [Theory]
    [InlineData(0.7)]
    [InlineData(4)]
    [InlineData(9.99)]
    [InlineData(10)]
    [InlineData(87.5)]
    [InlineData(5_000)]
    public void Counts_by_the_distribution_of_Poisson(double mean)
    {
        const int draws = 20_000;
        var poisson = new MathNet.Numerics.Distributions.Poisson(mean);
        var counts = Enumerable
            .Range(0, draws)
            .Select(search => new Chance(11, (ulong)search).CountAround(Purpose.Searches, mean))
            .CountBy(count => count)
            .ToDictionary();
        var (square, bins, expected, found) = (0.0, 0, 0.0, 0);
        var last = counts.Keys.Max() + 1;
        for (var count = 0; count <= last; count++)
        {
            expected +=
                draws * (count == last ? 1 - poisson.CumulativeDistribution(count - 1) : poisson.Probability(count));
            found += counts.GetValueOrDefault(count);
            if (expected >= 20 || count == last)
            {
                square += Math.Pow(found - expected, 2) / Math.Max(expected, 1e-9);
                (bins, expected, found) = (bins + 1, 0, 0);
            }
        }

        square.ShouldBeLessThan(MathNet.Numerics.Distributions.ChiSquared.InvCDF(bins, 1 - 1e-6));
    }

    [Fact]
    public void Spreads_shares_evenly_from_0_to_1()
    {
        var shares = Enumerable
            .Range(0, 10_000)
            .Select(search => new Chance(13, (ulong)search).Share(Purpose.Device))
            .ToArray();

        shares.ShouldAllBe(share => share >= 0 && share < 1);
        shares.Average().ShouldBeInRange(0.485, 0.515);
    }
}
