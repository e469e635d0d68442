using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;

namespace Fendrik.Core.Tests.Changes;

public class ItemChecksTests
{
    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");

    private static readonly Campaign Sound = new(1, "North", ItemState.Running, 25m, null, null, SiteKinds.Search);

    private static readonly TextAd SoundAd = new(
        1,
        1,
        ItemState.Running,
        ["Piano Tuning", "Ask Us"],
        ["Same week."],
        ["tuning"],
        "tarnandfell.example",
        null
    );

    private static string[] Codes(IEnumerable<Finding> findings) => [.. findings.Select(finding => finding.Code)];

    [Fact]
    public void Finds_nothing_where_all_is_well()
    {
        ItemChecks.Of(Sound, Ostrel).ShouldBeEmpty();
        ItemChecks.Of(SoundAd, Ostrel).ShouldBeEmpty();
    }

    [Fact]
    public void Stops_a_campaign_without_a_budget()
    {
        var finding = ItemChecks.Of(Sound with { DailyBudget = null }, Ostrel).ShouldHaveSingleItem();

        (finding.Weight, finding.Code, finding.Field).ShouldBe((Weight.Blocker, "budget-missing", "dailyBudget"));
    }

    [Fact]
    public void Stops_a_campaign_that_ends_before_it_starts() =>
        Codes(ItemChecks.Of(Sound with { StartDate = new(2026, 5, 2), EndDate = new(2026, 5, 1) }, Ostrel))
            .ShouldBe(["dates-reversed"]);

    [Fact]
    public void Stops_an_ad_group_whose_keywords_have_no_max_CPC() =>
        ItemChecks.OfContents(1, 3, 2, 1, null).ShouldHaveSingleItem().Code.ShouldBe("max-cpc-missing");

    [Fact]
    public void Lets_an_ad_group_be_without_max_CPC_when_every_keyword_has_its_own() =>
        ItemChecks.OfContents(1, 3, 0, 1, null).ShouldBeEmpty();

    [Fact]
    public void Points_out_an_ad_group_without_keywords_or_ads() =>
        Codes(ItemChecks.OfContents(1, 0, 0, 0, 1m)).ShouldBe(["no-keywords", "no-ads"]);

    [Fact]
    public void Stops_a_headline_that_is_too_long_for_this_network_and_lets_it_pass_on_one_that_takes_it()
    {
        var ad = SoundAd with { Headlines = ["Same-Week Visits All Over", new string('a', 29)] };

        Codes(ItemChecks.Of(ad, Ostrel)).ShouldBeEmpty();
        ItemChecks.Of(ad, NetworkProfile.Of("pellow")).ShouldHaveSingleItem().Message.ShouldBe("headline 2: 29 / 28");
    }

    [Fact]
    public void Counts_a_flag_in_a_headline_as_one_character() =>
        ItemChecks
            .Of(
                SoundAd with
                {
                    Headlines = [string.Concat(Enumerable.Repeat("\U0001F1EC\U0001F1E7", 30)), "B"],
                },
                Ostrel
            )
            .ShouldBeEmpty();

    [Fact]
    public void Warns_of_a_wording_that_reviewers_refuse()
    {
        var finding = ItemChecks
            .Of(SoundAd with { Headlines = ["CLICK here, today", "B"] }, Ostrel)
            .ShouldHaveSingleItem();

        (finding.Weight, finding.Code).ShouldBe((Weight.Caution, "wording-refused"));
    }

    [Fact]
    public void Takes_a_refused_wording_for_whole_words_only() =>
        Ostrel.RefusedWordingIn("You click, hereby").ShouldBeNull();

    [Fact]
    public void Stops_a_keyword_with_too_many_words() =>
        Codes(
                ItemChecks.Of(
                    new Keyword(1, 1, "a b c d e f g h i j k", MatchType.Broad, ItemState.Running, null, null),
                    Ostrel
                )
            )
            .ShouldBe(["words-many"]);

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
            .Between(before, after, Currency.Of("GBP"))
            .ShouldBe([new("Match type", "phrase", "all words"), new("Max CPC", "£0.90", "£1.20")]);
    }
}
