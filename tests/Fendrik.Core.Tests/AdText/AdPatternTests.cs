using Fendrik.Core.Accounts;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.AdText;

public class AdPatternTests
{
    private static readonly CheckReport Ostrel = new(
        ItemKind.TextAd,
        0,
        NetworkProfile.Of("ostrel"),
        Currency.Of("GBP")
    );

    private static PatternedAd Made(string[][] headlines, params (string Field, string Value)[] values) =>
        new PatternMaker(
            new AdPattern(
                ItemKind.TextAd,
                new Dictionary<string, IReadOnlyList<IReadOnlyList<string>>>
                {
                    ["headlines"] = headlines,
                    ["descriptions"] =
                    [
                        ["We look after your [keyword]."],
                    ],
                    ["landingPage"] =
                    [
                        ["[page]"],
                    ],
                }
            ),
            Ostrel
        ).Make(
            new PatternGround(
                1,
                "piano tuning",
                "Tuning",
                new Dictionary<string, string>
                {
                    ["theme"] = "piano tuning",
                    ["keyword"] = "piano tuner near me",
                    ["page"] = "https://tarnandfell.example/tuning",
                }
                    .Concat(values.Select(each => KeyValuePair.Create(each.Field, each.Value)))
                    .ToDictionary()
            )
        );

    private static readonly string[][] InPlace =
    [
        ["[Theme] In [Place]", "[Theme]", "Piano Tuning"],
        ["Book Today"],
    ];

    [Fact]
    public void Fields_are_filled_in_with_the_letters_that_they_are_written_in()
    {
        var ad = Made(InPlace, ("place", "Leeds"));

        ad.Problem.ShouldBeNull();
        ad.Values.Lines("headlines").ShouldBe(["Piano Tuning In Leeds", "Book Today"]);
        ad.Values.Lines("descriptions").ShouldBe(["We look after your piano tuner near me."]);
        ad.Values.Text("landingPage").ShouldBe("https://tarnandfell.example/tuning");
        ad.Shortened.ShouldBe(0);
    }

    [Theory]
    [InlineData("The East Riding Of Yorkshire")]
    [InlineData("")]
    public void What_is_too_long_or_not_known_is_followed_by_the_next_alternative(string place)
    {
        var ad = Made(InPlace, ("place", place));

        ad.Values.Lines("headlines").ShouldBe(["Piano Tuning", "Book Today"]);
        ad.Shortened.ShouldBe(1);
    }

    [Fact]
    public void Without_an_alternative_that_fits_no_ad_is_made_and_it_says_why()
    {
        Made(
            [
                ["[Theme] In [Place]"],
                ["Book Today"],
            ],
            ("place", "The East Riding Of Yorkshire")
        )
            .Problem.ShouldNotBeNull()
            .ShouldContain("at most 32 are taken");
        Made([
            ["[Theme] In [Place]"],
            ["Book Today"],
        ])
            .Problem.ShouldBe("Headline 1: there is no [Place] for “piano tuning”.");
    }

    [Fact]
    public void A_slot_that_the_network_can_do_without_stays_empty() =>
        Made([
            ["[Theme]"],
            ["Book Today"],
            ["From [price]"],
        ])
            .Values.Lines("headlines")
            .ShouldBe(["Piano Tuning", "Book Today"]);

    [Fact]
    public void A_pattern_may_insert_words_and_keep_lines_to_places() =>
        Made([
            ["{{ keyword | default: \"[Theme]\" }}"],
            ["Book Today"],
        ])
            .Values.Lines("headlines")[0]
            .ShouldBe("{{ keyword | default: \"Piano Tuning\" }}");

    [Fact]
    public void A_table_gives_fields_to_ad_groups_by_their_names()
    {
        var (groups, problem) = PatternValues.Read(
            "ad group\tPlace\tprice\nPiano Tuning\tLeeds\t£90\n\nGrand hire\t\t£300"
        );

        problem.ShouldBeNull();
        groups["piano tuning"]
            .ShouldBe(new Dictionary<string, string> { ["place"] = "Leeds", ["price"] = "£90" }, ignoreOrder: true);
        groups["grand hire"].Keys.ShouldBe(["price"]);
    }

    [Theory]
    [InlineData("ad group\nPiano", "Row 1 names the fields")]
    [InlineData("ad group\tplace\nPiano\tLeeds\tmore", "Row 2 has 3 cells")]
    [InlineData("ad group\tplace\nPiano\tLeeds\npiano\tYork", "Row 3 names “piano” again")]
    public void What_is_wrong_with_a_table_names_its_row(string table, string why) =>
        PatternValues.Read(table).Problem.ShouldNotBeNull().ShouldContain(why);
}
