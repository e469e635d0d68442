using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

// The trade's examples of match types: a keyword in exact, phrase and all-words form against searches that contain the
// words whole, in order, out of order, with words between. Common practice, no source.
public class WordMatchTests
{
    [Theory]
    [InlineData("piano tuning", MatchType.Exact, true)]
    [InlineData("Piano Tuning", MatchType.Exact, true)]
    [InlineData("piano tuning york", MatchType.Exact, false)]
    [InlineData("tuning piano", MatchType.Exact, false)]
    [InlineData("cheap piano tuning york", MatchType.Phrase, true)]
    [InlineData("piano home tuning", MatchType.Phrase, false)]
    [InlineData("tuning piano", MatchType.Phrase, false)]
    [InlineData("tuning a grand piano", MatchType.AllWords, true)]
    [InlineData("piano tuner", MatchType.AllWords, false)]
    [InlineData("pianos tuning", MatchType.AllWords, false)]
    [InlineData("tuning for old piano", MatchType.Broad, true)]
    [InlineData("guitar tuning", MatchType.Broad, false)]
    public void Says_which_searches_a_keyword_answers(string search, MatchType match, bool matches) =>
        WordMatch.Matches(Words.Of("piano tuning"), match, Words.Of(search)).ShouldBe(matches);

    [Theory]
    [InlineData("free", MatchType.Broad, "free piano tuning", true)]
    [InlineData("piano free", MatchType.Broad, "free piano tuning", true)]
    [InlineData("pianos", MatchType.Broad, "piano tuning", false)]
    [InlineData("piano app", MatchType.Phrase, "app for piano tuning", false)]
    [InlineData("free", MatchType.Exact, "free piano tuning", false)]
    public void Blocks_by_negatives_as_they_are_written(string negative, MatchType match, string search, bool blocks) =>
        WordMatch.Blocks(Words.Of(negative), match, Words.Of(search)).ShouldBe(blocks);
}
