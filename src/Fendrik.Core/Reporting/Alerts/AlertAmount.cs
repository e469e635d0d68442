using System.Globalization;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Core.Reporting.Alerts;

/// <summary>Reads the amounts of alerts as people type them.</summary>
public static class AlertAmount
{
    private const decimal Largest = 1_000_000_000;
    private const decimal PerCent = 100;

    /// <summary>An amount in the unit of a measure: money as money is typed anywhere, a share in per cent, all else as a number; each with a minus where it is below 0.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="measure">The measure.</param>
    /// <param name="ground">The account's currency and language.</param>
    /// <returns>The amount, or what is wrong as the end of a sentence.</returns>
    public static (decimal Amount, string? Problem) Read(string text, Measure measure, ReadingGround ground)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(measure);
        var trimmed = text.Trim();
        var isNegative = trimmed.StartsWith('-') || trimmed.StartsWith('−');
        var plain = isNegative ? trimmed[1..] : trimmed;
        var (amount, problem) = measure.Form switch
        {
            MeasureForm.Money => new AmountValue().Read(plain, ground) switch
            {
                { Problem: { } wrong } => (0m, wrong),
                { Value: decimal read } => (read, null),
                { } => (0m, "is missing"),
            },
            MeasureForm.Share => Number(plain.TrimEnd('%', ' ')) is { } share
                ? (share / PerCent, (string?)null)
                : (0m, Unread(text, "12.5 %")),
            MeasureForm.Whole or MeasureForm.Number => Number(plain) is { } number
                ? (number, (string?)null)
                : (0m, Unread(text, "12.5")),
        };
        return problem is not null ? (0, problem)
            : amount > Largest ? (0, $"is more than {Largest:N0}")
            : (isNegative ? -amount : amount, null);
    }

    private static decimal? Number(string text) =>
        decimal.TryParse(
            text.Replace(',', '.'),
            NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingWhite,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;

    private static string Unread(string text, string example) =>
        $"“{Reading.Shortened(text)}” is no number; write it like {example}";
}
