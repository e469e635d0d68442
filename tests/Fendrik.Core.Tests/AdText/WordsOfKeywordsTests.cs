using Fendrik.Core.AdText;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.AdText;

public class WordsOfKeywordsTests
{
    [Fact]
    public void Words_of_keywords_come_by_their_clicks_and_a_close_variant_in_an_ad_says_them()
    {
        var words = WordsOfKeywords.In(
            [("piano tuning", 40), ("piano tuners near me", 25), ("tuning for pianos", 5), ("upright piano tuning", 0)],
            ["Pianos Tuned At Home", "One tuner for all of Yorkshire"],
            NetworkProfile.Of("ostrel").Reach
        );

        words
            .Select(word => (word.Word, word.Clicks, word.Keywords, word.IsSaid))
            .ShouldBe([
                ("piano", 70L, 4, true),
                ("tuning", 45L, 3, false),
                ("me", 25L, 1, false),
                ("near", 25L, 1, false),
                ("tuners", 25L, 1, true),
                ("upright", 0L, 1, false),
            ]);
    }
}
