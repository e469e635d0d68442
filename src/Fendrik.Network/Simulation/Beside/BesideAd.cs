using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation.Beside;

/// <summary>What shows beside an ad.</summary>
/// <param name="Considered">All that could, with what keeps it away.</param>
public sealed record BesideAd(IReadOnlyList<ConsideredExtension> Considered)
{
    /// <summary>Nothing shows.</summary>
    public static BesideAd Nothing { get; } = new([]);

    /// <summary>What shows.</summary>
    public IReadOnlyList<ConsideredExtension> Shown { get; } = [.. Considered.Where(each => each.Shows)];

    /// <summary>Sitelinks that show.</summary>
    public IReadOnlyList<ConsideredExtension> Links { get; } =
    [.. Considered.Where(each => each is { Shows: true, Kind: ItemKind.Sitelink })];

    /// <summary>The number that shows; none when none does.</summary>
    public ConsideredExtension? Number { get; } =
        Considered.FirstOrDefault(each => each is { Shows: true, Kind: ItemKind.CallExtension });

    /// <summary>Of a kind, what shows.</summary>
    public IEnumerable<PlacedExtension> Of(ItemKind kind) =>
        Shown.Where(each => each.Kind == kind).Select(each => each.Extension);
}

/// <summary>Chooses what shows beside ads by the rules in Core, and remembers it as long as nothing decides otherwise.</summary>
/// <param name="live">The account.</param>
/// <param name="book">How extensions did.</param>
/// <param name="day">The day for which it holds.</param>
public sealed class BesideAds(LiveAccount live, ClickBook<(ItemKind Kind, long Id)> book, DateOnly day)
{
    private readonly Dictionary<long, (IReadOnlyList<PlacedExtensions> Placed, bool HasHours)> _placed = [];
    private readonly Dictionary<(long AdGroup, Device Device, int Minute, bool TriesOut), BesideAd> _chosen = [];

    /// <summary>The day for which it holds.</summary>
    public DateOnly Day => day;

    /// <summary>What shows beside an ad of an ad group.</summary>
    /// <param name="group">The ad group.</param>
    /// <param name="device">The device.</param>
    /// <param name="minute">Minutes after midnight on the account's clock.</param>
    /// <param name="triesOut">True when those that showed least go first.</param>
    public BesideAd Of(AdGroup group, Device device, int minute, bool triesOut)
    {
        if (!_placed.TryGetValue(group.Id, out var placed))
        {
            var kinds = live.ExtensionsOf(group);
            placed = (kinds, kinds.Any(kind => kind.Extensions.Any(each => each.Hours is not null)));
            _placed.Add(group.Id, placed);
        }

        if (placed.Placed.Count == 0)
        {
            return BesideAd.Nothing;
        }

        var key = (group.Id, device, placed.HasHours ? minute : -1, triesOut);
        if (!_chosen.TryGetValue(key, out var chosen))
        {
            chosen = new BesideAd([
                .. placed.Placed.SelectMany(kind =>
                    ShownExtensions.Choose(
                        live.Served.Network.Extensions,
                        kind.Type,
                        kind.Extensions,
                        new ShownAt(device, day, minute),
                        id => book.Of((kind.Type.Kind, id)),
                        triesOut
                    )
                ),
            ]);
            _chosen.Add(key, chosen);
        }

        return chosen;
    }
}
