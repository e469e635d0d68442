namespace Fendrik.Core.Reporting.Moved;

/// <summary>
/// Splits the change of a sum of products into its factors with no remainder: the additive LMDI-I method. Ang, "The LMDI approach to decomposition
/// analysis: a practical guide", Energy Policy 33, 2005.
/// </summary>
public static class LogMeanSplit
{
    /// <summary>
    /// Stands for the logarithm of nothing: what comes from nothing, or goes, goes wholly to the factor that was nothing. Ang and Liu, "Handling zero values
    /// in the logarithmic mean Divisia index decomposition approach", Energy Policy 35, 2007, take the limit; so does this.
    /// </summary>
    private const double LogOfNothing = -1e12;

    /// <summary>The logarithmic mean of two positive numbers: their difference ÷ the difference of their logarithms; the number itself where they are the same.</summary>
    public static double LogMean(double one, double other) =>
        one <= 0 || other <= 0 ? 0
        : one == other ? one
        : (one - other) / (Math.Log(one) - Math.Log(other));

    /// <summary>What each factor of each item adds to the change of the sum.</summary>
    /// <param name="items">The factors of each item before and now, none negative; as many in each.</param>
    /// <returns>By item and factor; together they are the change.</returns>
    public static IReadOnlyList<IReadOnlyList<double>> Of(
        IReadOnlyList<(IReadOnlyList<double> Before, IReadOnlyList<double> Now)> items
    ) => [.. items.Select(item => EffectsOf(item.Before, item.Now))];

    private static double[] EffectsOf(IReadOnlyList<double> before, IReadOnlyList<double> now)
    {
        double[] logBefore = [.. before.Select(LogOf)];
        double[] logNow = [.. now.Select(LogOf)];
        var (sumBefore, sumNow) = (logBefore.Sum(), logNow.Sum());
        var (valueBefore, valueNow) = (Product(before), Product(now));
        if (valueBefore == 0 && valueNow == 0)
        {
            return new double[before.Count];
        }

        var mean = sumNow == sumBefore ? valueNow : (valueNow - valueBefore) / (sumNow - sumBefore);
        return [.. logNow.Select((log, at) => mean * (log - logBefore[at]))];
    }

    private static double LogOf(double factor) => factor <= 0 ? LogOfNothing : Math.Log(factor);

    private static double Product(IReadOnlyList<double> factors) =>
        factors.Aggregate(1d, (product, factor) => product * factor);
}
