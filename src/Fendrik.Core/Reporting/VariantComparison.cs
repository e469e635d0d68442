namespace Fendrik.Core.Reporting;

/// <summary>Two variants in one ad group, over the days and devices on which both showed.</summary>
/// <param name="One">What the one brought.</param>
/// <param name="Other">What the other brought.</param>
public sealed record VariantsInGroup(Figures One, Figures Other);

/// <summary>Which of two variants is better.</summary>
public enum VariantVerdict
{
    /// <summary>The one surely is.</summary>
    OneIsBetter = 1,

    /// <summary>The other surely is.</summary>
    OtherIsBetter = 2,

    /// <summary>It is not sure yet; time will tell.</summary>
    Open = 3,

    /// <summary>If there is a difference it is so small that a year would not show it.</summary>
    Alike = 4,
}

/// <summary>Two variants against one another, over all ad groups that have both.</summary>
/// <param name="AdGroups">How many these are.</param>
/// <param name="One">What the one brought in all.</param>
/// <param name="Other">What the other brought in all.</param>
/// <param name="OneShare">The one’s share of all: what people compare first, and what differences between ad groups mislead.</param>
/// <param name="OtherShare">The other’s.</param>
/// <param name="Lead">By how much the one’s share is above the other’s within ad groups, on average.</param>
/// <param name="Interval">Where that may well lie, 95 times of a hundred.</param>
/// <param name="Verdict">Which is better.</param>
/// <param name="Weeks">About how many weeks more until it is sure, if the difference stays; none where that is no question.</param>
public sealed record ComparedVariants(
    int AdGroups,
    Figures One,
    Figures Other,
    double OneShare,
    double OtherShare,
    double Lead,
    ShareInterval Interval,
    VariantVerdict Verdict,
    int? Weeks
);

/// <summary>
/// Compares two variants of a pattern over many small ad groups, none of which has traffic enough by itself. Ad groups differ far more from
/// one another than variants do, so each is compared within itself and the differences are put together.
/// </summary>
/// <remarks>
/// The Mantel–Haenszel estimate of a common difference of proportions and its variance for sparse strata: Greenland and Robins, “Estimation of
/// a common effect parameter from sparse follow-up data”, Biometrics 41, 1985, pages 55–68.
/// </remarks>
public static class VariantComparison
{
    private const int WeeksOfYear = 52;

    /// <summary>Compares them.</summary>
    /// <param name="groups">Ad groups with both; those in which one did not show tell nothing.</param>
    /// <param name="measure">By what.</param>
    /// <param name="weeklyImpressions">Times that both together show in a week now.</param>
    /// <returns>None when no ad group tells anything.</returns>
    public static ComparedVariants? Compare(
        IEnumerable<VariantsInGroup> groups,
        AdMeasure measure,
        double weeklyImpressions
    )
    {
        VariantsInGroup[] telling =
        [
            .. groups.Where(group => group.One.Impressions > 0 && group.Other.Impressions > 0),
        ];
        if (telling.Length == 0)
        {
            return null;
        }

        var (weights, differences, variances) = (0.0, 0.0, 0.0);
        foreach (var group in telling)
        {
            var (one, other) = (AdComparison.ShareOf(group.One, measure), AdComparison.ShareOf(group.Other, measure));
            var all = one.Of + other.Of;
            weights += one.Of * other.Of / all;
            differences += ((one.Count * other.Of) - (other.Count * one.Of)) / all;
            variances +=
                (
                    (one.Count * (one.Of - one.Count) * Math.Pow(other.Of, 3))
                    + (other.Count * (other.Of - other.Count) * Math.Pow(one.Of, 3))
                ) / (one.Of * other.Of * all * all);
        }

        var lead = differences / weights;
        var reach = CountedShare.Sure * Math.Sqrt(variances) / weights;
        var (ones, others) = (Sum(telling.Select(group => group.One)), Sum(telling.Select(group => group.Other)));
        // Without a single click on either side the variance says nothing.
        var known = reach > 0;
        var verdict =
            known && lead - reach > 0 ? VariantVerdict.OneIsBetter
            : known && lead + reach < 0 ? VariantVerdict.OtherIsBetter
            : VariantVerdict.Open;
        var weeks =
            verdict == VariantVerdict.Open && lead != 0 && weeklyImpressions > 0
                ? (Math.Pow(reach / lead, 2) - 1) * (ones.Impressions + others.Impressions) / weeklyImpressions
                : (double?)null;
        return new ComparedVariants(
            telling.Length,
            ones,
            others,
            AdComparison.ShareOf(ones, measure).Share,
            AdComparison.ShareOf(others, measure).Share,
            lead,
            new ShareInterval(lead - reach, lead + reach),
            verdict == VariantVerdict.Open && weeks is null or > WeeksOfYear ? VariantVerdict.Alike : verdict,
            weeks is { } more and <= WeeksOfYear ? Math.Max(1, (int)Math.Ceiling(more)) : null
        );
    }

    private static Figures Sum(IEnumerable<Figures> figures) =>
        figures.Aggregate(
            new Figures(0, 0, 0, 0, 0),
            (sum, each) =>
                new Figures(
                    sum.Impressions + each.Impressions,
                    sum.Clicks + each.Clicks,
                    sum.Cost + each.Cost,
                    sum.Conversions + each.Conversions,
                    sum.Value + each.Value
                )
        );
}
