using System.Globalization;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Reporting.Moved;

/// <summary>What moved a figure, in sentences.</summary>
public static class MovedWords
{
    private const int DaysOfYear = 365;

    /// <summary>What a cause is called.</summary>
    public static string NameOf(Cause cause) =>
        cause switch
        {
            Cause.Impressions => "Impressions",
            Cause.Mix => "Mix",
            Cause.ClickThroughRate => "CTR",
            Cause.AverageCpc => "Price of a click",
            Cause.ConversionRate => "Conversion rate",
            Cause.ValuePerConversion => "Value of a conversion",
        };

    /// <summary>How a cause comes about, in a sentence.</summary>
    public static string Explained(Cause cause, MovedFigure figure) =>
        cause switch
        {
            Cause.Impressions => "Ads were shown more or less often in all.",
            Cause.Mix => figure == MovedFigure.CostPerConversion
                ? "Clicks went to dearer or cheaper ones."
                : "Impressions went to better or worse ones.",
            Cause.ClickThroughRate => "More or fewer impressions were clicked.",
            Cause.AverageCpc => "A click cost more or less.",
            Cause.ConversionRate => "More or fewer clicks brought a conversion.",
            Cause.ValuePerConversion => "A conversion was worth more or less.",
        };

    /// <summary>What an item did, in a sentence.</summary>
    /// <param name="effect">The item with its effect.</param>
    /// <param name="figure">The figure that it moved.</param>
    /// <param name="before">What all items brought before.</param>
    /// <param name="now">What all items bring now.</param>
    /// <param name="currency">The account's.</param>
    public static string OfItem(ItemEffect effect, MovedFigure figure, Figures before, Figures now, Currency currency)
    {
        var (was, has) = (effect.Item.Before, effect.Item.Now);
        string Amount(decimal? amount) =>
            amount is { } known ? new Money(currency.Round(known), currency).ToString() : "none";
        static string Share(decimal? share) => Percent(share);
        decimal? Of(long part, long all) => all == 0 ? null : (decimal)part / all;
        var clicks = figure == MovedFigure.CostPerConversion;
        return effect.Mostly switch
        {
            Cause.Impressions => string.Create(
                CultureInfo.InvariantCulture,
                $"all ads were shown {before.Impressions:N0} times, now {now.Impressions:N0}"
            ),
            Cause.Mix => clicks
                ? $"it had {Share(Of(was.Clicks, before.Clicks))} of the clicks, now {Share(Of(has.Clicks, now.Clicks))}"
                : $"it had {Share(Of(was.Impressions, before.Impressions))} of the impressions, now {Share(Of(has.Impressions, now.Impressions))}",
            Cause.ClickThroughRate => $"CTR was {Share(was.ClickThroughRate)}, is {Share(has.ClickThroughRate)}",
            Cause.AverageCpc => $"a click cost {Amount(was.AverageCpc)}, now {Amount(has.AverageCpc)}",
            Cause.ConversionRate => $"conversion rate was {Share(was.ConversionRate)}, is {Share(has.ConversionRate)}",
            Cause.ValuePerConversion =>
                $"a conversion was worth {Amount(PerConversion(was))}, now {Amount(PerConversion(has))}",
        };
    }

    /// <summary>How far chance explains the change, in a sentence; none where nothing can be said.</summary>
    /// <param name="difference">The difference.</param>
    /// <param name="days">Days of the period.</param>
    public static string? OfChance(RateDifference? difference, int days)
    {
        if (difference is not { } known)
        {
            return null;
        }

        const int Hundred = 100;
        const double Thousandth = 0.001;
        var chance =
            known.Chance < Thousandth ? "less than once in 1,000"
            : known.Chance < 1d / Hundred
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"{Math.Max(1, Math.Round(known.Chance * 1000)):0} times in 1,000"
                )
            : string.Create(CultureInfo.InvariantCulture, $"{Math.Round(known.Chance * Hundred):0} times in 100");
        var says = $"By chance a difference as large comes {chance}";
        if (known.MoreTimes is not { } times)
        {
            return $"{says}.";
        }

        var more = days * (times - 1);
        return more > DaysOfYear
            ? $"{says}: it says next to nothing, and at this difference a year more would not be enough to be sure."
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{says}: it proves little yet. At this difference it would take about {Math.Ceiling(more):0} days more to be sure."
            );
    }

    private static decimal? PerConversion(Figures figures) =>
        figures.Conversions == 0 ? null : figures.Value / figures.Conversions;

    private static string Percent(decimal? share) =>
        share is { } known ? string.Create(CultureInfo.InvariantCulture, $"{known * 100:0.0}%") : "none";
}
