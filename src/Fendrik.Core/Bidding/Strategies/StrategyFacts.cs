using Fendrik.Core.Reporting;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>What is known of a campaign before its strategy is changed.</summary>
/// <param name="Recent">What it brought in the last <see cref="Days"/> reported days.</param>
/// <param name="CountedInAccount">Conversions that the account counted in these days.</param>
/// <param name="DailyBudget">Its daily budget.</param>
/// <param name="Runs">The strategy by which the network bids now.</param>
/// <param name="Since">Days for which it has; none where that is not known.</param>
/// <param name="OfRun">What the campaign brought since.</param>
/// <param name="Objective">What the campaign is for.</param>
public sealed record StrategyFacts(
    Figures Recent,
    decimal CountedInAccount,
    decimal? DailyBudget,
    BidStrategy Runs,
    int? Since,
    Figures OfRun,
    Objective Objective
)
{
    /// <summary>The days that count as recent.</summary>
    public const int Days = 28;

    /// <summary>Days of maximising conversions before a target is proposed. Fendrik's own choice.</summary>
    public const int DaysBeforeTarget = 14;

    /// <summary>True when the campaign has maximised what the target is about for long enough, and counted enough.</summary>
    public bool IsReadyForTarget(BidStrategy target) =>
        Runs == Before(target) && Since >= DaysBeforeTarget && OfRun.Conversions >= StrategyLearning.LeastConversions;

    /// <summary>The strategy that comes before one with a target.</summary>
    internal static BidStrategy Before(BidStrategy target) =>
        target == BidStrategy.TargetRoas ? BidStrategy.MaximiseValue : BidStrategy.MaximiseConversions;
}
