namespace Fendrik.Core.Tracking.Conversions;

/// <summary>How many clicks led to a conversion, or were last seen without one, at an age.</summary>
/// <param name="Age">Days since the click.</param>
/// <param name="Converted">Clicks that led to a conversion at that age.</param>
/// <param name="Left">Clicks that are no older than that and have led to none so far.</param>
public readonly record struct AgedClicks(double Age, double Converted, double Left);

/// <summary>
/// What share of the conversions that a click will ever lead to has been told of by an age: the product-limit estimate of Kaplan and
/// Meier, “Nonparametric estimation from incomplete observations”, JASA 53, 1958. Clicks too young to have led to anything leave the
/// ranks at their age; they are not taken for failures.
/// </summary>
public sealed class DelayCurve
{
    /// <summary>The fewest conversions from which a curve says anything.</summary>
    public const int FewestConversions = 20;

    private readonly (double Age, double Survives)[] _steps;

    /// <param name="clicks">Clicks by age; each click once.</param>
    public DelayCurve(IEnumerable<AgedClicks> clicks)
    {
        var rows = clicks
            .GroupBy(row => row.Age)
            .Select(same => new AgedClicks(same.Key, same.Sum(row => row.Converted), same.Sum(row => row.Left)))
            .OrderBy(row => row.Age)
            .ToArray();
        var atRisk = rows.Sum(row => row.Converted + row.Left);
        Clicks = atRisk;
        Conversions = rows.Sum(row => row.Converted);
        var survives = 1.0;
        var steps = new List<(double, double)>(rows.Length);
        foreach (var row in rows)
        {
            // Whoever leaves at an age was there when those converted who converted at it.
            if (row.Converted > 0)
            {
                survives *= 1 - row.Converted / atRisk;
                steps.Add((row.Age, survives));
            }

            atRisk -= row.Converted + row.Left;
        }

        _steps = [.. steps];
    }

    /// <summary>Clicks that it rests on.</summary>
    public double Clicks { get; }

    /// <summary>Conversions that it rests on.</summary>
    public double Conversions { get; }

    /// <summary>True when it rests on enough to say anything.</summary>
    public bool IsKnown => Conversions >= FewestConversions;

    /// <summary>Share of clicks that have led to nothing by an age.</summary>
    public double Survives(double age)
    {
        var found = 1.0;
        foreach (var (at, survives) in _steps)
        {
            if (at > age)
            {
                break;
            }

            found = survives;
        }

        return found;
    }

    /// <summary>Share of the conversions to come that has been told of by an age, from 0 to 1.</summary>
    public double ToldBy(double age) => _steps.Length == 0 ? 1 : (1 - Survives(age)) / (1 - _steps[^1].Survives);

    /// <summary>Share of the conversions of several days that has been told of, each day weighing by its clicks; 1 where too little is known of delays.</summary>
    /// <param name="days">Clicks of each day, and the days since.</param>
    public double ToldOf(IReadOnlyCollection<(double Clicks, double Age)> days)
    {
        var clicks = days.Sum(day => day.Clicks);
        // Of clicks of this very moment nothing can be told: never is all of a day still to come.
        const double Least = 0.01;
        return !IsKnown || clicks <= 0
            ? 1
            : Math.Clamp(days.Sum(day => day.Clicks * ToldBy(day.Age)) / clicks, Least, 1);
    }

    /// <summary>The age by which a share of the conversions to come has been told of; none when it is not known.</summary>
    /// <param name="share">From 0 to 1.</param>
    public double? AgeOf(double share) =>
        _steps.Length == 0
            ? null
            : _steps.First(step => 1 - step.Survives >= share * (1 - _steps[^1].Survives) - 1e-12).Age;

    /// <summary>
    /// What a day will have come to when all of it is told: what is told so far ÷ the share that is told of by then, clicks of a day
    /// counted as made in the middle of it.
    /// </summary>
    /// <param name="soFar">Conversions told of so far.</param>
    /// <param name="age">Days since the day’s clicks.</param>
    /// <returns>The expected final figure; none where nothing of it can be told of yet.</returns>
    public double? Final(double soFar, double age) => ToldBy(age) is > 0 and var share ? soFar / share : null;
}
