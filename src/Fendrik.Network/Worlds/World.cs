using Fendrik.Network.Simulation;

namespace Fendrik.Network.Worlds;

/// <summary>
/// Who lives where, what they need and when, what they type, who else bids, and what becomes of a visit: everything that the
/// stand-in plays, as read from its files.
/// </summary>
public sealed class World
{
    private static readonly Lazy<World> ShippedWorld = new(() => WorldReader.Read(WorldFiles.Shipped()));

    private readonly double[] _people;

    internal World(WorldParts parts)
    {
        Version = parts.Version;
        Places = parts.Places;
        Needs = parts.Needs;
        Pages = parts.Pages;
        Lines = parts.Lines;
        Bookings = parts.Bookings;
        Sites = parts.Sites;
        Habits = parts.Habits;
        Faults = parts.Faults;
        Days = parts.Days;
        Content = parts.Content;
        Audiences = parts.Audiences;
        Home = [.. Places.Where(place => place.Country == HomeCountry)];
        Abroad = [.. Places.Where(place => place.Country != HomeCountry)];
        Population = Home.Sum(place => (double)place.Population);
        _people = new double[Home.Count];
        for (var at = 0; at < Home.Count; at++)
        {
            _people[at] = (at == 0 ? 0 : _people[at - 1]) + Home[at].Population / Population;
        }

        _attention = parts.Attention;
        _perPound = parts.PerPound;
        _rivals = parts.Rivals;
        _pages =
        [
            .. Pages
                .OrderByDescending(page => page.Address.Length)
                .ThenBy(page => page.Address, StringComparer.Ordinal),
        ];
        _moved = parts.Moved;
        GeneralHours = Needs.Count == 0 ? [.. Enumerable.Repeat(1.0, 168)] : AverageWeek(Needs);
    }

    private readonly IReadOnlyDictionary<(Device, bool, int), double> _attention;
    private readonly IReadOnlyDictionary<string, double> _perPound;
    private readonly IReadOnlyDictionary<(string Network, string Need), IReadOnlyList<Rival>> _rivals;
    private readonly IReadOnlyDictionary<string, string> _moved;
    private readonly LandingPage[] _pages;

    /// <summary>The country that most people live in.</summary>
    public const string HomeCountry = "GB";

    /// <summary>The world that ships.</summary>
    public static World Shipped => ShippedWorld.Value;

    /// <summary>Tells this world from one of other files.</summary>
    public string Version { get; }

    /// <summary>All places.</summary>
    public IReadOnlyList<Place> Places { get; }

    /// <summary>Places of the home country.</summary>
    public IReadOnlyList<Place> Home { get; }

    /// <summary>Places elsewhere.</summary>
    public IReadOnlyList<Place> Abroad { get; }

    /// <summary>People of the home country.</summary>
    public double Population { get; }

    /// <summary>Needs of all trades.</summary>
    public IReadOnlyList<Need> Needs { get; }

    /// <summary>Landing pages.</summary>
    public IReadOnlyList<LandingPage> Pages { get; }

    /// <summary>Telephone lines.</summary>
    public IReadOnlyList<PhoneLine> Lines { get; }

    /// <summary>Booking sites.</summary>
    public IReadOnlyList<BookingSite> Bookings { get; }

    /// <summary>Kinds of site.</summary>
    public IReadOnlyList<SiteKind> Sites { get; }

    /// <summary>Ways of typing.</summary>
    public IReadOnlyList<Habit> Habits { get; }

    /// <summary>How words are often written wrongly.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<(string Written, double Weight)>> Faults { get; }

    /// <summary>Holidays and school holidays.</summary>
    public IReadOnlyList<SpecialDays> Days { get; }

    /// <summary>Content sites.</summary>
    public IReadOnlyList<ContentSite> Content { get; }

    /// <summary>Audiences.</summary>
    public IReadOnlyList<Audience> Audiences { get; }

    /// <summary>How searches of all needs lie over the hours of a week: what a network knows of it.</summary>
    public IReadOnlyList<double> GeneralHours { get; }

    /// <summary>A place of the home country, by how many live there.</summary>
    public Place HomeOf(double share)
    {
        var at = Array.BinarySearch(_people, share);
        return Home[Math.Min(at < 0 ? ~at : at + 1, Home.Count - 1)];
    }

    /// <summary>How likely somebody who has clicked nothing yet looks at a place; 0 where there is none.</summary>
    /// <param name="device">The device.</param>
    /// <param name="isTop">Above the results.</param>
    /// <param name="place">Which there, from 1.</param>
    public double Attention(Device device, bool isTop, int place) =>
        _attention.GetValueOrDefault((device, isTop, place));

    /// <summary>Units of a currency for a pound of the world.</summary>
    public double PerPound(Currency currency) => _perPound.GetValueOrDefault(currency.Code, 1);

    /// <summary>Who else bids for a need on a network.</summary>
    public IReadOnlyList<Rival> RivalsOf(string network, string need) => _rivals.GetValueOrDefault((network, need), []);

    /// <summary>The page that an address leads to, moved pages followed; none when the world does not know it.</summary>
    public LandingPage? PageOf(string address)
    {
        var bare = Bare(address);
        var page = _pages.FirstOrDefault(each => IsUnder(bare, each.Address));
        return page is not null && _moved.TryGetValue(page.Address, out var to) ? PageOf(to) : page;
    }

    /// <summary>Where a page has moved to; none when it has not.</summary>
    public string? MovedTo(string address) => _moved.GetValueOrDefault(Bare(address));

    /// <summary>True for an address that is just a page's, not only under one.</summary>
    public bool IsPage(string address) => Bare(address) is var bare && _pages.Any(page => page.Address == bare);

    /// <summary>What is left of a need on a day: season, holidays, growth.</summary>
    public double OnDay(Need need, DateOnly day)
    {
        var factor = need.Season.On(day) * Math.Pow(1 + need.Trend, (day.DayNumber - FirstDay.DayNumber) / 365.25);
        foreach (var days in Days)
        {
            if (days.First <= day && day <= days.Last)
            {
                factor *= days.Kind == DayKind.Holiday ? need.Holiday : need.School;
            }
        }

        return factor;
    }

    /// <summary>Day from which growth is counted.</summary>
    public static DateOnly FirstDay { get; } = new(2026, 1, 1);

    internal static string Bare(string address)
    {
        var at = address.IndexOf("://", StringComparison.Ordinal);
        var bare = (at < 0 ? address : address[(at + 3)..]).ToLowerInvariant();
        var end = bare.IndexOfAny(['?', '#']);
        return (end < 0 ? bare : bare[..end]).TrimEnd('/');
    }

    private static bool IsUnder(string address, string start) =>
        address.StartsWith(start, StringComparison.Ordinal)
        && (address.Length == start.Length || address[start.Length] is '/' or '-' or '.');

    private static double[] AverageWeek(IReadOnlyList<Need> needs)
    {
        var week = new double[168];
        var people = needs.Sum(need => need.People);
        for (var hour = 0; hour < week.Length; hour++)
        {
            week[hour] = needs.Sum(need => need.Week[hour] * need.People) / people;
        }

        return week;
    }
}
