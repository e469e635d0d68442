using System.Numerics;

namespace Fendrik.Core.Matching.Filing;

/// <summary>
/// Files entries under a pair of numbers (or one number by itself), in chains. A bit for each key says at once that nothing
/// is filed under most of the pairs that are asked for.
/// </summary>
internal sealed class PairTable
{
    private const int None = -1;

    private Chain[] _chains = new Chain[1 << 10];
    private ulong[] _seen = new ulong[1 << 8];
    private int _used;
    private Link[] _links = new Link[1 << 10];

    /// <summary>A key with the first of its entries.</summary>
    private record struct Chain(ulong Key, int Head);

    /// <summary>An entry's successor, and a bit for each number that it needs.</summary>
    private readonly record struct Link(int Next, uint Needs);

    /// <summary>The key of a pair, whichever comes first; a number by itself is a pair with itself.</summary>
    public static ulong KeyOf(int one, int other) =>
        (ulong)(uint)(Math.Min(one, other) + 1) << 32 | (uint)(Math.Max(one, other) + 1);

    /// <summary>First entry under a key; <c>-1</c> when there is none.</summary>
    public int First(ulong key)
    {
        var hash = Mixed(key);
        if (!IsSeen(hash))
        {
            return None;
        }

        var at = Slot(key, hash);
        return _chains[at].Key == key ? _chains[at].Head : None;
    }

    /// <summary>The entry filed before this one under the same key; <c>-1</c> when there is none.</summary>
    public int Next(int entry) => _links[entry].Next;

    /// <summary>
    /// First of the entries from this one on that may be met by some numbers; <c>-1</c> when there is none. An entry that needs a
    /// number which is not among them is passed over in most cases without being looked at.
    /// </summary>
    /// <param name="entry">An entry or <c>-1</c>.</param>
    /// <param name="present">The numbers, as <see cref="BitsOf"/> has them.</param>
    public int FirstMet(int entry, uint present)
    {
        while (entry != None && (_links[entry].Needs & ~present) != 0)
        {
            entry = _links[entry].Next;
        }

        return entry;
    }

    /// <summary>A bit for each of some numbers; several may share one.</summary>
    public static uint BitsOf(ReadOnlySpan<int> numbers)
    {
        var bits = 0u;
        foreach (var number in numbers)
        {
            bits |= 1u << (int)((uint)number * 0x9E3779B9 >> 27);
        }

        return bits;
    }

    /// <summary>Files an entry.</summary>
    /// <param name="key">Where.</param>
    /// <param name="entry">Its number.</param>
    /// <param name="needs">Numbers without which it is of no use.</param>
    public void Add(ulong key, int entry, ReadOnlySpan<int> needs)
    {
        if ((_used + 1) * 4 > _chains.Length * 3)
        {
            Grow();
        }

        if (entry >= _links.Length)
        {
            Array.Resize(ref _links, Math.Max(entry + 1, _links.Length * 2));
        }

        var hash = Mixed(key);
        var at = Slot(key, hash);
        if (_chains[at].Key != key)
        {
            _chains[at] = new Chain(key, None);
            _used++;
            _seen[hash >> 6 & (ulong)(_seen.Length - 1)] |= 1UL << (int)(hash & 63);
        }

        _links[entry] = new Link(_chains[at].Head, BitsOf(needs));
        _chains[at].Head = entry;
    }

    /// <summary>Takes an entry out.</summary>
    public void Remove(ulong key, int entry)
    {
        var at = Slot(key, Mixed(key));
        if (_chains[at].Head == entry)
        {
            _chains[at].Head = _links[entry].Next;
            return;
        }

        for (var before = _chains[at].Head; before != None; before = _links[before].Next)
        {
            if (_links[before].Next == entry)
            {
                _links[before] = _links[before] with { Next = _links[entry].Next };
                return;
            }
        }
    }

    private bool IsSeen(ulong hash) => (_seen[hash >> 6 & (ulong)(_seen.Length - 1)] & 1UL << (int)(hash & 63)) != 0;

    private int Slot(ulong key, ulong hash)
    {
        var mask = _chains.Length - 1;
        var at = (int)(hash >> 20) & mask;
        while (_chains[at].Key != 0 && _chains[at].Key != key)
        {
            at = (at + 1) & mask;
        }

        return at;
    }

    private void Grow()
    {
        var chains = _chains;
        _chains = new Chain[chains.Length * 2];
        _seen = new ulong[Math.Max(_seen.Length, _chains.Length / 4)];
        foreach (var chain in chains)
        {
            if (chain.Key != 0)
            {
                var hash = Mixed(chain.Key);
                _chains[Slot(chain.Key, hash)] = chain;
                _seen[hash >> 6 & (ulong)(_seen.Length - 1)] |= 1UL << (int)(hash & 63);
            }
        }
    }

    /// <summary>The last step of MurmurHash3 (public domain), which spreads neighbouring numbers.</summary>
    private static ulong Mixed(ulong key)
    {
        key = (key ^ key >> 33) * 0xFF51AFD7ED558CCD;
        key = (key ^ key >> 33) * 0xC4CEB9FE1A85EC53;
        return BitOperations.RotateLeft(key ^ key >> 33, 17);
    }
}
