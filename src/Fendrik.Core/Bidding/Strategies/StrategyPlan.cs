using Fendrik.Core.Accounts;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>Something in a strategy's settings that keeps it from working.</summary>
/// <param name="Field">The field.</param>
/// <param name="Code">Name of the check.</param>
/// <param name="Message">A short line.</param>
/// <param name="Advice">What to do.</param>
public readonly record struct StrategyProblem(string Field, string Code, string Message, string Advice);

/// <summary>By what the bids of a campaign are set.</summary>
/// <param name="Strategy">The strategy.</param>
/// <param name="TargetCpa">What a conversion shall cost, in the account's currency.</param>
/// <param name="TargetRoas">The value that spend shall return, in per cent.</param>
/// <param name="LowestBid">The least that a strategy may bid; none for no limit. Manual bids take no notice of it.</param>
/// <param name="HighestBid">The most; likewise.</param>
public readonly record struct StrategyPlan(
    BidStrategy Strategy,
    decimal? TargetCpa = null,
    decimal? TargetRoas = null,
    decimal? LowestBid = null,
    decimal? HighestBid = null
)
{
    /// <summary>True when the network sets the bids: then neither max CPC nor modifiers do, but that −100 % still means never.</summary>
    public bool IsAutomatic => Strategy is not (BidStrategy.ManualCpc or BidStrategy.NudgedCpc);

    /// <summary>True when it goes by how likely a click is to convert, and so needs conversions that are counted.</summary>
    public bool NeedsConversions => Strategy is not (BidStrategy.ManualCpc or BidStrategy.MaximiseClicks);

    /// <summary>True when it goes by what conversions are worth.</summary>
    public bool NeedsValue => Strategy is BidStrategy.MaximiseValue or BidStrategy.TargetRoas;

    /// <summary>True when it spends the budget, whatever that buys: its level is the one at which the budget is spent.</summary>
    public bool SpendsBudget =>
        Strategy is BidStrategy.MaximiseClicks or BidStrategy.MaximiseConversions or BidStrategy.MaximiseValue;

    /// <summary>What a click buys of that which the strategy goes by: a click, a likely conversion, or likely value.</summary>
    /// <param name="predicted">What the click is likely to bring.</param>
    public double UnitsOf(PredictedClick predicted) =>
        !NeedsConversions ? 1
        : Strategy == BidStrategy.MaximiseValue ? predicted.Rate * predicted.RelativeValue
        : NeedsValue ? predicted.Rate * predicted.Value
        : predicted.Rate;

    /// <summary>The plan in the values of a campaign.</summary>
    public static StrategyPlan Of(ItemValues values) =>
        new(
            (BidStrategy)(values["strategy"] as short? ?? (short)BidStrategy.ManualCpc),
            values["targetCpa"] as decimal?,
            values["targetRoas"] as decimal?,
            values["lowestBid"] as decimal?,
            values["highestBid"] as decimal?
        );

    /// <summary>A bid within the limits of the plan; as it is where people set bids.</summary>
    public decimal Limited(decimal bid) =>
        !NeedsLimits ? bid
        : HighestBid is { } highest && bid > highest ? highest
        : LowestBid is { } lowest && bid < lowest ? lowest
        : bid;

    /// <summary>What keeps it from working.</summary>
    public IEnumerable<StrategyProblem> Problems(Currency currency)
    {
        if (Strategy == BidStrategy.TargetCpa && TargetCpa is null)
        {
            yield return new StrategyProblem(
                "targetCpa",
                "missing",
                "target CPA missing",
                "The strategy goes by what a conversion shall cost. Set a target, or choose another strategy."
            );
        }

        if (Strategy == BidStrategy.TargetRoas && TargetRoas is null)
        {
            yield return new StrategyProblem(
                "targetRoas",
                "missing",
                "target ROAS missing",
                "The strategy goes by the return that spend shall bring. Set a target, or choose another strategy."
            );
        }

        if (LowestBid > HighestBid)
        {
            yield return new StrategyProblem(
                "highestBid",
                "reversed",
                "highest bid below the lowest",
                $"The strategy would have to bid at least {new Money(LowestBid.Value, currency)} and at most {new Money(HighestBid.Value, currency)}. Exchange the two, or empty one."
            );
        }
    }

    private bool NeedsLimits => Strategy != BidStrategy.ManualCpc;
}
