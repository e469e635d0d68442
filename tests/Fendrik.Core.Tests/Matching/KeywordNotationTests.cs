using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

// The trade's notation: [exact], "phrase", +all +words, a minus for a negative. Common practice, no source.
public class KeywordNotationTests
{
    [Theory]
    [InlineData("[piano tuning]", "piano tuning", MatchType.Exact, false)]
    [InlineData("\"piano tuner york\"", "piano tuner york", MatchType.Phrase, false)]
    [InlineData("“piano tuner”", "piano tuner", MatchType.Phrase, false)]
    [InlineData("+tune +old +piano", "tune old piano", MatchType.AllWords, false)]
    [InlineData("-free", "free", null, true)]
    [InlineData("-\"wedding band\"", "wedding band", MatchType.Phrase, true)]
    [InlineData("− [app]", "app", MatchType.Exact, true)]
    [InlineData("piano  tuning", "piano tuning", null, false)]
    public void Reads_what_is_written(string cell, string text, MatchType? match, bool negative) =>
        KeywordNotation.Read(cell).ShouldBe(new NotedKeyword(text, match, negative, null));

    [Theory]
    [InlineData("+piano +", "an empty word after +")]
    [InlineData("[piano", "a square bracket")]
    [InlineData("piano\"", "a quotation mark")]
    [InlineData("", "empty")]
    [InlineData("[]", "a square bracket")]
    [InlineData("!!!", "no letters or digits")]
    [InlineData("pia\u0001no", "control characters")]
    public void Says_what_is_wrong(string cell, string problem) =>
        KeywordNotation.Read(cell).Problem.ShouldNotBeNull().ShouldContain(problem);

    [Fact]
    public void Reads_back_what_it_writes() =>
        Gen.Select(
                Gen.OneOfConst("piano", "tuning", "york", "2nd").Array[1, 4].Select(words => string.Join(' ', words)),
                Gen.OneOfConst(MatchType.Exact, MatchType.Phrase, MatchType.AllWords),
                Gen.Bool
            )
            .Sample(
                (text, match, negative) =>
                    KeywordNotation.Read(KeywordNotation.Write(text, match, negative))
                    == new NotedKeyword(text, match, negative, null)
            );
}
