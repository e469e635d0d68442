using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>Which actions count in which campaign: its own goals where it has any, else those of the account.</summary>
/// <param name="actions">The actions of the account.</param>
public sealed class ConversionGoals(IEnumerable<ConversionAction> actions)
{
    private readonly ConversionAction[] _actions = [.. actions];

    /// <summary>The actions of the account; while there is none, the network counts everybody who gets in touch.</summary>
    public IReadOnlyList<ConversionAction> Actions => _actions;

    /// <summary>True when an action counts in a campaign with these goals of its own.</summary>
    /// <param name="action">The action; one that is paused may be a goal, and counts nothing.</param>
    /// <param name="goals">The campaign's own goals as they are kept; none for those of the account.</param>
    public static bool Counts(ConversionAction action, string? goals) =>
        goals is null
            ? action.AccountGoal == YesNo.Yes
            : GoalsValue.NamesIn(goals).Any(name => TextIdentity.Of(name) == TextIdentity.Of(action.Name));

    /// <summary>True when strategies of a campaign with these goals learn from an action.</summary>
    public static bool Steers(ConversionAction action, string? goals) =>
        action is { Steers: YesNo.Yes, State: ItemState.Running } && Counts(action, goals);

    /// <summary>The actions that count in a campaign with these goals of its own.</summary>
    public IEnumerable<ConversionAction> Of(string? goals) => _actions.Where(action => Counts(action, goals));

    /// <summary>Names among a campaign's own goals that no action has.</summary>
    public IEnumerable<string> Unknown(string? goals) =>
        GoalsValue
            .NamesIn(goals)
            .Where(name => _actions.All(action => TextIdentity.Of(action.Name) != TextIdentity.Of(name)));
}
