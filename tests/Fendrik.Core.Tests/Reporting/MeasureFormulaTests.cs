using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Core.Tests.Reporting;

public class MeasureFormulaTests
{
    // 1,000 impressions, 40 clicks, £20.00, 4 conversions worth £50.00; 2,000 searches.
    private static readonly Measured Known = new(
        new Figures(1_000, 40, 20m, 4m, 50m),
        new Standing(1_000, 600, 300, 1_800, 700, 300)
    );

    [Theory]
    [InlineData("cost / impressions * 1000", 20)]
    [InlineData("cost ÷ impressions × 1000", 20)]
    [InlineData("(value − cost) ÷ clicks", 0.75)]
    [InlineData("(value - cost) / clicks", 0.75)]
    [InlineData("value - cost - cost", 10)]
    [InlineData("value - (cost - cost)", 50)]
    [InlineData("2 × cost ÷ 4", 10)]
    [InlineData("Cost per conversion × conversion rate", 0.5)]
    [InlineData("cost + cost × 2", 60)]
    [InlineData("clicks ÷ searches", 0.02)]
    [InlineData("average place", 1.8)]
    public void A_formula_is_reckoned_as_at_school(string formula, double result) =>
        MeasureFormula.Read(formula).Of(Known).ShouldBe((decimal)result);

    [Theory]
    [InlineData("cost/impressions*1000", "cost ÷ impressions × 1000")]
    [InlineData("VALUE - ( cost - cost )", "value − (cost − cost)")]
    [InlineData("value ÷ (cost ÷ ctr)", "value ÷ (cost ÷ CTR)")]
    [InlineData("((cost + cost)) × 2", "(cost + cost) × 2")]
    public void What_is_kept_of_a_formula_is_how_one_would_print_it(string typed, string kept) =>
        MeasureFormula.Read(typed).Text.ShouldBe(kept);

    [Theory]
    [InlineData("cost ÷ impressions × 1000")]
    [InlineData("value − (cost − cost)")]
    [InlineData("value ÷ (cost ÷ CTR) × 2")]
    [InlineData("(cost + value) ÷ (clicks + clicks)")]
    public void A_printed_formula_is_read_as_itself(string formula)
    {
        var read = MeasureFormula.Read(formula);
        read.Text.ShouldBe(formula);
        MeasureFormula.Read(read.Text).Of(Known).ShouldBe(read.Of(Known));
    }

    [Theory]
    [InlineData("cost ÷ clicks", "money per click")]
    [InlineData("value ÷ cost", "a bare number")]
    [InlineData("conversions ÷ searches", "conversions per search")]
    [InlineData("clicks × clicks", "clicks to the power of 2")]
    [InlineData("1 ÷ searches", null)]
    public void The_unit_of_the_result_is_known(string formula, string? unit)
    {
        if (unit is null)
        {
            MeasureFormula.Read(formula).Unit.ToString().ShouldBe("a number per search");
        }
        else
        {
            MeasureFormula.Read(formula).Unit.ToString().ShouldBe(unit);
        }
    }

    [Theory]
    [InlineData("cost + clicks", 8, "cost is money, clicks is clicks: only what is counted in the same can be added")]
    [InlineData("clicks − conversions", 10, "only what is counted in the same can be taken away")]
    [InlineData("cost + 5", 8, "5 is a bare number")]
    [InlineData("cost ÷ ", 8, "a measure or a number is missing")]
    [InlineData("cost ÷ (clicks", 15, "a bracket has to be closed")]
    [InlineData("cost clicks", 6, "a sign is missing")]
    [InlineData("cost)", 5, "a sign is missing")]
    [InlineData("bounces ÷ clicks", 1, "“bounces” is no measure")]
    [InlineData("costly ÷ clicks", 1, "“costly” is no measure")]
    [InlineData("1.2.3 × cost", 1, "“1.2.3” is no number")]
    [InlineData("cost; drop table", 5, "a sign is missing")]
    public void What_cannot_be_is_told_with_its_place(string formula, int at, string says)
    {
        var wrong = Should.Throw<FormulaException>(() => MeasureFormula.Read(formula));
        wrong.Message.ShouldContain(says);
        wrong.At.ShouldBe(at);
    }

    [Theory]
    [InlineData("cost × cost")]
    [InlineData("clicks ÷ cost")]
    [InlineData("2 × 3")]
    [InlineData("")]
    public void What_nobody_could_read_is_refused(string formula) =>
        Should.Throw<FormulaException>(() => MeasureFormula.Read(formula));

    [Theory]
    [InlineData("cost ÷ conversions")]
    [InlineData("value ÷ (cost − cost)")]
    public void Divided_by_nothing_there_is_none(string formula) =>
        MeasureFormula.Read(formula).Of(Known with { Figures = Known.Figures with { Conversions = 0 } }).ShouldBeNull();

    [Fact]
    public void Where_ads_stood_is_not_known_nothing_made_of_it_is() =>
        MeasureFormula.Read("clicks ÷ searches").Of(Known with { Standing = null }).ShouldBeNull();

    [Fact]
    public void A_number_too_large_is_none() =>
        MeasureFormula
            .Read(string.Join(" × ", Enumerable.Repeat("impressions", 12)))
            .Of(Known with { Figures = Known.Figures with { Impressions = 1_000_000_000 } })
            .ShouldBeNull();

    [Fact]
    public void Brackets_without_end_are_refused_before_they_are_read() =>
        Should.Throw<FormulaException>(() => MeasureFormula.Read(new string('(', 150)));

    [Theory]
    [InlineData("cost ÷ clicks", MeasureForm.Number)]
    [InlineData("clicks ÷ impressions", MeasureForm.Money)]
    public void Money_is_written_as_money_and_nothing_else_is(string formula, MeasureForm form) =>
        Should.Throw<FormulaException>(() => new OwnMeasure("Mine", formula, form).ToMeasure());

    [Fact]
    public void Of_sums_a_ratio_is_the_ratio_of_the_sums() =>
        // £20 for 4 and £30 for 1: together £50 for 5, not the mean of £5 and £30.
        MeasureFormula
            .Read("cost ÷ conversions")
            .Of(new Measured(new Figures(0, 0, 20, 4, 0) + new Figures(0, 0, 30, 1, 0), null))
            .ShouldBe(10m);

    [Fact]
    public void No_two_measures_have_a_key_or_a_title_in_common()
    {
        ResultMeasures.All.Select(measure => measure.Key).ShouldBeUnique();
        ResultMeasures.All.Select(measure => measure.Title.ToUpperInvariant()).ShouldBeUnique();
    }
}
