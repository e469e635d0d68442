using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.AdText;

public class AdCombinationsTests
{
    private static readonly CheckReport Ostrel = new(
        ItemKind.TextAd,
        0,
        NetworkProfile.Of("ostrel"),
        Currency.Of("GBP")
    );

    private static AdAlternatives Alternatives(string[][] headlines, string[][] descriptions, params string[] pages) =>
        new(headlines, descriptions, pages);

    /// <summary>3 × 2 × 1 = 6: common practice, no source.</summary>
    [Fact]
    public void Three_headlines_two_descriptions_and_a_page_are_six_ads()
    {
        var ads = AdCombinations.Of(
            Alternatives(
                [
                    ["Piano Tuning", "Tuned At Home", "Out Of Tune?"],
                    ["Book Today"],
                ],
                [
                    ["We come to you.", "Pay after the last note."],
                ],
                "https://tarnandfell.example/tuning"
            ),
            Ostrel
        );

        ads.Count.ShouldBe(6);
        ads.Select(ad => string.Join('|', ad.Headlines.Concat(ad.Descriptions))).Distinct().Count().ShouldBe(6);
        ads.ShouldAllBe(ad => ad.Problems.Count == 0);
    }

    [Theory]
    [InlineData("Piano Tuning", "Tuning Your Pianos", true)]
    [InlineData("Piano Tuning", "Piano Hire", false)]
    [InlineData("Ask For A Price", "Ask For The Price Today", true)]
    [InlineData("Tuned At Home", "Book Today", false)]
    public void Two_lines_say_the_same_when_the_words_of_one_are_in_the_other(string one, string other, bool twice)
    {
        AdCombinations.SaysTwice(one, other, Ostrel.Network.Reach).ShouldBe(twice);
        AdCombinations.SaysTwice(other, one, Ostrel.Network.Reach).ShouldBe(twice);
    }

    [Theory]
    [InlineData("Piano Tuning", "Piano Tuning In Leeds", "say the same")]
    [InlineData("{{ keyword | default: \"Piano Tuning\" }}", "Piano Tuning In Leeds", "say the same")]
    [InlineData("Piano Tuning", "A Headline That Is Far Too Long For It", "at most 32")]
    [InlineData("Piano Tuning", "Click Here", "click here")]
    public void Nonsense_and_what_would_be_refused_says_why(string first, string second, string why) =>
        AdCombinations
            .Of(
                Alternatives(
                    [
                        [first],
                        [second],
                    ],
                    [
                        ["We come to you."],
                    ]
                ),
                Ostrel
            )
            .ShouldHaveSingleItem()
            .Problems.ShouldContain(problem => problem.Contains(why, StringComparison.OrdinalIgnoreCase));

    [Fact]
    public void Too_many_are_refused_with_their_number()
    {
        var many = Enumerable.Range(0, 20).Select(each => $"Headline {each}").ToArray();

        Should
            .Throw<ArgumentException>(() =>
                AdCombinations.Of(
                    Alternatives(
                        [many, many],
                        [
                            ["Text."],
                        ]
                    ),
                    Ostrel
                )
            )
            .Message.ShouldContain("400");
    }
}
