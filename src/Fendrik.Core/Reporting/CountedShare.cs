namespace Fendrik.Core.Reporting;

/// <summary>From where to where a figure may well lie.</summary>
/// <param name="Low">The lower end.</param>
/// <param name="High">The higher end.</param>
public sealed record ShareInterval(double Low, double High)
{
    /// <summary>True when a value lies within.</summary>
    public bool Holds(double value) => Low <= value && value <= High;
}

/// <summary>A share that was counted: so many of so many.</summary>
/// <param name="Count">How many had it; from 0 to <paramref name="Of"/>.</param>
/// <param name="Of">Of how many.</param>
public readonly record struct CountedShare(double Count, double Of)
{
    /// <summary>Standard deviations that 95 % of a normal distribution lie within.</summary>
    public const double Sure = 1.959963984540054;

    /// <summary>The share; 0 of nothing.</summary>
    public double Share => Of > 0 ? Count / Of : 0;

    /// <summary>
    /// Where the share may well lie, 95 times of a hundred: the score interval (Wilson, “Probable inference, the law of succession, and
    /// statistical inference”, JASA 22, 1927; method 3 of Newcombe, Statistics in Medicine 17, 1998, pages 857–872).
    /// </summary>
    public ShareInterval Interval
    {
        get
        {
            if (Of <= 0)
            {
                return new ShareInterval(0, 1);
            }

            var square = Sure * Sure;
            var middle = 2 * Count + square;
            var spread = Sure * Math.Sqrt(square + 4 * Count * (1 - Share));
            var below = 2 * (Of + square);
            return new ShareInterval(
                Math.Clamp((middle - spread) / below, 0, Share),
                Math.Clamp((middle + spread) / below, Share, 1)
            );
        }
    }

    /// <summary>
    /// Where the difference to another share may well lie: the score intervals of both put together (method 10 of Newcombe, “Interval
    /// estimation for the difference between independent proportions”, Statistics in Medicine 17, 1998, pages 873–890).
    /// </summary>
    public ShareInterval Minus(CountedShare other)
    {
        var difference = Share - other.Share;
        var (own, others) = (Interval, other.Interval);
        return new ShareInterval(
            difference - Math.Sqrt(Squared(Share - own.Low) + Squared(others.High - other.Share)),
            difference + Math.Sqrt(Squared(own.High - Share) + Squared(other.Share - others.Low))
        );
    }

    /// <summary>
    /// How many there should be of each for the difference, if it stays what it is, to be sure: where it is as great as the half width of
    /// its interval in the normal approximation. None when there is no difference.
    /// </summary>
    public double? NeededAgainst(CountedShare other) =>
        Share == other.Share
            ? null
            : Sure * Sure * (Spread(Share) + Spread(other.Share)) / Squared(Share - other.Share);

    private static double Spread(double share) => share * (1 - share);

    private static double Squared(double value) => value * value;
}
