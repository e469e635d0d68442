using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Items.Values;

namespace Fendrik.Server.Api.Bidding;

/// <summary>What is to be known of the bids and modifiers of a campaign whose strategy has a say in them.</summary>
internal static class StrategyNote
{
    /// <summary>In a sentence; none where people set the bids.</summary>
    public static string? Of(StrategyPlan plan) =>
        plan.IsAutomatic
            ? $"The strategy {Choices.NameOf(Choices.Strategy, (int)plan.Strategy)} sets the bids: max CPC and modifiers count again when bids are set by hand; −100% still means never."
        : plan.Strategy == BidStrategy.NudgedCpc
            ? "Each bid is nudged by how likely the click is to convert: between half and one and a half times what stands here."
        : null;
}
