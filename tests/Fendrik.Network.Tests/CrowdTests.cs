using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Tests;

public class CrowdTests
{
    private static readonly World Shipped = World.Shipped;
    private static readonly AccountDay London = new("Europe/London");

    // Tuesday 17 March 2026, noon in London.
    private static readonly long Noon =
        new DateTimeOffset(2026, 3, 17, 12, 0, 0, TimeSpan.Zero).ToUnixTimeSeconds() / 3600;

    private static Crowd Crowd(ulong seed = 1) => new(Shipped, Shipped.Needs, seed, London);

    [Fact]
    public void Searches_in_the_order_of_their_seconds()
    {
        var seconds = Crowd().In(Noon).Select(search => search.Second).ToArray();

        seconds.Length.ShouldBeGreaterThan(50);
        seconds.ShouldBeInOrder();
        seconds.ShouldAllBe(second => second >= 0 && second < 3600);
    }

    [Fact]
    public void Makes_the_same_searches_in_whatever_order_hours_are_asked_for()
    {
        var one = Crowd();
        var onwards = Enumerable.Range(0, 30).Select(hour => one.In(Noon + hour)).Last();

        Crowd().In(Noon + 29).ShouldBe(onwards);
        one.In(Noon).ShouldBe(Crowd().In(Noon));
    }

    // Little's law in the form that it has for visits: searches of an hour = people who begin × searches of each, when nothing changes
    // from week to week. Over four weeks it holds but for chance and the season.
    [Fact]
    public void Makes_as_many_searches_as_people_times_searches_of_each()
    {
        var crowd = Crowd();
        double begun = 0;
        double searches = 0;
        for (var hour = Noon; hour < Noon + 7 * 24; hour++)
        {
            var found = crowd.In(hour);
            searches += found.Count;
            begun += found.Count(search => search.Ordinal == 0);
        }

        // Of a geometric distribution with mean m, cut off at five, 1 + p + p² + p³ + p⁴ searches are left, p = m ÷ (1 + m).
        var expected =
            Shipped.Needs.Sum(need =>
            {
                var more = need.Searches / (1 + need.Searches);
                return need.People * Enumerable.Range(0, 5).Sum(search => Math.Pow(more, search));
            }) / Shipped.Needs.Sum(need => need.People);
        (searches / begun).ShouldBe(expected, 0.12);
    }

    [Fact]
    public void Types_mostly_what_is_seen_once()
    {
        var crowd = Crowd();
        var texts = new List<string>();
        for (var hour = Noon; hour < Noon + 14 * 24; hour++)
        {
            texts.AddRange(
                crowd
                    .In(hour)
                    .Select(search =>
                    {
                        var person = Person.Of(Shipped, search.Need, new Chance(1, Chance.PersonOf(search.Name)));
                        return Typing.TextOf(Shipped, search, person, new Chance(1, search.Name));
                    })
            );
        }

        var kinds = texts.CountBy(text => text).ToArray();
        kinds.Count(kind => kind.Value == 1).ShouldBeGreaterThan(kinds.Length / 2);
        texts.ShouldAllBe(text => text.Trim().Length > 0 && !text.Contains('{') && !text.Contains('['));
    }

    // Craswell, Zoeter, Taylor, Ramsey, WSDM 2008, the cascade model: the chance of a click at place i is r(i) × Π over the places above
    // of 1 − r. With every place looked at, what people do follows it.
    [Fact]
    public void Clicks_by_the_cascade_model_when_every_place_is_looked_at()
    {
        SeenAd[] page = [new(1, 0.3), new(1, 0.2), new(1, 0.5)];
        var clicks = new int[4];
        const int people = 40_000;
        for (var person = 0; person < people; person++)
        {
            clicks[1 + Examination.Clicked(page, [0, 1, 2], new Chance(3, (ulong)person))]++;
        }

        double[] expected = [0.7 * 0.8 * 0.5, 0.3, 0.7 * 0.2, 0.7 * 0.8 * 0.5];
        for (var place = 0; place < 4; place++)
        {
            // Five standard deviations of a share.
            (clicks[place] / (double)people).ShouldBe(expected[place], 5 * Math.Sqrt(0.25 / people));
        }

        Examination.Likelihood(page, 2).ShouldBe(0.7 * 0.8 * 0.5, 1e-12);
    }

    [Theory]
    [InlineData("Asia/Kolkata", 30)]
    [InlineData("Asia/Kathmandu", 45)]
    public void Changes_hour_and_day_within_an_hour_where_the_zone_has_half_or_quarter_hours(string zone, int minute)
    {
        var days = new AccountDay(zone);
        // The hour of the world in which midnight falls there.
        var midnight = days.StartOf(new DateOnly(2026, 3, 18)).ToUnixTimeSeconds();
        var clock = new HourClock(days, midnight / 3600);
        var at = (int)(midnight % 3600);

        clock.DayAt(at - 1).ShouldBe(new DateOnly(2026, 3, 17));
        clock.DayAt(at).ShouldBe(new DateOnly(2026, 3, 18));
        (clock.HourAt(at - 1), clock.HourAt(at)).ShouldBe((23, 0));
        clock.WallAt(0).ShouldBe(23 + minute / 60.0, 1e-9);
    }

    [Fact]
    public void Tells_the_hours_of_a_day_of_24_and_a_half_hours()
    {
        // Lord Howe Island goes back by half an hour at 2:00 on the first Sunday of April (IANA time zone database).
        var days = new AccountDay("Australia/Lord_Howe");
        var start = days.StartOf(new DateOnly(2026, 4, 5)).ToUnixTimeSeconds();
        var end = days.StartOf(new DateOnly(2026, 4, 6)).ToUnixTimeSeconds();
        var quarters = Enumerable
            .Range(0, (int)((end - start) / 900))
            .Select(quarter => start + quarter * 900)
            .CountBy(at => new HourClock(days, at / 3600).HourAt((int)(at % 3600)))
            .ToDictionary();

        ((double)(end - start)).ShouldBe(24.5 * 3600);
        quarters[1].ShouldBe(6);
        quarters.Values.Sum().ShouldBe(98);
        quarters.Where(hour => hour.Key != 1).ShouldAllBe(hour => hour.Value == 4);
    }
}
