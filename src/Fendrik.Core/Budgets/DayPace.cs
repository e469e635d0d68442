using System.Globalization;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Budgets;

/// <summary>How a campaign usually spends its day, from days that are over.</summary>
/// <param name="Clicks">Clicks of each of the days.</param>
/// <param name="Cost">What a usual day costs with the budget that holds now.</param>
/// <param name="Hours">What was spent in each hour of the clock, 0 to 23, over all of the days: only the proportions count.</param>
public sealed record UsualDay(IReadOnlyCollection<double> Clicks, double Cost, IReadOnlyList<double> Hours)
{
    private const int MinutesOfHour = 60;

    /// <summary>Clicks of a usual day; 0 without days.</summary>
    public double MeanClicks => Clicks.Count == 0 ? 0 : Clicks.Average();

    /// <summary>
    /// How alike the days are: the shape of the gamma distribution from which each day draws how busy it is, by the moments of the counts (mean² ÷ (variance
    /// − mean); a textbook formula, quoted from memory). Infinite where days differ no more than chance explains.
    /// </summary>
    public double Likeness
    {
        get
        {
            if (Clicks.Count < 2 || MeanClicks <= 0)
            {
                return double.PositiveInfinity;
            }

            var mean = MeanClicks;
            var variance = Clicks.Sum(each => (each - mean) * (each - mean)) / (Clicks.Count - 1);
            return variance > mean ? mean * mean / (variance - mean) : double.PositiveInfinity;
        }
    }

    /// <summary>Share of a usual day's money that is spent before a minute of the day: 0 to 1.</summary>
    public double ShareBy(int minute)
    {
        var all = Hours.Sum();
        if (all <= 0)
        {
            return Math.Clamp(minute / (double)(Hours.Count * MinutesOfHour), 0, 1);
        }

        var (hour, rest) = Math.DivRem(minute, MinutesOfHour);
        var before = Hours.Take(hour).Sum() + (hour < Hours.Count ? Hours[hour] * rest / MinutesOfHour : 0);
        return Math.Clamp(before / all, 0, 1);
    }
}

/// <summary>A campaign's day that is not over: what it spent, against what it usually has by then, and what is to come.</summary>
/// <param name="Minute">Minutes of the day that are over.</param>
/// <param name="Spent">What it spent in them.</param>
/// <param name="Budget">What it may spend on the day; none where that is not known.</param>
/// <param name="UsualByNow">What it has usually spent by then.</param>
/// <param name="AtEnd">What the day is likely to cost; none without days before.</param>
/// <param name="RunsOutMinute">The minute of the day at which the budget is likely to be spent; none where it is likely to last.</param>
/// <param name="RanOut">True where it is spent already.</param>
public sealed record DayPace(
    int Minute,
    decimal Spent,
    decimal? Budget,
    double UsualByNow,
    LikelyRange? AtEnd,
    int? RunsOutMinute,
    bool RanOut
)
{
    private const int MinutesOfDay = 24 * 60;

    /// <summary>Parts of usual money on either side of which a day is said to be as usual.</summary>
    private const double AsUsual = 0.2;

    /// <summary>
    /// Looks at a day that is not over. How busy it is, is told from its clicks so far and from how much days differ: a day's rate is drawn from a gamma
    /// distribution about the usual one, its clicks are Poisson, so that what is to come is negative binomial (the conjugate pair; a textbook result, quoted
    /// from memory).
    /// </summary>
    /// <param name="minute">Minutes of the day that are over.</param>
    /// <param name="spent">What was spent in them.</param>
    /// <param name="clicks">Clicks in them.</param>
    /// <param name="budget">What may be spent on the day.</param>
    /// <param name="stoppedMinute">The minute at which the network stopped it for lack of budget; none where it runs.</param>
    /// <param name="usual">How it usually spends a day.</param>
    public static DayPace Of(
        int minute,
        decimal spent,
        long clicks,
        decimal? budget,
        int? stoppedMinute,
        UsualDay usual
    )
    {
        var share = usual.ShareBy(minute);
        var byNow = usual.Cost * share;
        if (stoppedMinute is not null || spent >= budget)
        {
            var all = (double)spent;
            return new DayPace(minute, spent, budget, byNow, new LikelyRange(all, all, all), stoppedMinute, true);
        }

        if (usual.MeanClicks <= 0 || usual.Cost <= 0)
        {
            return new DayPace(minute, spent, budget, byNow, null, null, false);
        }

        var expected = usual.MeanClicks * share;
        var rest = usual.MeanClicks - expected;
        var likeness = usual.Likeness;
        var rate = double.IsInfinity(likeness) ? 1 : (likeness + clicks) / (likeness + expected);
        var rateVariance = double.IsInfinity(likeness) ? 0 : rate / (likeness + expected);
        var price = usual.Cost / usual.MeanClicks;
        var toCome = LikelyRange
            .Of(rest * rate * price, price * Math.Sqrt(rest * rate + rest * rest * rateVariance))
            .AtLeast(0);
        double Capped(double more) =>
            budget is { } most ? Math.Min((double)most, (double)spent + more) : (double)spent + more;
        return new DayPace(
            minute,
            spent,
            budget,
            byNow,
            new LikelyRange(Capped(toCome.Low), Capped(toCome.Likely), Capped(toCome.High)),
            RunsOut(minute, spent, budget, usual, rate),
            false
        );
    }

    /// <summary>What each hour of the clock is likely to cost besides what was spent, so that all together come to the likeliest end of the day.</summary>
    /// <param name="usual">How it usually spends a day.</param>
    public IReadOnlyList<double> ToCome(UsualDay usual)
    {
        const int MinutesOfHour = 60;
        var hours = MinutesOfDay / MinutesOfHour;
        var rest = 1 - usual.ShareBy(Minute);
        var more = (AtEnd?.Likely ?? (double)Spent) - (double)Spent;
        // A budget that runs out takes its money from the hours before, none from those after.
        var end = RunsOutMinute is { } minute && !RanOut ? minute : MinutesOfDay;
        var until = usual.ShareBy(end) - usual.ShareBy(Minute);
        return
        [
            .. Enumerable
                .Range(0, hours)
                .Select(hour =>
                {
                    var from = Math.Clamp(hour * MinutesOfHour, Minute, end);
                    var to = Math.Clamp((hour + 1) * MinutesOfHour, Minute, end);
                    return rest <= 0 || until <= 0 || more <= 0
                        ? 0
                        : more * (usual.ShareBy(to) - usual.ShareBy(from)) / until;
                }),
        ];
    }

    /// <summary>The same in a sentence.</summary>
    public string InWords(Currency currency)
    {
        Money Of(double amount) => new(currency.Round((decimal)amount), currency);
        var spent = new Money(currency.Round(Spent), currency);
        var so = Budget is { } budget
            ? $"Today by {BudgetWords.Clock(Minute)} {spent} of {new Money(budget, currency)} is spent"
            : $"Today by {BudgetWords.Clock(Minute)} {spent} is spent";
        if (RanOut)
        {
            return RunsOutMinute is { } stopped
                ? $"{so}: the budget ran out at {BudgetWords.Clock(stopped)}."
                : $"{so}: the budget has run out.";
        }

        if (AtEnd is not { } end)
        {
            return $"{so}. There are no days to compare it with.";
        }

        var against =
            UsualByNow <= 0 ? "nothing usually is by then"
            : Math.Abs((double)Spent / UsualByNow - 1) <= AsUsual ? $"as usual ({Of(UsualByNow)})"
            : $"usually {Of(UsualByNow)} by then";
        return RunsOutMinute is { } minute
            ? $"{so}, {against}; the budget is likely to run out about {BudgetWords.Clock(minute)}."
            : $"{so}, {against}; likely {Of(end.Low)} – {Of(end.High)} by midnight.";
    }

    private static int? RunsOut(int minute, decimal spent, decimal? budget, UsualDay usual, double rate)
    {
        if (budget is not { } most)
        {
            return null;
        }

        var share = usual.ShareBy(minute);
        for (var later = minute + 1; later < MinutesOfDay; later++)
        {
            if ((double)spent + usual.Cost * rate * (usual.ShareBy(later) - share) >= (double)most)
            {
                return later;
            }
        }

        return null;
    }
}
