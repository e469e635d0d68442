using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tests.Accounts;

public class LanguageTagTests
{
    private static readonly ReadingGround Ground = new(Currency.Of("GBP"), AccountLanguage.Of("en-GB"));

    /// <summary>The way tags are written: RFC 5646, section 2.1.1, with its own examples “en-ca-x-ca” left out, which is a private one.</summary>
    [Theory]
    [InlineData("MN-cYRL-mn", "mn-Cyrl-MN")]
    [InlineData("az-latn-ir", "az-Latn-IR")]
    [InlineData("EN-gb", "en-GB")]
    [InlineData("es-419", "es-419")]
    [InlineData("de_CH", "de-CH")]
    public void A_tag_is_written_as_the_standard_writes_it(string text, string tag) =>
        LanguageTag.Read(text)!.Tag.ShouldBe(tag);

    [Theory]
    [InlineData("German", "de")]
    [InlineData("welsh", "cy")]
    public void A_language_is_known_by_its_English_name(string text, string tag) =>
        LanguageTag.Read(text)!.Tag.ShouldBe(tag);

    [Theory]
    [InlineData("xx")]
    [InlineData("english-please")]
    [InlineData("e")]
    [InlineData("en-")]
    [InlineData("en-GB-GB-GB")]
    public void What_is_no_language_is_none(string text) => LanguageTag.Read(text).ShouldBeNull();

    /// <summary>The examples of RFC 4647, section 3.3.1, quoted from memory.</summary>
    [Theory]
    [InlineData("de-de", "de-DE-1996", true)]
    [InlineData("de-de", "de-Deva", false)]
    [InlineData("de-de", "de-Latn-DE", false)]
    [InlineData("en", "en-GB", true)]
    [InlineData("en-GB", "en", false)]
    public void A_range_reaches_what_begins_with_it(string range, string tag, bool reaches) =>
        LanguageTag.Reaches(range, tag).ShouldBe(reaches);

    [Fact]
    public void Several_are_read_in_any_order_and_kept_in_one() =>
        new LanguagesValue().Read("German, EN-gb; en-gb + fr", Ground).Value.ShouldBe("de; en-GB; fr");

    [Fact]
    public void What_is_no_language_names_itself() =>
        new LanguagesValue().Read("en, Klingonish", Ground).Problem!.ShouldStartWith("“Klingonish” is no language");

    [Fact]
    public void Languages_are_told_by_name() =>
        new LanguagesValue().InWords("de-CH; en", Currency.Of("GBP")).ShouldBe("German (CH), English");
}
