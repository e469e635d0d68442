namespace Fendrik.Core.Bidding.Strategies;

/// <summary>How far a strategy is in learning: while it learns it moves by small steps.</summary>
/// <param name="Days">Days for which it has run.</param>
/// <param name="Conversions">Conversions counted since it began; of a strategy that goes by clicks alone, clicks.</param>
/// <param name="Needed">How many of these it needs.</param>
public readonly record struct StrategyLearning(int Days, double Conversions, int Needed)
{
    /// <summary>It learns at least for a week, as weekdays and weekends differ.</summary>
    public const int LeastDays = 7;

    /// <summary>Conversions that it needs. Fendrik's own choice: with 12, nine times in ten the rate is known to within half as much again.</summary>
    public const int LeastConversions = 12;

    /// <summary>Clicks that one needs that goes by clicks alone.</summary>
    public const int LeastClicks = 100;

    /// <summary>How far a strategy is.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="days">Days for which it has run.</param>
    /// <param name="clicks">Clicks since it began.</param>
    /// <param name="conversions">Conversions of these.</param>
    public static StrategyLearning Of(StrategyPlan plan, int days, double clicks, double conversions) =>
        plan.NeedsConversions
            ? new StrategyLearning(days, conversions, LeastConversions)
            : new StrategyLearning(days, clicks, LeastClicks);

    /// <summary>True while it learns.</summary>
    public bool IsLearning => Days < LeastDays || Conversions < Needed;
}
