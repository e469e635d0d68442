using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class SearchIndexTests
{
    private static readonly Gen<string> Text = Gen.OneOfConst(
            "piano",
            "pianos",
            "tuning",
            "tuner",
            "york",
            "near",
            "me"
        )
        .Array[1, 5]
        .Select(words => string.Join(' ', words));

    private static readonly Gen<MatchType> Match = Gen.OneOfConst(
        MatchType.Exact,
        MatchType.Phrase,
        MatchType.AllWords,
        MatchType.Broad
    );

    // The definition of the match types, one keyword and one search at a time, decides.
    [Fact]
    public void Finds_for_any_keyword_just_the_searches_that_the_match_types_let_it_answer() =>
        Gen.Select(Text.Array[0, 12], Text, Match)
            .Sample(
                (searches, keyword, match) =>
                    new SearchIndex(searches)
                        .Answered(keyword, match)
                        .SequenceEqual(
                            Enumerable
                                .Range(0, searches.Length)
                                .Where(place => WordMatch.Matches(Words.Of(keyword), match, Words.Of(searches[place])))
                        )
            );

    [Fact]
    public void Knows_near_words_for_broad_match_only()
    {
        var index = new SearchIndex(
            ["upright rental"],
            new Synonyms([
                ["hire", "rental"],
            ])
        );

        index.Answered("hire", MatchType.Broad).ShouldBe([0]);
        index.Answered("hire", MatchType.AllWords).ShouldBeEmpty();
    }

    [Fact]
    public void Lets_a_keyword_without_words_answer_nothing() =>
        new SearchIndex(["piano"]).Answered("!!!", MatchType.Broad).ShouldBeEmpty();
}
