using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tests.Accounts;

public class TextIdentityTests
{
    [Theory]
    [InlineData("Piano  Tuning ", "piano tuning")]
    [InlineData("\tpiano\u00a0tuning", "piano tuning")]
    [InlineData("cafe\u0301", "caf\u00e9")] // Unicode canonical equivalence (UAX #15): e + acute is é
    [InlineData("", "")]
    [InlineData("piano tuning", "piano tuning")]
    public void Is_the_same_for_texts_that_look_the_same(string text, string key) =>
        TextIdentity.Of(text).ShouldBe(key);

    [Fact]
    public void Keeps_different_words_apart() =>
        TextIdentity.Of("piano tuner").ShouldNotBe(TextIdentity.Of("piano tuners"));

    [Fact]
    public void Tells_parts_apart_wherever_the_words_stand() =>
        TextIdentity.Of(["a b", "c"]).ShouldNotBe(TextIdentity.Of(["a", "b c"]));
}
