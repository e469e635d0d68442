using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Budgets;

/// <summary>A campaign whose budget became another on a day.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Was">Its daily budget before.</param>
/// <param name="Became">Its daily budget from that day on.</param>
public readonly record struct ChangedBudget(long CampaignId, decimal Was, decimal Became);

/// <summary>
/// Budgets that changed on a day, what was to be expected of the week that followed, by what was known on the day before, and what came.
/// </summary>
/// <param name="Day">The first day of the new budgets.</param>
/// <param name="Budgets">The budgets.</param>
/// <param name="Before">What a usual week brought with the budgets of before.</param>
/// <param name="Cost">What the week was likely to cost.</param>
/// <param name="Conversions">The conversions that were likely to come in it.</param>
/// <param name="Came">What came.</param>
/// <param name="DaysOver">How many of the seven days are over.</param>
public sealed record BudgetMove(
    DateOnly Day,
    IReadOnlyList<ChangedBudget> Budgets,
    Outcome Before,
    LikelyRange Cost,
    LikelyRange Conversions,
    Outcome Came,
    int DaysOver
)
{
    /// <summary>Fewest days before a change from which anything can be expected.</summary>
    public const int FewestDays = 14;

    private const int DaysBefore = 28;

    /// <summary>True when the week is over, so that it can be judged.</summary>
    public bool IsOver => DaysOver == BudgetForecast.Days;

    /// <summary>True when the conversions came within what was to be expected; none while the week is not over.</summary>
    public bool? CameTrue =>
        IsOver ? Conversions.Low <= Came.Conversions && Came.Conversions <= Conversions.High : null;

    /// <summary>Finds the days on which budgets changed, and reckons each with what was known the day before.</summary>
    /// <param name="cells">Ad groups by day, by campaign.</param>
    /// <param name="budgets">The budgets of days as far as they are known, by campaign.</param>
    /// <param name="last">The last day that is reported.</param>
    /// <returns>The newest first; changes with fewer than <see cref="FewestDays"/> days before are left out.</returns>
    public static IReadOnlyList<BudgetMove> Of(
        ILookup<long, GroupDay> cells,
        IReadOnlyDictionary<long, IReadOnlyDictionary<DateOnly, decimal?>> budgets,
        DateOnly last
    )
    {
        var all = cells.SelectMany(each => each).ToArray();
        return
        [
            .. budgets
                .SelectMany(each => ChangesOf(each.Key, each.Value))
                .GroupBy(change => change.Day, change => change.Budget)
                .OrderByDescending(day => day.Key)
                .Select(day => Of(day.Key, [.. day], all, cells, budgets, last))
                .OfType<BudgetMove>(),
        ];
    }

    /// <summary>What was to be expected and what came, in a sentence.</summary>
    public string InWords(Currency currency)
    {
        Money Of(double amount) => new(currency.Round((decimal)amount), currency);
        string Number(double number) => Math.Round(number, 1).ToString("0.#", CultureInfo.InvariantCulture);
        var expected =
            $"{Number(Conversions.Low)} – {Number(Conversions.High)} conversions were to be expected of the week, for {Of(Cost.Low)} – {Of(Cost.High)}";
        var came = $"{Number(Came.Conversions)} came, for {Of(Came.Cost)}";
        return CameTrue switch
        {
            null => $"{expected}. {DaysOver} of {BudgetForecast.Days} days are over.",
            true => $"{expected}; {came}: as expected.",
            false =>
                $"{expected}; {came}: {(Came.Conversions < Conversions.Low ? "fewer" : "more")}. Something else changed too, or the season did.",
        };
    }

    private static BudgetMove? Of(
        DateOnly day,
        ChangedBudget[] changed,
        IReadOnlyCollection<GroupDay> all,
        ILookup<long, GroupDay> cells,
        IReadOnlyDictionary<long, IReadOnlyDictionary<DateOnly, decimal?>> budgets,
        DateOnly last
    )
    {
        var before = new Period(day.AddDays(-DaysBefore), day.AddDays(-1));
        bool IsBefore(GroupDay cell) => before.First <= cell.Day && cell.Day <= before.Last;
        var known = all.Where(IsBefore).ToArray();
        var rates = SearchRates.Of(
            known.Aggregate(Standing.Zero, (sum, cell) => sum + cell.Standing),
            known.Aggregate(Figures.Zero, (sum, cell) => sum + cell.Figures)
        );
        var (usual, mean, effect) = (default(Outcome), default(Outcome), default(BudgetEffect));
        double byDay = 0;
        foreach (var budget in changed)
        {
            var demand = CampaignDemand.Of(
                [.. cells[budget.CampaignId].Where(IsBefore)],
                before.Last,
                rates,
                budgets[budget.CampaignId]
            );
            if (demand.Days.Count < FewestDays)
            {
                return null;
            }

            var curve = new BudgetCurve(demand.Days);
            usual += curve.PerDay(budget.Was) * BudgetForecast.Days;
            mean += curve.PerDay(budget.Became) * BudgetForecast.Days;
            effect += curve.Change(budget.Was, budget.Became, BudgetForecast.Days);
            double[] costs = [.. demand.Days.Select(each => curve.CostOn(each, budget.Became))];
            var average = costs.Average();
            byDay += costs.Sum(cost => (cost - average) * (cost - average)) / (costs.Length - 1);
        }

        var week = new Period(day, day.AddDays(BudgetForecast.Days - 1));
        var came = changed
            .SelectMany(budget => cells[budget.CampaignId])
            .Where(cell => week.First <= cell.Day && cell.Day <= week.Last)
            .Aggregate(Figures.Zero, (sum, cell) => sum + cell.Figures);
        return new BudgetMove(
            day,
            changed,
            usual,
            // A week differs from the mean of weeks by as much as seven days do, and its conversions by chance (Poisson) besides.
            LikelyRange.Of(mean.Cost, Math.Sqrt(effect.CostVariance + byDay * BudgetForecast.Days)).AtLeast(0),
            LikelyRange.Of(mean.Conversions, Math.Sqrt(effect.ConversionsVariance + mean.Conversions)).AtLeast(0),
            Outcome.Of(came),
            Math.Clamp(last.DayNumber - day.DayNumber + 1, 0, BudgetForecast.Days)
        );
    }

    private static IEnumerable<(DateOnly Day, ChangedBudget Budget)> ChangesOf(
        long campaign,
        IReadOnlyDictionary<DateOnly, decimal?> budgets
    )
    {
        decimal? was = null;
        foreach (var (day, budget) in budgets.Where(each => each.Value is not null).OrderBy(each => each.Key))
        {
            if (was is { } earlier && budget != earlier)
            {
                yield return (day, new ChangedBudget(campaign, earlier, budget!.Value));
            }

            was = budget;
        }
    }
}
