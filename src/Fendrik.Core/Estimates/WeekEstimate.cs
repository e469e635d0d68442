using Fendrik.Core.Reporting;

namespace Fendrik.Core.Estimates;

/// <summary>A figure with the range in which it lies, nine times in ten.</summary>
/// <param name="Low">The lowest.</param>
/// <param name="Likely">The likeliest.</param>
/// <param name="High">The highest.</param>
public readonly record struct EstimateRange(double Low, double Likely, double High)
{
    /// <summary>Standard deviations on each side of nine in ten of a normal distribution.</summary>
    private const double Sure = 1.645;

    /// <summary>A range by so many per cent up and down: what multiplies errs by factors.</summary>
    public static EstimateRange Of(double likely, double spread) =>
        new(likely * Math.Exp(-Sure * spread), likely, likely * Math.Exp(Sure * spread));

    /// <summary>Adds ranges whose errors have nothing to do with one another: squares add up.</summary>
    public static EstimateRange Sum(IEnumerable<EstimateRange> ranges)
    {
        double likely = 0,
            below = 0,
            above = 0;
        foreach (var each in ranges)
        {
            likely += each.Likely;
            below += (each.Likely - each.Low) * (each.Likely - each.Low);
            above += (each.High - each.Likely) * (each.High - each.Likely);
        }

        return new EstimateRange(Math.Max(0, likely - Math.Sqrt(below)), likely, likely + Math.Sqrt(above));
    }
}

/// <summary>What a usual week at a bid brings.</summary>
/// <param name="Bid">The bid, before modifiers.</param>
/// <param name="Impressions">Times shown.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Conversions">Conversions.</param>
public sealed record WeekEstimate(
    decimal Bid,
    EstimateRange Impressions,
    EstimateRange Clicks,
    EstimateRange Cost,
    EstimateRange Conversions
);

/// <summary>What is known of a keyword.</summary>
/// <param name="Bid">What it bids; none without a max CPC.</param>
/// <param name="Days">Days of the figures.</param>
/// <param name="Figures">What it brought in these.</param>
/// <param name="LostToRank">Searches in which it won no place.</param>
/// <param name="LostToBudget">Searches that its campaign's budget did not reach for.</param>
/// <param name="ConversionRate">Conversions for each of its clicks, drawn towards its ad group and campaign.</param>
public sealed record KeywordHistory(
    decimal? Bid,
    int Days,
    Figures Figures,
    long LostToRank,
    long LostToBudget,
    double ConversionRate
);

/// <summary>Fendrik's own estimate.</summary>
/// <param name="Reason">Why there is none; none where there is one.</param>
/// <param name="Weeks">A week at each bid, the lowest first.</param>
/// <param name="RestsOn">What it rests on, in sentences.</param>
public sealed record OwnEstimate(string? Reason, IReadOnlyList<WeekEstimate> Weeks, IReadOnlyList<string> RestsOn);
