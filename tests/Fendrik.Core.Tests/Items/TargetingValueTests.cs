using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tests.Items;

/// <summary>Sites and modifiers as people write them.</summary>
public class TargetingValueTests
{
    private static readonly ReadingGround Pound = ReadingGround.Plain(Currency.Of("GBP"));
    private static readonly SiteValue Site = new();
    private static readonly PercentValue Percent = new();

    [Theory]
    [InlineData("bigdays.example", "bigdays.example")]
    [InlineData("https://BigDays.example/", "bigdays.example")]
    [InlineData("http://bigdays.example/Venues/", "bigdays.example/Venues")]
    [InlineData("bücher.example/a", "xn--bcher-kva.example/a")] // RFC 3492's own example of the label.
    public void A_site_is_its_domain_and_path(string written, string site) =>
        Site.Read(written, Pound).Value.ShouldBe(site);

    [Theory]
    [InlineData("bigdays")]
    [InlineData("bigdays.example?a=b")]
    [InlineData("bigdays.example/#top")]
    [InlineData("ftp://bigdays.example")]
    [InlineData("https://user@bigdays.example")]
    [InlineData("bigdays.example:8080")]
    [InlineData("127.0.0.1/a")]
    [InlineData("two words.example")]
    public void What_is_no_site_is_said_to_be_none(string written) =>
        Site.Read(written, Pound).Problem!.ShouldContain("is no site");

    [Theory]
    [InlineData("bigdays.example", "bigdays.example/venues", true)]
    [InlineData("bigdays.example", "m.bigdays.example/venues", true)]
    [InlineData("bigdays.example", "notbigdays.example", false)]
    [InlineData("bigdays.example/venues", "bigdays.example/venues", true)]
    [InlineData("bigdays.example/venues", "bigdays.example/venues/north", true)]
    [InlineData("bigdays.example/venues", "bigdays.example/venues-north", false)]
    [InlineData("bigdays.example/venues", "bigdays.example", false)]
    [InlineData("m.bigdays.example", "bigdays.example", false)]
    public void A_site_covers_what_is_below_it(string site, string page, bool covers) =>
        SiteValue.Covers(site, page).ShouldBe(covers);

    [Theory]
    [InlineData("+50%", 50)]
    [InlineData("50", 50)]
    [InlineData("−20 %", -20)]
    [InlineData("-100%", -100)]
    [InlineData("+12.5%", 12.5)]
    [InlineData("0", 0)]
    public void A_modifier_is_read_with_and_without_its_sign(string written, double percent) =>
        Percent.Read(written, Pound).Value.ShouldBe((decimal)percent);

    [Theory]
    [InlineData("-101%")]
    [InlineData("a lot")]
    [InlineData("1.25%")]
    [InlineData("100001")]
    public void What_is_no_modifier_is_said_to_be_none(string written) =>
        Percent.Read(written, Pound).Problem.ShouldNotBeNull();

    [Theory]
    [InlineData(50, "+50%")]
    [InlineData(-12.5, "-12.5%")]
    [InlineData(0, "+0%")]
    public void A_modifier_comes_back_as_it_is_written(double percent, string written)
    {
        Percent.Write((decimal)percent, Pound).ShouldBe(written);
        Percent.Read(written, Pound).Value.ShouldBe((decimal)percent);
    }
}
