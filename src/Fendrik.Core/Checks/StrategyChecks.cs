using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Checks;

/// <summary>What is wrong with the strategy of a campaign in view of what is counted, and of its other settings.</summary>
public static class StrategyChecks
{
    /// <summary>Name of the check for strategies that would go by nothing.</summary>
    public const string Uncounted = "strategy-uncounted";

    /// <summary>Name of the check for strategies that contradict the objective.</summary>
    public const string AgainstObjective = "strategy-objective";

    /// <summary>Name of the check for modifiers that a strategy takes no notice of.</summary>
    public const string IdleModifiers = "strategy-modifiers";

    /// <summary>Names of all these checks.</summary>
    public static IReadOnlyList<string> Codes { get; } = [Uncounted, AgainstObjective, IdleModifiers];

    /// <summary>Checks a campaign.</summary>
    /// <param name="campaignId">The campaign.</param>
    /// <param name="plan">Its strategy.</param>
    /// <param name="objective">What it is for.</param>
    /// <param name="hasModifiers">True when it has a modifier other than −100 % on devices or hours.</param>
    /// <param name="counts">True when the account counted a conversion in the last <see cref="StrategyFacts.Days"/> reported days.</param>
    /// <param name="runs">True when the network bids by this strategy already: then nothing else is held up by it.</param>
    public static IEnumerable<Finding> Of(
        long campaignId,
        StrategyPlan plan,
        Objective objective,
        bool hasModifiers,
        bool counts,
        bool runs = false
    )
    {
        Finding Found(Weight weight, string code, string message, string detail) =>
            new(weight, code, ItemKind.Campaign, campaignId, "strategy", message, detail);
        if (plan.NeedsConversions && !counts)
        {
            yield return Found(
                runs ? Weight.Caution : Weight.Blocker,
                Uncounted,
                "nothing counted to go by",
                $"The strategy goes by conversions, and the account counted none in the last {StrategyFacts.Days} days. {(runs ? "It goes on by what it knew: see whether conversions are still counted" : "Count conversions first")}, or choose manual CPC or maximise clicks."
            );
        }

        if (StrategyReadiness.Contradiction(plan.Strategy, objective) is { } contradiction)
        {
            yield return Found(
                Weight.Caution,
                AgainstObjective,
                "strategy against objective",
                $"{contradiction} Change one of the two."
            );
        }

        if (plan.IsAutomatic && hasModifiers)
        {
            yield return Found(
                Weight.Hint,
                IdleModifiers,
                "modifiers without effect",
                $"{Capital(Choices.NameOf(Choices.Strategy, (int)plan.Strategy))} weighs devices and hours itself: of its modifiers only −100% counts, which means never. They count again when bids are set by hand."
            );
        }
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
