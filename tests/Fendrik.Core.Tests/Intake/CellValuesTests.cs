using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;

namespace Fendrik.Core.Tests.Intake;

public class CellValuesTests
{
    private static readonly Currency Pound = Currency.Of("GBP");

    [Theory]
    [InlineData("1.30", "1.30")]
    [InlineData("£1.30", "1.30")]
    [InlineData("1,30", "1.30")]
    [InlineData("GBP 25", "25")]
    [InlineData("25 £", "25")]
    [InlineData("1,234.50", "1234.50")]
    [InlineData("1.234,50", "1234.50")]
    [InlineData("1 234,5", "1234.5")]
    [InlineData("1,234,567", "1234567")]
    [InlineData(".5", "0.5")]
    public void Reads_amounts_as_people_write_them(string cell, string amount)
    {
        CellValues.TryAmount(cell, Pound, out var read).ShouldBeTrue();
        read.ShouldBe(decimal.Parse(amount));
    }

    [Theory]
    [InlineData("1,2O")]
    [InlineData("1,234")] // a thousand and more, or one and a bit?
    [InlineData("$1.30")] // another currency
    [InlineData("-1")]
    [InlineData("1.2.3")]
    [InlineData("")]
    public void Does_not_read_an_amount_that_it_cannot_be_sure_of(string cell) =>
        CellValues.TryAmount(cell, Pound, out _).ShouldBeFalse();

    [Fact]
    public void Reads_three_decimal_places_where_the_currency_has_them()
    {
        CellValues.TryAmount("1.250", Currency.Of("KWD"), out var amount).ShouldBeTrue();
        amount.ShouldBe(1.25m);
    }

    [Theory]
    [InlineData("Exact match", MatchType.Exact, false)]
    [InlineData("PHRASE", MatchType.Phrase, false)]
    [InlineData("all words", MatchType.AllWords, false)]
    [InlineData("negative broad", MatchType.Broad, true)]
    [InlineData("− phrase", MatchType.Phrase, true)]
    public void Reads_match_types(string cell, MatchType match, bool negative)
    {
        CellValues.TryMatchType(cell, out var read, out var isNegative).ShouldBeTrue();
        (read, isNegative).ShouldBe((match, negative));
    }

    [Theory]
    [InlineData("2026-05-31")]
    [InlineData("31/05/2026")]
    [InlineData("31.5.2026")]
    [InlineData("31 May 2026")]
    public void Reads_dates_day_first(string cell)
    {
        CellValues.TryDate(cell, out var date).ShouldBeTrue();
        date.ShouldBe(new DateOnly(2026, 5, 31));
    }

    [Fact]
    public void Reads_networks_in_any_combination()
    {
        CellValues.TryNetworks("Search and partner sites", out var networks).ShouldBeTrue();
        networks.ShouldBe(SiteKinds.Search | SiteKinds.Partners);
        CellValues.TryNetworks("television", out _).ShouldBeFalse();
    }
}
