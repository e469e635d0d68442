using Fendrik.Core.Bidding.Evidence;
using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>Where the true cost of a conversion lies, nine times in ten.</summary>
/// <param name="Low">The lowest.</param>
/// <param name="High">The highest; none where nothing was counted.</param>
public readonly record struct CostInterval(decimal Low, decimal? High)
{
    /// <summary>
    /// The interval from what was spent and counted: Garwood's limits for the mean of a Poisson count, through quantiles of the gamma
    /// distribution (Garwood, “Fiducial limits for the Poisson distribution”, Biometrika 28, 1936).
    /// </summary>
    /// <param name="cost">What was spent.</param>
    /// <param name="conversions">What was counted: at least 0.</param>
    public static CostInterval Of(decimal cost, decimal conversions)
    {
        var (low, high) = Counts((double)conversions);
        return new CostInterval(cost / (decimal)high, low > 0 ? cost / (decimal)low : null);
    }

    /// <summary>Where the mean of a count lies.</summary>
    public static (double Low, double High) Counts(double count) =>
        (
            count > 0 ? Gamma.InvCDF(count, 1, (1 - SegmentFactor.Sure) / 2) : 0,
            Gamma.InvCDF(count + 1, 1, (1 + SegmentFactor.Sure) / 2)
        );
}
