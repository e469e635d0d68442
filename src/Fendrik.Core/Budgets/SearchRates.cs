using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Budgets;

/// <summary>What searches bring in which a campaign, or an ad group of it, takes part.</summary>
/// <param name="Clicks">Clicks of a search, whether its bid won a place or not.</param>
/// <param name="CostOfClick">What a click costs, in the account's currency.</param>
/// <param name="Conversions">Conversions of a click.</param>
public sealed record SearchRates(double Clicks, double CostOfClick, double Conversions)
{
    /// <summary>
    /// The rates of a whole as they were counted; none before its first click, when nothing can be said of searches that it missed.
    /// </summary>
    /// <param name="standing">How it stood.</param>
    /// <param name="figures">What came of it.</param>
    public static SearchRates? Of(Standing standing, Figures figures) =>
        figures.Clicks > 0 && Contested(standing) is > 0 and var searches
            ? new SearchRates(
                (double)figures.Clicks / searches,
                (double)figures.Cost / figures.Clicks,
                (double)figures.Conversions / figures.Clicks
            )
            : null;

    /// <summary>
    /// The rates of a part of this whole. Little is known of a small part: each rate is drawn towards that of the whole, as if the part
    /// had seen <see cref="SegmentFactor.Prior"/> clicks, and as many conversions, that came as they usually do.
    /// </summary>
    /// <param name="standing">How the part stood.</param>
    /// <param name="figures">What came of it.</param>
    /// <remarks>
    /// Counts by Poisson's distribution with a gamma distribution of their rate before anything is counted, the mean of which is that of the whole (Gelman et
    /// al., Bayesian Data Analysis, 2.6; quoted from memory).
    /// </remarks>
    public SearchRates OfPart(Standing standing, Figures figures) =>
        new(
            Drawn(figures.Clicks, Contested(standing), Clicks),
            ((double)figures.Cost + SegmentFactor.Prior * CostOfClick) / (figures.Clicks + SegmentFactor.Prior),
            Drawn((double)figures.Conversions, figures.Clicks, Conversions)
        );

    /// <summary>What so many searches bring.</summary>
    public Outcome Of(double searches) =>
        new(searches * Clicks, searches * Clicks * CostOfClick, searches * Clicks * Conversions);

    /// <summary>Searches in which a bid was held against others: those that the budget missed are not among them.</summary>
    private static long Contested(Standing standing) => standing.Impressions + standing.LostToRank;

    private static double Drawn(double counted, double of, double usual) =>
        usual > 0 ? (counted + SegmentFactor.Prior) / (of + SegmentFactor.Prior / usual)
        : of > 0 ? counted / of
        : 0;
}
