using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;

namespace Fendrik.Core.Tests.Lists;

public class RowReaderTests
{
    private static readonly string[] Usual = ["campaign", "adGroup", "keyword", "matchType", "maxCpc"];

    private static ListRow? Read(string[] fields, params string[] cells) => Read(fields, new ListDefaults(), cells);

    private static ListRow? Read(string[] fields, ListDefaults defaults, params string[] cells) =>
        new RowReader([.. fields.Select(ListColumns.Find)], ReadingGround.Plain(Currency.Of("GBP")), defaults).Read(
            cells,
            7
        );

    [Fact]
    public void Reads_a_keyword_with_its_place_match_type_and_bid()
    {
        var row = Read(Usual, "North", "Tuning", "piano tuning", "exact", "1.30")!;

        row.Problem.ShouldBeNull();
        (row.Kind, row.Campaign, row.AdGroup, row.Text, row.Match, row.MaxCpc).ShouldBe(
            (ItemKind.Keyword, "North", "Tuning", "piano tuning", MatchType.Exact, 1.30m)
        );
    }

    [Fact]
    public void Takes_a_minus_for_a_negative_in_phrase_match()
    {
        var row = Read(Usual, "North", "", "-free", "", "")!;

        (row.Kind, row.Text, row.Match, row.Problem).ShouldBe(
            (ItemKind.NegativeKeyword, "free", MatchType.Phrase, null)
        );
    }

    [Fact]
    public void Takes_bare_words_as_a_person_chose() =>
        Read(Usual, new ListDefaults(BareMatch: MatchType.AllWords), "North", "Tuning", "piano tuning", "", "")!
            .Match.ShouldBe(MatchType.AllWords);

    [Fact]
    public void Takes_the_bid_of_a_row_without_keyword_for_the_ad_groups()
    {
        var row = Read(Usual, "North", "Tuning", "", "", "0.90")!;

        (row.Kind, row.MaxCpc, row.OfAdGroup?["maxCpc"]).ShouldBe((ItemKind.AdGroup, 0.90m, 0.90m));
    }

    [Fact]
    public void Reads_an_ad_from_its_headlines()
    {
        string[] fields =
        [
            "campaign",
            "adGroup",
            "headlines.1",
            "headlines.2",
            "descriptions.1",
            "landingPage",
            "devicePreference",
        ];
        var row = Read(
            fields,
            "North",
            "Tuning",
            "Piano Tuning",
            "Ask Us",
            "Same week.",
            "tarnandfell.example",
            "mobile"
        )!;

        (row.Kind, row.DevicePreference, row.Problem).ShouldBe((ItemKind.TextAd, Device.Phone, null));
        row.Headlines.ShouldBe(["Piano Tuning", "Ask Us"]);
    }

    [Theory]
    [InlineData("North|Tuning|piano|exact|1,2O", "Max CPC “1,2O” is not an amount")]
    [InlineData("North|Tuning|piano|exakt|1", "Match type “exakt” is none of")]
    [InlineData("North|Tuning|+piano +||1", "an empty word after +")]
    [InlineData("North|Tuning|[piano]|phrase|1", "says phrase, the keyword is written as exact")]
    [InlineData("|Tuning|piano|exact|1", "Campaign is missing")]
    [InlineData("North||piano|exact|1", "Ad group is missing")]
    [InlineData("North|Tuning|piano|exact|0", "is not between")]
    [InlineData("North|Tuning|piano|exact|1.0001", "more than 2 decimal places")]
    [InlineData("North|Tuning|pia\u0000no|exact|1", "Keyword has control characters")]
    [InlineData("No\uffffrth|Tuning|piano|exact|1", "Campaign has control characters")]
    public void Names_the_field_and_what_to_do(string cells, string problem) =>
        Read(Usual, cells.Split('|'))!.Problem.ShouldNotBeNull().ShouldContain(problem);

    [Fact]
    public void Refuses_a_keyword_of_ten_thousand_characters_and_shows_but_its_beginning()
    {
        var row = Read(Usual, "North", "Tuning", new string('a', 10_000), "exact", "1")!;

        row.Problem.ShouldNotBeNull().ShouldContain("10,000 characters");
        row.Text.Length.ShouldBeLessThan(100);
    }

    [Fact]
    public void Takes_right_to_left_and_combined_characters_as_they_are()
    {
        var row = Read(Usual, "North", "Tuning", "כיוון פסנתר cafe\u0301", "phrase", "1")!;

        row.Problem.ShouldBeNull();
        row.Text.ShouldBe("כיוון פסנתר cafe\u0301");
    }

    [Fact]
    public void Passes_over_a_blank_row() => Read(Usual, "", " ", "", "", "").ShouldBeNull();

    [Fact]
    public void Takes_the_guard_off_cells_that_came_out_of_an_export() =>
        Read(Usual, "North", "", "'-free", "", "")!.Text.ShouldBe("free");

    [Fact]
    public void Never_throws_whatever_the_cells_hold() =>
        Gen
            .String.Array[0, 60]
            .Sample(cells =>
            {
                new RowReader([.. ListColumns.All], ReadingGround.Plain(Currency.Of("GBP")), new ListDefaults()).Read(
                    cells,
                    1
                );
                return true;
            });

    [Fact]
    public void Gives_ads_of_the_same_content_the_same_key() =>
        ItemParts
            .Row(ItemKind.TextAd, "N", "T", ("headlines", "A|B"), ("descriptions", "c"), ("landingPage", "x.example"))
            .ItemKey.ShouldBe(
                ItemParts
                    .Row(
                        ItemKind.TextAd,
                        "N",
                        "T",
                        ("headlines", "a |b"),
                        ("descriptions", "C"),
                        ("landingPage", "x.example")
                    )
                    .ItemKey
            );

    [Fact]
    public void What_a_row_says_of_its_campaign_is_the_campaigns()
    {
        var row = Read(
            ["campaign", "dailyBudget", "adGroup", "adGroup.maxCpc", "keyword"],
            "North",
            "25",
            "Tuning",
            "1.10",
            "piano"
        )!;

        (row.OfCampaign?["dailyBudget"], row.OfAdGroup?["maxCpc"], row.MaxCpc).ShouldBe((25m, 1.10m, null));
    }

    [Fact]
    public void A_pause_in_the_row_of_a_negative_does_not_pause_its_ad_group()
    {
        var row = Read(["campaign", "adGroup", "keyword", "state"], "North", "Tuning", "-free", "paused")!;

        (row.Kind, row.OfAdGroup).ShouldBe((ItemKind.NegativeKeyword, null));
    }
}
