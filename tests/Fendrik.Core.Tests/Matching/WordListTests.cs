using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class WordListTests
{
    private static string[] Combine(params string[][] lists) =>
        [.. WordLists.Combine(lists, [MatchType.Broad], 10).Keywords.Select(keyword => keyword.Text)];

    [Fact]
    public void Combines_every_entry_with_every_other_in_the_order_of_the_lists() =>
        Combine(["leeds", "york"], ["piano tuning", "piano tuner"])
            .ShouldBe(["leeds piano tuning", "leeds piano tuner", "york piano tuning", "york piano tuner"]);

    [Fact]
    public void Takes_a_blank_entry_for_leaving_the_list_out() =>
        Combine(["piano hire"], ["", "prices"]).ShouldBe(["piano hire", "piano hire prices"]);

    [Fact]
    public void Says_no_word_twice_not_even_as_its_plural() =>
        Combine(["piano"], ["pianos for sale", "piano hire"]).ShouldBe(["piano for sale", "piano hire"]);

    [Fact]
    public void Keeps_a_word_that_one_entry_has_twice() => Combine(["word for word"], [""]).ShouldBe(["word for word"]);

    [Fact]
    public void Counts_what_came_twice_and_what_is_too_long()
    {
        var combined = WordLists.Combine(
            [
                ["piano", "Piano", "a b c d e f g h i j k"],
                ["hire"],
            ],
            [MatchType.Exact, MatchType.Phrase],
            10
        );

        (combined.Keywords.Count, combined.Duplicates, combined.TooLong).ShouldBe((2, 2, 2));
    }

    [Fact]
    public void Refuses_more_than_anybody_can_want()
    {
        var list = Enumerable.Range(0, 500).Select(number => $"w{number}").ToArray();

        Should
            .Throw<ArgumentException>(() => WordLists.Combine([list, list], [MatchType.Exact], 10))
            .Message.ShouldContain("200,000");
    }
}

public class KeywordFormTests
{
    // Plurals by the S-stemmer: Harman, “How effective is suffixing?”, JASIS 42, 1991; its three rules.
    [Theory]
    [InlineData("Piano  Tuning", "piano tuning", DuplicateSense.SameText, true)]
    [InlineData("piano-tuning", "piano tuning", DuplicateSense.SameText, false)]
    [InlineData("piano-tuning!", "piano tuning", DuplicateSense.SameWords, true)]
    [InlineData("tuning piano", "piano tuning", DuplicateSense.SameWords, false)]
    [InlineData("tuning pianos", "piano tuning", DuplicateSense.SameMeaning, true)]
    [InlineData("hire companies", "company hire", DuplicateSense.SameMeaning, true)]
    [InlineData("piano class", "piano clas", DuplicateSense.SameMeaning, false)]
    public void Tells_duplicates_in_three_senses(string left, string right, DuplicateSense sense, bool same) =>
        (KeywordForm.Of(left, sense) == KeywordForm.Of(right, sense)).ShouldBe(same);
}

public class NegativeReachTests
{
    private static readonly MatchType[] Matches = Enum.GetValues<MatchType>();

    [Theory]
    [InlineData("free", MatchType.Phrase, "free piano", MatchType.Phrase, true)]
    [InlineData("free", MatchType.Exact, "free piano", MatchType.Exact, false)]
    [InlineData("free piano", MatchType.Phrase, "free", MatchType.Phrase, false)]
    [InlineData("free piano", MatchType.Phrase, "free piano", MatchType.Broad, false)]
    [InlineData("free", MatchType.Phrase, "piano free", MatchType.Broad, true)]
    [InlineData("piano free", MatchType.Broad, "free piano", MatchType.Phrase, true)]
    public void Tells_whether_a_broader_negative_does_the_work_of_a_narrower(
        string broader,
        MatchType broaderMatch,
        string narrower,
        MatchType narrowerMatch,
        bool covers
    ) => NegativeReach.Covers(Words.Of(broader), broaderMatch, Words.Of(narrower), narrowerMatch).ShouldBe(covers);

    // An exact negative beside a phrase keyword steers traffic: common practice, no source.
    [Theory]
    [InlineData("piano tuning", MatchType.Exact, "piano tuning", MatchType.Phrase, Blocking.None)]
    [InlineData("piano tuning", MatchType.Exact, "piano tuning", MatchType.Exact, Blocking.Wholly)]
    [InlineData("tuning", MatchType.Phrase, "piano tuning", MatchType.Broad, Blocking.Wholly)]
    [InlineData("piano tuning", MatchType.Phrase, "piano tuning", MatchType.AllWords, Blocking.Partly)]
    [InlineData("piano tuning", MatchType.Phrase, "piano tuning", MatchType.Phrase, Blocking.Wholly)]
    [InlineData("tunings", MatchType.Phrase, "piano tuning", MatchType.Phrase, Blocking.None)]
    [InlineData("free", MatchType.Broad, "piano tuning", MatchType.Broad, Blocking.None)]
    public void Tells_how_much_of_a_keyword_a_negative_keeps_away(
        string negative,
        MatchType negativeMatch,
        string keyword,
        MatchType keywordMatch,
        Blocking blocking
    ) =>
        NegativeReach.BlockingOf(Words.Of(negative), negativeMatch, Words.Of(keyword), keywordMatch).ShouldBe(blocking);

    /// <summary>Against the definition: every search that the narrower blocks, over all searches of up to four words of three.</summary>
    [Fact]
    public void Agrees_with_the_definition_over_all_short_searches()
    {
        string[] words = ["a", "b", "x"];
        string[][] Of(int length) =>
            length == 0
                ?
                [
                    [],
                ]
                : [.. Of(length - 1).SelectMany(rest => words.Select(word => (string[])[.. rest, word]))];
        var searches = Enumerable.Range(1, 4).SelectMany(Of).ToArray();
        string[][] negatives =
        [
            ["a"],
            ["b"],
            ["a", "b"],
            ["b", "a"],
        ];
        foreach (var (broad, narrow) in negatives.SelectMany(left => negatives.Select(right => (left, right))))
        {
            foreach (var (wide, tight) in Matches.SelectMany(left => Matches.Select(right => (left, right))))
            {
                var all = searches
                    .Where(search => WordMatch.Blocks(narrow, tight, search))
                    .All(search => WordMatch.Blocks(broad, wide, search));
                NegativeReach
                    .Covers(broad, wide, narrow, tight)
                    .ShouldBe(all, $"{string.Join(' ', broad)} {wide} over {string.Join(' ', narrow)} {tight}");
            }
        }
    }
}
