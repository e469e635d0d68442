namespace Fendrik.Core.Tracking.Conversions;

/// <summary>Whether an action still counts what it should.</summary>
public enum ActionState
{
    /// <summary>It counts.</summary>
    Works = 1,

    /// <summary>It is paused.</summary>
    Paused = 2,

    /// <summary>It has never counted anything.</summary>
    NeverCounted = 3,

    /// <summary>It counted, and has stopped.</summary>
    Silent = 4,

    /// <summary>It counts nearly every visit.</summary>
    EveryVisit = 5,

    /// <summary>It is too new to say.</summary>
    TooNew = 6,
}

/// <summary>How an action stands.</summary>
/// <param name="State">Whether it counts what it should.</param>
/// <param name="LastDay">The last day on which it counted anything; none for never.</param>
/// <param name="SilentDays">Whole days without anything since then.</param>
/// <param name="Chance">How likely so long a silence would be by chance alone, from 0 to 1.</param>
/// <param name="PerClick">Conversions for each click.</param>
/// <param name="Missed">How many should have come since it went silent.</param>
/// <param name="Days">Days by which it is judged.</param>
public sealed record ActionHealth(
    ActionState State,
    DateOnly? LastDay,
    int SilentDays,
    double Chance,
    double PerClick,
    double Missed,
    int Days
)
{
    /// <summary>A silence less likely than this is not put down to chance (common practice, no source).</summary>
    public const double Unlikely = 0.01;

    /// <summary>An action that counts at least this share of the clicks counts visits, not successes (common practice, no source).</summary>
    public const double NearlyEveryVisit = 0.6;

    /// <summary>Clicks from which anything can be said.</summary>
    public const int FewestClicks = 30;

    /// <summary>Days without anything from which an action that never counted is pointed out.</summary>
    public const int FewestDays = 14;

    /// <summary>
    /// Judges an action. A silence is judged by Poisson’s distribution: with <c>m</c> conversions expected from the clicks since the last
    /// one, none at all comes by chance with probability <c>e^−m</c>.
    /// </summary>
    /// <param name="action">The action.</param>
    /// <param name="days">
    /// Days in order, from the first on which it could count up to the last that is reported, each with the clicks that could have led to it and the conversions made on it.
    /// </param>
    public static ActionHealth Of(
        ConversionAction action,
        IReadOnlyList<(DateOnly Day, double Clicks, double Conversions)> days
    )
    {
        var last = -1;
        for (var at = 0; at < days.Count; at++)
        {
            last = days[at].Conversions > 0 ? at : last;
        }

        var clicks = days.Sum(day => day.Clicks);
        var made = days.Sum(day => day.Conversions);
        var before = days.Take(last + 1).Sum(day => day.Clicks);
        var rate = before > 0 ? made / before : 0;
        var missed = last < 0 ? 0 : rate * days.Skip(last + 1).Sum(day => day.Clicks);
        var chance = Math.Exp(-missed);
        var silent = last < 0 ? days.Count : days.Count - 1 - last;
        ActionHealth As(ActionState state) =>
            new(
                state,
                last < 0 ? null : days[last].Day,
                silent,
                chance,
                clicks > 0 ? made / clicks : 0,
                missed,
                days.Count
            );
        return action.State == ItemState.Paused ? As(ActionState.Paused)
            : last < 0
                ? As(days.Count >= FewestDays && clicks >= FewestClicks ? ActionState.NeverCounted : ActionState.TooNew)
            : silent > 0 && chance < Unlikely ? As(ActionState.Silent)
            : action.Source != ConversionSource.PageReached && before >= FewestClicks && rate >= NearlyEveryVisit
                ? As(ActionState.EveryVisit)
            : As(ActionState.Works);
    }
}
