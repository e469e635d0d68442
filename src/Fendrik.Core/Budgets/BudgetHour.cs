namespace Fendrik.Core.Budgets;

/// <summary>An hour of the clock, over one day or several.</summary>
/// <param name="Hour">The hour: 0 to 23.</param>
/// <param name="Spent">What was spent in it.</param>
/// <param name="Missed">Searches that the budget did not reach for.</param>
public sealed record BudgetHour(int Hour, decimal Spent, long Missed)
{
    /// <summary>
    /// What the searches of each hour that the budget missed would have cost: the cost of all of them, shared by their number, which is all that is known of
    /// them by the hour.
    /// </summary>
    /// <param name="hours">The hours of the day.</param>
    /// <param name="missedCost">What all that were missed would have cost.</param>
    public static IReadOnlyList<double> MissedCosts(IReadOnlyList<BudgetHour> hours, double missedCost)
    {
        var missed = hours.Sum(hour => hour.Missed);
        return [.. hours.Select(hour => missed > 0 ? missedCost * hour.Missed / missed : 0)];
    }
}
