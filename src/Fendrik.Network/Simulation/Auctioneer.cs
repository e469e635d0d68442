using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>Holds the auctions of one network in one currency: what places ask for, and who else bids what.</summary>
/// <param name="world">The world.</param>
/// <param name="network">The network.</param>
/// <param name="currency">The account's currency.</param>
/// <param name="seed">The account's seed.</param>
public sealed class Auctioneer(World world, NetworkProfile network, Currency currency, ulong seed)
{
    /// <summary>The score for which a place asks just its reserve.</summary>
    private const int MiddlingQuality = 7;

    /// <summary>Spread of a single bid around the week's.</summary>
    private const double Jitter = 0.12;

    private readonly Dictionary<(int Rival, long Week), double> _drift = [];
    private readonly Dictionary<(int Rival, DateOnly Day), double> _ends = [];
    private readonly double _perPound = world.PerPound(currency);

    /// <summary>The auction for a need; where nobody knows what is wanted, without a reserve.</summary>
    public Auction For(Need? need) =>
        new(
            network.TopPlaces,
            network.BottomPlaces,
            need is null ? 0 : Minor(need.Top) * MiddlingQuality,
            need is null ? 0 : Minor(need.Bottom) * MiddlingQuality,
            currency.ToMinor(network.MinimumCpc(currency))
        );

    /// <summary>What a rival bids for a search, if it bids at all.</summary>
    /// <param name="rival">The rival.</param>
    /// <param name="regions">Where the search is made and for where; none for nowhere in particular.</param>
    /// <param name="day">Day in the account's time zone.</param>
    /// <param name="clock">Hour of the clock on the wall, with its minutes as a fraction.</param>
    /// <param name="chance">The luck of the search.</param>
    public Bid? Offer(
        Rival rival,
        IReadOnlyCollection<string>? regions,
        DateOnly day,
        double clock,
        in Chance chance
    ) =>
        rival.Since > day
        || clock < rival.From
        || clock >= rival.To
        || regions is not null && !rival.Regions.Overlaps(regions)
        || clock >= EndOf(rival, day)
        || !chance.Happens(Purpose.RivalPresent, rival.Active, rival.Number)
            ? null
            : new Bid(
                Math.Max(
                    1,
                    Minor(
                        rival.Bid
                            * DriftOf(rival, day)
                            * (1 - Jitter + 2 * Jitter * chance.Share(Purpose.RivalBid, rival.Number))
                    )
                ),
                rival.Quality,
                chance.Number(Purpose.Lot, rival.Number)
            );

    /// <summary>What those of some rivals bid who bid at all; see <see cref="Offer"/>.</summary>
    public IEnumerable<(Rival Rival, Bid Bid)> Offers(
        IEnumerable<Rival> rivals,
        IReadOnlyCollection<string>? regions,
        DateOnly day,
        double clock,
        Chance chance
    )
    {
        foreach (var rival in rivals)
        {
            if (Offer(rival, regions, day, clock, chance) is { } bid)
            {
                yield return (rival, bid);
            }
        }
    }

    /// <summary>An amount of the world in the account's minor units.</summary>
    public long Minor(double pounds) => (long)Math.Round(pounds * _perPound * Math.Pow(10, currency.MinorUnits));

    /// <summary>An amount of the world in the account's currency.</summary>
    public decimal Amount(double pounds) => currency.Round((decimal)(pounds * _perPound));

    private double DriftOf(Rival rival, DateOnly day)
    {
        var week = day.DayNumber / 7;
        if (!_drift.TryGetValue((rival.Number, week), out var drift))
        {
            // A bid wanders: this week's is near that of the weeks before.
            double sum = 0;
            for (var back = 0; back < 4; back++)
            {
                sum += new Chance(seed, (ulong)(week - back)).Normal(Purpose.RivalWeek, rival.Number);
            }

            _drift.Add((rival.Number, week), drift = Math.Exp(rival.Drift * sum / 2));
        }

        return drift;
    }

    private double EndOf(Rival rival, DateOnly day)
    {
        const double LastsAllDay = 24;
        const double SpreadOfHours = 1.8;
        if (rival.Ends >= LastsAllDay)
        {
            return LastsAllDay;
        }

        if (!_ends.TryGetValue((rival.Number, day), out var end))
        {
            if (_ends.Count > 10_000)
            {
                _ends.Clear();
            }

            end =
                rival.Ends
                + SpreadOfHours * new Chance(seed, (ulong)day.DayNumber).Normal(Purpose.RivalBudget, rival.Number);
            _ends.Add((rival.Number, day), end);
        }

        return end;
    }
}
