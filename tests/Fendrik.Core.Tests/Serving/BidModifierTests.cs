using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Tests.Serving;

/// <summary>Modifiers of devices and hours, as a search meets them.</summary>
public class BidModifierTests
{
    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");

    private static Candidate Ask(
        string? hours = null,
        decimal? onCampaign = null,
        decimal? onGroup = null,
        Device device = Device.Phone,
        int? minute = 10 * 60,
        string day = "2026-05-12",
        decimal bid = 0.60m
    )
    {
        var keyword = new ServedKeyword(
            new Keyword(5, 2, "piano hire", MatchType.Phrase, ItemState.Running, bid, null),
            new AdGroup(2, 1, "Event hire", ItemState.Running, null, PhoneModifier: onGroup),
            new Campaign(
                1,
                "Hire",
                ItemState.Running,
                40,
                null,
                null,
                SiteKinds.Search,
                Hours: hours is null ? null : WeekPlan.Of(hours),
                PhoneModifier: onCampaign
            ),
            ReviewState.Approved,
            [new TextAd(9, 2, ItemState.Running, ["Piano Hire"], ["For the day."], [], "https://a.example/", null)],
            Ostrel.Reach.WordsOf("piano hire")
        );
        var account = new ServedAccount(
            Ostrel,
            Currency.Of("GBP"),
            true,
            new IndexedKeywords(
                new KeywordIndex<ServedKeyword>([(keyword, "piano hire", MatchType.Phrase)], Ostrel.Reach)
            ),
            new KeywordIndex<PlacedNegative>([], Ostrel.Reach.ForNegatives)
        );
        return account
            .Answer(
                new Search("piano hire", device, SiteKinds.Search, DateOnly.Parse(day), minute),
                null,
                0,
                (_, _) => 7
            )
            .Candidates[0];
    }

    [Fact]
    public void Sixty_pence_with_150_percent_on_phones_is_one_pound_fifty()
    {
        // Common practice, no source.
        Ask(onCampaign: 150).Bid!.Bid.ShouldBe(1.50m);
        Ask(onCampaign: 150, device: Device.Desktop).Bid!.Bid.ShouldBe(0.60m);
    }

    [Fact]
    public void The_ad_groups_modifier_of_a_device_stands_in_for_the_campaigns() =>
        Ask(onCampaign: 150, onGroup: -50).Bid!.Bid.ShouldBe(0.30m);

    [Fact]
    public void An_ad_group_can_be_as_it_is_where_the_campaign_is_not() =>
        Ask(onCampaign: 150, onGroup: 0).Bid!.Bid.ShouldBe(0.60m);

    [Fact]
    public void Device_and_hour_multiply_and_each_is_a_step_of_the_stack()
    {
        var bid = Ask("Mon-Fri 9-12 +22%, 12-18", onCampaign: -26, bid: 1.10m).Bid!;

        bid.Steps.Select(step => (step.Name, step.Percent))
            .ShouldBe([("keyword", 0m), ("phone", -26m), ("Tue 10:00", 22m)]);
        // 1.10 × 0.74 × 1.22 = 0.99308
        bid.Bid.ShouldBe(0.99m);
    }

    [Theory]
    [InlineData(8 * 60 + 59, HindranceKind.OutOfHours)]
    [InlineData(9 * 60, null)]
    [InlineData(17 * 60 + 29, null)]
    [InlineData(17 * 60 + 30, HindranceKind.OutOfHours)]
    public void A_campaign_shows_in_its_hours_alone_to_the_minute(int minute, HindranceKind? hindrance) =>
        (Ask("Mon-Fri 09:00-17:30", minute: minute).Hindrance?.Kind).ShouldBe(hindrance);

    [Fact]
    public void A_search_at_no_time_in_particular_is_not_kept_away_by_hours() =>
        Ask("Mon 9-10", minute: null).Hindrance.ShouldBeNull();

    [Fact]
    public void Minus_100_percent_means_never_and_says_where()
    {
        var onCampaign = Ask(onCampaign: -100).Hindrance!;
        (onCampaign.Kind, onCampaign.ItemKind).ShouldBe((HindranceKind.ShutOff, ItemKind.Campaign));
        onCampaign.Text.ShouldContain("phones on the campaign");
        Ask(onGroup: -100).Hindrance!.ItemKind.ShouldBe(ItemKind.AdGroup);
        Ask(onCampaign: -100, onGroup: 0).Hindrance.ShouldBeNull();
        Ask("daily 0-24 -100%").Hindrance!.Kind.ShouldBe(HindranceKind.ShutOff);
    }

    [Fact]
    public void A_bid_that_modifiers_bring_below_the_networks_lowest_does_not_answer() =>
        Ask(onCampaign: -95).Hindrance!.Kind.ShouldBe(HindranceKind.BelowLowest);
}
