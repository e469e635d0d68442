using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class KeywordIndexTests
{
    private static readonly Synonyms Near = new([
        ["hire", "rent"],
    ]);

    private static readonly Gen<string> Text = Gen.OneOfConst(
            "piano",
            "pianos",
            "tuning",
            "hire",
            "rent",
            "york",
            "used",
            "free"
        )
        .Array[0, 4]
        .Select(words => string.Join(' ', words));

    private static readonly Gen<MatchType> AnyMatch = Gen.OneOfConst(
        MatchType.Exact,
        MatchType.Phrase,
        MatchType.AllWords,
        MatchType.Broad
    );

    [Fact]
    public void Finds_just_what_the_definition_of_the_match_types_says() =>
        Gen.Select(Gen.Select(Text, AnyMatch).Array[0, 12], Text)
            .Sample(
                (keywords, search) =>
                {
                    var index = new KeywordIndex<int>(
                        keywords.Select((keyword, number) => (number, keyword.Item1, keyword.Item2)),
                        Near
                    );
                    var expected = keywords
                        .Select((keyword, number) => (keyword, number))
                        .Where(each =>
                            WordMatch.Matches(Words.Of(each.keyword.Item1), each.keyword.Item2, Words.Of(search), Near)
                        )
                        .Select(each => each.number);
                    return index.Find(search).Order().SequenceEqual(expected);
                }
            );

    [Fact]
    public void Finds_just_what_negatives_block() =>
        Gen.Select(Gen.Select(Text, AnyMatch).Array[0, 12], Text)
            .Sample(
                (negatives, search) =>
                {
                    var index = new KeywordIndex<int>(
                        negatives.Select((each, number) => (number, each.Item1, each.Item2)),
                        Near,
                        literal: true
                    );
                    var expected = negatives
                        .Select((each, number) => (each, number))
                        .Where(pair => WordMatch.Blocks(Words.Of(pair.each.Item1), pair.each.Item2, Words.Of(search)))
                        .Select(pair => pair.number);
                    return index.Find(search).Order().SequenceEqual(expected)
                        && index.TryFindAny(Words.Of(search), out _) == expected.Any();
                }
            );

    [Fact]
    public void Files_no_keyword_without_words()
    {
        var index = new KeywordIndex<string>([("empty", "?!", MatchType.Broad)]);

        index.Count.ShouldBe(0);
        index.Find("anything").ShouldBeEmpty();
    }
}
