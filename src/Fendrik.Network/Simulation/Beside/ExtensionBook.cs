using Fendrik.Core.Auctions;

namespace Fendrik.Network.Simulation.Beside;

/// <summary>An extension beside the ads of an ad group on a day.</summary>
/// <param name="Day">The day.</param>
/// <param name="CampaignId">The campaign of the ads.</param>
/// <param name="AdGroupId">Their ad group.</param>
/// <param name="Kind">Kind of the extension.</param>
/// <param name="Id">The extension.</param>
public readonly record struct BesideKey(DateOnly Day, long CampaignId, long AdGroupId, ItemKind Kind, long Id);

/// <summary>What came of ads beside which an extension showed.</summary>
public sealed class BesideTally
{
    /// <summary>Times shown.</summary>
    public long Impressions { get; set; }

    /// <summary>Clicks on the ads.</summary>
    public long Clicks { get; set; }

    /// <summary>Those of them on the extension itself.</summary>
    public long OwnClicks { get; set; }

    /// <summary>What the clicks cost, in minor units.</summary>
    public long Cost { get; set; }

    /// <summary>Clicks that the places usually bring, in millionths: whole numbers add up to the same in any order.</summary>
    public long Expected { get; set; }
}

/// <summary>How extensions did, as the network knows it: up to the day before.</summary>
/// <param name="known">Clicks made and expected, in millionths, by extension.</param>
public sealed class ExtensionBook(IEnumerable<(ItemKind Kind, long Id, long Made, long Expected)> known)
{
    private const double Millionths = 1_000_000;

    private readonly Dictionary<(ItemKind, long), (long Made, long Expected)> _known = known.ToDictionary(
        each => (each.Kind, each.Id),
        each => (each.Made, each.Expected)
    );

    private readonly Dictionary<(ItemKind, long), (long Made, long Expected)> _today = [];

    /// <summary>Clicks on ads beside which it showed, against those that the places usually bring.</summary>
    public ClickRecord Of(ItemKind kind, long id)
    {
        var (made, expected) = _known.GetValueOrDefault((kind, id));
        return new ClickRecord(made, expected / Millionths);
    }

    /// <summary>Clicks as they are added up.</summary>
    public static long InMillionths(double clicks) => (long)Math.Round(clicks * Millionths);

    /// <summary>Notes what came of showing it.</summary>
    public void Note(ItemKind kind, long id, long made, long expected)
    {
        var before = _today.GetValueOrDefault((kind, id));
        _today[(kind, id)] = (before.Made + made, before.Expected + expected);
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
