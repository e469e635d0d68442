using Fendrik.Core.Accounts;

namespace Fendrik.Core.Budgets;

/// <summary>What a campaign may spend on a day, by its daily budget, its total, or both.</summary>
public static class BudgetOfDay
{
    /// <summary>What may be spent on a day.</summary>
    /// <param name="campaign">The campaign.</param>
    /// <param name="spentBefore">What it spent on all days before.</param>
    /// <param name="day">The day.</param>
    /// <param name="currency">The account's currency.</param>
    /// <returns>
    /// The daily budget, as far as the total reaches; without a daily budget what is left of the total, shared evenly among the days up to the end
    /// date, or all of it without an end. None where neither is set.
    /// </returns>
    public static decimal? Of(Campaign campaign, decimal spentBefore, DateOnly day, Currency currency)
    {
        if (campaign.TotalBudget is not { } total)
        {
            return campaign.DailyBudget;
        }

        var left = Math.Max(0, total - spentBefore);
        if (campaign.DailyBudget is { } daily)
        {
            return Math.Min(daily, left);
        }

        var days = campaign.EndDate is { } end ? Math.Max(1, end.DayNumber - day.DayNumber + 1) : 1;
        return currency.Round(left / days);
    }
}
