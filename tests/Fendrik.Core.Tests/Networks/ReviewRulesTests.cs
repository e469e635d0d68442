using CsCheck;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Networks;

/// <summary>What reviewers refuse in what people see; the rules themselves are the two networks' own.</summary>
public class ReviewRulesTests
{
    private static readonly ReviewRules Ostrel = NetworkProfile.Of("ostrel").Reviewing;

    private static string[] Codes(string text) => [.. Ostrel.RefusalsOf(text, isSeen: true).Select(each => each.Code)];

    [Theory]
    [InlineData("Click here!", "click here")]
    [InlineData("CLICK-HERE", "click here")]
    [InlineData("Number one tuner", "number one")]
    [InlineData("You click, hereby", null)]
    public void A_wording_is_found_however_it_is_written_but_only_as_whole_words(string text, string? wording) =>
        Ostrel.RefusedWordingIn(text).ShouldBe(wording);

    // A rule of the trade (common practice, no source): asking to click for a call is refused, to tap accepted.
    [Theory]
    [InlineData("Click to call", true)]
    [InlineData("Tap to call", false)]
    public void To_click_for_a_call_is_refused_and_to_tap_accepted(string text, bool refused)
    {
        foreach (var network in NetworkProfile.All.Values)
        {
            network.Reviewing.RefusalsOf(text, isSeen: true).Any().ShouldBe(refused, network.Name);
        }
    }

    [Theory]
    [InlineData("PIANO tuning", true)]
    [InlineData("Tuned in the UK by BBC staff", false)]
    [InlineData("ÄRGER mit dem Klavier", true)]
    [InlineData("КРУПНО", true)]
    [InlineData("ピアノ調律ピアノ", false)]
    [InlineData("PI-ANO TUN-ING", false)]
    public void Long_words_in_capitals_alone_are_refused_in_any_script_that_has_them(string text, bool refused) =>
        Codes(text).Contains("capitals-refused").ShouldBe(refused);

    [Theory]
    [InlineData("Today!!", true)]
    [InlineData("Really ??", true)]
    [InlineData("Now… or later?!", false)]
    [InlineData("Book, tune, play.", false)]
    public void A_mark_that_is_repeated_is_refused(string text, bool refused) =>
        Codes(text).Contains("marks-refused").ShouldBe(refused);

    // Numbers that Ofcom sets aside for drama.
    [Theory]
    [InlineData("0113 496 0000", true)]
    [InlineData("Ring (01632) 960-112", true)]
    [InlineData("+44.1632.960.112", true)]
    [InlineData("1,000,000 notes since 1998", false)]
    [InlineData("Open 2025-2026", false)]
    public void A_telephone_number_is_refused_however_it_is_set(string text, bool refused) =>
        Codes(text).Contains("phone-refused").ShouldBe(refused);

    [Fact]
    public void A_network_with_other_rules_refuses_other_things()
    {
        var pellow = NetworkProfile.Of("pellow").Reviewing;

        pellow.RefusalsOf("PIANO tuning!!", isSeen: true).ShouldBeEmpty();
        pellow
            .RefusalsOf("YAMAHAS!!!", isSeen: true)
            .Select(each => each.Code)
            .ShouldBe(["capitals-refused", "marks-refused"]);
    }

    [Theory]
    [InlineData("CLICK HERE Today!", "See More Today!")]
    [InlineData("Please click here", "Please see more")]
    [InlineData("Click to call us", "Tap to call us")]
    [InlineData("PIANO TUNING!!", "Piano Tuning!")]
    [InlineData("Ring 0113 496 0000, now", "Ring, now")]
    [InlineData("Number one tuner, 28 years", "Tuner, 28 years")]
    [InlineData("Since 1998: ring 0113 496 0000", "Since 1998: ring")]
    [InlineData("0113 496 0000", null)]
    [InlineData("Tuned at home", "Tuned at home")]
    public void A_repair_says_about_the_same_and_passes(string text, string? repaired) =>
        Ostrel.Repaired(text).ShouldBe(repaired);

    [Fact]
    public void Whatever_is_repaired_passes_on_every_network() =>
        Gen.OneOfConst(
                "PIANO",
                "click here",
                "Click",
                "to",
                "call",
                "!!",
                "?",
                "0113 496",
                "0000",
                "number one",
                "…",
                "é",
                "–",
                "FREE MONEY",
                "👍"
            )
            .Array[1, 8]
            .Select(parts => string.Join(' ', parts))
            .Sample(
                text =>
                    NetworkProfile.All.Values.All(network =>
                        network.Reviewing.Repaired(text) is not { } repaired
                        || !network.Reviewing.RefusalsOf(repaired, isSeen: true).Any()
                    ),
                iter: 2_000
            );

    /// <summary>The whole texts are read; that many are not taken apart makes no difference.</summary>
    [Fact]
    public void A_wording_is_found_wherever_its_words_stand_together()
    {
        var pieces = Gen.OneOfConst(
            "Click",
            "HERE",
            "here",
            "cl'ick",
            "clíck",
            "number",
            "One",
            "x",
            "click-here",
            "😀"
        );
        Gen.Select(pieces.Array[0, 5], Gen.OneOfConst(" ", "-", ", ", ""))
            .Sample(
                (words, between) =>
                {
                    var text = string.Join(between, words);
                    var padded = " " + string.Join(' ', Words.Of(text)) + " ";
                    Ostrel
                        .RefusedWordingIn(text)
                        .ShouldBe(
                            Ostrel
                                .RefusedWordings.Select(rule => rule.Wording)
                                .FirstOrDefault(wording => padded.Contains($" {wording} ", StringComparison.Ordinal))
                        );
                }
            );
    }

    [Theory]
    [InlineData("ÄÖÜÄÖ Pianos", true)]
    [InlineData("ABCD Pianos", false)]
    [InlineData("𝐀𝐁𝐂𝐃𝐄 Pianos", true)]
    [InlineData("ABCDé Pianos", false)]
    public void Words_in_capitals_alone_are_told_by_their_letters(string text, bool refused) =>
        Ostrel.RefusalsOf(text, isSeen: true).Any(refusal => refusal.Code == "capitals-refused").ShouldBe(refused);
}
