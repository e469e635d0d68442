using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;
using Shouldly;
using Xunit;

namespace Fendrik.Core.Tests.Tracking.Conversions;

public sealed class LeadWorthTests
{
    /// <summary>A sale of 340 that every fourth lead leads to, of which half is left, is worth 42.50: plain arithmetic.</summary>
    [Fact]
    public void A_lead_is_worth_the_sale_by_the_closing_rate_by_the_margin()
    {
        new LeadWorth(340, 25, 50).Value(Currency.Of("GBP")).ShouldBe(42.5m);
        new LeadWorth(340, 25, 50)
            .InWords(Currency.Of("GBP"))
            .ShouldBe("£340.00 × 25% × 50% = £42.50: at that cost a conversion wins nothing and loses nothing.");
    }

    /// <summary>Minor units by ISO 4217: yen have none.</summary>
    [Theory]
    [InlineData("GBP", 33.33)]
    [InlineData("JPY", 33)]
    public void It_is_rounded_to_the_minor_unit_of_the_currency(string currency, decimal value) =>
        new LeadWorth(100, 100, 33.333m).Value(Currency.Of(currency)).ShouldBe(value);

    [Fact]
    public void A_conversion_breaks_even_at_the_value_of_one()
    {
        new Figures(100, 10, 40, 4, 240).BreakEven.ShouldBe(60);
        new Figures(100, 10, 40, 0, 0).BreakEven.ShouldBeNull();
    }
}
