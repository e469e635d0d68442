using Fendrik.Core.Bidding.Evidence;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>What came of the clicks for which a strategy with a target bid.</summary>
/// <param name="Paid">What they cost.</param>
/// <param name="Bid">What was bid for them.</param>
/// <param name="Predicted">Conversions, or value, that were predicted of those old enough to be judged.</param>
/// <param name="Counted">Conversions, or value, that were counted of these.</param>
/// <param name="OfOne">What one conversion comes to in these: 1, or what it is worth.</param>
public readonly record struct TargetRecord(double Paid, double Bid, double Predicted, double Counted, double OfOne);

/// <summary>
/// How many times its target a strategy bids by, so that the target is met on the whole: a click costs less than its bid, and conversions
/// come in more or less often than predicted. Both are learnt from the clicks of the last weeks.
/// </summary>
public static class TargetLevel
{
    /// <summary>Lowest level.</summary>
    public const double Lowest = 0.5;

    /// <summary>Highest level.</summary>
    public const double Highest = 2;

    /// <summary>Days of clicks that are looked at.</summary>
    public const int Days = 28;

    /// <summary>
    /// Days after which a click's conversions are taken to be known; younger clicks tell prices alone. Some decide days after the click.
    /// </summary>
    public const int FreshDays = 4;

    /// <summary>Bids are taken for prices until so many conversions' worth of them were paid.</summary>
    private const double PriorBids = 1;

    /// <summary>The level.</summary>
    /// <param name="record">What came of the clicks so far.</param>
    /// <param name="bidOfOne">What is bid for one conversion at level 1: the target CPA, or what a conversion is worth ÷ the return wanted.</param>
    /// <param name="isLearning">While the strategy is learning it bids by its target as it is.</param>
    public static double Of(in TargetRecord record, double bidOfOne, bool isLearning)
    {
        if (isLearning || bidOfOne <= 0)
        {
            return 1;
        }

        var prior = PriorBids * bidOfOne;
        var price = (record.Paid + prior) / (record.Bid + prior);
        var one = record.OfOne > 0 ? record.OfOne : 1;
        var came = new SegmentFactor(record.Counted / one, record.Predicted / one).Mean;
        return Math.Clamp(came / price, Lowest, Highest);
    }
}
