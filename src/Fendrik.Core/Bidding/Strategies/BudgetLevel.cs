namespace Fendrik.Core.Bidding.Strategies;

/// <summary>How a strategy that spends the budget went through an hour.</summary>
/// <param name="Spent">What clicks cost.</param>
/// <param name="Units">What they were bought for: clicks, likely conversions, or likely value.</param>
/// <param name="Level">Its level: what it bid for one of these.</param>
/// <param name="Ran">Share of the hour until the budget was spent: 0 to 1.</param>
/// <param name="Weight">How many usual hours it comes to.</param>
/// <param name="Age">Hours that went by since.</param>
public readonly record struct LevelHour(
    decimal Spent,
    double Units,
    double Level,
    double Ran,
    double Weight,
    double Age
);

/// <summary>
/// The level at which what is left of a day's budget is spent in what is left of the day: what a usual hour costs at a level is learnt
/// from the hours of the week before, and moved to by steps.
/// </summary>
/// <remarks>This project's own way; the trade knows that networks do it, not how.</remarks>
public static class BudgetLevel
{
    /// <summary>Bids so many per cent higher are taken to cost that to this power more: 10 % higher, 15 % more.</summary>
    public const double Elasticity = 1.5;

    /// <summary>Most that the level changes from one hour to the next.</summary>
    public const double Step = 1.25;

    /// <summary>Most that it changes while the strategy is learning.</summary>
    public const double LearningStep = 1.1;

    /// <summary>
    /// Never more than so many times what the same is bought for: bids far above every price buy nothing more, and would pay any price that
    /// somebody new asks.
    /// </summary>
    public const double MostAbovePrice = 4;

    /// <summary>As long as nothing was bought, never more than so many times where it would begin.</summary>
    public const double MostAboveOpening = 8;

    /// <summary>A new level begins so many times above what was paid: prices are lower than bids.</summary>
    public const double OpeningAbovePrice = 1.25;

    /// <summary>Hours after which what was learnt counts half.</summary>
    public const double HalfLife = 72;

    /// <summary>The level of the first hour.</summary>
    /// <param name="spent">What clicks of the weeks before cost.</param>
    /// <param name="units">What they bought: clicks, likely conversions, or likely value.</param>
    /// <param name="bid">What to bid where no click was paid yet.</param>
    /// <param name="unitsOfClick">What one click is likely to buy.</param>
    public static double Opening(double spent, double units, double bid, double unitsOfClick) =>
        spent > 0 && units > 0 ? OpeningAbovePrice * spent / units
        : unitsOfClick > 0 ? bid / unitsOfClick
        : bid;

    /// <summary>The level of the next hour.</summary>
    /// <param name="before">The level of the hour before.</param>
    /// <param name="opening">The level at which it would begin.</param>
    /// <param name="hours">The hours of the week before.</param>
    /// <param name="left">What is left of the day's budget.</param>
    /// <param name="weightLeft">How many usual hours what is left of the day comes to.</param>
    /// <param name="isLearning">True while the strategy is learning.</param>
    public static double Next(
        double before,
        double opening,
        IEnumerable<LevelHour> hours,
        decimal left,
        double weightLeft,
        bool isLearning
    )
    {
        var step = isLearning ? LearningStep : Step;
        double spent = 0,
            units = 0,
            weight = 0,
            seen = 0;
        foreach (var hour in hours)
        {
            var counts = Math.Pow(0.5, hour.Age / HalfLife);
            spent += counts * (double)hour.Spent;
            units += counts * hour.Units;
            weight += counts * hour.Weight * hour.Ran * Math.Pow(hour.Level, Elasticity);
            seen += counts * hour.Weight * hour.Ran;
        }

        if (seen <= 0 || weightLeft <= 0 || left <= 0)
        {
            return before;
        }

        var most = units > 0 && spent > 0 ? MostAbovePrice * spent / units : MostAboveOpening * opening;
        var wanted =
            spent <= 0
                // Hours in which nothing was bought at all: the level is too low, unless nobody searches.
                ? before * (seen >= 1 ? step : 1)
                : Math.Pow((double)left / weightLeft / (spent / weight), 1 / Elasticity);
        return Math.Min(most, Math.Clamp(wanted, before / step, before * step));
    }
}
