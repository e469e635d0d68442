using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Places;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Tests.Places;

/// <summary>What the places of a campaign make of a search, and of one another.</summary>
public class PlaceReachingTests
{
    private static readonly DateOnly Day = new(2026, 5, 12);
    private static int _ids;

    private static PlacedPlace In(string place, decimal? radius = null, decimal? modifier = null) =>
        new(++_ids, 1, Gazetteer.Find(place).Single().FullName, radius, PlacementSide.In, modifier);

    private static PlacedPlace Out(string place) =>
        new(++_ids, 1, Gazetteer.Find(place).Single().FullName, null, PlacementSide.Out, null);

    private static PlaceReached Of(
        string home,
        PlacedPlace[] places,
        string? interest = null,
        PlaceReach people = PlaceReach.Present
    ) =>
        new PlaceReaching(places).Of(
            new Campaign(1, "Tuning", ItemState.Running, 20, null, null, SiteKinds.Search, People: people),
            new Search("piano tuner", Device.Phone, SiteKinds.Search, Day, null, home, Interest: interest)
        );

    [Fact]
    public void Without_places_it_shows_everywhere() => Of("pune", []).Hindrance.ShouldBeNull();

    [Fact]
    public void Where_places_are_in_it_shows_to_people_in_them_alone()
    {
        PlacedPlace[] places = [In("Yorkshire"), In("Scotland")];

        Of("leeds", places).Hindrance.ShouldBeNull();
        Of("perth", places).Hindrance.ShouldBeNull();
        Of("manchester", places).Hindrance!.Kind.ShouldBe(HindranceKind.OtherPlace);
    }

    [Fact]
    public void Out_wins_however_narrow_what_is_in()
    {
        var reached = Of("leeds", [In("Leeds"), Out("Yorkshire")]);

        reached.Hindrance!.Kind.ShouldBe(HindranceKind.PlaceOut);
        reached.Hindrance.Text.ShouldContain("Yorkshire is out");
    }

    [Fact]
    public void Only_out_leaves_the_rest_of_the_world()
    {
        Of("pune", [Out("India")]).Hindrance.ShouldNotBeNull();
        Of("lyon", [Out("India")]).Hindrance.ShouldBeNull();
    }

    [Fact]
    public void A_radius_takes_in_what_is_no_farther()
    {
        // Leeds to Bradford are 13 km, to York 35, to Hull 80: by the great circle.
        PlacedPlace[] places = [In("Leeds", 36)];

        Of("bradford", places).Hindrance.ShouldBeNull();
        Of("york", places).Hindrance.ShouldBeNull();
        Of("hull", places).Hindrance.ShouldNotBeNull();
    }

    [Fact]
    public void The_narrowest_place_decides_the_modifier()
    {
        PlacedPlace[] places =
        [
            In("United Kingdom", null, -20),
            In("Leeds", 20, 10),
            In("Leeds", null, 35),
            In("Yorkshire", null, 5),
        ];

        Of("leeds", places).Modifier.ShouldBe(("place Leeds", 35m));
        Of("bradford", places).Modifier.ShouldBe(("place 20 km around Leeds", 10m));
        Of("hull", places).Modifier.ShouldBe(("place Yorkshire", 5m));
        Of("glasgow", places).Modifier.ShouldBe(("place United Kingdom", -20m));
    }

    [Fact]
    public void A_modifier_of_minus_100_percent_means_never() =>
        Of("leeds", [In("Leeds", null, -100)]).Hindrance!.Kind.ShouldBe(HindranceKind.ShutOff);

    [Fact]
    public void People_elsewhere_who_are_interested_are_reached_only_where_the_campaign_says_so()
    {
        PlacedPlace[] places = [In("Leeds")];

        Of("pune", places, "leeds").Hindrance.ShouldNotBeNull();
        var reached = Of("pune", places, "leeds", PlaceReach.PresentOrInterested);
        (reached.Hindrance, reached.IsByInterest).ShouldBe((null, true));
        Of("pune", places, "york", PlaceReach.PresentOrInterested).Hindrance.ShouldNotBeNull();
        Of("leeds", places, "york", PlaceReach.PresentOrInterested).IsByInterest.ShouldBeFalse();
        // Out goes by where people are: an interest does not let them in.
        Of("pune", [.. places, Out("India")], "leeds", PlaceReach.PresentOrInterested).Hindrance.ShouldNotBeNull();
    }

    [Fact]
    public void A_search_from_nowhere_in_particular_meets_no_place() =>
        new PlaceReaching([In("Leeds")])
            .Of(
                new Campaign(1, "Tuning", ItemState.Running, 20, null, null, SiteKinds.Search),
                new Search("piano tuner", Device.Phone, SiteKinds.Search, Day)
            )
            .ShouldBe(default);

    private static string[] Contradictions(params PlacedPlace[] places) =>
        [
            .. PlaceContradictions
                .Of(places)
                .Select(finding =>
                    $"{finding.Code} {places.Single(place => place.Id == finding.ItemId).Text.Split(',')[0]}"
                ),
        ];

    [Fact]
    public void Places_that_shut_themselves_out_or_say_nothing_new_are_told()
    {
        Contradictions(In("Leeds"), Out("Yorkshire")).ShouldBe(["place-shut-out Leeds"]);
        Contradictions(In("Leeds"), In("Yorkshire")).ShouldBe(["place-within Leeds"]);
        Contradictions(In("Leeds", null, 20), In("Yorkshire")).ShouldBeEmpty();
        Contradictions(Out("Leeds"), In("Yorkshire")).ShouldBeEmpty();
        Contradictions(Out("Leeds"), Out("Yorkshire")).ShouldBe(["place-within Leeds"]);
        Contradictions(In("Bradford"), In("Leeds", 30)).ShouldBe(["place-within Bradford"]);
        Contradictions(In("York", 2), In("Leeds", 30)).ShouldBeEmpty();
        // Of two that are the same all but in name only one is too many.
        Contradictions(In("Leeds", 5), In("Leeds", 5)).Length.ShouldBe(1);
    }

    private static CampaignRisks Risks(
        SiteKinds sites = SiteKinds.Search,
        Objective objective = Objective.Leads,
        PlaceReach people = PlaceReach.Present,
        bool hours = false,
        bool places = true
    ) => new(1, sites, objective, people, hours, places);

    private static Finding[] Found(CampaignRisks risks) =>
        [
            .. risks.Findings(
                [
                    ("leeds", false, new RiskFigures(80, 4)),
                    ("pune", false, new RiskFigures(20, 0)),
                    ("pune", true, new RiskFigures(7, 0)),
                ],
                new Dictionary<SiteKinds, RiskFigures>
                {
                    [SiteKinds.Content] = new(30, 1),
                    [SiteKinds.Partners] = new(9, 0),
                },
                // Monday at 9 and at 22.
                new Dictionary<int, RiskFigures> { [9] = new(50, 3), [22] = new(12, 1) },
                WeekHours.Of("Mon-Fri 08:00-18:00"),
                Currency.Of("GBP")
            ),
        ];

    [Fact]
    public void Settings_that_are_not_risky_are_not_spoken_of()
    {
        Risks().IsAny.ShouldBeFalse();
        Risks(objective: Objective.Calls, hours: true).IsAny.ShouldBeFalse();
        Found(Risks(SiteKinds.Search | SiteKinds.Partners)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(CampaignRisks.Everywhere, "people in other countries cost £27.00 and brought nothing.")]
    [InlineData(CampaignRisks.Interested, "they cost £7.00 and brought nothing.")]
    [InlineData(CampaignRisks.MixedSites, "content sites cost £30.00 and brought 1 conversion.")]
    [InlineData(CampaignRisks.PartnerCalls, "partner sites cost £9.00 and brought nothing.")]
    [InlineData(CampaignRisks.AnyHourCalls, "hours in which nobody takes calls cost £12.00 and brought 1 conversion.")]
    public void Risky_settings_are_told_with_what_they_cost(string code, string told)
    {
        var all = Found(
            Risks(
                SiteKinds.Search | SiteKinds.Partners | SiteKinds.Content,
                Objective.Calls,
                PlaceReach.PresentOrInterested,
                places: false
            )
        );

        all.Length.ShouldBe(5);
        all.Single(finding => finding.Code == code).Detail.ShouldContain($"In the last 28 days {told}");
    }
}
