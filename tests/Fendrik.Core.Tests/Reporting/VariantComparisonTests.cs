using CsCheck;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Reporting;

public class VariantComparisonTests
{
    private static VariantsInGroup Group(long clicks, long of, long otherClicks, long otherOf) =>
        new(new Figures(of, clicks, 0, 0, 0), new Figures(otherOf, otherClicks, 0, 0, 0));

    private static ComparedVariants Compared(params VariantsInGroup[] groups) =>
        VariantComparison.Compare(groups, AdMeasure.Clicks, 1_000)!;

    /// <summary>
    /// One stratum is two proportions, and the estimate of Mantel and Haenszel their plain difference: 56/70 against 48/80 (the figures of
    /// Newcombe, Statistics in Medicine 17, 1998) is 0.2 with a standard error of √(0.8 × 0.2 / 70 + 0.6 × 0.4 / 80).
    /// </summary>
    [Fact]
    public void One_ad_group_is_the_difference_of_two_proportions()
    {
        var compared = Compared(Group(56, 70, 48, 80));

        compared.Lead.ShouldBe(0.2, 1e-12);
        compared.Interval.High.ShouldBe(0.2 + (CountedShare.Sure * Math.Sqrt((0.16 / 70) + (0.24 / 80))), 1e-12);
        compared.Verdict.ShouldBe(VariantVerdict.OneIsBetter);
    }

    /// <summary>
    /// Simpson's paradox with the figures of the kidney stones (Charig and others, British Medical Journal 292, 1986, quoted from memory): 81 of 87 and 192
    /// of 263 against 234 of 270 and 55 of 80. In all the other is ahead (273/350 against 289/350); within each group the one is.
    /// </summary>
    [Fact]
    public void Ad_groups_that_differ_do_not_turn_the_answer_round()
    {
        var compared = Compared(Group(81, 87, 234, 270), Group(192, 263, 55, 80));

        compared.OneShare.ShouldBeLessThan(compared.OtherShare);
        compared.Lead.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void An_ad_group_without_one_of_them_tells_nothing()
    {
        Compared(Group(5, 100, 2, 100), Group(50, 100, 0, 0)).AdGroups.ShouldBe(1);
        VariantComparison.Compare([Group(5, 100, 0, 0)], AdMeasure.Clicks, 1).ShouldBeNull();
    }

    [Fact]
    public void Many_small_ad_groups_are_sure_where_each_alone_is_not()
    {
        var small = Group(9, 60, 5, 60);

        Compared(small).Verdict.ShouldBe(VariantVerdict.Open);
        Compared([.. Enumerable.Repeat(small, 40)]).Verdict.ShouldBe(VariantVerdict.OneIsBetter);
    }

    [Fact]
    public void Turned_round_it_says_the_same_turned_round() =>
        Gen.Select(Gen.Long[0, 20], Gen.Long[20, 90], Gen.Long[0, 20], Gen.Long[20, 90])
            .Select((clicks, of, otherClicks, otherOf) => Group(clicks, of, otherClicks, otherOf))
            .Array[1, 6]
            .Sample(groups =>
            {
                var there = Compared(groups);
                var back = Compared([.. groups.Select(group => new VariantsInGroup(group.Other, group.One))]);
                back.Lead.ShouldBe(-there.Lead, 1e-9);
                (back.Verdict, back.Weeks).ShouldBe(
                    (
                        there.Verdict switch
                        {
                            VariantVerdict.OneIsBetter => VariantVerdict.OtherIsBetter,
                            VariantVerdict.OtherIsBetter => VariantVerdict.OneIsBetter,
                            VariantVerdict.Open => VariantVerdict.Open,
                            VariantVerdict.Alike => VariantVerdict.Alike,
                        },
                        there.Weeks
                    )
                );
            });

    /// <summary>By hand: the interval shrinks with the root of the data, so a lead of half of it needs four times as much.</summary>
    [Fact]
    public void It_says_how_long_to_wait_when_the_lead_stays()
    {
        var compared = Compared(Group(20, 200, 15, 200));
        var reach = compared.Interval.High - compared.Lead;

        compared.Weeks.ShouldBe((int)Math.Ceiling((Math.Pow(reach / compared.Lead, 2) - 1) * 400 / 1_000));
    }
}
