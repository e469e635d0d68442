using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Core.Reporting.Alerts;

/// <summary>Says alerts, and what they found.</summary>
public static class AlertWords
{
    /// <summary>What an alert looks for: “Cost per conversion above £20.00 on each of 3 days”.</summary>
    public static string Of(Alert alert, Measure measure, Currency currency)
    {
        ArgumentNullException.ThrowIfNull(alert);
        ArgumentNullException.ThrowIfNull(measure);
        var days =
            alert.Days == 1 ? "in a day"
            : alert.EachDay ? $"on each of {alert.Days} days"
            : $"in {alert.Days} days together";
        return $"{measure.Title} {(alert.Above ? "above" : "below")} {Written(alert.Threshold, measure, currency)} {days}";
    }

    /// <summary>What an alert found: “Cost per conversion £23.40 in the 3 days to 11 May, above £20.00 on each”.</summary>
    /// <param name="alert">The alert.</param>
    /// <param name="measure">The measure.</param>
    /// <param name="figure">The figure.</param>
    /// <param name="day">The last day.</param>
    /// <param name="currency">The account's currency.</param>
    public static string Found(Alert alert, Measure measure, decimal figure, DateOnly day, Currency currency)
    {
        ArgumentNullException.ThrowIfNull(alert);
        ArgumentNullException.ThrowIfNull(measure);
        var to = day.ToString("d MMMM", CultureInfo.InvariantCulture);
        var days = alert.Days == 1 ? $"on {to}" : $"in the {alert.Days} days to {to}";
        return $"{measure.Title} {Written(figure, measure, currency)} {days}, {(alert.Above ? "above" : "below")} {Written(alert.Threshold, measure, currency)}{(alert is { EachDay: true, Days: > 1 } ? " on each" : "")}.";
    }

    /// <summary>A figure as it is written.</summary>
    public static string Written(decimal figure, Measure measure, Currency currency)
    {
        ArgumentNullException.ThrowIfNull(measure);
        return measure.Form switch
        {
            MeasureForm.Money => new Money(currency.Round(figure), currency).ToString(),
            MeasureForm.Share => figure.ToString("0.##%", CultureInfo.InvariantCulture),
            MeasureForm.Whole => figure.ToString("#,0", CultureInfo.InvariantCulture),
            MeasureForm.Number => figure.ToString("#,0.##", CultureInfo.InvariantCulture),
        };
    }
}
