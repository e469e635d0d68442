namespace Fendrik.Core.Reporting;

/// <summary>
/// How one stood in the searches that one's keywords could answer. Counts add up; shares are of the sums.
/// </summary>
/// <param name="Impressions">Times shown.</param>
/// <param name="Top">Times shown above the results.</param>
/// <param name="First">Times shown first of all.</param>
/// <param name="Places">Sum of the places, each from 1.</param>
/// <param name="LostToRank">Searches in which bid × quality won no place.</param>
/// <param name="LostToBudget">Searches that the daily budget did not reach for.</param>
public sealed record Standing(long Impressions, long Top, long First, long Places, long LostToRank, long LostToBudget)
{
    /// <summary>No search.</summary>
    public static Standing Zero { get; } = new(0, 0, 0, 0, 0, 0);

    /// <summary>Impressions ÷ searches that could have brought one, as a share; none without such searches.</summary>
    public decimal? ImpressionShare => Ratio(Impressions, Searches);

    /// <summary>Share of these searches that was lost to rank.</summary>
    public decimal? RankLossShare => Ratio(LostToRank, Searches);

    /// <summary>Share of these searches that was lost to the budget. The three shares add up to 1.</summary>
    public decimal? BudgetLossShare => Ratio(LostToBudget, Searches);

    /// <summary>Share of impressions above the results.</summary>
    public decimal? TopShare => Ratio(Top, Impressions);

    /// <summary>Share of impressions that came first of all.</summary>
    public decimal? FirstShare => Ratio(First, Impressions);

    /// <summary>Average place, from 1; none without impressions.</summary>
    public decimal? AveragePlace => Ratio(Places, Impressions);

    /// <summary>Searches that the keywords could have answered.</summary>
    public long Searches => Impressions + LostToRank + LostToBudget;

    /// <summary>Adds two.</summary>
    public static Standing operator +(Standing left, Standing right) =>
        new(
            left.Impressions + right.Impressions,
            left.Top + right.Top,
            left.First + right.First,
            left.Places + right.Places,
            left.LostToRank + right.LostToRank,
            left.LostToBudget + right.LostToBudget
        );

    /// <summary>Adds two.</summary>
    public static Standing Add(Standing left, Standing right) => left + right;

    private static decimal? Ratio(decimal above, decimal below) => below == 0 ? null : above / below;
}
