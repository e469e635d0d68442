using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;

namespace Fendrik.Core.Tests.Lists;

/// <summary>Rows that say what they are and what is to be done.</summary>
public class RowReaderItemTests
{
    private static readonly string[] Columns =
    [
        "item",
        "action",
        "campaign",
        "adGroup",
        "negativeList",
        "keyword",
        "matchType",
        "maxCpc",
        "landingPage",
        "labels",
        "headlines.1",
    ];

    private static ListRow Read(ListDefaults defaults, params string[] cells) =>
        new RowReader([.. Columns.Select(ListColumns.Find)], ReadingGround.Plain(Currency.Of("GBP")), defaults)
            .Read(cells, 2)
            .ShouldNotBeNull();

    private static ListRow Read(params string[] cells) => Read(new ListDefaults(), cells);

    [Theory]
    [InlineData("campaign", ItemKind.Campaign)]
    [InlineData("", ItemKind.Campaign)]
    public void A_row_with_a_campaign_alone_is_a_campaign(string item, ItemKind kind) =>
        Read(item, "", "Leeds").Kind.ShouldBe(kind);

    [Fact]
    public void A_negative_may_stand_in_the_column_of_keywords_when_the_row_says_what_it_is()
    {
        var row = Read("negative keyword", "", "Leeds", "", "", "free");

        (row.Kind, row.Match, row.Problem).ShouldBe((ItemKind.NegativeKeyword, MatchType.Phrase, null));
    }

    [Fact]
    public void What_stands_in_a_list_is_a_negative_and_in_no_campaign()
    {
        var row = Read(new ListDefaults(Campaign: "York"), "", "", "", "", "Not buyers", "jobs");

        (row.Kind, row.NegativeList, row.Campaign, row.Problem).ShouldBe(
            (ItemKind.NegativeKeyword, "Not buyers", "", null)
        );
    }

    [Theory]
    [InlineData("paint", "", "Leeds", "", "", "", "Item “paint” is none of")]
    [InlineData("", "burn", "Leeds", "", "", "", "Action “burn” is none of add, change, remove")]
    [InlineData("keyword", "", "Leeds", "Grands", "", "", "Keyword is missing")]
    [InlineData("ad group", "", "Leeds", "", "", "", "Ad group is missing")]
    [InlineData("campaign", "", "Leeds", "Grands", "", "", "Ad group has to be empty in the row of a campaign")]
    [InlineData("negative list", "", "Leeds", "", "", "", "Negative list is missing")]
    [InlineData("", "", "Leeds", "", "Not buyers", "jobs", "Campaign has to be empty for a negative in a list")]
    [InlineData("", "", "", "Grands", "Not buyers", "jobs", "Ad group has to be empty")]
    [InlineData("keyword", "", "Leeds", "Grands", "Not buyers", "jobs", "Negative list is for negatives only")]
    [InlineData(
        "keyword",
        "",
        "Leeds",
        "Grands",
        "",
        "-free",
        "Item says keyword, the words are written as a negative"
    )]
    public void Says_what_does_not_go_together(
        string item,
        string action,
        string campaign,
        string adGroup,
        string list,
        string keyword,
        string problem
    ) => Read(item, action, campaign, adGroup, list, keyword).Problem.ShouldNotBeNull().ShouldStartWith(problem);

    [Theory]
    [InlineData("add", RowIntent.Add)]
    [InlineData("Update", RowIntent.Change)]
    [InlineData(" delete ", RowIntent.Remove)]
    [InlineData("", RowIntent.Remove)]
    public void The_action_of_a_row_goes_before_what_is_said_of_the_list(string action, RowIntent intent) =>
        Read(new ListDefaults(Intent: RowIntent.Remove), "", action, "Leeds").Intent.ShouldBe(intent);

    [Fact]
    public void Empty_cells_take_away_only_what_a_row_of_this_kind_can_have()
    {
        var keyword = Read(new ListDefaults(EmptyClears: true), "", "", "Leeds", "Grands", "", "piano", "exact");
        var campaign = Read(new ListDefaults(EmptyClears: true), "", "", "Leeds");

        keyword.Cleared.Select(field => field.Name).ShouldBe(["maxCpc", "landingPage", "labels"]);

        // There is no column of budgets or dates here, so nothing is said of them.
        campaign.Cleared.Select(field => field.Name).ShouldBe(["labels"]);
        Read("", "", "Leeds", "Grands", "", "piano", "exact").Cleared.ShouldBeEmpty();
    }

    [Fact]
    public void Labels_stand_between_semicolons_each_once_and_in_order() =>
        Read("", "", "Leeds", "", "", "", "", "", "", " b ; a;b;; two  words").Labels.ShouldBe(["a", "b", "two words"]);

    [Fact]
    public void A_label_that_is_too_long_is_refused_by_name() =>
        Read("", "", "Leeds", "", "", "", "", "", "", new string('x', 61))
            .Problem.ShouldNotBeNull()
            .ShouldContain("has 61 characters; 60 at most");

    [Theory]
    [InlineData("[[piano]]")]
    [InlineData("\"\"piano\" x\"")]
    [InlineData("++piano")]
    [InlineData("--piano")]
    public void Marks_inside_marks_are_refused(string keyword) =>
        Read("", "", "Leeds", "Grands", "", keyword)
            .Problem.ShouldNotBeNull()
            .ShouldContain("marks of a match type stand inside one another");

    [Theory]
    [InlineData("Max CPC (EUR)", "EUR")]
    [InlineData("Daily budget GBP", "GBP")]
    [InlineData("Max CPC", null)]
    [InlineData("top bid", null)]
    public void A_header_names_its_currency_in_capitals(string header, string? code) =>
        ColumnGuess.CurrencyOfHeader(header).ShouldBe(code);

    [Fact]
    public void A_wrong_digit_is_no_slip_of_the_keyboard() => ColumnGuess.OfHeader("headline 16").ShouldBeNull();
}
