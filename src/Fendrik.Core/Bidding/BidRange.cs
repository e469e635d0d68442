using Fendrik.Core.Accounts;

namespace Fendrik.Core.Bidding;

/// <summary>Between which bids all searches lie.</summary>
public static class BidRange
{
    /// <summary>The modifiers that make the lowest bid, or the highest: what means never makes no bid and is left out.</summary>
    /// <param name="devices">The devices with their modifiers in per cent.</param>
    /// <param name="plan">The hours; none for always.</param>
    /// <param name="places">The places that are in, of which each person is in one; none for everywhere.</param>
    /// <param name="audiences">The audiences; somebody may be of several, or of none.</param>
    /// <param name="highest">True for the highest bid.</param>
    public static IEnumerable<(string Name, decimal Percent)> Extremes(
        IEnumerable<(string Name, decimal Percent)> devices,
        WeekPlan? plan,
        IEnumerable<(string Name, decimal Percent)> places,
        IEnumerable<(string Name, decimal Percent)> audiences,
        bool highest
    )
    {
        var hours = (plan?.Spans ?? []).Select(span =>
            (Name: $"{WeekText.Short(span.Day)} {WeekText.Clock(span.From)}", span.Percent)
        );
        foreach (var kind in new[] { devices, hours, places })
        {
            (string Name, decimal Percent)[] priced = [.. kind.Where(each => each.Percent > -100)];
            if (priced.Length > 0)
            {
                var extreme = highest ? priced.MaxBy(each => each.Percent) : priced.MinBy(each => each.Percent);
                if (extreme.Percent != 0)
                {
                    yield return extreme;
                }
            }
        }

        // All of those of whom somebody may be multiply.
        foreach (var audience in audiences.Where(each => highest ? each.Percent > 0 : each.Percent is < 0 and > -100))
        {
            yield return audience;
        }
    }
}
