using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Reporting.Moved;

/// <summary>
/// How far chance explains that conversions came at another rate: given all of them, how many fall in one period follows a binomial distribution when the
/// rate is the same. Przyborowski and Wilenski, "Homogeneity of results in testing samples from Poisson series", Biometrika 31, 1940.
/// </summary>
/// <param name="Chance">How likely a difference as large or larger is by chance, to either side: 0 to 1.</param>
/// <param name="MoreTimes">How many times as long one would have to wait at this difference to be sure nineteen times in twenty; none where one is.</param>
public readonly record struct RateDifference(double Chance, double? MoreTimes)
{
    /// <summary>Nineteen times in twenty, the usual measure.</summary>
    public const double Sure = 0.05;

    /// <summary>Compares two rates.</summary>
    /// <param name="before">Conversions before.</param>
    /// <param name="exposureBefore">What they came from before: what was spent, or days.</param>
    /// <param name="now">Conversions now.</param>
    /// <param name="exposureNow">What they come from now.</param>
    /// <returns>None where there is nothing to compare.</returns>
    public static RateDifference? Of(decimal before, double exposureBefore, decimal now, double exposureNow)
    {
        // Conversions can be parts of one; chance counts whole ones.
        var (countBefore, countNow) = ((int)Math.Round(before), (int)Math.Round(now));
        var all = countBefore + countNow;
        if (all == 0 || exposureBefore <= 0 || exposureNow <= 0)
        {
            return null;
        }

        var share = exposureNow / (exposureBefore + exposureNow);
        var below = Binomial.CDF(share, all, countNow);
        var above = countNow == 0 ? 1 : 1 - Binomial.CDF(share, all, countNow - 1);
        var chance = Math.Min(1, 2 * Math.Min(below, above));
        if (chance <= Sure)
        {
            return new RateDifference(chance, null);
        }

        var deviation = Math.Abs(countNow - all * share) / Math.Sqrt(all * share * (1 - share));
        var needed = Normal.InvCDF(0, 1, 1 - Sure / 2);
        return new RateDifference(chance, deviation == 0 ? double.PositiveInfinity : Math.Pow(needed / deviation, 2));
    }
}
