using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class PluralTests
{
    // Harman, “How effective is suffixing?”, JASIS 42, 1991: the three rules of the S-stemmer with their exceptions
    // (-ies but not -eies, -aies; -es but not -aes, -ees, -oes; -s but not -us, -ss). Words chosen here.
    [Theory]
    [InlineData("queries", "query")]
    [InlineData("pianos", "piano")]
    [InlineData("grades", "grade")]
    [InlineData("glass", "glass")]
    [InlineData("bonus", "bonus")]
    [InlineData("workshops", "workshop")]
    [InlineData("keys", "key")]
    public void Takes_the_plural_off_as_the_published_stemmer_does(string plural, string singular)
    {
        Plurals.Singular(plural).ShouldBe(singular);
        Plurals.ByStemmer(plural).ShouldBe(singular);
    }

    // English usage; where the stemmer by itself would err, that is shown.
    [Theory]
    [InlineData("boxes", "box")]
    [InlineData("benches", "bench")]
    [InlineData("dishes", "dish")]
    [InlineData("children", "child")]
    [InlineData("knives", "knife")]
    [InlineData("women", "woman")]
    [InlineData("shoes", "shoe")]
    public void Knows_plurals_that_the_stemmer_does_not(string plural, string singular)
    {
        Plurals.Singular(plural).ShouldBe(singular);
        Plurals.ByStemmer(plural).ShouldNotBe(singular);
    }

    [Theory]
    [InlineData("its")]
    [InlineData("news")]
    [InlineData("leeds")]
    [InlineData("series")]
    public void Leaves_alone_what_only_looks_like_a_plural(string word) => Plurals.Singular(word).ShouldBe(word);

    [Theory]
    [InlineData("piano", "pianos")]
    [InlineData("bench", "benches")]
    [InlineData("child", "children")]
    [InlineData("query", "queries")]
    [InlineData("key", "keys")]
    public void Makes_plurals_that_come_back(string singular, string plural)
    {
        Plurals.Plural(singular).ShouldBe(plural);
        Plurals.Singular(plural).ShouldBe(singular);
    }
}
