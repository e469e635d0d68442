using System.Globalization;

namespace Fendrik.Core.Estimates;

/// <summary>How estimates of the past compare with what happened.</summary>
/// <param name="Compared">How many could be compared.</param>
/// <param name="Times">How many times what was estimated mostly came: the median; 1 before anything is known.</param>
/// <param name="Spread">How far single ones are from that: the standard deviation of the logarithm, from the median deviation.</param>
public readonly record struct EstimateErrors(int Compared, double Times, double Spread)
{
    /// <summary>Fewer say nothing of others.</summary>
    public const int Least = 5;

    /// <summary>Estimates of next to nothing are not compared: nearly all of their error is chance.</summary>
    private const double LeastEstimate = 3;

    /// <summary>The median of absolute deviations × this is the standard deviation of a normal distribution (Hampel, JASA 69, 1974).</summary>
    private const double NormalMedian = 1.4826;

    /// <summary>Compares estimates with what came.</summary>
    /// <param name="pairs">What was estimated, and what came.</param>
    /// <param name="unknown">The spread that is taken where too few can be compared.</param>
    public static EstimateErrors Of(IEnumerable<(double Estimated, double Came)> pairs, double unknown)
    {
        double[] logs =
        [
            .. pairs
                .Where(pair => pair.Estimated >= LeastEstimate)
                // Half a one keeps what never came from being infinitely wrong.
                .Select(pair => Math.Log((pair.Came + 0.5) / (pair.Estimated + 0.5)))
                .Order(),
        ];
        if (logs.Length < Least)
        {
            return new EstimateErrors(logs.Length, 1, unknown);
        }

        var median = Median(logs);
        var deviation = Median([.. logs.Select(log => Math.Abs(log - median)).Order()]);
        return new EstimateErrors(logs.Length, Math.Exp(median), Math.Max(0.05, NormalMedian * deviation));
    }

    /// <summary>How many times what is estimated comes, nine times in ten.</summary>
    public EstimateRange Range => EstimateRange.Of(Times, Spread);

    /// <summary>How estimates of somebody turned out, in words.</summary>
    public string InWords(string who) =>
        IsKnown
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{who}: {Compared} estimates of clicks could be compared with the week that followed; mostly {Estimator.Against(Times)}, nine in ten between {Range.Low:P0} and {Range.High:P0} of what was said."
            )
            : $"{who}: {(Compared == 0 ? "no estimate" : $"{Compared} of the {Least} estimates")} could be compared with what happened yet. That takes a week from when the network was asked, at the same bid.";

    /// <summary>True when enough were compared to correct others by them.</summary>
    public bool IsKnown => Compared >= Least;

    private static double Median(double[] sorted) =>
        sorted.Length % 2 == 1
            ? sorted[sorted.Length / 2]
            : (sorted[sorted.Length / 2 - 1] + sorted[sorted.Length / 2]) / 2;
}
