using CsCheck;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Reporting;

public class AdComparisonTests
{
    /// <summary>Newcombe, Statistics in Medicine 17, 1998, pages 857–872, table I: 81 of 263, method 3.</summary>
    [Fact]
    public void A_share_lies_where_the_published_example_says()
    {
        var interval = new CountedShare(81, 263).Interval;

        interval.Low.ShouldBe(0.2553, 0.00005);
        interval.High.ShouldBe(0.3662, 0.00005);
    }

    /// <summary>The same, pages 873–890, table II: 56 of 70 against 48 of 80, method 10.</summary>
    [Fact]
    public void A_difference_lies_where_the_published_example_says()
    {
        var difference = new CountedShare(56, 70).Minus(new CountedShare(48, 80));

        difference.Low.ShouldBe(0.0524, 0.00005);
        difference.High.ShouldBe(0.3339, 0.00005);
    }

    private static AdToCompare Ad(
        long id,
        long impressions,
        long clicks,
        decimal conversions = 0,
        double weekly = 500
    ) => new(id, new Figures(impressions, clicks, 10, conversions, 0), weekly);

    [Fact]
    public void A_difference_that_is_sure_makes_the_other_worse()
    {
        var compared = AdComparison.Compare([Ad(18, 4702, 257), Ad(19, 4710, 330)], AdMeasure.Clicks);

        compared.Select(ad => (ad.AdId, ad.Standing)).ShouldBe([(19, AdStanding.Best), (18, AdStanding.Worse)]);
        compared[1].ToBest!.Low.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void One_that_is_not_sure_says_about_how_many_weeks_more()
    {
        // 6 % against 5 %: each needs z²(0.06 × 0.94 + 0.05 × 0.95) ÷ 0.01² = 3,991; it has 1,000 and shows 500 times a week.
        var compared = AdComparison.Compare([Ad(1, 1000, 60), Ad(2, 1000, 50)], AdMeasure.Clicks);

        (compared[1].Standing, compared[1].Weeks).ShouldBe((AdStanding.Open, 6));
    }

    [Fact]
    public void Ads_that_a_year_would_not_tell_apart_are_alike() =>
        AdComparison
            .Compare([Ad(1, 100_000, 5_010), Ad(2, 100_000, 5_000)], AdMeasure.Clicks)[1]
            .Standing.ShouldBe(AdStanding.Alike);

    [Fact]
    public void The_one_with_more_clicks_may_be_worse_by_conversions() =>
        AdComparison
            .Compare([Ad(1, 5000, 400, 10), Ad(2, 5000, 300, 40)], AdMeasure.Conversions)
            .Select(ad => (ad.AdId, ad.Standing))
            .ShouldBe([(2, AdStanding.Best), (1, AdStanding.Worse)]);

    [Fact]
    public void One_ad_alone_is_compared_with_nothing() =>
        AdComparison.Compare([Ad(1, 5000, 400), Ad(2, 0, 0)], AdMeasure.Clicks).ShouldBeEmpty();

    [Fact]
    public void An_interval_holds_its_share_and_turns_with_the_order() =>
        Gen.Select(Gen.Int[1, 100_000], Gen.Double[0, 1], Gen.Int[1, 100_000], Gen.Double[0, 1])
            .Sample(
                (of, share, otherOf, otherShare) =>
                {
                    var one = new CountedShare(Math.Floor(of * share), of);
                    var other = new CountedShare(Math.Floor(otherOf * otherShare), otherOf);
                    one.Interval.Holds(one.Share).ShouldBeTrue();
                    var (there, back) = (one.Minus(other), other.Minus(one));
                    there.Holds(one.Share - other.Share).ShouldBeTrue();
                    there.Low.ShouldBe(-back.High, 1e-12);
                }
            );
}
