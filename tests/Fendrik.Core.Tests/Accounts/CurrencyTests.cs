using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tests.Accounts;

public class CurrencyTests
{
    // ISO 4217, list one: minor units (JPY 0, GBP 2, KWD 3 are named in the standard's own examples).
    [Theory]
    [InlineData("JPY", 0)]
    [InlineData("KRW", 0)]
    [InlineData("GBP", 2)]
    [InlineData("EUR", 2)]
    [InlineData("KWD", 3)]
    [InlineData("OMR", 3)]
    public void Has_the_minor_units_of_ISO_4217(string code, int minorUnits) =>
        Currency.Of(code).MinorUnits.ShouldBe(minorUnits);

    [Fact]
    public void Refuses_a_code_that_is_not_in_the_standard() =>
        Should.Throw<ArgumentException>(() => Currency.Of("GPB")).Message.ShouldContain("GPB");

    [Theory]
    [InlineData("GBP", "1.005", "1.01")]
    [InlineData("JPY", "130.5", "131")]
    [InlineData("KWD", "1.0005", "1.001")]
    public void Rounds_halves_away_from_zero_at_the_minor_unit(string code, string amount, string rounded) =>
        Currency.Of(code).Round(decimal.Parse(amount)).ShouldBe(decimal.Parse(rounded));

    // ISO 4217: two decimals for GBP, none for JPY, three for KWD.
    [Theory]
    [InlineData("GBP", "1.26", 126)]
    [InlineData("JPY", "130", 130)]
    [InlineData("KWD", "1.005", 1005)]
    public void Counts_amounts_in_whole_minor_units_and_back(string code, string amount, long minor)
    {
        Currency.Of(code).ToMinor(decimal.Parse(amount)).ShouldBe(minor);
        Currency.Of(code).FromMinor(minor).ShouldBe(decimal.Parse(amount));
    }

    [Theory]
    [InlineData("GBP", "£1,289.80")]
    [InlineData("JPY", "¥1,290")]
    [InlineData("KWD", "KWD 1,289.800")]
    public void Writes_money_with_the_digits_of_its_currency(string code, string written) =>
        new Money(1289.8m, Currency.Of(code)).ToString().ShouldBe(written);

    [Fact]
    public void Does_not_add_two_currencies() =>
        Should.Throw<InvalidOperationException>(() =>
            new Money(1, Currency.Of("GBP")) + new Money(1, Currency.Of("EUR"))
        );
}
