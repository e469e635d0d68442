using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>What the past of a campaign comes to under some goals.</summary>
/// <param name="Conversions">Conversions that would have counted.</param>
/// <param name="Value">What they are worth, in the account's currency.</param>
/// <param name="CostPerConversion">Cost ÷ conversions; none without any.</param>
/// <param name="Bids">What its strategy would have done with its bids, in words; none where people set them.</param>
public sealed record GoalReading(decimal Conversions, decimal Value, decimal? CostPerConversion, string? Bids)
{
    /// <summary>Reads the past of a campaign under some goals: what was counted is counted, only what counts as success is another.</summary>
    /// <param name="counted">What each action counted in the campaign, with its value.</param>
    /// <param name="counts">Whether an action would count.</param>
    /// <param name="cost">What the campaign spent.</param>
    /// <param name="plan">By what its bids are set.</param>
    /// <param name="currency">The account's currency.</param>
    public static GoalReading Of(
        IEnumerable<(long ActionId, decimal Conversions, decimal Value)> counted,
        Func<long, bool> counts,
        decimal cost,
        StrategyPlan plan,
        Currency currency
    )
    {
        var taken = counted.Where(each => counts(each.ActionId)).ToArray();
        var conversions = taken.Sum(each => each.Conversions);
        var value = taken.Sum(each => each.Value);
        decimal? each = conversions > 0 ? cost / conversions : null;
        return new GoalReading(conversions, value, each, BidsOf(plan, each, cost, value, currency));
    }

    private static string? BidsOf(StrategyPlan plan, decimal? each, decimal cost, decimal value, Currency currency)
    {
        // A target is met from above or below; what has no target spends its budget whatever a conversion costs.
        if (plan is { Strategy: BidStrategy.TargetCpa, TargetCpa: { } target })
        {
            return each is null ? "lowered: nothing counts"
                : each > target ? $"lowered towards {new Money(target, currency)}"
                : $"raised towards {new Money(target, currency)}";
        }

        if (plan is { Strategy: BidStrategy.TargetRoas, TargetRoas: { } roas } && cost > 0)
        {
            return value / cost * 100 < roas ? $"lowered towards {roas:0}%" : $"raised towards {roas:0}%";
        }

        return plan.NeedsConversions ? "put where this is likely" : null;
    }
}
