using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class KeywordChoiceTests
{
    private static readonly MatchingKeyword Exact = new(9, MatchType.Exact, true, 1);
    private static readonly MatchingKeyword SamePhrase = new(8, MatchType.Phrase, true, 50);
    private static readonly MatchingKeyword Dear = new(7, MatchType.Broad, false, 900);
    private static readonly MatchingKeyword Dearer = new(6, MatchType.Broad, false, 901);

    [Fact]
    public void The_exact_keyword_that_is_the_search_answers_before_any_dearer_one() =>
        MatchingKeyword.Choose([Dearer, SamePhrase, Exact]).ShouldBe((Exact, ChoiceRule.IsTheSearch));

    [Fact]
    public void Then_the_same_words_in_a_looser_match_type() =>
        MatchingKeyword.Choose([Dearer, SamePhrase]).ShouldBe((SamePhrase, ChoiceRule.SameWords));

    [Fact]
    public void Then_the_highest_bid_times_quality() =>
        MatchingKeyword.Choose([Dear, Dearer]).ShouldBe((Dearer, ChoiceRule.HighestRank));

    [Fact]
    public void Of_equals_the_tighter_match_type_and_then_the_longer_there_answers()
    {
        var phrase = Dear with { KeywordId = 40, Match = MatchType.Phrase };

        MatchingKeyword.Choose([Dear, phrase]).ShouldBe((phrase, ChoiceRule.Tie));
        MatchingKeyword.Choose([Dear, Dear with { KeywordId = 3 }]).Keyword.KeywordId.ShouldBe(3);
    }

    [Fact]
    public void The_only_one_answers_and_none_cannot_be_chosen_from()
    {
        MatchingKeyword.Choose([Dear]).Rule.ShouldBe(ChoiceRule.Only);
        Should.Throw<ArgumentException>(() => MatchingKeyword.Choose([]));
    }
}
