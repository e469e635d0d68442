namespace Fendrik.Core.Budgets;

/// <summary>What a campaign spent in an hour that is over, and how much of the hour it took part in.</summary>
/// <param name="Spent">What its clicks cost.</param>
/// <param name="Rate">Share of searches in which it took part while it ran: above 0 to 1.</param>
/// <param name="Ran">Share of the hour until it stopped: 0 to 1.</param>
/// <param name="Weight">How many searches such an hour usually has, against others: 1 is usual.</param>
public readonly record struct SpentHour(decimal Spent, double Rate, double Ran, double Weight);

/// <summary>
/// How a daily budget is made to last: from what a campaign spent in hours before, as if it had taken part in all searches, comes
/// what the rest of the day would cost, and from that the share of searches in which it takes part.
/// </summary>
/// <remarks>This project's own way; the trade knows that networks spread a budget, not how.</remarks>
public static class BudgetPace
{
    /// <summary>Least share of searches in which a campaign takes part while it has a budget, so that it goes on learning.</summary>
    public const double LeastRate = 0.01;

    /// <summary>What a usual hour costs when the campaign takes part in all its searches; none before anything is known.</summary>
    public static double? CostOfUsualHour(IEnumerable<SpentHour> before)
    {
        double spent = 0,
            weight = 0;
        foreach (var hour in before)
        {
            spent += (double)hour.Spent / Math.Max(hour.Rate, LeastRate);
            weight += hour.Weight * hour.Ran;
        }

        return weight > 0 ? spent / weight : null;
    }

    /// <summary>The share of searches in which a campaign takes part: <see cref="LeastRate"/> to 1, and 0 with nothing left.</summary>
    /// <param name="left">What is left of the day's budget.</param>
    /// <param name="costOfUsualHour">What a usual hour costs in full; none where it is not known: then it takes part in all.</param>
    /// <param name="weightLeft">How many usual hours what is left of the day comes to.</param>
    /// <param name="delivery">How the budget is spent: as fast as possible, it takes part in all.</param>
    public static double RateFor(
        decimal left,
        double? costOfUsualHour,
        double weightLeft,
        BudgetDelivery delivery = BudgetDelivery.Spread
    ) =>
        left <= 0 ? 0
        : delivery == BudgetDelivery.Fast ? 1
        : costOfUsualHour is not > 0 || weightLeft <= 0 ? 1
        : Math.Clamp((double)left / (costOfUsualHour.Value * weightLeft), LeastRate, 1);
}

/// <summary>Where a campaign is with its day's budget when somebody searches.</summary>
/// <param name="Left">What is left of it.</param>
/// <param name="TakesPart">False when it sits this search out, to make the budget last.</param>
/// <param name="Rate">Share of searches in which it takes part this hour.</param>
public readonly record struct BudgetStanding(decimal Left, bool TakesPart, double Rate);
