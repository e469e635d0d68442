using System.Globalization;
using Fendrik.Core.Checks;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>What there is to say of actions and of how long conversions take.</summary>
public static class ConversionWords
{
    /// <summary>How an action stands, in a short line.</summary>
    public static string Of(ActionHealth health) =>
        health.State switch
        {
            ActionState.Works => $"works, last {Day(health.LastDay)}",
            ActionState.Paused => "paused",
            ActionState.NeverCounted => "has never counted anything",
            ActionState.Silent => $"silent since {Day(health.LastDay)}",
            ActionState.EveryVisit =>
                $"counts {health.PerClick.ToString("0%", CultureInfo.InvariantCulture)} of all visits",
            ActionState.TooNew => health.LastDay is null ? "nothing yet" : $"new, last {Day(health.LastDay)}",
        };

    /// <summary>How much that weighs; none where all is well.</summary>
    public static Weight? WeightOf(ActionHealth health) =>
        health.State switch
        {
            ActionState.Works or ActionState.Paused or ActionState.TooNew => null,
            ActionState.NeverCounted or ActionState.EveryVisit => Weight.Caution,
            ActionState.Silent => Weight.Blocker,
        };

    /// <summary>How long conversions take, in sentences.</summary>
    public static string Of(DelayCurve curve) =>
        !curve.IsKnown
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{curve.Conversions:0} conversions are too few to say how long they take; {DelayCurve.FewestConversions} are needed."
            )
            : $"Half of the conversions are told of within {Span(curve.AgeOf(0.5)!.Value)} of the click, nine of ten within {Span(curve.AgeOf(0.9)!.Value)}.";

    /// <summary>By how much days will grow, in a sentence; none when nothing more is to come.</summary>
    /// <param name="soFar">Conversions told of so far.</param>
    /// <param name="final">What they are expected to come to.</param>
    /// <param name="days">How many days.</param>
    public static string? Growth(double soFar, double final, int days) =>
        soFar > 0 && final / soFar - 1 is var more && more >= 0.005
            ? $"Figures of the last {days} days will grow by about {more.ToString("0%", CultureInfo.InvariantCulture)}."
            : null;

    /// <summary>What is to be said of conversions that were counted before there was an action; none without any.</summary>
    public static string? Earlier(decimal conversions) =>
        conversions == 0
            ? null
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{conversions:0.#} more {(conversions == 1 ? "was" : "were")} counted before the account said what counts, and can be told to no action."
            );

    private static string Day(DateOnly? day) => day?.ToString("ddd d MMM", CultureInfo.InvariantCulture) ?? "never";

    private static string Span(double days)
    {
        const double Hours = 24;
        return days * Hours < 1.5 ? "an hour"
            : days < 2 ? $"{Math.Round(days * Hours)} hours"
            : $"{Math.Round(days)} days";
    }
}
