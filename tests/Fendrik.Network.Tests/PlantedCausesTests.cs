using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.Combining;
using Fendrik.Network.Worlds;
using MathNet.Numerics.Distributions;

namespace Fendrik.Network.Tests;

/// <summary>Ten weeks of the demo’s two accounts, from which a specialist must be able to tell causes from chance.</summary>
public sealed class TenWeeks
{
    private static readonly AccountDay London = new("Europe/London");

    public static DateOnly First { get; } = new(2026, 2, 26);

    public TenWeeks()
    {
        Pianos = Played(PianoShop);
        Bikes = Played(BikeShop);
    }

    public DemoAccount PianoShop { get; } = new("Tarn & Fell Pianos");

    public DemoAccount BikeShop { get; } = new("Kestrel Cargo Bikes");

    public IReadOnlyList<HourKept> Pianos { get; }

    public IReadOnlyList<HourKept> Bikes { get; }

    private static List<HourKept> Played(DemoAccount demo)
    {
        var play = new AccountPlay(
            World.Shipped,
            [],
            demo.Live,
            demo.Seed,
            London,
            (
                new QualityBook(World.Shipped, [], demo.Live.Keywords),
                new BudgetBook(World.Shipped, London, new StrategyBook(London, Currency.Of("GBP"), []), []),
                new ClickBook<(ItemKind, long)>([]),
                new ClickBook<LineKey>([]),
                new ClickBook<long>([])
            ),
            new HashSet<ulong>(),
            new HashSet<ulong>()
        );
        var start = demo.StartAt.ToUnixTimeSeconds() / 3600;
        return [.. Enumerable.Range(0, 10 * 7 * 24).Select(hour => play.Play(start + hour).Kept)];
    }
}

public class PlantedCausesTests(TenWeeks weeks) : IClassFixture<TenWeeks>
{
    private const double Sure = 0.01;

    private IEnumerable<ShownAd> Shown => weeks.Pianos.SelectMany(hour => hour.Shown);

    private IEnumerable<Visited> Visits => weeks.Pianos.SelectMany(hour => hour.Visits);

    private static Need NeedOf(ulong search) => World.Shipped.Needs[Chance.Read(search).Need];

    /// <summary>
    /// How likely a difference of two shares as great as this comes by chance: the normal test with the pooled share (Newcombe,
    /// Statistics in Medicine 17, 1998, has the comparison; the quantile is MathNet's).
    /// </summary>
    private static double ByChance(int one, int ofOne, int two, int ofTwo)
    {
        ofOne.ShouldBeGreaterThan(0);
        ofTwo.ShouldBeGreaterThan(0);
        var pooled = (one + two) / (double)(ofOne + ofTwo);
        var deviation = Math.Sqrt(pooled * (1 - pooled) * (1.0 / ofOne + 1.0 / ofTwo));
        return 2 * Normal.CDF(0, 1, -Math.Abs(one / (double)ofOne - two / (double)ofTwo) / deviation);
    }

    private static double ByChance(
        IReadOnlyCollection<Visited> one,
        IReadOnlyCollection<Visited> two,
        Func<Visited, bool> happens
    ) => ByChance(one.Count(happens), one.Count, two.Count(happens), two.Count);

    private static bool Converts(Visited visit) => visit.Result.End == VisitEnd.InTouch;

    [Fact]
    public void Phones_cannot_fill_in_the_booking_form()
    {
        var tuning = Visits.Where(visit => weeks.PianoShop.AdsOn("/tuning").Contains(visit.Shown.AdId)).ToArray();
        var phones = tuning.Where(visit => visit.Shown.Device == Device.Phone).ToArray();
        var others = tuning.Where(visit => visit.Shown.Device != Device.Phone).ToArray();
        bool Books(Visited visit) => Converts(visit) && visit.Result.Way == Way.Booking;

        phones.Count(Books).ShouldBe(0);
        ByChance(phones, others, Books).ShouldBeLessThan(Sure);
    }

    [Fact]
    public void Calls_after_half_past_five_are_not_answered()
    {
        var calls = Visits.Where(visit => visit.Result.Way == Way.Call).ToArray();
        bool IsLate(Visited visit) =>
            TimeZoneInfo.ConvertTime(visit.Result.At, TimeZoneInfo.FindSystemTimeZoneById("Europe/London")).TimeOfDay
            >= new TimeSpan(17, 30, 0);
        bool IsMissed(Visited visit) => visit.Result.End == VisitEnd.Missed;
        var late = calls.Where(IsLate).ToArray();

        late.ShouldAllBe(visit => visit.Result.End == VisitEnd.Missed || visit.Result.Way != Way.Call);
        late.Length.ShouldBeGreaterThan(20);
        ByChance(late, [.. calls.Where(visit => !IsLate(visit))], IsMissed).ShouldBeLessThan(Sure);
    }

    [Fact]
    public void Clicks_from_abroad_never_convert()
    {
        bool IsAbroad(Visited visit) => World.Shipped.Places[visit.Shown.From - 1].Country != World.HomeCountry;
        var abroad = Visits.Where(IsAbroad).ToArray();

        abroad.Count(Converts).ShouldBe(0);
        ByChance(abroad, [.. Visits.Where(visit => !IsAbroad(visit))], Converts).ShouldBeLessThan(Sure);
    }

    [Fact]
    public void Past_visitors_are_those_who_clicked_in_an_earlier_search_and_nobody_else()
    {
        var clicked = Visits.Select(visit => visit.Shown.Search).ToHashSet();
        bool ClickedBefore(Visited visit) =>
            Enumerable
                .Range(0, Chance.Read(visit.Shown.Search).Search)
                .Any(earlier => clicked.Contains(Chance.PersonOf(visit.Shown.Search) | (uint)earlier));

        Visits
            .Where(visit => visit.Reached.Any(each => each.Name == "past visitors") != ClickedBefore(visit))
            .ShouldBeEmpty();
        Visits.Count(ClickedBefore).ShouldBeGreaterThan(100);
    }

    [Fact]
    public void One_page_is_too_slow_for_most()
    {
        var ads = weeks.PianoShop.AdsOn("/restoration").ToHashSet();
        var slow = Visits.Where(visit => ads.Contains(visit.Shown.AdId)).ToArray();
        var others = Visits.Where(visit => !ads.Contains(visit.Shown.AdId)).ToArray();

        ByChance(slow, others, visit => visit.Result.End == VisitEnd.TooSlow).ShouldBeLessThan(Sure);
    }

    [Fact]
    public void A_good_part_of_the_cost_goes_to_terms_that_are_worth_nothing()
    {
        long Paid(IEnumerable<ShownAd> shown) =>
            shown.Where(each => each.Click != ClickKind.None).Sum(each => each.Price);
        var wasted = Paid(Shown.Where(each => NeedOf(each.Search).Earnest == 0)) / (double)Paid(Shown);

        wasted.ShouldBeInRange(0.15, 0.25);
    }

    [Fact]
    public void Conversions_of_one_keyword_cost_more_than_they_are_worth()
    {
        var repair = weeks.PianoShop.KeywordsNamed("piano repair").ToHashSet();
        var clicks = Shown
            .Where(each => repair.Contains(each.Spot.KeywordId) && each.Click != ClickKind.None)
            .ToArray();
        var visits = Visits.Where(visit => repair.Contains(visit.Shown.Spot.KeywordId)).ToArray();
        var cost = clicks.Sum(each => each.Price) / 100m;

        clicks.Length.ShouldBeGreaterThan(150);
        visits.Count(Converts).ShouldBeGreaterThan(0);
        cost.ShouldBeGreaterThan(visits.Sum(visit => visit.Value));
    }

    [Fact]
    public void There_is_a_dip_at_easter()
    {
        int On(params DateOnly[] days) =>
            weeks.Pianos.Where(hour => days.Contains(hour.FirstDay)).Sum(hour => (int)hour.Searches);
        DateOnly[] easter = [.. Enumerable.Range(0, 4).Select(day => new DateOnly(2026, 4, 3).AddDays(day))];
        var dip = On(easter);
        var usual =
            (On([.. easter.Select(day => day.AddDays(-14))]) + On([.. easter.Select(day => day.AddDays(14))])) / 2.0;

        // Counts of people are Poisson's: the difference in standard deviations.
        ((usual - dip) / Math.Sqrt(usual + dip)).ShouldBeGreaterThan(3);
    }

    [Fact]
    public void A_rival_came_in_the_fifth_week_and_stays()
    {
        int Weeks(HourKept hour) => (hour.FirstDay.DayNumber - TenWeeks.First.DayNumber) / 7;
        var strings = World
            .Shipped.RivalsOf("ostrel", "tuning")
            .Single(rival => rival.Name == "Northern Strings")
            .Number;
        var with = weeks
            .Pianos.GroupBy(Weeks)
            .OrderBy(week => week.Key)
            .Select(week =>
                week.Sum(hour => hour.Rivals.Where(each => each.Key.Rival == strings).Sum(each => each.Value.With))
            )
            .ToArray();

        with[..4].ShouldAllBe(shown => shown == 0);
        with[5..10].ShouldAllBe(shown => shown > 100);
    }

    [Fact]
    public void A_broad_ad_group_eats_the_budget_of_its_sibling()
    {
        var broad = weeks.BikeShop.GroupNamed("Cargo bike, broad");
        var good = weeks.BikeShop.GroupNamed("Electric cargo bikes");
        var paid = weeks
            .Bikes.SelectMany(hour => hour.Shown)
            .Where(each => each.Click != ClickKind.None)
            .ToLookup(each => each.Spot.AdGroupId, each => each.Price);
        var stood = weeks
            .Bikes.SelectMany(hour => hour.Standings)
            .Where(each => each.Key.Spot.AdGroupId == good)
            .Select(each => each.Value)
            .ToArray();

        paid[broad].Sum().ShouldBeGreaterThan(paid[good].Sum() / 4);
        (
            stood.Sum(each => each.LostToBudget) / (double)stood.Sum(each => each.LostToBudget + each.Impressions)
        ).ShouldBeGreaterThan(0.2);
    }

    [Fact]
    public void A_good_keyword_is_hidden_by_its_bid()
    {
        var hidden = weeks
            .Bikes.SelectMany(hour => hour.Standings)
            .Where(each => weeks.BikeShop.KeywordsNamed("delivery cargo bike").Contains(each.Key.Spot.KeywordId))
            .ToArray();

        hidden.Sum(each => each.Value.LostToRank).ShouldBeGreaterThan(100);
        hidden.Sum(each => each.Value.Impressions).ShouldBe(0);
        World.Shipped.Needs.Single(need => need.Id == "business-bike").Earnest.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void Four_weeks_are_enough_to_tell_a_trial_that_wins_six_tenths_more_from_one_that_wins_nothing()
    {
        // Fleiss, “Statistical Methods for Rates and Proportions”: clicks needed for each side of two proportions at 5 % and power 0.8.
        var four = weeks.Pianos.Take(28 * 24).ToArray();
        var clicks = four.Sum(hour => hour.Visits.Count);
        var rate = four.Sum(hour => hour.Visits.Count(Converts)) / (double)clicks;
        var better = rate * 1.6;
        var middle = (rate + better) / 2;
        var needed =
            Math.Pow(
                Normal.InvCDF(0, 1, 0.975) * Math.Sqrt(2 * middle * (1 - middle))
                    + Normal.InvCDF(0, 1, 0.8) * Math.Sqrt(rate * (1 - rate) + better * (1 - better)),
                2
            ) / Math.Pow(better - rate, 2);

        (clicks / 2.0).ShouldBeGreaterThan(needed);
    }
}
