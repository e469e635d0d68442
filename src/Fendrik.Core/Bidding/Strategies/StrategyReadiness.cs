using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>How ready a campaign is.</summary>
public enum Readiness
{
    /// <summary>Nothing speaks against it.</summary>
    Ready = 1,

    /// <summary>It may be done with care.</summary>
    Careful = 2,

    /// <summary>It would go by nothing.</summary>
    NotReady = 3,
}

/// <summary>One thing that speaks for or against a strategy.</summary>
/// <param name="Standing">How ready the campaign is in this.</param>
/// <param name="Text">In a sentence or two.</param>
public sealed record ReadinessPoint(Readiness Standing, string Text);

/// <summary>Says before a strategy is chosen whether there is enough for it to go by.</summary>
public static class StrategyReadiness
{
    /// <summary>A target so many times below what conversions cost mostly brings fewer of them. Fendrik's own choice.</summary>
    private const decimal BoldTarget = 0.75m;

    /// <summary>A campaign that spends less of its budget would be bid up.</summary>
    private const decimal HalfSpent = 0.6m;

    /// <summary>What speaks for and against a strategy.</summary>
    /// <param name="wanted">The strategy that is thought of.</param>
    /// <param name="facts">What is known of the campaign.</param>
    /// <param name="currency">The account's currency.</param>
    public static IReadOnlyList<ReadinessPoint> Of(StrategyPlan wanted, StrategyFacts facts, Currency currency) =>
        [
            .. Counted(wanted, facts, currency),
            .. Valued(wanted, facts, currency),
            .. OfTarget(wanted, facts, currency),
            .. OfBudget(wanted, facts, currency),
            .. OfObjective(wanted, facts),
        ];

    private static IEnumerable<ReadinessPoint> Counted(StrategyPlan wanted, StrategyFacts facts, Currency currency)
    {
        if (!wanted.NeedsConversions)
        {
            yield break;
        }

        var counted = facts.Recent.Conversions;
        if (facts.CountedInAccount == 0)
        {
            yield return new ReadinessPoint(
                Readiness.NotReady,
                $"The account counted no conversion in the last {StrategyFacts.Days} days: the strategy would go by nothing. Count conversions first."
            );
        }
        else if (counted == 0)
        {
            yield return new ReadinessPoint(
                Readiness.Careful,
                $"This campaign counted no conversion in the last {StrategyFacts.Days} days. The strategy would take every click for as good as usual until there are some."
            );
        }
        else
        {
            var interval = CostInterval.Of(facts.Recent.Cost, counted);
            var enough = counted >= StrategyLearning.LeastConversions;
            yield return new ReadinessPoint(
                enough ? Readiness.Ready : Readiness.Careful,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{counted:0.#} conversion{(counted == 1 ? "" : "s")} in the last {StrategyFacts.Days} days: one truly costs between {In(interval.Low, currency)} and {In(interval.High ?? 0, currency)}, nine times in ten."
                ) + (enough ? "" : $" {StrategyLearning.LeastConversions} are the least to learn from.")
            );
        }
    }

    private static IEnumerable<ReadinessPoint> Valued(StrategyPlan wanted, StrategyFacts facts, Currency currency)
    {
        if (!wanted.NeedsValue || facts.Recent.Conversions == 0)
        {
            yield break;
        }

        yield return facts.Recent.Value > 0
            ? new ReadinessPoint(
                Readiness.Ready,
                $"A conversion was worth {In(facts.Recent.Value / facts.Recent.Conversions, currency)} on average; spend returned {ReturnValue.Words(Math.Round(100 * facts.Recent.Value / Math.Max(facts.Recent.Cost, currency.SmallestAmount), 0))}."
            )
            : new ReadinessPoint(
                Readiness.NotReady,
                "No conversion has a value: there is nothing to tell good ones by. Count values, or go by conversions."
            );
    }

    private static IEnumerable<ReadinessPoint> OfTarget(StrategyPlan wanted, StrategyFacts facts, Currency currency)
    {
        if (wanted.Strategy is not (BidStrategy.TargetCpa or BidStrategy.TargetRoas))
        {
            yield break;
        }

        var before = Choices.NameOf(Choices.Strategy, (int)StrategyFacts.Before(wanted.Strategy));
        yield return facts.IsReadyForTarget(wanted.Strategy) || facts.Runs == wanted.Strategy
            ? new ReadinessPoint(
                Readiness.Ready,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The campaign has bid by {Choices.NameOf(Choices.Strategy, (int)facts.Runs)} for {facts.Since ?? 0} days, with {facts.OfRun.Conversions:0.#} conversions: a target can rest on that."
                )
            )
            : new ReadinessPoint(
                Readiness.Careful,
                $"A target is best set after at least {StrategyFacts.DaysBeforeTarget} days of {before} with {StrategyLearning.LeastConversions} conversions: what conversions cost under bids set by hand says little of what the strategy will pay."
            );
        if (
            wanted.TargetCpa is { } cpa
            && facts.Recent.Conversions > 0
            && facts.Recent.Cost / facts.Recent.Conversions is var usual
            && cpa < usual * BoldTarget
        )
        {
            yield return new ReadinessPoint(
                Readiness.Careful,
                $"The target lies {(1 - cpa / usual).ToString("P0", CultureInfo.InvariantCulture)} below the {In(usual, currency)} that a conversion cost. It is met by giving up what costs more: expect fewer conversions."
            );
        }

        if (
            wanted.TargetRoas is { } roas
            && facts.Recent is { Cost: > 0, Value: > 0 }
            && 100 * facts.Recent.Value / facts.Recent.Cost is var returned
            && roas * BoldTarget > returned
        )
        {
            yield return new ReadinessPoint(
                Readiness.Careful,
                $"Spend returned {ReturnValue.Words(Math.Round(returned, 0))}; the target asks for {ReturnValue.Words(roas)}. It is met by giving up what returns less: expect less value."
            );
        }
    }

    private static IEnumerable<ReadinessPoint> OfBudget(StrategyPlan wanted, StrategyFacts facts, Currency currency)
    {
        if (!wanted.SpendsBudget || facts.DailyBudget is not { } budget)
        {
            yield break;
        }

        var spent = facts.Recent.Cost / StrategyFacts.Days;
        if (spent < budget * HalfSpent && wanted.HighestBid is null)
        {
            yield return new ReadinessPoint(
                Readiness.Careful,
                $"The strategy spends what it may: {In(budget, currency)} a day. So far {In(spent, currency)} a day was spent. Bids would rise until the budget is spent: set a highest bid, or lower the budget."
            );
        }
        else
        {
            yield return new ReadinessPoint(
                Readiness.Ready,
                $"It spends the budget of {In(budget, currency)} a day; so far {In(spent, currency)} a day was spent."
            );
        }
    }

    private static IEnumerable<ReadinessPoint> OfObjective(StrategyPlan wanted, StrategyFacts facts)
    {
        if (Contradiction(wanted.Strategy, facts.Objective) is { } said)
        {
            yield return new ReadinessPoint(Readiness.Careful, said);
        }
    }

    /// <summary>How a strategy contradicts what a campaign is for; none where it does not.</summary>
    public static string? Contradiction(BidStrategy strategy, Objective objective)
    {
        const string Visits = "The campaign is for visits, but the strategy gives up clicks that do not convert.";
        var purpose = Choices.NameOf(Choices.Objective, (int)objective);
        return strategy switch
        {
            BidStrategy.ManualCpc or BidStrategy.NudgedCpc => null,
            BidStrategy.MaximiseClicks => objective == Objective.Visits
                ? null
                : $"The campaign is for {purpose}, but the strategy buys clicks, whatever comes of them.",
            BidStrategy.MaximiseConversions or BidStrategy.TargetCpa => objective switch
            {
                Objective.Leads or Objective.Calls => null,
                Objective.Sales =>
                    "The campaign is for sales by value, but the strategy takes every conversion for as good as another.",
                Objective.Visits => Visits,
            },
            BidStrategy.MaximiseValue or BidStrategy.TargetRoas => objective switch
            {
                Objective.Sales => null,
                Objective.Leads or Objective.Calls =>
                    $"The campaign is for {purpose}, but the strategy goes by what conversions are worth: right only if each is counted with a value.",
                Objective.Visits => Visits,
            },
        };
    }

    private static string In(decimal amount, Currency currency) =>
        new Money(currency.Round(amount), currency).ToString();
}
