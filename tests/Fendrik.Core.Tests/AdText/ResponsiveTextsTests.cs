using System.Text.Json;
using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Combining;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Fendrik.Tests.Shared;

namespace Fendrik.Core.Tests.AdText;

public class ResponsiveTextsTests
{
    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");

    private sealed record Example(string Written, string Text, int? Place);

    /// <summary>The examples that the interface reads as well.</summary>
    [Fact]
    public void A_line_says_the_place_that_it_is_kept_to()
    {
        var examples = JsonSerializer.Deserialize<Example[]>(
            File.ReadAllText(Repository.PathTo("src", "web", "src", "testing", "placedLines.json")),
            JsonSerializerOptions.Web
        )!;

        examples.ShouldAllBe(each => PlacedLine.Of(each.Written) == new PlacedLine(each.Text, each.Place));
    }

    /// <summary>n × (n − 1) × …: arrangements without repetition, by hand.</summary>
    [Theory]
    [InlineData(12, 4, 11_880)]
    [InlineData(5, 2, 20)]
    [InlineData(3, 3, 6)]
    [InlineData(2, 3, 2)]
    public void Free_lines_stand_in_every_order(int lines, int places, int count) =>
        ResponsiveTexts
            .Arrangements([.. Enumerable.Range(0, lines).Select(each => new PlacedLine($"L{each}", null))], places)
            .Count()
            .ShouldBe(count);

    [Fact]
    public void A_line_that_is_kept_to_a_place_stands_there_alone()
    {
        var arranged = ResponsiveTexts
            .Arrangements([new("A", 1), new("B", 1), new("C", null), new("D", null)], 3)
            .Select(each => string.Concat(each.Select(line => "ABCD"[line])))
            .ToArray();

        arranged.ShouldBe(["ACD", "ADC", "BCD", "BDC"]);
    }

    [Fact]
    public void A_place_that_nothing_may_stand_at_stays_empty() =>
        ResponsiveTexts.Arrangements([new("A", 2), new("B", 2)], 3).Select(each => each.Count).ShouldBe([1, 1]);

    [Fact]
    public void What_is_worth_most_stands_first_and_what_was_struck_out_never_together()
    {
        var lines = new ResponsiveTexts(["A", "B", "C", "D"], ["x", "y"], "D | C");
        var chosen = lines.Choose(3, 1, line => line, line => -line);

        (string.Concat(chosen.Headlines), string.Concat(chosen.Descriptions)).ShouldBe(("310", "0"));
    }

    [Fact]
    public void What_the_network_chooses_is_one_of_the_ways_that_are_listed()
    {
        var places = Gen.OneOf(Gen.Const((int?)null), Gen.Int[1, 4].Select(place => (int?)place));
        Gen.Select(places.Array[3, 6], places.Array[1, 3], Gen.Double.Array[9], Gen.Int[0, 3])
            .Sample(
                (heads, texts, worth, apart) =>
                {
                    string[] headlines = [.. heads.Select((place, at) => new PlacedLine($"H{at}", place).ToString())];
                    string[] descriptions =
                    [
                        .. texts.Select((place, at) => new PlacedLine($"D{at}", place).ToString()),
                    ];
                    var lines = new ResponsiveTexts(headlines, descriptions, apart == 0 ? null : $"H{apart} | H0");
                    var chosen = lines.Choose(3, 2, line => worth[line], line => worth[6 + line]);

                    chosen.Headlines.ShouldBeUnique();
                    chosen.Descriptions.ShouldBeUnique();
                    lines.IsApart(chosen).ShouldBeFalse();
                    chosen.Headlines.Count.ShouldBeGreaterThan(0);
                }
            );
    }

    [Theory]
    [InlineData("A | B || C | D", 2)]
    [InlineData("A | B", 1)]
    [InlineData("A", 0)]
    [InlineData("A | a", 0)]
    [InlineData(" || ", 0)]
    [InlineData("{{ keyword | default: \"A | B\" }} | C", 1)]
    public void Sets_of_lines_are_read(string written, int sets)
    {
        var read = KeptApart.Read(written);

        read.Count.ShouldBe(sets);
        KeptApart.Read(KeptApart.Write(read)).ShouldBe(read);
    }

    private static ArrangedPage Listed(
        string[] headlines,
        string? keptApart,
        ArrangedFilter filter = ArrangedFilter.All,
        params string[] first
    ) =>
        ArrangedAds.List(
            headlines,
            ["We come to you."],
            keptApart,
            Ostrel,
            Device.Phone,
            filter,
            first.Length == 0 ? [] : [(first, ["We come to you."])],
            60
        );

    [Fact]
    public void Ways_that_say_a_thing_twice_are_doubtful_until_they_are_struck_out()
    {
        string[] headlines = ["Tuned At Home", "Tuned In Your Home", "Ask For A Price"];
        var before = Listed(headlines, null, ArrangedFilter.Marked);

        (before.Count, before.Marked, before.Apart).ShouldBe((6, 6, 0));
        var after = Listed(headlines, before.Ads[0].KeptApart);
        (after.Marked, after.Apart).ShouldBe((0, 6));
        Listed(headlines, after.Ads[0].KeptApart).Apart.ShouldBe(0);
    }

    /// <summary>A short headline names the thing, and a description may as well.</summary>
    [Fact]
    public void A_description_that_says_a_headline_again_is_doubtful_beside_it()
    {
        var page = ArrangedAds.List(
            ["Pay After The Last Note", "Piano Tuning", "Same-Week Visits"],
            ["We come to you. Pay after the last note.", "Piano tuning in Leeds."],
            null,
            Ostrel,
            Device.Phone,
            ArrangedFilter.Marked,
            [],
            60
        );

        (page.Count, page.Marked).ShouldBe((12, 6));
        page.Ads[0]
            .Problems.ShouldBe([
                "“Pay After The Last Note” is said again in “We come to you. Pay after the last note.”.",
            ]);
        page.Ads[0].KeptApart.ShouldBe("Pay After The Last Note | We come to you. Pay after the last note.");
    }

    [Fact]
    public void Those_that_showed_most_are_listed_first()
    {
        var ads = Listed(["A One", "B Two", "C Three"], null, ArrangedFilter.All, "C Three", "A One", "B Two").Ads;

        ads[0].Headlines.ShouldBe(["C Three", "A One", "B Two"]);
        ads.Count.ShouldBe(6);
    }

    private static readonly ItemType Type = ItemTypes.Of(ItemKind.ResponsiveAd);

    private static string[] Codes(string[] headlines, string? keptApart = null) =>
        [
            .. Type.Check(
                    new ItemValues(Type)
                    {
                        [Type["headlines"]] = headlines,
                        [Type["descriptions"]] = new[] { "We come to you.", "Pay after." },
                        [Type["landingPage"]] = "https://tarnandfell.example/tuning",
                        [Type["keptApart"]] = keptApart,
                    },
                    new CheckReport(Type.Kind, 1, NetworkProfile.Of("pellow"), Currency.Of("GBP"))
                )
                .Select(finding => finding.Code),
        ];

    [Fact]
    public void A_line_may_be_kept_to_places_that_the_network_has() =>
        Codes(["A One [3]", "B Two", "C Three"]).ShouldContain("headlines-place-beyond");

    [Fact]
    public void A_place_that_stays_empty_is_a_caution() =>
        Codes(["A One [1]", "B Two [1]", "C Three [1]"]).ShouldContain("place-empty");

    [Fact]
    public void What_keeps_apart_a_line_that_is_gone_is_a_hint() =>
        Codes(["A One", "B Two", "C Three"], "A One | Gone").ShouldContain("kept-apart-gone");

    [Fact]
    public void A_place_behind_a_line_takes_no_room() =>
        Codes([new string('x', 28) + " [1]", "B Two", "C Three"]).ShouldNotContain("headlines-long");
}
