using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Checks;

public class ItemChecksTests
{
    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");

    private static ItemValues Sound(params (string, string)[] said) =>
        ItemParts.Item(ItemKind.Campaign, [("name", "North"), ("dailyBudget", "25"), .. said]);

    private static ItemValues SoundAd(string headlines = "Piano Tuning|Ask Us") =>
        ItemParts.Item(
            ItemKind.TextAd,
            ("headlines", headlines),
            ("descriptions", "Same week."),
            ("displayPath", "tuning"),
            ("landingPage", "tarnandfell.example")
        );

    private static string[] Codes(IEnumerable<Finding> findings) => [.. findings.Select(finding => finding.Code)];

    [Fact]
    public void Finds_nothing_where_all_is_well()
    {
        ItemParts.Found(Sound(), Ostrel).ShouldBeEmpty();
        ItemParts.Found(SoundAd(), Ostrel).ShouldBeEmpty();
    }

    [Fact]
    public void Stops_a_campaign_without_a_budget()
    {
        var finding = ItemParts.Found(Sound(("dailyBudget", "")), Ostrel).ShouldHaveSingleItem();

        (finding.Weight, finding.Code, finding.Field).ShouldBe((Weight.Blocker, "daily-budget-missing", "dailyBudget"));
    }

    [Fact]
    public void Stops_a_campaign_that_ends_before_it_starts() =>
        Codes(ItemParts.Found(Sound(("startDate", "2026-05-02"), ("endDate", "2026-05-01")), Ostrel))
            .ShouldBe(["end-date-reversed"]);

    [Fact]
    public void Stops_an_ad_group_whose_keywords_have_no_max_CPC() =>
        AcrossItems.OfContents(1, 3, 2, 1, 1, 1, null).ShouldHaveSingleItem().Code.ShouldBe("max-cpc-missing");

    [Fact]
    public void Lets_an_ad_group_be_without_max_CPC_when_every_keyword_has_its_own() =>
        AcrossItems.OfContents(1, 3, 0, 1, 1, 1, null).ShouldBeEmpty();

    [Fact]
    public void Points_out_an_ad_group_that_leaves_desktops_without_an_ad() =>
        AcrossItems.OfContents(1, 3, 0, 2, 1, 0, 1m).ShouldHaveSingleItem().Code.ShouldBe("no-ads-for-desktops");

    [Fact]
    public void Says_nothing_of_devices_where_no_ad_runs() =>
        AcrossItems.OfContents(1, 3, 0, 1, 0, 0, 1m).ShouldBeEmpty();

    [Fact]
    public void Points_out_an_ad_group_without_keywords_or_ads() =>
        Codes(AcrossItems.OfContents(1, 0, 0, 0, 0, 0, 1m)).ShouldBe(["no-keywords", "no-ads"]);

    [Theory]
    [InlineData(4, null)]
    [InlineData(5, "5 ad groups with broad keywords")]
    public void More_than_four_ad_groups_with_broad_keywords_in_a_campaign_are_a_caution(int groups, string? message) =>
        // Common practice, no source.
        (AcrossItems.TooManyBroadGroups(1, groups)?.Message).ShouldBe(message);

    [Theory]
    [InlineData(null, "Mon-Fri 9-17", "rings 128 h a week unanswered")]
    [InlineData("Mon-Fri 8-17", "Mon-Fri 9-17", "rings 5 h a week unanswered")]
    [InlineData("Mon-Fri 10-12", "Mon-Fri 9-17", null)]
    [InlineData(null, null, null)]
    public void A_number_that_rings_while_nobody_takes_calls_is_a_caution(
        string? hours,
        string? answering,
        string? message
    ) =>
        (
            AcrossItems
                .RingsUnanswered(
                    ItemKind.CallExtension,
                    1,
                    hours is null ? null : WeekHours.Of(hours),
                    answering is null ? null : WeekHours.Of(answering)
                )
                ?.Message
        ).ShouldBe(message);

    [Theory]
    [InlineData(SiteKinds.Search | SiteKinds.Partners, "placement-idle")]
    [InlineData(SiteKinds.Search | SiteKinds.Content, null)]
    public void A_placement_where_nothing_shows_is_a_hint(SiteKinds sites, string? code) =>
        (AcrossItems.IdlePlacement(1, sites)?.Code).ShouldBe(code);

    [Theory]
    [InlineData("5.01", "5", true)]
    [InlineData("5", "5", false)]
    [InlineData(null, "5", false)]
    [InlineData("5", null, false)]
    public void Finds_a_bid_that_a_day_can_never_pay(string? bid, string? budget, bool found) =>
        (AcrossItems.BidAboveBudget(1, Amount(bid), Amount(budget), Currency.Of("GBP")) is not null).ShouldBe(found);

    private static decimal? Amount(string? text) =>
        text is null ? null : decimal.Parse(text, System.Globalization.CultureInfo.InvariantCulture);

    [Fact]
    public void Stops_a_headline_that_is_too_long_for_this_network_and_lets_it_pass_on_one_that_takes_it()
    {
        var ad = SoundAd($"Same-Week Visits All Over|{new string('a', 29)}");

        Codes(ItemParts.Found(ad, Ostrel)).ShouldBeEmpty();
        ItemParts.Found(ad, NetworkProfile.Of("pellow")).ShouldHaveSingleItem().Message.ShouldBe("headline 2: 29 / 28");
    }

    [Fact]
    public void Counts_a_flag_in_a_headline_as_one_character() =>
        ItemParts
            .Found(SoundAd($"{string.Concat(Enumerable.Repeat("\U0001F1EC\U0001F1E7", 30))}|B"), Ostrel)
            .ShouldBeEmpty();

    [Fact]
    public void Warns_of_a_wording_that_reviewers_refuse()
    {
        var finding = ItemParts.Found(SoundAd("Click HERE, today|B"), Ostrel).ShouldHaveSingleItem();

        (finding.Weight, finding.Code).ShouldBe((Weight.Caution, "wording-refused"));
    }

    [Fact]
    public void Reads_headlines_one_by_one_and_keywords_only_for_wordings()
    {
        var ad = ItemParts
            .Found(SoundAd("A|CALL TODAY|Click|Here"), Ostrel)
            .Where(each => each.Weight == Weight.Caution);
        ad.ShouldHaveSingleItem()
            .Detail.ShouldStartWith("Headline 2, “CALL TODAY”: Words of more than 4 letters in capitals alone");

        string[] Found(string keyword) =>
            [
                .. ReviewedTexts
                    .RefusedIn(new ItemValues(ItemTypes.Of(ItemKind.Keyword)) { ["text"] = keyword }, Ostrel.Reviewing)
                    .Select(refused => refused.Refusal.Code),
            ];
        Found("PIANO TUNING!! 0113 496 0000").ShouldBeEmpty();
        Found("piano click here").ShouldBe(["wording-refused"]);
    }

    [Fact]
    public void Stops_a_keyword_with_too_many_words() =>
        Codes(
                ItemParts.Found(
                    ItemParts.Item(ItemKind.Keyword, ("text", "a b c d e f g h i j k"), ("match", "broad")),
                    Ostrel
                )
            )
            .ShouldBe(["text-words"]);

    [Fact]
    public void Says_which_fields_differ_in_words()
    {
        var before = JsonSerializer.SerializeToElement(
            new
            {
                text = "piano",
                match = 2,
                state = 1,
                maxCpc = 0.9,
            }
        );
        var after = JsonSerializer.SerializeToElement(
            new
            {
                text = "piano",
                match = 3,
                state = 1,
                maxCpc = 1.2,
            }
        );

        FieldDifferences
            .Between(ItemTypes.Of(ItemKind.Keyword), before, after, Currency.Of("GBP"))
            .ShouldBe([new("Match type", "phrase", "all words"), new("Max CPC", "£0.90", "£1.20")]);
    }
}
