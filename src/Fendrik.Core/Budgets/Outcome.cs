using Fendrik.Core.Reporting;

namespace Fendrik.Core.Budgets;

/// <summary>What searches bring, or would bring: expected numbers, which need not be whole.</summary>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">What they cost, in the account's currency.</param>
/// <param name="Conversions">Conversions that follow.</param>
public readonly record struct Outcome(double Clicks, double Cost, double Conversions)
{
    /// <summary>What was counted.</summary>
    public static Outcome Of(Figures figures) => new(figures.Clicks, (double)figures.Cost, (double)figures.Conversions);

    /// <summary>Cost ÷ conversions; none without conversions.</summary>
    public double? CostPerConversion => Conversions > 0 ? Cost / Conversions : null;

    /// <summary>Adds two.</summary>
    public static Outcome operator +(Outcome left, Outcome right) =>
        new(left.Clicks + right.Clicks, left.Cost + right.Cost, left.Conversions + right.Conversions);

    /// <summary>Adds two.</summary>
    public static Outcome Add(Outcome left, Outcome right) => left + right;

    /// <summary>Takes one from another.</summary>
    public static Outcome operator -(Outcome left, Outcome right) =>
        new(left.Clicks - right.Clicks, left.Cost - right.Cost, left.Conversions - right.Conversions);

    /// <summary>Takes one from another.</summary>
    public static Outcome Subtract(Outcome left, Outcome right) => left - right;

    /// <summary>So many times as much.</summary>
    public static Outcome operator *(Outcome outcome, double times) =>
        new(outcome.Clicks * times, outcome.Cost * times, outcome.Conversions * times);

    /// <summary>So many times as much.</summary>
    public static Outcome Multiply(Outcome outcome, double times) => outcome * times;
}
