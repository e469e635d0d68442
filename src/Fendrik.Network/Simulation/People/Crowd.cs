using Fendrik.Core.Accounts;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>A search of an hour.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Need">What the person wants.</param>
/// <param name="Stage">How far the person is.</param>
/// <param name="Second">Second of the hour.</param>
public readonly record struct Searching(ulong Name, Need Need, Stage Stage, int Second)
{
    /// <summary>Which of the person's searches it is, from 0.</summary>
    public int Ordinal => Chance.Read(Name).Search;
}

/// <summary>
/// Who searches when. People come to have a need by Poisson's distribution, hour by hour; each makes one to five searches over
/// minutes to weeks. Nobody's searches depend on what an account does.
/// </summary>
/// <param name="world">The world.</param>
/// <param name="needs">The needs: those of the world and those that the account brings.</param>
/// <param name="seed">The account's seed.</param>
/// <param name="days">The account's days.</param>
/// <param name="crowding">People for each person of the world: 1 but where speed is measured.</param>
public sealed class Crowd(World world, IReadOnlyList<Need> needs, ulong seed, AccountDay days, double crowding = 1)
{
    /// <summary>Most searches of a person.</summary>
    public const int MostSearches = 5;

    /// <summary>Hours after which nobody searches on for the same need.</summary>
    public const int LongestSearch = 21 * 24;

    private const int Thousands = 100_000;
    private const int SecondsOfHour = 3_600;

    /// <summary>Somebody in a hurry searches on sooner.</summary>
    private const double Haste = 0.06;

    private readonly Dictionary<long, List<Searching>> _later = [];
    private long _next = long.MinValue;

    /// <summary>The searches of an hour in the order of their seconds.</summary>
    /// <param name="hour">Hours since 1970.</param>
    public IReadOnlyList<Searching> In(long hour)
    {
        // What was begun before is followed up: an hour that comes after those asked for needs only what begins since.
        if (_next > hour || _next < hour - LongestSearch)
        {
            _later.Clear();
            _next = hour - LongestSearch;
        }

        for (; _next <= hour; _next++)
        {
            Begin(_next, hour);
        }

        var searches = _later.Remove(hour, out var found) ? found : [];
        searches.Sort(
            static (left, right) =>
                left.Second != right.Second ? left.Second - right.Second : left.Name.CompareTo(right.Name)
        );
        return searches;
    }

    /// <summary>People of a need who begin to search in an hour, on average.</summary>
    public double Expected(Need need, long hour)
    {
        var (day, wallHour) = days.At(DateTimeOffset.FromUnixTimeSeconds(hour * SecondsOfHour));
        return crowding
            * need.People
            * world.Population
            / Thousands
            / 168
            * need.Week[((int)day.DayOfWeek + 6) % 7 * 24 + wallHour]
            * world.OnDay(need, day);
    }

    /// <summary>The searches of a person: the hours since 1970 and the seconds in them.</summary>
    public static IEnumerable<(long Hour, int Second, Stage Stage)> Of(Need need, long hour, Chance person)
    {
        var second = person.Share(Purpose.Second) * SecondsOfHour;
        var hurry = person.Happens(Purpose.Hurry, need.Urgent);
        var count = CountOf(need, person);
        for (var search = 0; search < count; search++)
        {
            if (search > 0)
            {
                second += person.Exponential(Purpose.Gap, need.Gap * (hurry ? Haste : 1), search) * SecondsOfHour;
            }

            var at = hour + (long)(second / SecondsOfHour);
            if (at - hour >= LongestSearch)
            {
                yield break;
            }

            yield return (at, (int)(second % SecondsOfHour), StageOf(search, count, hurry));
        }
    }

    private static int CountOf(Need need, Chance person)
    {
        // A geometric distribution with the need's mean, cut off.
        var more = need.Searches / (1 + need.Searches);
        var count = 1;
        while (count < MostSearches && person.Happens(Purpose.Count, more, count))
        {
            count++;
        }

        return count;
    }

    private static Stage StageOf(int search, int count, bool hurry) =>
        hurry || (search == count - 1 && count > 1) ? Stage.Act
        : search == 0 && count > 2 ? Stage.Look
        : Stage.Compare;

    private void Begin(long hour, long from)
    {
        foreach (var need in needs)
        {
            var mean = Expected(need, hour);
            if (mean <= 0)
            {
                continue;
            }

            var count = new Chance(seed, Chance.NameOf(hour, need.Number, 0)).CountAround(Purpose.Searches, mean);
            for (var person = 0; person < count; person++)
            {
                var name = Chance.NameOf(hour, need.Number, person);
                var search = 0;
                foreach (var (at, second, stage) in Of(need, hour, new Chance(seed, name)))
                {
                    if (at >= from)
                    {
                        if (!_later.TryGetValue(at, out var list))
                        {
                            _later.Add(at, list = []);
                        }

                        list.Add(new Searching(name | (uint)search, need, stage, second));
                    }

                    search++;
                }
            }
        }
    }
}
