using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Tests.Serving;

/// <summary>Where on content sites ads show, and to whom. Which of several levels decides is Fendrik's own choice.</summary>
public class TargetingTests
{
    private const string Venues = "bigdays.example/venues";

    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");
    private static readonly Currency Pound = Currency.Of("GBP");
    private static readonly Campaign Hire = new(
        1,
        "Hire",
        ItemState.Running,
        40,
        null,
        null,
        SiteKinds.Search | SiteKinds.Content
    );
    private static readonly AdGroup Group = new(2, 1, "Event hire", ItemState.Running, 1.10m);

    private static PlacedSite Placed(
        string site,
        PlacementSide side = PlacementSide.In,
        long? group = null,
        decimal? maxCpc = null
    ) => new(site.Length, 1, group, site, ItemState.Running, side, maxCpc);

    private static PlacedAudience Of(
        string name,
        AudienceUse use = AudienceUse.Observed,
        long? group = null,
        decimal? modifier = null
    ) => new(name.Length, 1, group, name, ItemState.Running, use, modifier);

    private static Candidate Ask(
        PlacedSite[] sites,
        PlacedAudience[] audiences,
        string? page = Venues,
        string[]? person = null,
        SiteKinds site = SiteKinds.Content,
        decimal? keywordBid = null
    )
    {
        var keyword = new ServedKeyword(
            new Keyword(5, 2, "piano hire", MatchType.Phrase, ItemState.Running, keywordBid, null),
            Group,
            Hire,
            ReviewState.Approved,
            [new TextAd(9, 2, ItemState.Running, ["Piano Hire"], ["For the day."], [], "https://a.example/", null)],
            Ostrel.Reach.WordsOf("piano hire")
        );
        var account = new ServedAccount(
            Ostrel,
            Pound,
            true,
            new IndexedKeywords(
                new KeywordIndex<ServedKeyword>([(keyword, "piano hire", MatchType.Phrase)], Ostrel.Reach)
            ),
            new KeywordIndex<PlacedNegative>([], Ostrel.Reach.ForNegatives),
            targeting: new Targeting(sites, audiences)
        );
        return account
            .Answer(
                new Search("piano hire", Device.Phone, site, new DateOnly(2026, 5, 12), null, null, page, person),
                null,
                0,
                (_, _) => 7
            )
            .Candidates[0];
    }

    private static HindranceKind? Kept(Candidate candidate) => candidate.Hindrance?.Kind;

    [Fact]
    public void A_placement_that_is_out_keeps_ads_away_from_it_and_what_is_below()
    {
        var sites = new[] { Placed("bigdays.example", PlacementSide.Out) };
        Kept(Ask(sites, [])).ShouldBe(HindranceKind.PlacementOut);
        Kept(Ask(sites, [], page: "oldthings.example/hire")).ShouldBeNull();
    }

    [Fact]
    public void Out_on_the_campaign_wins_over_in_on_the_ad_group() =>
        Kept(Ask([Placed("bigdays.example", PlacementSide.Out), Placed(Venues, group: 2)], []))
            .ShouldBe(HindranceKind.PlacementOut);

    [Fact]
    public void Where_any_placement_is_in_nothing_shows_elsewhere()
    {
        var sites = new[] { Placed("bigdays.example") };
        Kept(Ask(sites, [])).ShouldBeNull();
        Kept(Ask(sites, [], page: "oldthings.example/hire")).ShouldBe(HindranceKind.PlacementNotIn);
    }

    [Fact]
    public void An_ad_group_that_has_placements_of_its_own_goes_by_these_alone()
    {
        var sites = new[] { Placed("bigdays.example"), Placed("oldthings.example", group: 2) };
        Kept(Ask(sites, [])).ShouldBe(HindranceKind.PlacementNotIn);
        Kept(Ask(sites, [], page: "oldthings.example/hire")).ShouldBeNull();
    }

    [Theory]
    [InlineData(SiteKinds.Search)]
    [InlineData(SiteKinds.Content)]
    public void Placements_decide_on_known_pages_of_content_sites_alone(SiteKinds site) =>
        Kept(Ask([Placed("bigdays.example", PlacementSide.Out)], [], page: null, site: site)).ShouldBeNull();

    [Fact]
    public void The_nearest_placement_that_says_most_gives_the_bid_before_the_keyword()
    {
        var sites = new[]
        {
            Placed("bigdays.example", maxCpc: 0.30m),
            Placed(Venues, maxCpc: 0.55m),
            Placed("bigdays.example", group: 2, maxCpc: 0.40m),
        };
        var bid = Ask(sites, [], keywordBid: 0.90m).Bid!;
        (bid.Steps[0].Name, bid.Bid).ShouldBe(("placement bigdays.example", 0.40m));
        Ask(sites[..2], [], keywordBid: 0.90m).Bid!.Bid.ShouldBe(0.55m);
        Ask([], [], keywordBid: 0.90m).Bid!.Bid.ShouldBe(0.90m);
    }

    [Fact]
    public void Ads_kept_to_audiences_show_to_people_of_any_of_them_at_each_level()
    {
        var only = new[]
        {
            Of("parents", AudienceUse.Only, group: 2),
            Of("musicians", AudienceUse.Only, group: 2),
            Of("past visitors", AudienceUse.Only),
        };
        Kept(Ask([], only)).ShouldBe(HindranceKind.OtherAudience);
        Kept(Ask([], only, person: ["parents"])).ShouldBe(HindranceKind.OtherAudience);
        Kept(Ask([], only, person: ["Past Visitors"])).ShouldBe(HindranceKind.OtherAudience);
        Kept(Ask([], only, person: ["musicians", "past visitors"])).ShouldBeNull();
    }

    [Fact]
    public void An_observed_audience_keeps_nobody_away() => Kept(Ask([], [Of("parents")])).ShouldBeNull();

    /// <summary>A modifier of +300% multiplies a bid by 4 (common practice, no source).</summary>
    [Fact]
    public void Modifiers_of_audiences_multiply_and_the_ad_groups_replaces_the_campaigns()
    {
        var audiences = new[]
        {
            Of("parents", modifier: 300),
            Of("musicians", modifier: 50),
            Of("musicians", group: 2, modifier: -50),
        };
        Ask([], audiences, person: ["parents"]).Bid!.Bid.ShouldBe(4.40m);
        Ask([], audiences, person: ["parents", "musicians"]).Bid!.Bid.ShouldBe(2.20m);
        Ask([], audiences).Bid!.Bid.ShouldBe(1.10m);
    }

    [Fact]
    public void A_modifier_of_minus_a_hundred_means_never()
    {
        var never = Ask([], [Of("parents", modifier: -100)], person: ["parents"]);
        (Kept(never), never.Hindrance!.ItemKind).ShouldBe((HindranceKind.ShutOff, ItemKind.Audience));
    }

    [Fact]
    public void What_is_paused_does_not_count()
    {
        var paused = Placed("bigdays.example", PlacementSide.Out) with { State = ItemState.Paused };
        Kept(Ask([paused], [Of("parents", AudienceUse.Only) with { State = ItemState.Paused }])).ShouldBeNull();
    }
}
