using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>What surrounds a search: the page on which ads show, and what the network knows of the person.</summary>
/// <param name="world">The world.</param>
/// <param name="pastVisitors">The network's name for those who clicked before; none where it does not know them.</param>
/// <param name="clicked">Names of searches in which an ad of the account was clicked.</param>
public sealed class Surrounding(World world, string? pastVisitors, ISet<ulong> clicked)
{
    /// <summary>Share of the people abroad whom the network takes to be interested in a place at home: it saw them read of it.</summary>
    private const double InterestedAbroad = 0.55;

    private readonly Dictionary<Need, ContentSite[]> _sites = [];

    /// <summary>A place elsewhere that the network takes somebody to be interested in: where it is wanted, or what people abroad read of.</summary>
    /// <param name="person">The person.</param>
    /// <param name="luck">The luck of the person.</param>
    public string? InterestOf(Person person, in Chance luck) =>
        person.Wanted != person.Home ? person.Wanted.Name
        : person.Home.Country != World.HomeCountry && luck.Happens(Purpose.Interest, InterestedAbroad)
            ? world.HomeOf(luck.Share(Purpose.Interest, 1)).Name
        : null;

    /// <summary>The language to which somebody's device is set: mostly that of the country, by a tag of BCP 47.</summary>
    public static string LanguageOf(Person person) =>
        person.Home.Country switch
        {
            "NL" => "nl-NL",
            "NO" => "nb-NO",
            "FR" => "fr-FR",
            var country => $"en-{country}",
        };

    /// <summary>The page of a content site that somebody with the need reads: one about the need, where there is a site that has such.</summary>
    /// <param name="need">The need.</param>
    /// <param name="chance">The luck of the search.</param>
    public string PageOf(Need need, in Chance chance)
    {
        if (!_sites.TryGetValue(need, out var sites))
        {
            sites = [.. world.Content.Where(site => site.Needs.Contains(need.Id))];
            _sites.Add(need, sites);
        }

        var among = sites.Length > 0 ? sites : world.Content;
        var site = among[(int)(chance.Share(Purpose.Content) * among.Count)];
        return sites.Length > 0 ? $"{site.Host}/{need.Id}" : site.Host;
    }

    /// <summary>The audiences that the network knows somebody to be of.</summary>
    /// <param name="need">What the person wants.</param>
    /// <param name="search">Name of the search.</param>
    /// <param name="person">The luck of the person.</param>
    public IReadOnlyList<string> AudiencesOf(Need need, ulong search, in Chance person)
    {
        var found = new List<string>();
        for (var at = 0; at < world.Audiences.Count; at++)
        {
            var audience = world.Audiences[at];
            if (audience.Needs.Contains(need.Id) && person.Happens(Purpose.Audience, audience.Share, at))
            {
                found.Add(audience.Name);
            }
        }

        if (pastVisitors is not null && CameBefore(search))
        {
            found.Add(pastVisitors);
        }

        return found;
    }

    /// <summary>Somebody clicked in this search.</summary>
    public void Click(ulong search) => clicked.Add(search);

    /// <summary>A person's searches are numbered in their order.</summary>
    private bool CameBefore(ulong search)
    {
        var first = Chance.PersonOf(search);
        for (var earlier = 0; earlier < Chance.Read(search).Search; earlier++)
        {
            if (clicked.Contains(first | (uint)earlier))
            {
                return true;
            }
        }

        return false;
    }
}
