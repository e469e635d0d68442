using Fendrik.Core.Bidding;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Estimates;

/// <summary>What a usual week of a segment brings now, and what it would with another modifier.</summary>
/// <param name="ClicksNow">Clicks.</param>
/// <param name="CostNow">What they cost.</param>
/// <param name="ConversionsNow">Conversions.</param>
/// <param name="Clicks">Clicks then.</param>
/// <param name="Cost">What they would cost.</param>
/// <param name="Conversions">Conversions then.</param>
public sealed record ModifierEffect(
    double ClicksNow,
    double CostNow,
    double ConversionsNow,
    EstimateRange Clicks,
    EstimateRange Cost,
    EstimateRange Conversions
)
{
    private const double DaysOfWeek = 7;

    /// <summary>What another modifier would do.</summary>
    /// <param name="figures">What the segment brought.</param>
    /// <param name="days">In so many days: at least 1.</param>
    /// <param name="from">Its modifier now, in per cent.</param>
    /// <param name="to">The other, in per cent; −100 ends it.</param>
    /// <param name="room">Searches lost to rank for each impression: no bid wins more.</param>
    /// <returns>None where there is nothing to go by: nothing was clicked, or it does not show now.</returns>
    public static ModifierEffect? Of(Figures figures, int days, decimal from, decimal to, double room)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(days, 1);
        if (figures.Clicks == 0 || from <= -100)
        {
            return null;
        }

        var week = DaysOfWeek / days;
        var times = Math.Max(0, (double)((1 + to / 100) / (1 + from / 100)));
        var far = times > 0 ? Estimator.SpreadOfBid * Math.Log(times) : 0;
        EstimateRange Then(double now, double ratio, double counted) =>
            times == 0
                ? default
                : EstimateRange.Of(
                    now * week * ratio,
                    Math.Sqrt(1 / (counted + 1) + far * far + Estimator.UsualSpread * Estimator.UsualSpread)
                );
        var clicks = times > 0 ? BidResponse.Clicks(times, room) : 0;
        var price = times > 0 ? BidResponse.Price(times) : 0;
        return new ModifierEffect(
            figures.Clicks * week,
            (double)figures.Cost * week,
            (double)figures.Conversions * week,
            Then(figures.Clicks, clicks, figures.Clicks),
            Then((double)figures.Cost, clicks * price, figures.Clicks),
            Then((double)figures.Conversions, clicks, (double)figures.Conversions)
        );
    }
}
