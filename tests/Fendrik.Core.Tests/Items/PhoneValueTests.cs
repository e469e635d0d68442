using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Items;

public class PhoneValueTests
{
    private static readonly PhoneValue Phone = new();

    private static ReadingGround Ground(string language) => new(Currency.Of("GBP"), AccountLanguage.Of(language));

    /// <summary>Numbers that Ofcom sets aside for drama, and E.164's form of them.</summary>
    [Theory]
    [InlineData("0113 496 0142", "en-GB", "+441134960142")]
    [InlineData("(01632) 960 123", "en-GB", "+441632960123")]
    [InlineData("08081 570142", "en-GB", "+448081570142")]
    [InlineData("+44 191 498 0118", "de-DE", "+441914980118")]
    [InlineData("tel:+44-131-496-0118", "en-GB", "+441314960118")]
    [InlineData("0044 131 496 0118", "en-GB", "+441314960118")]
    public void Is_kept_by_E164_whatever_people_type(string typed, string language, string kept) =>
        Phone.Read(typed, Ground(language)).ShouldBe(new Reading(kept));

    [Theory]
    [InlineData("call us")]
    [InlineData("12")]
    [InlineData("0113 496 0142 ext 7")]
    [InlineData("0113 496 0142 0142 0142")]
    public void Is_refused_when_nobody_could_dial_it(string typed) =>
        Phone.Read(typed, Ground("en-GB")).Problem.ShouldNotBeNull();

    /// <summary>RFC 3966: global numbers with visual separators.</summary>
    [Fact]
    public void Is_dialled_by_RFC_3966() => PhoneValue.Dialled("+441134960142").ShouldBe("tel:+44-113-496-0142");

    [Fact]
    public void Is_shown_as_its_own_country_writes_it() =>
        PhoneValue.National("+441134960142").ShouldBe("0113 496 0142");

    [Fact]
    public void Can_be_counted_where_the_network_has_numbers_of_its_country()
    {
        NetworkProfile.Of("pellow").Extensions.Measures("+441134960142").ShouldBeTrue();
        NetworkProfile.Of("pellow").Extensions.Measures("+493023125000").ShouldBeFalse();
    }
}
