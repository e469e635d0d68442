using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Budgets;

/// <summary>What a month comes to.</summary>
/// <param name="Spent">Spent in it so far.</param>
/// <param name="Month">What the whole month is likely to cost.</param>
/// <param name="Days">For each day of the month that is still to come, what the month is likely to have cost at its end.</param>
public sealed record MonthForecast(
    decimal Spent,
    LikelyRange Month,
    IReadOnlyList<(DateOnly Day, LikelyRange Sum)> Days
)
{
    private const int DaysOfWeek = 7;

    /// <summary>Fewest days from which a range can be told.</summary>
    public const int FewestDays = 14;

    /// <summary>
    /// Adds to what was spent what the rest of the month is likely to cost: each day like its day of the week before, drawn towards the mean of all
    /// days as far as days of the week do not differ more than chance explains.
    /// </summary>
    /// <param name="spent">Spent in the month before <paramref name="today"/>.</param>
    /// <param name="today">The first day that is not reported yet; the month is its month.</param>
    /// <param name="before">What days before would have cost with the budgets that hold now.</param>
    /// <param name="share">Share of the account that still runs on a day to come: 0 to 1.</param>
    /// <returns>None with fewer than <see cref="FewestDays"/> days.</returns>
    /// <remarks>
    /// The variance of a sum of predicted values: r·s² for chance on each of r days, r²·s²÷n for what is not known of their mean; quantiles by Student's t
    /// distribution (a textbook formula, quoted from memory). Drawing by the ratio of variances: Efron and Morris, JASA 70, 1975, from memory.
    /// </remarks>
    public static MonthForecast? Of(
        decimal spent,
        DateOnly today,
        IReadOnlyCollection<(DateOnly Day, double Cost)> before,
        Func<DateOnly, double> share
    )
    {
        if (before.Count < FewestDays)
        {
            return null;
        }

        var (means, deviation) = Weekdays(before);
        var degrees = before.Count - 1;
        var wide = StudentT.InvCDF(0, 1, degrees, 0.95);
        var days = new List<(DateOnly, LikelyRange)>();
        double sum = 0,
            weight = 0,
            squares = 0;
        for (var day = today; day.Month == today.Month; day = day.AddDays(1))
        {
            var runs = share(day);
            sum += runs * means[(int)day.DayOfWeek];
            weight += runs;
            squares += runs * runs;
            var error = wide * deviation * Math.Sqrt(squares + weight * weight / before.Count);
            days.Add(
                (
                    day,
                    new LikelyRange(
                        (double)spent + Math.Max(0, sum - error),
                        (double)spent + sum,
                        (double)spent + sum + error
                    )
                )
            );
        }

        var whole = days.Count == 0 ? new LikelyRange((double)spent, (double)spent, (double)spent) : days[^1].Item2;
        return new MonthForecast(spent, whole, days);
    }

    /// <summary>The first day at the end of which the month is likely to have cost more than an amount; none where it is not.</summary>
    public DateOnly? DayBeyond(decimal amount)
    {
        foreach (var (day, sum) in Days)
        {
            if (sum.Likely > (double)amount)
            {
                return day;
            }
        }

        return null;
    }

    private static (double[] Means, double Deviation) Weekdays(IReadOnlyCollection<(DateOnly Day, double Cost)> days)
    {
        var mean = days.Average(day => day.Cost);
        var groups = days.GroupBy(day => (int)day.Day.DayOfWeek)
            .Select(group =>
                (group.Key, Count: group.Count(), Mean: group.Average(day => day.Cost), Group: group.ToArray())
            )
            .ToArray();
        var within =
            groups.Sum(group => group.Group.Sum(day => (day.Cost - group.Mean) * (day.Cost - group.Mean)))
            / Math.Max(1, days.Count - groups.Length);
        var each = (double)days.Count / groups.Length;
        var between = Math.Max(
            0,
            groups.Sum(group => (group.Mean - mean) * (group.Mean - mean)) / Math.Max(1, groups.Length - 1)
                - within / each
        );
        var means = new double[DaysOfWeek];
        Array.Fill(means, mean);
        foreach (var group in groups)
        {
            var own = between > 0 ? between / (between + within / group.Count) : 0;
            means[group.Key] = mean + own * (group.Mean - mean);
        }

        var squares = days.Sum(day =>
        {
            var off = day.Cost - means[(int)day.Day.DayOfWeek];
            return off * off;
        });
        return (means, Math.Sqrt(squares / (days.Count - 1)));
    }
}
