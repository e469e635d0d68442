using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class NearFormTests
{
    // Regular plurals of English by the rule that grammars give (-ies after consonant and y, -es after a hiss, else -s);
    // the words are from memory.
    [Theory]
    [InlineData("job", "jobs")]
    [InlineData("box", "boxes")]
    [InlineData("watch", "watches")]
    [InlineData("brush", "brushes")]
    [InlineData("glass", "glasses")]
    [InlineData("battery", "batteries")]
    [InlineData("key", "keys")]
    [InlineData("house", "houses")]
    public void Knows_a_word_by_its_regular_plural_and_the_plural_by_the_word(string one, string several)
    {
        NearForms.Of(one, several).ShouldBe(NearForm.Plural);
        NearForms.Of(several, one).ShouldBe(NearForm.Singular);
        NearForms.Counterpart(one).ShouldBe((several, NearForm.Plural));
        NearForms.Counterpart(several).ShouldBe((one, NearForm.Singular));
    }

    // One slip is a letter left out, put in, taken for another or exchanged with its neighbour (Damerau 1964).
    [Theory]
    [InlineData("tuning", "tunning")]
    [InlineData("tuning", "tning")]
    [InlineData("tuning", "tuming")]
    [InlineData("tuning", "tuinng")]
    public void Takes_a_word_with_one_slip_for_a_misspelling(string word, string slip) =>
        NearForms.Of(word, slip).ShouldBe(NearForm.Misspelling);

    [Theory]
    [InlineData("tuning", "tuner")]
    [InlineData("free", "tree")]
    [InlineData("jobs", "joke")]
    [InlineData("p2000", "p2001")]
    [InlineData("repair", "repairer")]
    public void Leaves_another_word_alone(string word, string other) => NearForms.Of(word, other).ShouldBeNull();

    [Fact]
    public void A_word_is_not_near_itself() => NearForms.Of("tuning", "tuning").ShouldBeNull();

    [Theory]
    [InlineData("2026")]
    [InlineData("a4")]
    [InlineData("äxte")]
    public void Makes_no_other_form_of_what_is_no_plain_english_word(string word) =>
        NearForms.Counterpart(word).ShouldBeNull();
}
