using CsCheck;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Bidding.Strategies;
using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Tests.Bidding.Strategies;

public class ConversionRatesTests
{
    private static ClickCell Cell(
        long group,
        long keyword,
        double clicks,
        double conversions,
        double value = 0,
        Device device = Device.Desktop,
        int block = 1
    ) => new(group, keyword, device, block, SiteKinds.Search, clicks, conversions, value);

    private static ClickAhead Click(long group, long keyword, string term = "", Device device = Device.Desktop) =>
        new(group, keyword, term, device, 1, SiteKinds.Search, null);

    [Fact]
    public void Before_anything_is_counted_a_click_is_taken_for_usual()
    {
        var predicted = ConversionRates.Unknown.Of(Click(1, 1));
        predicted.Rate.ShouldBe(ConversionRates.UsualRate);
        predicted.RelativeValue.ShouldBe(1);
    }

    /// <summary>
    /// The rate of a campaign is the mean of a gamma distribution that began with the usual rate and took up Poisson counts, as
    /// MathNet.Numerics has it.
    /// </summary>
    [Theory]
    [InlineData(0, 0)]
    [InlineData(200, 3)]
    [InlineData(5_000, 400)]
    public void A_campaigns_rate_is_the_mean_that_the_gamma_distribution_has(double clicks, double conversions)
    {
        var rates = new ConversionRates([Cell(1, 1, clicks, conversions)], [], []);
        var prior = SegmentFactor.Prior / ConversionRates.UsualRate;
        rates.Rate.ShouldBe(new Gamma(SegmentFactor.Prior + conversions, prior + clicks).Mean, 1e-12);
    }

    [Fact]
    public void A_keyword_without_clicks_is_taken_for_its_ad_group()
    {
        var rates = new ConversionRates([Cell(1, 1, 1_000, 200), Cell(2, 2, 1_000, 10)], [], []);
        double Of(long group, long keyword) => rates.Of(Click(group, keyword)).Rate;
        Of(1, 99).ShouldBeGreaterThan(rates.Rate * 1.5);
        Of(2, 99).ShouldBeLessThan(rates.Rate * 0.5);
    }

    [Fact]
    public void Three_clicks_say_next_to_nothing_and_three_thousand_nearly_all()
    {
        double Of(double clicks) =>
            new ConversionRates([Cell(1, 1, 10_000, 500), Cell(1, 2, clicks, clicks / 3)], [], []).Of(Click(1, 2)).Rate;
        Of(3).ShouldBeInRange(0.05, 0.065);
        Of(3_000).ShouldBeInRange(0.30, 1 / 3.0 + 0.001);
    }

    [Fact]
    public void A_search_that_never_converted_is_less_likely_than_its_keyword()
    {
        var rates = new ConversionRates(
            [Cell(1, 1, 1_000, 50)],
            [new TermCell(1, "free piano tuning", 300, 0), new TermCell(1, "piano tuning leeds", 700, 50)],
            []
        );
        rates.Of(Click(1, 1, "free piano tuning")).Rate.ShouldBeLessThan(0.02);
        rates.Of(Click(1, 1, "piano tuning leeds")).Rate.ShouldBeGreaterThan(0.05);
    }

    [Fact]
    public void Phones_that_are_used_in_the_evening_get_no_blame_for_the_evening()
    {
        // Evenings convert at a quarter of the rate on any device; phones are used in the evening.
        var rates = new ConversionRates(
            [
                Cell(1, 1, 2_000, 100, device: Device.Desktop, block: 1),
                Cell(1, 1, 200, 10, device: Device.Phone, block: 1),
                Cell(1, 1, 200, 2.5, device: Device.Desktop, block: 5),
                Cell(1, 1, 2_000, 25, device: Device.Phone, block: 5),
            ],
            [],
            []
        );
        double Rate(Device device) => rates.Of(new ClickAhead(1, 1, "", device, 1, SiteKinds.Search, null)).Rate;
        // By themselves phones convert at a third of the rate of desktops.
        (Rate(Device.Phone) / Rate(Device.Desktop)).ShouldBeGreaterThan(0.85);
    }

    [Fact]
    public void The_factors_told_make_up_the_rate()
    {
        var cell = Gen.Select(Gen.Long[1, 3], Gen.Long[1, 6], Gen.Double[0, 500], Gen.Double[0, 0.3]);
        cell.List[1, 12]
            .Sample(cells =>
            {
                var rates = new ConversionRates(
                    [.. cells.Select(each => Cell(each.Item1, each.Item2, each.Item3, each.Item3 * each.Item4, 5))],
                    [],
                    []
                );
                var predicted = rates.Of(Click(cells[0].Item1, cells[0].Item2));
                var product = predicted.Factors.Aggregate(1.0, (rate, factor) => rate * factor.Factor);
                predicted.Rate.ShouldBe(Math.Min(ConversionRates.MostRate, product), 1e-9);
            });
    }

    [Fact]
    public void An_ad_group_whose_conversions_are_worth_more_is_worth_more()
    {
        var rates = new ConversionRates([Cell(1, 1, 1_000, 50, 5_000), Cell(2, 2, 1_000, 50, 500)], [], []);
        rates.Value.ShouldBe(55);
        rates.Of(Click(1, 1)).RelativeValue.ShouldBeGreaterThan(1.5);
        rates.Of(Click(2, 2)).RelativeValue.ShouldBeLessThan(0.5);
    }
}
