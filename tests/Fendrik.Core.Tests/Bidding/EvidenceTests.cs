using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Bidding;

public class EvidenceTests
{
    private static readonly Segment Phones = new(SegmentKind.Device, (int)Device.Phone);
    private static readonly Segment Evening = new(SegmentKind.Hours, 5);

    private static SegmentFigures Cell(Device device, int block, decimal cost, decimal conversions, int site = 1) =>
        new((int)device, block, site, new Figures(1_000, 100, cost, conversions, 0));

    private static EvidenceReport Weigh(decimal? target, params SegmentFigures[] cells) =>
        ModifierEvidence.Weigh(cells, target, _ => 0, 700, new TradeRule());

    private static SegmentEvidence In(EvidenceReport report, Segment segment) =>
        report.Segments.Single(each => each.Segment == segment);

    /// <summary>
    /// Exact limits of a Poisson mean are quantiles of a gamma distribution (Garwood, Biometrika 28, 1936): for 0, 4 and 10 events the
    /// limits of 90% are 0 to 3.00, 1.37 to 9.15 and 5.43 to 16.96; the table quoted from memory. With shape n + 1 the gamma distribution
    /// gives the upper limit, with shape n the lower one.
    /// </summary>
    [Theory]
    [InlineData(0, null, 3.00)]
    [InlineData(4, 1.37, 9.15)]
    [InlineData(10, 5.43, 16.96)]
    public void The_interval_is_made_of_quantiles_that_printed_tables_have(int events, double? lower, double upper)
    {
        // Rate 1: what is expected and what every segment is taken to have seen make one together.
        double Quantile(double shape, bool high)
        {
            var factor = new SegmentFactor(shape - SegmentFactor.Prior, 1 - SegmentFactor.Prior);
            return high ? factor.Interval.High : factor.Interval.Low;
        }

        Quantile(events + 1, true).ShouldBe(upper, 0.01);
        if (lower is { } low)
        {
            Quantile(events, false).ShouldBe(low, 0.01);
        }
    }

    [Fact]
    public void A_segment_without_figures_of_its_own_is_as_the_whole() => new SegmentFactor(0, 0).Mean.ShouldBe(1);

    [Fact]
    public void Much_evidence_is_hardly_drawn_towards_the_whole_and_little_is_wholly() =>
        (new SegmentFactor(500, 250).Mean, new SegmentFactor(1, 0.5).Mean).ShouldBe((504 / 254.0, 5 / 4.5));

    [Fact]
    public void Nothing_is_proposed_on_noise()
    {
        // 9 conversions where 7 were to be expected.
        var report = Weigh(null, Cell(Device.Phone, 2, 70, 9), Cell(Device.Desktop, 2, 70, 5));

        In(report, Phones).Proposed.ShouldBeNull();
        In(report, Phones).Verdict.ShouldBe(SegmentVerdict.NotYet);
        In(report, Phones).MoreCost.ShouldNotBeNull().ShouldBeGreaterThan(0);
    }

    [Fact]
    public void The_evidence_that_is_missing_is_enough_when_it_comes_and_not_before()
    {
        var little = new SegmentFactor(9, 7);
        var times = little.TimesUntilSure(1, 40).ShouldNotBeNull();

        little.Times(times).IsSurelyNot(1).ShouldBeTrue();
        little.Times(0.97 * times).IsSurelyNot(1).ShouldBeFalse();
        new SegmentFactor(7.1, 7).TimesUntilSure(1, 40).ShouldBeNull();
    }

    [Fact]
    public void A_segment_that_surely_is_cheaper_gets_the_modifier_that_makes_it_as_dear_as_the_whole()
    {
        var report = Weigh(null, Cell(Device.Phone, 2, 500, 25), Cell(Device.Desktop, 2, 500, 75));
        var desktops = In(report, new Segment(SegmentKind.Device, (int)Device.Desktop));

        report.UsualCost.ShouldBe(10);
        // (75 + 4) ÷ (50 + 4) = 1.46, drawn towards the whole from 1.5; the rest of it is in what overlaps, which has no say here.
        desktops.Proposed.ShouldNotBeNull().ShouldBe(46m, 1m);
        desktops.Unshrunk.ShouldBe(50);
        desktops.LikelyCost!.Value.ShouldBeInRange(desktops.LowCost!.Value, desktops.HighCost!.Value);
    }

    [Fact]
    public void What_was_set_on_evidence_is_not_proposed_again_on_the_same_evidence()
    {
        var cells = new[] { Cell(Device.Phone, 2, 500, 25), Cell(Device.Desktop, 2, 500, 75) };
        var proposed = In(Weigh(null, cells), Phones).Proposed.ShouldNotBeNull();

        var then = ModifierEvidence.Weigh(
            cells,
            null,
            segment => segment == Phones ? proposed : 0,
            700,
            new TradeRule()
        );

        (In(then, Phones).Verdict, In(then, Phones).Proposed).ShouldBe((SegmentVerdict.AsItIs, null));
        In(then, Phones).LikelyCost!.Value.ShouldBe(10, 0.1m);
    }

    [Fact]
    public void Figures_that_were_made_under_a_modifier_are_weighed_as_without_it()
    {
        // Phones at half the bid cost half as much; what a click is worth there did not change with it.
        var without = Weigh(null, Cell(Device.Phone, 2, 500, 25), Cell(Device.Desktop, 2, 500, 75));
        var under = Weigh(
            null,
            Cell(Device.Phone, 2, 250, 25) with
            {
                Multiplier = 0.5m,
            },
            Cell(Device.Desktop, 2, 500, 75)
        );

        In(under, Phones).Proposed.ShouldBe(In(without, Phones).Proposed);
        under.UsualCost.ShouldBe(without.UsualCost);
    }

    [Fact]
    public void Phones_in_the_evening_are_not_blamed_twice()
    {
        // In the evening nobody buys, on whatever device; phones are used mostly then.
        var report = Weigh(
            null,
            Cell(Device.Phone, 2, 100, 20),
            Cell(Device.Phone, 5, 900, 36),
            Cell(Device.Desktop, 2, 900, 180),
            Cell(Device.Desktop, 5, 100, 4)
        );

        // Taken alone a conversion on a phone costs 17.86, twice the 8.33 of the whole; by hours there is no difference between devices.
        In(report, Phones).Figures.CostPerConversion!.Value.ShouldBe(17.86m, 0.01m);
        In(report, Phones).Proposed.ShouldBeNull();
        In(report, Phones).LikelyCost!.Value.ShouldBe(report.UsualCost!.Value, 1);
        In(report, Evening).Verdict.ShouldBe(SegmentVerdict.Sure);
        In(report, Evening).Proposed.ShouldNotBeNull().ShouldBeLessThan(-50);
    }

    [Fact]
    public void Before_the_first_conversion_the_target_is_the_yardstick()
    {
        var report = Weigh(20, Cell(Device.Phone, 2, 150, 0), Cell(Device.Desktop, 2, 150, 0));

        (report.UsualCost, report.IsTarget).ShouldBe((20, true));
        In(report, Phones).Times.ShouldBe(7.5m);
        In(report, Phones).TradeProposed.ShouldBe(-100);
        ModifierEvidence
            .Weigh([Cell(Device.Phone, 2, 150, 0)], 20, _ => -100, 700, new TradeRule())
            .Segments.ShouldAllBe(each => each.TradeProposed == null);
    }

    [Fact]
    public void With_neither_conversions_nor_a_target_the_share_of_the_cost_is_said_and_nothing_proposed()
    {
        // Of £300 spent, £150 in one place without a sale.
        var report = Weigh(null, Cell(Device.Phone, 2, 150, 0), Cell(Device.Desktop, 2, 150, 0));

        report.UsualCost.ShouldBeNull();
        report.Segments.ShouldAllBe(each => each.Proposed == null && each.TradeProposed == null);
        In(report, Phones).Verdict.ShouldBe(SegmentVerdict.NoYardstick);
        EvidenceWords.Short(In(report, Phones), Currency.Of("GBP")).ShouldBe("50% of the cost");
        // Cut by half, by 90% or stop, as the person decides (common practice, no source).
        EvidenceWords.CutsFor(In(report, Phones)).ShouldBe([-50, -90, -100]);
    }

    [Theory]
    [InlineData(2.4, null)]
    [InlineData(2.5, -50)]
    [InlineData(4, -90)]
    [InlineData(6, -100)]
    public void The_rule_of_the_trade_cuts_by_how_many_times_the_usual_cost_was_spent(double times, int? cut) =>
        // Common practice, no source; from how many times on is Fendrik's own.
        new TradeRule()
            .CutAt((decimal)times)
            .ShouldBe(cut);

    [Fact]
    public void Cuts_of_the_trade_come_one_after_the_other() => new TradeRule(5, 4, 6).Problem.ShouldNotBeNull();

    [Fact]
    public void Each_hour_of_the_week_is_in_one_block()
    {
        foreach (var day in Enum.GetValues<DayOfWeek>())
        {
            for (var hour = 0; hour < 24; hour++)
            {
                HourBlock
                    .All.Count(block => block.Days.Contains(day) && block.From <= hour && hour < block.To)
                    .ShouldBe(1);
                HourBlock.Of(day, hour).Days.ShouldContain(day);
            }
        }
    }

    private static readonly Gen<SegmentFigures> AnyCell = Gen.Select(
        Gen.Int[1, 3],
        Gen.Int[0, 13],
        Gen.Int[0, 2],
        Gen.Int[0, 100_000],
        Gen.Int[0, 400],
        (device, block, site, pence, tenths) =>
            new SegmentFigures(device, block, 1 << site, new Figures(10, 1, pence / 100m, tenths / 10m, 0))
    );

    [Fact]
    public void Whatever_was_spent_modifiers_stay_within_their_bounds_and_no_bid_is_raised_where_nothing_came_of_it() =>
        Gen.Select(AnyCell.Array[1, 30], Gen.OneOfConst<decimal?>(null, 7.5m))
            .Sample(
                (cells, target) =>
                {
                    var report = Weigh(target, cells);
                    foreach (var each in report.Segments)
                    {
                        (each.Proposed ?? 0).ShouldBeInRange(-100, 700);
                        if (each.Figures is { Conversions: 0, Cost: > 0 })
                        {
                            (each.Proposed ?? 0).ShouldBeLessThanOrEqualTo(0);
                        }

                        EvidenceWords.Why(each, report.UsualCost, Currency.Of("JPY")).ShouldNotBeEmpty();
                    }
                }
            );

    [Fact]
    public void Segments_that_are_counted_are_those_that_a_modifier_is_proposed_for() =>
        AnyCell
            .Array[1, 30]
            .Sample(cells =>
                ModifierEvidence
                    .CountSure(cells, [SegmentKind.Device, SegmentKind.Hours], _ => 0, 700)
                    .ShouldBe(
                        Weigh(null, cells)
                            .Segments.Count(each => each is { Proposed: not null, Segment.Kind: not SegmentKind.Site })
                    )
            );

    [Fact]
    public void A_segment_is_surely_otherwise_just_when_its_interval_does_not_hold_the_value() =>
        Gen.Select(Gen.Double[0, 200], Gen.Double[0.01, 200], Gen.Double[0.05, 5])
            .Sample(
                (counted, expected, value) =>
                {
                    var factor = new SegmentFactor(counted, expected);
                    var (low, high) = factor.Interval;
                    if (Math.Min(Math.Abs(low - value), Math.Abs(high - value)) > 1e-6)
                    {
                        factor.IsSurelyNot(value).ShouldBe(value < low || value > high);
                    }
                }
            );

    [Fact]
    public void A_place_is_weighed_against_the_whole_by_its_cost_without_the_modifier_it_had()
    {
        var whole = new EvidenceReport(new Figures(1_000, 100, 100, 20, 0), 5, false, []);

        // £40 were spent for 16 at +100%: £20 at bids without it, for which 4 were to be expected.
        var (name, leeds) = ModifierEvidence.WeighApart(
            SegmentKind.Place,
            [
                new PartFigures("leeds", new Figures(100, 20, 20, 8, 0), 2),
                new PartFigures("leeds", new Figures(100, 20, 20, 8, 0), 2),
                new PartFigures("york", new Figures(100, 20, 10, 2, 0)),
            ],
            whole,
            name => name == "leeds" ? 100 : 0,
            700,
            new TradeRule()
        )[0];

        name.ShouldBe("leeds");
        leeds.Figures.Cost.ShouldBe(40);
        leeds.Unshrunk.ShouldBe(300);
        // (16 + 4) ÷ (4 + 4) is 2.5 times the whole, against the 2 that hold.
        leeds.Drawn.ShouldBe(0.5m);
        leeds.LikelyCost!.Value.ShouldBe(5 * 2 / 2.5m, 0.01m);
    }

    [Fact]
    public void The_highest_bid_takes_the_best_place_and_all_good_audiences_and_the_lowest_what_is_worst()
    {
        (string, decimal)[] devices = [("desktop", 0), ("phone", -26)];
        (string, decimal)[] places = [("Leeds", 35), ("York", 0), ("Hull", -100)];
        (string, decimal)[] audiences = [("parents", 20), ("musicians", 10), ("visitors", -30)];

        BidRange
            .Extremes(devices, null, places, audiences, highest: true)
            .ShouldBe([("Leeds", 35), ("parents", 20), ("musicians", 10)]);
        BidRange
            .Extremes(devices, null, places, audiences, highest: false)
            .ShouldBe([("phone", -26), ("visitors", -30)]);
    }
}
