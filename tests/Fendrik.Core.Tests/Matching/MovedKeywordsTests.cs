using CsCheck;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Matching;

/// <summary>What may be passed over after a change is passed over safely, and little else is looked at.</summary>
public class MovedKeywordsTests
{
    private static readonly WordReach[] Reaches =
    [
        NetworkProfile.Of("ostrel").Reach,
        NetworkProfile.Of("pellow").Reach,
    ];

    private static readonly Gen<string> Text = Gen.OneOfConst(
            "piano",
            "pianos",
            "paino",
            "pianio",
            "tuner",
            "tunner",
            "hire",
            "rent",
            "second",
            "hand",
            "secondhand",
            "cargo",
            "bike",
            "cargobike",
            "café",
            "the",
            "for"
        )
        .Array[1, 4]
        .Select(words => string.Join(' ', words));

    private static readonly Gen<(string Text, MatchType Match)[]> Keywords = Gen.Select(
        Text,
        Gen.OneOfConst(Enum.GetValues<MatchType>())
    ).Array[0, 5];

    private static KeywordIndex<int> Index(IEnumerable<(string Text, MatchType Match)> keywords, WordReach reach) =>
        new(keywords.Select((each, place) => (place, each.Text, each.Match)), reach);

    [Fact]
    public void A_search_that_cannot_be_touched_is_matched_by_the_same_keywords_as_before() =>
        Gen.Select(Keywords, Keywords, Keywords, Text, Gen.OneOfConst(Reaches))
            .Sample(
                (stay, go, come, search, reach) =>
                {
                    var (before, now) = (Index(stay.Concat(go), reach), Index(stay.Concat(come), reach));
                    var words = reach.WordsOf(search);
                    return new MovedKeywords(go, come, reach, now.TimesBidOn).CanTouch(words)
                        || before.FindWith(words).Order(ByItem).SequenceEqual(now.FindWith(words).Order(ByItem));
                },
                iter: 3_000
            );

    private static readonly Comparer<FoundKeyword<int>> ByItem = Comparer<FoundKeyword<int>>.Create(
        (one, other) => one.Item.CompareTo(other.Item)
    );

    [Theory]
    [InlineData("grand piano hire", false)]
    [InlineData("cargo bike hire", true)]
    [InlineData("cargo bikes", true)]
    public void Only_searches_that_reach_what_moved_are_touched(string search, bool touched)
    {
        var reach = Reaches[0];
        (string, MatchType)[] come = [("cargo bike", MatchType.Phrase)];
        var now = Index([("piano hire", MatchType.Broad), ("cargo trailer", MatchType.Broad), .. come], reach);

        new MovedKeywords([], come, reach, now.TimesBidOn).CanTouch(reach.WordsOf(search)).ShouldBe(touched);
    }

    [Fact]
    public void Where_the_other_keywords_are_not_known_every_word_that_moved_may_have_turned()
    {
        var reach = Reaches[0];
        (string, MatchType)[] come = [("cargo bike", MatchType.Exact)];
        var now = Index([("cargo trailer", MatchType.Broad), .. come], reach);
        var search = reach.WordsOf("cargo hire");

        new MovedKeywords([], come, reach, now.TimesBidOn).CanTouch(search).ShouldBeFalse();
        new MovedKeywords([], come, reach, timesBidOn: null).CanTouch(search).ShouldBeTrue();
    }
}
