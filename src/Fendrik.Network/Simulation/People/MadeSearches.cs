using Fendrik.Core.Serving;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>Makes searches: who searches, on what, where, and what is typed.</summary>
/// <param name="world">The world.</param>
/// <param name="surrounding">What the network knows of people.</param>
/// <param name="seed">The account's seed.</param>
public sealed class MadeSearches(World world, Surrounding surrounding, ulong seed)
{
    private const int MinutesOfHour = 60;

    /// <summary>Who makes a search, and what it is.</summary>
    /// <param name="searching">The search.</param>
    /// <param name="clock">Its hour.</param>
    public (Person Person, Search Search) Of(in Searching searching, HourClock clock)
    {
        var chance = new Chance(seed, searching.Name);
        var personal = new Chance(seed, Chance.PersonOf(searching.Name));
        var person = Person.Of(world, searching.Need, personal);
        var site = chance.Pick(Purpose.Site, world.Sites, each => each.Share);
        var text = Typing.TextOf(world, searching, person, chance);
        var day = clock.DayAt(searching.Second);
        return (
            person,
            new Search(
                text,
                person.Device,
                site.Kind,
                day,
                (int)(clock.WallAt(searching.Second) * MinutesOfHour),
                person.Home.Name,
                site.Kind == SiteKinds.Content ? surrounding.PageOf(searching.Need, chance) : null,
                surrounding.AudiencesOf(searching.Need, searching.Name, personal),
                surrounding.InterestOf(person, personal),
                Surrounding.LanguageOf(person)
            )
        );
    }
}
