using Fendrik.Core.Bidding.Evidence;

namespace Fendrik.Core.Budgets;

/// <summary>A number that is not known, with the range in which it lies nine times in ten.</summary>
/// <param name="Low">The lower end.</param>
/// <param name="Likely">The likeliest.</param>
/// <param name="High">The higher end.</param>
public readonly record struct LikelyRange(double Low, double Likely, double High)
{
    /// <summary>Standard deviations on each side of the mean that nine of ten of a normal distribution lie within.</summary>
    public const double Sure = 1.6448536269514722;

    /// <summary>The range of a number with this mean and standard deviation.</summary>
    public static LikelyRange Of(double mean, double deviation) =>
        new(mean - Sure * deviation, mean, mean + Sure * deviation);

    /// <summary>The same, at least this.</summary>
    public LikelyRange AtLeast(double least) =>
        new(Math.Max(least, Low), Math.Max(least, Likely), Math.Max(least, High));
}

/// <summary>What another budget changes, in expected numbers and in how sure they are.</summary>
/// <param name="Mean">What it changes.</param>
/// <param name="ClicksVariance">Variance of the change of clicks.</param>
/// <param name="CostVariance">Of cost.</param>
/// <param name="ConversionsVariance">Of conversions.</param>
public readonly record struct BudgetEffect(
    Outcome Mean,
    double ClicksVariance,
    double CostVariance,
    double ConversionsVariance
)
{
    /// <summary>Adds the effects in two campaigns, which know nothing of one another.</summary>
    public static BudgetEffect operator +(BudgetEffect left, BudgetEffect right) =>
        new(
            left.Mean + right.Mean,
            left.ClicksVariance + right.ClicksVariance,
            left.CostVariance + right.CostVariance,
            left.ConversionsVariance + right.ConversionsVariance
        );

    /// <summary>Adds two.</summary>
    public static BudgetEffect Add(BudgetEffect left, BudgetEffect right) => left + right;
}

/// <summary>
/// What a campaign would have brought on the days that lie behind with any daily budget: up to what a day cost it has what it got, beyond
/// that the searches that it missed, and no more than was searched for.
/// </summary>
/// <remarks>
/// A replay of days, this project's own way: it takes people, rivals and bids as they were. A smaller budget loses usual searches, not the
/// worst ones.
/// </remarks>
public sealed class BudgetCurve
{
    private readonly IReadOnlyList<DemandDay> _days;
    private readonly Outcome _got;
    private readonly Outcome _missed;

    /// <param name="days">The days.</param>
    public BudgetCurve(IReadOnlyList<DemandDay> days)
    {
        _days = days;
        _got = days.Aggregate(default(Outcome), (sum, day) => sum + day.Got);
        _missed = days.Aggregate(default(Outcome), (sum, day) => sum + day.Missed);
        double[] over =
        [
            .. days.Where(day => day.Missed.Cost > 0)
                .Select(day => (double?)day.Budget - day.Got.Cost)
                .OfType<double>()
                .Select(each => Math.Max(0, each)),
        ];
        LeftOver = over.Length == 0 ? 0 : over.Average();
    }

    /// <summary>
    /// What a budget that misses searches usually leaves over all the same: the last click that it could not pay, and hours for which it was spread too
    /// thin.
    /// </summary>
    public double LeftOver { get; }

    /// <summary>True where days are known: nothing can be said without.</summary>
    public bool IsKnown => _days.Count > 0 && _got.Cost + _missed.Cost > 0;

    /// <summary>What a usual day would have cost with a budget that reaches for everything; 0 without days.</summary>
    public double Demand => _days.Count == 0 ? 0 : (_got.Cost + _missed.Cost) / _days.Count;

    /// <summary>The dearest day, had the budget reached for everything.</summary>
    public double HighestDemand => _days.Count == 0 ? 0 : _days.Max(day => day.Demand);

    /// <summary>What a usual day brings with a daily budget.</summary>
    /// <param name="budget">The budget; below zero counts as none.</param>
    public Outcome PerDay(decimal budget)
    {
        if (_days.Count == 0)
        {
            return default;
        }

        double got = 0,
            missed = 0;
        foreach (var day in _days)
        {
            var (first, rest) = day.SpentWith(SpendableOf(budget));
            got += first;
            missed += rest;
        }

        return (At(_got, got) + At(_missed, missed)) * (1.0 / _days.Count);
    }

    /// <summary>What one of the days would have cost with a daily budget.</summary>
    public double CostOn(DemandDay day, decimal budget)
    {
        var (got, missed) = day.SpentWith(SpendableOf(budget));
        return got + missed;
    }

    /// <summary>
    /// What another conversion costs when a little more may be spent in a day: none where the budget holds nothing back, or nothing is known of conversions.
    /// </summary>
    public double? NextConversionCost(decimal budget)
    {
        var money = SpendableOf(budget);
        var (got, missed) = (0, 0);
        foreach (var day in _days)
        {
            got += day.Got.Cost > money ? 1 : 0;
            missed += day.Got.Cost <= money && day.Demand > money ? 1 : 0;
        }

        return (At(_got, got) + At(_missed, missed)).CostPerConversion;
    }

    /// <summary>What another budget changes over so many days, and how sure that is.</summary>
    /// <param name="from">The budget now.</param>
    /// <param name="to">The budget then.</param>
    /// <param name="days">Number of days.</param>
    public BudgetEffect Change(decimal from, decimal to, int days)
    {
        if (_days.Count == 0 || from == to)
        {
            return default;
        }

        var mean = (PerDay(to) - PerDay(from)) * days;
        double[] costs = [.. _days.Select(day => CostOn(day, to) - CostOn(day, from))];
        var average = costs.Average();
        // How much the mean of the days may well be off; one day tells nothing of that.
        var error =
            costs.Length < 2
                ? average * average
                : costs.Sum(each => (each - average) * (each - average)) / (costs.Length - 1) / costs.Length;
        var cost = error * days * days;
        double Variance(double changed, double counted) =>
            mean.Cost == 0
                ? 0
                // The money and what it brings are both uncertain; a rate that was counted so often is known to one part in its root.
                : changed / mean.Cost * (changed / mean.Cost) * cost
                    + changed * changed / (counted + SegmentFactor.Prior);
        return new BudgetEffect(
            mean,
            Variance(mean.Clicks, _got.Clicks),
            cost,
            Variance(mean.Conversions, _got.Conversions)
        );
    }

    private double SpendableOf(decimal budget) => Math.Max(0, (double)budget - LeftOver);

    private static Outcome At(Outcome of, double cost) => of.Cost > 0 ? of * (cost / of.Cost) : default;
}
