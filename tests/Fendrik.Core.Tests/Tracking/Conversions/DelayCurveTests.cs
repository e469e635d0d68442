using Fendrik.Core.Tracking.Conversions;
using Shouldly;
using Xunit;

namespace Fendrik.Core.Tests.Tracking.Conversions;

public sealed class DelayCurveTests
{
    /// <summary>
    /// Weeks in remission of the 21 patients on 6-MP in Freireich et al., Blood 21, 1963, the standard example of the product-limit
    /// estimate; a minus is a patient last seen then in remission. Data and estimates from memory.
    /// </summary>
    private static readonly int[] Remissions =
    [
        6,
        6,
        6,
        -6,
        7,
        -9,
        10,
        -10,
        -11,
        13,
        16,
        -17,
        -19,
        -20,
        22,
        23,
        -25,
        -32,
        -32,
        -34,
        -35,
    ];

    [Theory]
    [InlineData(5, 1)]
    [InlineData(6, 0.857)]
    [InlineData(7, 0.807)]
    [InlineData(10, 0.753)]
    [InlineData(13, 0.690)]
    [InlineData(16, 0.627)]
    [InlineData(22, 0.538)]
    [InlineData(23, 0.448)]
    [InlineData(35, 0.448)]
    public void Is_the_product_limit_estimate_of_the_standard_example(double weeks, double survives) =>
        Curve(Remissions).Survives(weeks).ShouldBe(survives, 0.0006);

    [Fact]
    public void Share_told_of_grows_to_all_at_the_last_conversion()
    {
        var curve = Curve(Remissions);

        curve.ToldBy(5).ShouldBe(0);
        curve.ToldBy(23).ShouldBe(1, 1e-12);
        curve.AgeOf(0.5).ShouldBe(13);
    }

    [Fact]
    public void Without_clicks_that_are_too_young_it_is_the_plain_share()
    {
        var curve = Curve([1, 1, 2, 4]);

        (curve.ToldBy(1), curve.ToldBy(3), curve.ToldBy(4)).ShouldBe((0.5, 0.75, 1));
    }

    [Fact]
    public void A_day_is_expected_to_come_to_what_is_told_by_the_share_that_is_told_by_its_age() =>
        Curve([1, 1, 2, 4]).Final(30, 2).ShouldBe(40);

    [Fact]
    public void A_day_of_which_nothing_can_be_told_yet_has_no_expected_figure() =>
        Curve([2, 3]).Final(0, 1).ShouldBeNull();

    [Fact]
    public void Clicks_that_are_too_young_are_not_taken_for_failures()
    {
        // Half of the clicks convert, all on their third day; a thousand more were made an hour ago.
        var old = new AgedClicks(3, 50, 0);
        var young = new DelayCurve([old, new AgedClicks(30, 0, 50), new AgedClicks(0.04, 0, 1_000)]);

        young.Survives(3).ShouldBe(0.5, 1e-12);
    }

    [Fact]
    public void Too_few_conversions_say_nothing()
    {
        Curve([1, 2, 3]).IsKnown.ShouldBeFalse();
        new DelayCurve([]).ToldBy(1).ShouldBe(1);
    }

    private static DelayCurve Curve(IEnumerable<int> weeks) =>
        new(weeks.Select(each => new AgedClicks(Math.Abs(each), each > 0 ? 1 : 0, each > 0 ? 0 : 1)));

    [Fact]
    public void Of_several_days_each_weighs_by_its_clicks()
    {
        // Ten of thirty conversions come on the first day, the others on the third.
        var curve = new DelayCurve([new AgedClicks(1, 10, 0), new AgedClicks(3, 20, 0), new AgedClicks(30, 0, 70)]);

        curve.ToldOf([(100, 30), (50, 2)]).ShouldBe((100 + 50 * curve.ToldBy(2)) / 150, 1e-9);
        curve.ToldBy(2).ShouldBe(1 / 3.0, 1e-9);
    }

    [Fact]
    public void Where_too_little_is_known_of_delays_nothing_is_said_to_be_missing() =>
        new DelayCurve([new AgedClicks(1, 3, 0), new AgedClicks(30, 0, 70)]).ToldOf([(10, 0.5)]).ShouldBe(1);
}
