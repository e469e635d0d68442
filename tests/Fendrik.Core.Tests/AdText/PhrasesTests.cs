using Fendrik.Core.AdText;

namespace Fendrik.Core.Tests.AdText;

/// <summary>Kinds of lines by their words; the examples are invented.</summary>
public class PhrasesTests
{
    [Theory]
    [InlineData("Piano Out Of Tune?", PhraseKind.Question)]
    [InlineData("Need A Tuner From £60?", PhraseKind.Question)]
    [InlineData("Book In A Minute", PhraseKind.CallToAction)]
    [InlineData("Ask For A Price", PhraseKind.CallToAction)]
    [InlineData("From £48 A Month", PhraseKind.Offer)]
    [InlineData("20% off in May", PhraseKind.Offer)]
    [InlineData("Delivery and tuning included.", PhraseKind.Offer)]
    [InlineData("28 Years Of Tuning", PhraseKind.Proof)]
    [InlineData("Restored by hand", PhraseKind.Proof)]
    [InlineData("In York since 1987", PhraseKind.Proof)]
    [InlineData("Piano Tuning", PhraseKind.Other)]
    [InlineData("Bookbinding In Leeds", PhraseKind.Other)]
    [InlineData("", PhraseKind.Other)]
    public void A_line_is_told_by_what_it_does(string line, PhraseKind kind) => Phrases.Of(line).ShouldBe(kind);
}
