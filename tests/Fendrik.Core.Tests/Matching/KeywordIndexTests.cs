using CsCheck;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Matching;

/// <summary>The index finds just what the definition of the match types says, whatever the network's rules.</summary>
public class KeywordIndexTests
{
    private static readonly WordReach[] Reaches =
    [
        WordReach.Literal,
        NetworkProfile.Of("ostrel").Reach,
        NetworkProfile.Of("pellow").Reach,
        new(NetworkProfile.Of("ostrel").Reach.Rules with { BroadReach = 0 }, RelatedWords.None),
    ];

    private static readonly Gen<string> Text = Gen.OneOfConst(
            "piano",
            "pianos",
            "paino",
            "pianio",
            "tuning",
            "tuner",
            "hire",
            "rent",
            "used",
            "second",
            "hand",
            "secondhand",
            "cargo",
            "bike",
            "bikes",
            "cargobike",
            "café",
            "cafe",
            "the",
            "for",
            "sale"
        )
        .Array[0, 5]
        .Select(words => string.Join(' ', words));

    private static readonly Gen<MatchType> AnyMatch = Gen.OneOfConst(Enum.GetValues<MatchType>());

    private static readonly Gen<(string Text, MatchType Match, bool Goes)[]> Keywords = Gen.Select(
        Text,
        AnyMatch,
        Gen.Bool,
        (text, match, goes) => (text, match, goes)
    ).Array[0, 12];

    [Fact]
    public void Finds_just_what_the_definition_says_also_after_keywords_came_and_went() =>
        Gen.Select(Keywords, Text, Gen.OneOfConst(Reaches))
            .Sample(
                (keywords, search, reach) =>
                {
                    var index = new KeywordIndex<int>([], reach);
                    var numbers = keywords.Select((each, place) => index.Add(place, each.Text, each.Match)).ToArray();
                    foreach (var (keyword, number) in keywords.Zip(numbers))
                    {
                        if (keyword.Goes && number is { } gone)
                        {
                            index.Remove(gone);
                        }
                    }

                    var bidOn = keywords
                        .Where(each => !each.Goes)
                        .SelectMany(each => reach.WordsOf(each.Text).Select(reach.ClassOf))
                        .ToHashSet();
                    var expected =
                        from each in keywords.Select((keyword, place) => (keyword, place))
                        where !each.keyword.Goes
                        let found = WordMatch.Explain(
                            reach.WordsOf(each.keyword.Text),
                            each.keyword.Match,
                            reach.WordsOf(search),
                            reach,
                            bidOn.Contains
                        )
                        where found is not null
                        select new FoundKeyword<int>(each.place, found.Closeness, found.Strength);
                    var words = reach.WordsOf(search);
                    var actual = index.FindWith(words);
                    return actual.OrderBy(each => each.Item).SequenceEqual(expected)
                        && index.TryFindAny(words, out _) == (actual.Count > 0);
                },
                iter: 4_000
            );

    [Fact]
    public void Files_no_keyword_without_words()
    {
        var index = new KeywordIndex<string>([("empty", "?!", MatchType.Broad)]);

        index.Count.ShouldBe(0);
        index.Find("anything").ShouldBeEmpty();
    }
}
