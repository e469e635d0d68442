using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Matching;

/// <summary>What reaches what beyond the words as they are written; the examples are those of the guide.</summary>
public class WordReachTests
{
    private static readonly WordReach Ostrel = NetworkProfile.Of("ostrel").Reach;
    private static readonly WordReach Pellow = NetworkProfile.Of("pellow").Reach;

    private static MatchedWords? Explain(string keyword, MatchType match, string search, WordReach? reach = null)
    {
        var rules = reach ?? Ostrel;
        var words = rules.WordsOf(keyword);
        var classes = words.Select(rules.ClassOf).ToHashSet();
        return WordMatch.Explain(words, match, rules.WordsOf(search), rules, classes.Contains);
    }

    [Theory]
    [InlineData("piano bench", "piano benches", WordRelation.Number)]
    [InlineData("cafe piano", "café piano", WordRelation.Accents)]
    [InlineData("cargo bike", "cargobike", WordRelation.Joined)]
    [InlineData("cargobike leeds", "cargo bike leeds", WordRelation.Joined)]
    [InlineData("piano restoration", "piano restauration", WordRelation.Misspelling)]
    [InlineData("piano regulation", "piano regulatoin", WordRelation.Misspelling)]
    public void An_exact_keyword_answers_close_variants(string keyword, string search, WordRelation relation)
    {
        var found = Explain(keyword, MatchType.Exact, search);

        found!.Closeness.ShouldBe(Closeness.Close);
        found.Words.Select(word => word.Relation).ShouldContain(relation);
    }

    [Theory]
    [InlineData("piano tuner in leeds", "piano tuner leeds", true)]
    [InlineData("piano tuner leeds", "a piano tuner for leeds", true)]
    [InlineData("piano tuner leeds", "leeds piano tuner", false)]
    [InlineData("piano tuner leeds", "piano tuner leeds price", false)]
    public void Small_words_come_go_and_move_but_no_others(string keyword, string search, bool answers) =>
        (Explain(keyword, MatchType.Exact, search) is not null).ShouldBe(answers);

    [Fact]
    public void A_network_that_does_not_switch_a_variant_on_does_not_have_it()
    {
        Explain("cargo bike", MatchType.Exact, "cargobike", Pellow).ShouldBeNull();
        Explain("piano tuner leeds", MatchType.Exact, "piano tuner in leeds", Pellow).ShouldBeNull();
    }

    [Theory]
    [InlineData("piano bench leeds", MatchType.Phrase, "buy piano benches leeds now", true)]
    [InlineData("piano bench leeds", MatchType.Phrase, "benches piano leeds", false)]
    [InlineData("piano bench leeds", MatchType.AllWords, "leeds benches for a piano", true)]
    public void Close_variants_hold_for_phrase_and_all_words_too(
        string keyword,
        MatchType match,
        string search,
        bool answers
    ) => (Explain(keyword, match, search) is not null).ShouldBe(answers);

    [Fact]
    public void A_slip_is_none_where_somebody_bids_on_the_word()
    {
        WordMatch
            .Explain(["grand"], MatchType.Exact, ["grant"], Ostrel, word => word is "grand" or "grant")
            .ShouldBeNull();
        WordMatch.Explain(["grand"], MatchType.Exact, ["grant"], Ostrel, word => word is "grand").ShouldNotBeNull();
    }

    [Theory]
    [InlineData("piano tuning", "piano tuner york", "tuning", "tuner", WordRelation.Related)]
    [InlineData("used pianos", "second hand piano leeds", "used", "second hand", WordRelation.Synonym)]
    [InlineData("second hand piano", "used upright piano", "second hand", "used", WordRelation.Synonym)]
    [InlineData("piano hire", "rent a piano", "hire", "rent", WordRelation.Synonym)]
    public void Broad_match_reaches_related_words_and_says_by_which(
        string keyword,
        string search,
        string word,
        string searched,
        WordRelation relation
    )
    {
        var found = Explain(keyword, MatchType.Broad, search);

        found!.Closeness.ShouldBe(Closeness.Related);
        found
            .Words.Where(each => each.Relation == relation)
            .Select(each => (each.Word, each.Searched))
            .ShouldBe([(word, searched)]);
        Explain(keyword, MatchType.AllWords, search).ShouldBeNull();
    }

    [Fact]
    public void Broad_match_reaches_no_word_that_is_related_less_than_the_network_asks()
    {
        Explain("piano repair", MatchType.Broad, "piano service").ShouldNotBeNull();
        Explain("piano repair", MatchType.Broad, "piano service", Pellow).ShouldBeNull();
    }

    [Fact]
    public void An_account_extends_the_words()
    {
        var own = new WordReach(Ostrel.Rules, RelatedWords.Shipped.With("joanna", "piano", WordRelation.Synonym, 90));

        Explain("piano tuning", MatchType.Broad, "joanna tuning", own)!.Strength.ShouldBe(90);
        Explain("piano tuning", MatchType.Broad, "joanna tuning").ShouldBeNull();
    }

    [Theory]
    [InlineData("", "piano", WordRelation.Synonym, 90)]
    [InlineData("joanna", "piano", WordRelation.Number, 90)]
    [InlineData("joanna", "piano", WordRelation.Synonym, 0)]
    [InlineData("joanna", "piano", WordRelation.Synonym, 101)]
    public void Words_of_an_account_that_make_no_sense_are_refused(
        string one,
        string other,
        WordRelation relation,
        int strength
    ) => Should.Throw<ArgumentException>(() => RelatedWords.None.With(one, other, relation, strength));

    [Fact]
    public void Negatives_never_stretch()
    {
        var negatives = new KeywordIndex<int>([(1, "bench", MatchType.Broad)], Ostrel.ForNegatives);

        negatives.Find("piano benches").ShouldBeEmpty();
        negatives.Find("piano bench").ShouldBe([1]);
    }
}
