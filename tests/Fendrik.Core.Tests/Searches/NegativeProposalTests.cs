using CsCheck;
using Fendrik.Core.Searches;

namespace Fendrik.Core.Tests.Searches;

/// <summary>Which negatives keep searches away without harm.</summary>
public class NegativeProposalTests
{
    private const double Rate = 0.06;

    private static Dictionary<string, WordRecord> Known(params WordRecord[] words) =>
        words.ToDictionary(word => word.Word);

    private static WordRecord Word(
        string word,
        long clicks,
        decimal conversions = 0,
        int keywords = 0,
        decimal cost = 10
    ) => new(word, 5, clicks, cost, conversions, keywords);

    private static string[] Proposed(IReadOnlyDictionary<string, WordRecord> words, params string[] terms) =>
        [
            .. NegativeProposal
                .Of([.. terms.Select(term => new TermToStop(term, 5))], words, Rate)
                .Select(each => $"{each.Match} {each.Text} × {each.Stops}"),
        ];

    [Fact]
    public void One_word_that_never_brought_anything_stands_for_all_searches_with_it()
    {
        var words = Known(Word("piano", 900, 50, 8), Word("lessons", 34), Word("york", 60, 4), Word("adult", 3));

        Proposed(words, "piano lessons york", "adult piano lessons").ShouldBe(["Phrase lessons × 2"]);
    }

    [Theory]
    [InlineData(1, 0)]
    [InlineData(0, 1)]
    public void A_word_that_brought_something_or_is_in_a_keyword_is_left_alone(int conversions, int keywords)
    {
        var words = Known(Word("lessons", 400, conversions, keywords));

        Proposed(words, "piano lessons", "cheap piano lessons")
            .ShouldBe(["Exact cheap piano lessons × 1", "Exact piano lessons × 1"]);
    }

    [Fact]
    public void A_word_of_one_search_needs_clicks_that_chance_does_not_explain()
    {
        // 0.94 to the power of 26 is 0.2002, of 27 it is 0.188 (by a pocket calculator).
        Proposed(Known(Word("app", 26)), "piano app").ShouldBe(["Exact piano app × 1"]);
        Proposed(Known(Word("app", 27)), "piano app").ShouldBe(["Phrase app × 1"]);
    }

    [Fact]
    public void Of_words_in_the_same_searches_the_one_that_wastes_most_elsewhere_is_chosen()
    {
        Proposed(Known(Word("how", 90, cost: 12), Word("diy", 90, cost: 40)), "how diy piano", "diy piano how")
            .ShouldBe(["Phrase diy × 2"]);
    }

    [Fact]
    public void The_same_search_written_in_two_ways_is_one() =>
        Proposed(Known(), "Piano-Lessons", "piano lessons").ShouldBe(["Exact piano lessons × 1"]);

    [Fact]
    public void Every_search_is_kept_away_by_one_of_them() =>
        Gen.Int[1, 4]
            .SelectMany(most => Gen.String[Gen.Char['a', 'e'], 1, 2].Array[1, most].Array[1, 8])
            .Sample(terms =>
            {
                string[] texts = [.. terms.Select(words => string.Join(' ', words))];
                var words = texts
                    .SelectMany(text => text.Split(' '))
                    .Distinct()
                    .Where(word => word[0] < 'd')
                    .Select(word => Word(word, 30, word[0] == 'a' ? 1 : 0))
                    .ToArray();

                var proposed = NegativeProposal.Of(
                    [.. texts.Select(text => new TermToStop(text, 1))],
                    Known(words),
                    Rate
                );

                foreach (var text in texts)
                {
                    proposed.ShouldContain(each => $" {text} ".Contains($" {each.Text} "));
                }
            });
}
