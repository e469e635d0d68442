using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Core.Checks;

/// <summary>What is wrong with the goals of a campaign, whatever was counted so far.</summary>
public static class GoalChecks
{
    /// <summary>Name of the check for goals that no action is called by.</summary>
    public const string Unknown = "goal-unknown";

    /// <summary>Name of the check for campaigns that take a page view for a success.</summary>
    public const string PageCounts = "goal-page";

    /// <summary>Name of the check for strategies without a goal to learn from.</summary>
    public const string NothingSteers = "goal-steers";

    /// <summary>Name of the check for goals that contradict what the campaign is for.</summary>
    public const string AgainstObjective = "goal-objective";

    /// <summary>Names of all these checks.</summary>
    public static IReadOnlyList<string> Codes { get; } = [Unknown, PageCounts, NothingSteers, AgainstObjective];

    /// <summary>Checks a campaign; nothing is found while the account has no actions: then the network counts what it can.</summary>
    /// <param name="campaignId">The campaign.</param>
    /// <param name="name">Its name.</param>
    /// <param name="goals">Its own goals as they are kept; none for those of the account.</param>
    /// <param name="plan">By what its bids are set.</param>
    /// <param name="objective">What it is for; none where that does not matter.</param>
    /// <param name="known">The actions of the account.</param>
    /// <param name="runs">True when the network bids by this strategy already: then nothing else is held up by it.</param>
    public static IEnumerable<Finding> Of(
        long campaignId,
        string name,
        string? goals,
        StrategyPlan plan,
        Objective? objective,
        ConversionGoals known,
        bool runs = false
    )
    {
        if (known.Actions.Count == 0)
        {
            yield break;
        }

        Finding Found(Weight weight, string code, string message, string detail) =>
            new(weight, code, ItemKind.Campaign, campaignId, "goals", message, detail);
        var unknown = known.Unknown(goals).ToArray();
        if (unknown.Length > 0)
        {
            yield return Found(
                Weight.Blocker,
                Unknown,
                $"“{unknown[0]}” is no conversion action",
                $"{name} counts by a name that no action has: nothing of it counts. Choose its goals again."
            );
        }

        var own = known.Of(goals).Where(action => action.State == ItemState.Running).ToArray();
        if (own.Length > 0 && own.All(action => action.Source == ConversionSource.PageReached))
        {
            yield return Found(
                Weight.Caution,
                PageCounts,
                "a mere page view counts as success",
                $"{name} takes whoever looks at a page for a success: its cost per conversion says nothing, and a strategy would buy lookers."
            );
        }

        if (plan.NeedsConversions && !known.Actions.Any(action => ConversionGoals.Steers(action, goals)))
        {
            yield return Found(
                runs ? Weight.Caution : Weight.Blocker,
                NothingSteers,
                "a strategy without a goal",
                $"No goal of {name} may steer bids, and its strategy bids for conversions. Choose a goal that steers, or set the bids by hand."
            );
        }

        if (objective == Objective.Calls && !own.Any(action => ConversionRule.IsCall(action.Source)))
        {
            yield return Found(
                Weight.Caution,
                AgainstObjective,
                "for calls, and counts none",
                $"{name} is for calls, and no call counts in it. Add a call to its goals, or change its objective."
            );
        }
    }
}
