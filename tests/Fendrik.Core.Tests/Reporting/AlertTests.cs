using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Alerts;
using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Core.Tests.Reporting;

public class AlertTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");
    private static readonly Measure PerConversion = ResultMeasures.Find("costPerConversion")!;

    private static readonly Alert Dear = new("costPerConversion", true, 20, 3, true, false, null);

    private static Measured Day(decimal cost, decimal conversions) =>
        new(new Figures(100, 10, cost, conversions, 0), null);

    [Fact]
    public void An_alert_for_each_day_goes_off_when_every_day_is_above() =>
        Dear.GoesOff(PerConversion, [Day(42, 2), Day(44, 2), Day(66, 3)])!.Value.ShouldBe(152m / 7);

    [Fact]
    public void A_day_at_the_amount_itself_is_not_above_it() =>
        Dear.GoesOff(PerConversion, [Day(42, 2), Day(40, 2), Day(66, 3)]).ShouldBeNull();

    [Fact]
    public void A_day_without_conversions_has_no_cost_per_conversion_to_be_above() =>
        Dear.GoesOff(PerConversion, [Day(42, 2), Day(44, 0), Day(66, 3)]).ShouldBeNull();

    [Fact]
    public void Days_taken_together_count_those_without_conversions_too() =>
        (Dear with { EachDay = false })
            .GoesOff(PerConversion, [Day(10, 1), Day(44, 0), Day(10, 1)])!
            .Value.ShouldBe(32m);

    [Fact]
    public void Fewer_days_than_are_asked_for_do_not_set_it_off() =>
        Dear.GoesOff(PerConversion, [Day(42, 2), Day(44, 2)]).ShouldBeNull();

    [Fact]
    public void What_must_not_fall_goes_off_below() =>
        new Alert("conversions", false, 2, 1, false, false, null)
            .GoesOff(ResultMeasures.Find("conversions")!, [Day(50, 1)])!
            .Value.ShouldBe(1m);

    [Theory]
    [InlineData(40, 100, 50)]
    [InlineData(20, 100, 0)]
    [InlineData(80, 100, 75)]
    public void What_costs_twice_as_much_wastes_half_of_it(decimal figure, decimal cost, decimal waste) =>
        Dear.TooMuch(PerConversion, figure, cost).ShouldBe(waste);

    [Fact]
    public void Of_what_is_no_price_nothing_is_wasted() =>
        (Dear with { Measure = "clicks" }).TooMuch(ResultMeasures.Find("clicks")!, 40, 100).ShouldBeNull();

    [Fact]
    public void It_says_what_it_looks_for_and_what_it_found()
    {
        AlertWords.Of(Dear, PerConversion, Pounds).ShouldBe("Cost per conversion above £20.00 on each of 3 days");
        AlertWords
            .Found(Dear, PerConversion, 23.4m, new DateOnly(2026, 5, 11), Pounds)
            .ShouldBe("Cost per conversion £23.40 in the 3 days to 11 May, above £20.00 on each.");
    }

    [Theory]
    [InlineData("costPerConversion", "20", 20)]
    [InlineData("costPerConversion", "£20.50", 20.5)]
    [InlineData("profit", "-50", -50)]
    [InlineData("profit", "−£50", -50)]
    [InlineData("clickThroughRate", "2.5", 0.025)]
    [InlineData("clickThroughRate", "2.5 %", 0.025)]
    [InlineData("conversions", "1,5", 1.5)]
    public void An_amount_is_read_in_the_unit_of_its_measure(string measure, string typed, double amount) =>
        AlertAmount
            .Read(typed, ResultMeasures.Find(measure)!, ReadingGround.Plain(Pounds))
            .ShouldBe(((decimal)amount, null));

    [Theory]
    [InlineData("costPerConversion", "dear")]
    [InlineData("costPerConversion", "")]
    [InlineData("clickThroughRate", "much")]
    [InlineData("conversions", "1.2.3")]
    [InlineData("conversions", "2000000000")]
    public void What_is_no_amount_is_told(string measure, string typed) =>
        AlertAmount.Read(typed, ResultMeasures.Find(measure)!, ReadingGround.Plain(Pounds)).Problem.ShouldNotBeNull();

    [Fact]
    public void A_share_is_written_in_per_cent() =>
        AlertWords
            .Of(
                new Alert("clickThroughRate", false, 0.025m, 7, false, true, null),
                ResultMeasures.Find("clickThroughRate")!,
                Pounds
            )
            .ShouldBe("CTR below 2.5% in 7 days together");
}
