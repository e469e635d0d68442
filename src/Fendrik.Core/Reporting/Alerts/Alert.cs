using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Core.Reporting.Alerts;

/// <summary>What somebody wants to be told of: a measure that goes above or below an amount.</summary>
/// <param name="Measure">The key of the measure.</param>
/// <param name="Above">True where it must not go above the amount, false where it must not go below.</param>
/// <param name="Threshold">The amount, in the unit of the measure; a share from 0 on.</param>
/// <param name="Days">Over how many days, 1 to <see cref="MostDays"/>.</param>
/// <param name="EachDay">True where each of the days must be so, false where they are taken together.</param>
/// <param name="EachCampaign">True where each campaign is looked at by itself.</param>
/// <param name="CampaignId">The only campaign that is looked at; none for the account, or each campaign.</param>
public sealed record Alert(
    string Measure,
    bool Above,
    decimal Threshold,
    int Days,
    bool EachDay,
    bool EachCampaign,
    long? CampaignId
)
{
    /// <summary>Most days that an alert looks back.</summary>
    public const int MostDays = 90;

    /// <summary>
    /// The figure that makes it go off, of all its days together; none where it does not. A day without the figure, as one without conversions has no cost
    /// per conversion, is not above and not below anything.
    /// </summary>
    /// <param name="measure">The measure.</param>
    /// <param name="days">What was measured on its days, each once; fewer where less is known, and then it does not go off.</param>
    public decimal? GoesOff(Measure measure, IReadOnlyList<Measured> days)
    {
        ArgumentNullException.ThrowIfNull(measure);
        ArgumentNullException.ThrowIfNull(days);
        if (days.Count < Days || (EachDay && !days.All(day => Crosses(measure.Of(day)))))
        {
            return null;
        }

        var together = measure.Of(
            days.Aggregate(
                new Measured(Figures.Zero, null),
                (sum, day) =>
                    new Measured(
                        sum.Figures + day.Figures,
                        sum.Standing is { } stood && day.Standing is { } standing
                            ? stood + standing
                            : sum.Standing ?? day.Standing
                    )
            )
        );
        // What is so on each day need not be so of all together, as the largest of several places: then the last day says it.
        return EachDay ? together ?? measure.Of(days[^1])
            : Crosses(together) ? together
            : null;
    }

    /// <summary>
    /// The part of what was spent that is more than it should be, where the measure is what something costs: at twice the amount half of it. None for others.
    /// </summary>
    /// <param name="measure">The measure.</param>
    /// <param name="figure">The figure.</param>
    /// <param name="cost">What was spent.</param>
    public decimal? TooMuch(Measure measure, decimal figure, decimal cost)
    {
        ArgumentNullException.ThrowIfNull(measure);
        return Above && measure.Unit.Money == 1 && figure > 0 && Threshold >= 0
            ? cost * Math.Clamp(1 - Threshold / figure, 0, 1)
            : null;
    }

    private bool Crosses(decimal? figure) => Above ? figure > Threshold : figure < Threshold;
}
