namespace Fendrik.Network.Simulation;

/// <summary>
/// Reproducible chance: SplitMix64 (Steele, Lea, Flood, “Fast splittable pseudorandom number generators”, OOPSLA 2014),
/// one stream for each search, so that a change in one account's keywords shifts no other search.
/// </summary>
public struct Chance(ulong seed)
{
    private const ulong Golden = 0x9E3779B97F4A7C15;

    private ulong _state = seed;

    /// <summary>A stream of its own for these numbers.</summary>
    public static Chance Of(ulong seed, long first, long second, long third = 0)
    {
        var mixed = new Chance(seed);
        mixed._state ^= mixed.Next() + (ulong)first * Golden;
        mixed._state ^= mixed.Next() + (ulong)second * Golden;
        mixed._state ^= mixed.Next() + (ulong)third * Golden;
        return new Chance(mixed.Next());
    }

    public ulong Next()
    {
        _state += Golden;
        var mixed = _state;
        mixed = (mixed ^ (mixed >> 30)) * 0xBF58476D1CE4E5B9;
        mixed = (mixed ^ (mixed >> 27)) * 0x94D049BB133111EB;
        return mixed ^ (mixed >> 31);
    }

    /// <summary>A number from 0 up to but without 1.</summary>
    public double NextShare() => (Next() >> 11) * (1.0 / (1UL << 53));

    public bool Happens(double probability) => NextShare() < probability;

    /// <summary>How many things happen when this many are expected (Poisson, by Knuth's method; small means only).</summary>
    public int CountAround(double mean)
    {
        var limit = Math.Exp(-mean);
        var count = 0;
        for (var product = NextShare(); product > limit; product *= NextShare())
        {
            count++;
        }

        return count;
    }

    /// <summary>One of the items, by weight.</summary>
    public T Pick<T>(IReadOnlyList<T> items, Func<T, double> weight)
    {
        var at = NextShare() * items.Sum(weight);
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
}
