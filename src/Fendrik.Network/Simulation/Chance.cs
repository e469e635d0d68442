using MathNet.Numerics;

namespace Fendrik.Network.Simulation;

/// <summary>What something is drawn for. A purpose that is added shifts no other draw.</summary>
public enum Purpose
{
    /// <summary>How many search in an hour.</summary>
    Searches = 1,

    /// <summary>What is typed.</summary>
    Wording = 2,

    /// <summary>The place in it.</summary>
    Place = 3,

    /// <summary>The device.</summary>
    Device = 4,

    /// <summary>The kind of site.</summary>
    Site = 5,

    /// <summary>Which of several ads shows.</summary>
    Ad = 6,

    /// <summary>Whether the ad is clicked.</summary>
    Click = 7,

    /// <summary>Whether the visit becomes a conversion.</summary>
    Conversion = 8,

    /// <summary>Whether a rival bids.</summary>
    RivalPresent = 9,

    /// <summary>How high a rival bids.</summary>
    RivalBid = 10,

    /// <summary>Who comes first among equal ranks.</summary>
    Lot = 11,
}

/// <summary>
/// Reproducible chance: every draw is a function of the seed, the search, the purpose and an index. So any search can be made again
/// by itself, and the same person has the same luck whatever an account bids.
/// </summary>
/// <param name="seed">The account's seed.</param>
/// <param name="search">The search, or whatever else is drawn for.</param>
public readonly struct Chance(ulong seed, ulong search)
{
    /// <summary>From this mean on, counting one by one takes longer than transformed rejection.</summary>
    private const double SmallMean = 10;

    /// <summary>Names a search: the hour, what it is about, and which of those it is.</summary>
    /// <param name="hour">Hours since 1970: below 16 million.</param>
    /// <param name="theme">What it is about: below 256.</param>
    /// <param name="number">Which one, from 0.</param>
    public static ulong NameOf(long hour, int theme, int number) =>
        (ulong)hour << 40 | (ulong)(byte)theme << 32 | (uint)number;

    /// <summary>A number of 64 bits.</summary>
    public ulong Number(Purpose purpose, int index = 0)
    {
        var (one, two, _, _) = Philox.Draw(
            ((uint)search, (uint)(search >> 32), (uint)purpose, (uint)index),
            ((uint)seed, (uint)(seed >> 32))
        );
        return (ulong)two << 32 | one;
    }

    /// <summary>A number from 0 up to but without 1.</summary>
    public double Share(Purpose purpose, int index = 0) => (Number(purpose, index) >> 11) * (1.0 / (1UL << 53));

    /// <summary>True as often as a probability says.</summary>
    public bool Happens(Purpose purpose, double probability, int index = 0) => Share(purpose, index) < probability;

    /// <summary>One of the items, by weight.</summary>
    public T Pick<T>(Purpose purpose, IReadOnlyList<T> items, Func<T, double> weight, int index = 0)
    {
        var at = Share(purpose, index) * items.Sum(weight);
        foreach (var item in items)
        {
            at -= weight(item);
            if (at < 0)
            {
                return item;
            }
        }

        return items[^1];
    }

    /// <summary>
    /// How many things happen when this many are expected, by Poisson's distribution and without a ceiling: one by one for small
    /// means (Knuth), else by transformed rejection (Hörmann, “The transformed rejection method for generating Poisson random
    /// variables”, Insurance: Mathematics and Economics 12, 1993, algorithm PTRS).
    /// </summary>
    public int CountAround(Purpose purpose, double mean) =>
        mean < SmallMean ? CountOneByOne(purpose, mean) : CountByRejection(purpose, mean);

    private int CountOneByOne(Purpose purpose, double mean)
    {
        var limit = Math.Exp(-mean);
        var count = 0;
        for (var product = Share(purpose); product > limit; product *= Share(purpose, count))
        {
            count++;
        }

        return count;
    }

    private int CountByRejection(Purpose purpose, double mean)
    {
        var b = 0.931 + 2.53 * Math.Sqrt(mean);
        var a = -0.059 + 0.02483 * b;
        var inverseAlpha = 1.1239 + 1.1328 / (b - 3.4);
        var accepted = 0.9277 - 3.6224 / (b - 2);
        for (var index = 0; ; index += 2)
        {
            var u = Share(purpose, index) - 0.5;
            var v = Share(purpose, index + 1);
            var us = 0.5 - Math.Abs(u);
            var k = Math.Floor((2 * a / us + b) * u + mean + 0.43);
            if (us >= 0.07 && v <= accepted)
            {
                return (int)k;
            }

            if (k < 0 || (us < 0.013 && v > us))
            {
                continue;
            }

            if (
                Math.Log(v * inverseAlpha / (a / (us * us) + b))
                <= k * Math.Log(mean) - mean - SpecialFunctions.GammaLn(k + 1)
            )
            {
                return (int)k;
            }
        }
    }
}
