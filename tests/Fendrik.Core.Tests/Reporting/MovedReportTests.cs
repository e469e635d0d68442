using CsCheck;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Moved;

namespace Fendrik.Core.Tests.Reporting;

/// <summary>What moved a figure, with no remainder.</summary>
public class MovedReportTests
{
    private const double Near = 1e-6;

    private static Figures Brought(
        long impressions,
        long clicks,
        decimal cost,
        decimal conversions,
        decimal value = 0
    ) => new(impressions, clicks, cost, conversions, value);

    private static MovedItem Item(string name, Figures before, Figures now) => new(name[0], name, before, now);

    private static readonly Gen<Figures> AnyFigures = Gen.Select(
        Gen.Int[0, 5_000],
        Gen.Int[0, 100],
        Gen.Int[0, 50_000],
        Gen.Int[0, 100],
        Gen.Int[0, 90_000],
        (impressions, clicked, cost, sold, value) =>
        {
            var clicks = impressions * clicked / 100;
            var conversions = clicks * sold / 100;
            return Brought(
                impressions,
                clicks,
                clicks == 0 ? 0 : cost / 100m,
                conversions,
                conversions == 0 ? 0 : value / 100m
            );
        }
    );

    [Fact]
    public void The_logarithmic_mean_is_the_difference_by_the_difference_of_logarithms()
    {
        LogMeanSplit.LogMean(Math.E, 1).ShouldBe(Math.E - 1, 1e-12);
        LogMeanSplit.LogMean(7, 7).ShouldBe(7);
    }

    [Fact]
    public void Energy_of_two_sectors_is_split_into_activity_structure_and_intensity()
    {
        // In the form of the example of Ang 2005 (two sectors, activity × share × intensity); its table is quoted from memory, the effects are
        // worked out by hand from the formula: 50.977 and 17.926 are the logarithmic means of 80 and 30, and of 16 and 20.
        var effects = LogMeanSplit.Of([([50, 0.2, 3], [80, 0.5, 2]), ([50, 0.8, 0.5], [80, 0.5, 0.4])]);

        double Of(int factor) => effects.Sum(item => item[factor]);
        Of(0).ShouldBe(32.385, 0.002);
        Of(1).ShouldBe(38.285, 0.002);
        Of(2).ShouldBe(-24.669, 0.002);
        (Of(0) + Of(1) + Of(2)).ShouldBe(46, 1e-9);
    }

    [Theory]
    [InlineData(MovedFigure.CostPerConversion)]
    [InlineData(MovedFigure.Conversions)]
    [InlineData(MovedFigure.Profit)]
    public void Causes_and_items_add_up_to_the_change_whatever_came_and_went(MovedFigure figure) =>
        Gen.Select(AnyFigures, AnyFigures)
            .Array[1, 8]
            .Sample(drawn =>
            {
                MovedItem[] items =
                [
                    .. drawn.Select((each, at) => new MovedItem(at, $"Item {at}", each.Item1, each.Item2)),
                ];

                if (MovedReport.Of(figure, items) is not { } moved)
                {
                    figure.ShouldBe(MovedFigure.CostPerConversion);
                    return;
                }

                var change = moved.Now - moved.Before;
                moved.Causes.Sum(cause => cause.Effect).ShouldBe(change, Near);
                moved.Items.Sum(item => item.Effect).ShouldBe(change, Near);
                moved.Items.ShouldAllBe(item => Math.Abs(item.Causes.Sum(cause => cause.Effect) - item.Effect) < Near);
            });

    [Fact]
    public void Where_one_thing_alone_changed_it_is_the_only_cause()
    {
        // Twice the conversions of the same clicks at the same price: all of it is the conversion rate.
        var moved = MovedReport.Of(
            MovedFigure.CostPerConversion,
            [Item("Tuning", Brought(1_000, 100, 80, 5), Brought(1_000, 100, 80, 10))]
        )!;

        (moved.Before, moved.Now).ShouldBe((16, 8));
        moved.Causes.Single(cause => cause.Cause == Cause.ConversionRate).Effect.ShouldBe(-8, Near);
        moved
            .Causes.Where(cause => cause.Cause != Cause.ConversionRate)
            .ShouldAllBe(cause => Math.Abs(cause.Effect) < Near);
    }

    [Fact]
    public void Money_that_went_to_the_dearer_campaign_is_a_change_of_mix()
    {
        // Each campaign sells as before; only the clicks moved.
        var moved = MovedReport.Of(
            MovedFigure.CostPerConversion,
            [
                Item("Cheap", Brought(1_000, 100, 100, 10), Brought(500, 50, 50, 5)),
                Item("Dear", Brought(1_000, 100, 100, 5), Brought(1_500, 150, 150, 7.5m)),
            ]
        )!;

        moved.Causes.Single(cause => cause.Cause == Cause.Mix).Effect.ShouldBe(moved.Now - moved.Before, Near);
    }

    [Fact]
    public void A_campaign_that_is_new_brought_all_that_it_brought_by_being_there()
    {
        var moved = MovedReport.Of(
            MovedFigure.Conversions,
            [
                Item("Old", Brought(1_000, 100, 100, 10), Brought(1_000, 100, 100, 10)),
                Item("New", Figures.Zero, Brought(500, 50, 50, 4)),
            ]
        )!;

        moved.Items[0].Item.Name.ShouldBe("New");
        moved
            .Items[0]
            .Causes.Where(cause => cause.Cause is Cause.ClickThroughRate or Cause.ConversionRate)
            .ShouldAllBe(cause => Math.Abs(cause.Effect) < Near);
    }

    [Fact]
    public void Eight_of_ten_in_one_of_two_like_periods_comes_by_chance_eleven_times_in_a_hundred()
    {
        // The sign test: 2 × (45 + 10 + 1) ÷ 1,024 = 0.109375 (printed in tables of the binomial distribution).
        var difference = RateDifference.Of(2, 28, 8, 28)!.Value;

        difference.Chance.ShouldBe(0.109375, 1e-9);
        difference.MoreTimes!.Value.ShouldBeGreaterThan(1);
    }

    [Fact]
    public void A_difference_that_chance_hardly_makes_needs_no_more_time()
    {
        var difference = RateDifference.Of(30, 100, 70, 100)!.Value;

        difference.Chance.ShouldBeLessThan(0.001);
        difference.MoreTimes.ShouldBeNull();
    }

    [Theory]
    [InlineData(0, 0, 28, 28)]
    [InlineData(3, 3, 0, 28)]
    public void Nothing_to_compare_is_none(int before, int now, double exposureBefore, double exposureNow) =>
        RateDifference.Of(before, exposureBefore, now, exposureNow).ShouldBeNull();

    [Fact]
    public void Rounded_effects_add_up_to_the_rounded_change() =>
        Gen.Int[-100_000, 100_000]
            .Array[1, 6]
            .Sample(drawn =>
            {
                double[] effects = [.. drawn.Select(each => each / 7_919d)];
                var change = Math.Round((decimal)effects.Sum(), 2);

                var rounded = RoundedEffects.Of(effects, change, 0.01m);

                rounded.Sum().ShouldBe(change);
                rounded.Zip(effects).ShouldAllBe(pair => Math.Abs(pair.First - (decimal)pair.Second) < 0.0101m);
            });

    [Theory]
    [InlineData(2, 8, "11 times in 100: it proves little yet. At this difference it would take about")]
    [InlineData(30, 70, "less than once in 1,000.")]
    [InlineData(10, 10, "a year more would not be enough")]
    public void Chance_is_told_in_words(int before, int now, string says) =>
        MovedWords.OfChance(RateDifference.Of(before, 28, now, 28), 28)!.ShouldContain(says);

    [Fact]
    public void An_item_says_what_it_did()
    {
        var (before, now) = (Brought(1_000, 100, 80, 5), Brought(1_000, 100, 80, 10));
        var moved = MovedReport.Of(MovedFigure.CostPerConversion, [Item("Tuning", before, now)])!;

        MovedWords
            .OfItem(moved.Items[0], moved.Figure, before, now, Fendrik.Core.Accounts.Currency.Of("GBP"))
            .ShouldBe("conversion rate was 5.0%, is 10.0%");
    }
}
