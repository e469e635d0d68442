using Fendrik.Core.Auctions;

namespace Fendrik.Network.Simulation;

/// <summary>How things that show did, as the network knows it: up to the day before.</summary>
/// <typeparam name="TKey">What tells one from another.</typeparam>
/// <param name="known">Clicks made and expected, in millionths.</param>
public sealed class ClickBook<TKey>(IEnumerable<(TKey Key, long Made, long Expected)> known)
    where TKey : notnull
{
    private readonly Dictionary<TKey, (long Made, long Expected)> _known = known.ToDictionary(
        each => each.Key,
        each => (each.Made, each.Expected)
    );

    private readonly Dictionary<TKey, (long Made, long Expected)> _today = [];

    /// <summary>Clicks on ads with which it showed, against those that the places usually bring.</summary>
    public ClickRecord Of(TKey key)
    {
        var (made, expected) = _known.GetValueOrDefault(key);
        return new ClickRecord(made, expected / ShownTally.Millionths);
    }

    /// <summary>Notes what came of showing it.</summary>
    public void Note(TKey key, long made, long expected)
    {
        var before = _today.GetValueOrDefault(key);
        _today[key] = (before.Made + made, before.Expected + expected);
    }

    /// <summary>The day is over: what came of it is known from now on.</summary>
    public void EndDay()
    {
        foreach (var (key, today) in _today)
        {
            var before = _known.GetValueOrDefault(key);
            _known[key] = (before.Made + today.Made, before.Expected + today.Expected);
        }

        _today.Clear();
    }
}
