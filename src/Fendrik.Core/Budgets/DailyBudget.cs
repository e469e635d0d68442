namespace Fendrik.Core.Budgets;

/// <summary>A campaign's daily budget, spread over the day.</summary>
public static class DailyBudget
{
    /// <summary>
    /// Whether a campaign may take part in an auction at this hour. Spending runs at most two hours ahead of an even
    /// spread, and never beyond the budget.
    /// </summary>
    /// <param name="budget">The daily budget.</param>
    /// <param name="spent">Spent so far today.</param>
    /// <param name="highestPrice">The most that one more click could cost.</param>
    /// <param name="hoursBegun">Hours of the day begun so far: 1 to 25.</param>
    /// <param name="hoursInDay">23, 24 or 25.</param>
    public static bool Allows(decimal budget, decimal spent, decimal highestPrice, int hoursBegun, int hoursInDay)
    {
        var pace = budget * Math.Min(hoursInDay, hoursBegun + 2) / hoursInDay;
        return spent < pace && spent + highestPrice <= budget;
    }
}
