namespace Fendrik.Core.Reporting;

/// <summary>By what ads are compared.</summary>
public enum AdMeasure
{
    /// <summary>Clicks by impressions.</summary>
    Clicks = 1,

    /// <summary>Conversions by impressions: what the client is after, and what needs the most data.</summary>
    Conversions = 2,
}

/// <summary>How an ad stands against the best of its ad group.</summary>
public enum AdStanding
{
    /// <summary>It is the best so far.</summary>
    Best = 1,

    /// <summary>It is surely worse.</summary>
    Worse = 2,

    /// <summary>It may be worse; time will tell.</summary>
    Open = 3,

    /// <summary>If there is a difference it is so small that a year would not show it.</summary>
    Alike = 4,
}

/// <summary>What an ad brought, over the days and devices that it shares with the others.</summary>
/// <param name="AdId">The ad.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="WeeklyImpressions">Times that it shows in a week now.</param>
public sealed record AdToCompare(long AdId, Figures Figures, double WeeklyImpressions);

/// <summary>An ad against the best of its ad group.</summary>
/// <param name="AdId">The ad.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="Share">What it is compared by.</param>
/// <param name="Interval">Where that may well lie.</param>
/// <param name="Standing">How it stands.</param>
/// <param name="ToBest">Where the best’s lead may well lie; none for the best.</param>
/// <param name="Weeks">About how many weeks more until it is sure, if the difference stays; none where that is no question.</param>
public sealed record ComparedAd(
    long AdId,
    Figures Figures,
    double Share,
    ShareInterval Interval,
    AdStanding Standing,
    ShareInterval? ToBest,
    int? Weeks
);

/// <summary>Compares the ads of an ad group, and says how sure a difference is.</summary>
public static class AdComparison
{
    private const int WeeksOfYear = 52;

    /// <summary>Compares ads that had the same chances, the best first.</summary>
    /// <param name="ads">The ads.</param>
    /// <param name="measure">By what.</param>
    /// <returns>Nothing when there are fewer than two that showed.</returns>
    public static IReadOnlyList<ComparedAd> Compare(IEnumerable<AdToCompare> ads, AdMeasure measure)
    {
        var shown = ads.Where(ad => ad.Figures.Impressions > 0)
            .Select(ad => (Ad: ad, Share: ShareOf(ad.Figures, measure)))
            .OrderByDescending(each => each.Share.Share)
            .ThenByDescending(each => each.Share.Of)
            .ThenBy(each => each.Ad.AdId)
            .ToArray();
        if (shown.Length < 2)
        {
            return [];
        }

        var best = shown[0];
        return
        [
            .. shown.Select(
                (each, place) =>
                    place == 0 ? Best(best.Ad, best.Share) : Against(best.Ad, best.Share, each.Ad, each.Share)
            ),
        ];
    }

    /// <summary>What figures are compared by.</summary>
    internal static CountedShare ShareOf(Figures figures, AdMeasure measure) =>
        new(
            measure switch
            {
                AdMeasure.Clicks => figures.Clicks,
                // One impression has at most one, as far as it is a share.
                AdMeasure.Conversions => Math.Min((double)figures.Conversions, figures.Impressions),
            },
            figures.Impressions
        );

    private static ComparedAd Best(AdToCompare ad, CountedShare share) =>
        new(ad.AdId, ad.Figures, share.Share, share.Interval, AdStanding.Best, null, null);

    private static ComparedAd Against(AdToCompare best, CountedShare bests, AdToCompare ad, CountedShare share)
    {
        var lead = bests.Minus(share);
        var weeks = lead.Low > 0 ? null : WeeksUntil(best, bests, ad, share);
        return new ComparedAd(
            ad.AdId,
            ad.Figures,
            share.Share,
            share.Interval,
            lead.Low > 0 ? AdStanding.Worse
                : weeks is null ? AdStanding.Alike
                : AdStanding.Open,
            lead,
            weeks
        );
    }

    /// <summary>The slower of the two decides; none when it would take longer than a year, or nothing shows any more.</summary>
    private static int? WeeksUntil(AdToCompare best, CountedShare bests, AdToCompare ad, CountedShare share)
    {
        if (bests.NeededAgainst(share) is not { } needed)
        {
            return null;
        }

        var weeks = new[] { best, ad }.Max(each =>
            each.WeeklyImpressions > 0
                ? (needed - each.Figures.Impressions) / each.WeeklyImpressions
                : double.PositiveInfinity
        );
        return weeks <= WeeksOfYear ? Math.Max(1, (int)Math.Ceiling(weeks)) : null;
    }
}
