namespace Fendrik.Core.Reporting;

/// <summary>What was counted, and what follows from it. Figures of several rows add up; ratios are of the sums.</summary>
/// <param name="Impressions">Times an ad was shown.</param>
/// <param name="Clicks">Times it was clicked.</param>
/// <param name="Cost">What the clicks cost, in the account's currency.</param>
/// <param name="Conversions">Conversions that followed.</param>
/// <param name="Value">Their value, in the account's currency.</param>
public sealed record Figures(long Impressions, long Clicks, decimal Cost, decimal Conversions, decimal Value)
{
    /// <summary>Nothing counted.</summary>
    public static Figures Zero { get; } = new(0, 0, 0, 0, 0);

    /// <summary>Clicks ÷ impressions, as a share; none without impressions.</summary>
    public decimal? ClickThroughRate => Ratio(Clicks, Impressions);

    /// <summary>Cost ÷ clicks; none without clicks.</summary>
    public decimal? AverageCpc => Ratio(Cost, Clicks);

    /// <summary>Conversions ÷ clicks, as a share; none without clicks.</summary>
    public decimal? ConversionRate => Ratio(Conversions, Clicks);

    /// <summary>Cost ÷ conversions; none without conversions.</summary>
    public decimal? CostPerConversion => Ratio(Cost, Conversions);

    /// <summary>
    /// Value ÷ conversions: where values are what is left of a sale, the cost of a conversion at which nothing is won or lost. None without
    /// conversions.
    /// </summary>
    public decimal? BreakEven => Ratio(Value, Conversions);

    /// <summary>Value ÷ cost: 1 brings back what was spent. None without cost.</summary>
    public decimal? ReturnOnSpend => Ratio(Value, Cost);

    /// <summary>Adds two sets of figures.</summary>
    public static Figures operator +(Figures left, Figures right) =>
        new(
            left.Impressions + right.Impressions,
            left.Clicks + right.Clicks,
            left.Cost + right.Cost,
            left.Conversions + right.Conversions,
            left.Value + right.Value
        );

    /// <summary>Adds two sets of figures.</summary>
    public static Figures Add(Figures left, Figures right) => left + right;

    /// <summary>Change from an earlier figure to a later one as a share of the earlier; none when that is none or zero.</summary>
    public static decimal? Change(decimal? earlier, decimal? later) =>
        earlier is null or 0 || later is null ? null : (later - earlier) / earlier;

    private static decimal? Ratio(decimal above, decimal below) => below == 0 ? null : above / below;
}
