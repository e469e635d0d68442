namespace Fendrik.Core.Budgets;

/// <summary>
/// How a forecast would have come out: from the days before some days, with the budgets that these days had, against what happened.
/// </summary>
/// <param name="Forecast">What was to be expected, of all campaigns together.</param>
/// <param name="Happened">What happened.</param>
public sealed record ForecastTrial(Outcome Forecast, Outcome Happened)
{
    /// <summary>The forecast's error of cost as a share of what happened: above 0 it was too high. None where nothing happened.</summary>
    public double? CostError => ErrorOf(Forecast.Cost, Happened.Cost);

    /// <summary>The same of clicks.</summary>
    public double? ClicksError => ErrorOf(Forecast.Clicks, Happened.Clicks);

    /// <summary>The same of conversions.</summary>
    public double? ConversionsError => ErrorOf(Forecast.Conversions, Happened.Conversions);

    /// <summary>Holds a campaign's curve of the days before against the days after.</summary>
    /// <param name="before">The curve of the days before.</param>
    /// <param name="after">The days after, each with the budget that it had.</param>
    public static ForecastTrial Of(BudgetCurve before, IEnumerable<(DemandDay Day, decimal Budget)> after)
    {
        var trial = new ForecastTrial(default, default);
        foreach (var (day, budget) in after)
        {
            trial += new ForecastTrial(before.PerDay(budget), day.Got);
        }

        return trial;
    }

    /// <summary>Adds two.</summary>
    public static ForecastTrial operator +(ForecastTrial left, ForecastTrial right) =>
        new(left.Forecast + right.Forecast, left.Happened + right.Happened);

    /// <summary>Adds two.</summary>
    public static ForecastTrial Add(ForecastTrial left, ForecastTrial right) => left + right;

    private static double? ErrorOf(double forecast, double happened) => happened > 0 ? forecast / happened - 1 : null;
}
