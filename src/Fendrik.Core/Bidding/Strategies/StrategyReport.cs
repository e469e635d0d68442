using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>Whether a strategy meets its target.</summary>
public enum TargetVerdict
{
    /// <summary>It has no target.</summary>
    NoTarget = 1,

    /// <summary>What was counted cannot tell it from the target.</summary>
    Met = 2,

    /// <summary>It surely does worse.</summary>
    Missed = 3,

    /// <summary>It surely does better.</summary>
    Surpassed = 4,

    /// <summary>It is too early to tell.</summary>
    NotYetKnown = 5,
}

/// <summary>What a running strategy does and why, and whether it meets its target.</summary>
/// <param name="Verdict">Whether it does.</param>
/// <param name="Interval">Where the true cost of a conversion lies, nine times in ten; none where nothing was spent.</param>
/// <param name="Sentences">In words.</param>
public sealed record StrategyReport(TargetVerdict Verdict, CostInterval? Interval, IReadOnlyList<string> Sentences)
{
    /// <summary>Says what a strategy does.</summary>
    /// <param name="plan">Its plan.</param>
    /// <param name="row">Where it stands, as the network reports it.</param>
    /// <param name="figures">What the campaign brought since it began, without the days whose conversions may still come.</param>
    /// <param name="dailyBudget">The daily budget.</param>
    /// <param name="days">Days of these figures.</param>
    /// <param name="currency">The account's currency.</param>
    public static StrategyReport Of(
        StrategyPlan plan,
        StrategyRow row,
        Figures figures,
        decimal? dailyBudget,
        int days,
        Currency currency
    )
    {
        var interval = figures.Cost > 0 ? CostInterval.Of(figures.Cost, figures.Conversions) : (CostInterval?)null;
        return new StrategyReport(
            VerdictOf(plan, figures, interval),
            interval,
            [
                LevelOf(plan, row, currency),
                row.IsLearning
                    ? string.Create(
                        CultureInfo.InvariantCulture,
                        $"It is learning: {row.LearntFrom:0.#} of {row.LearningNeeds} {(plan.NeedsConversions ? "conversions" : "clicks")}, {Math.Min(row.LearningDays, StrategyLearning.LeastDays)} of {StrategyLearning.LeastDays} days. Until then it moves by small steps; judge it afterwards, and change little."
                    )
                    : "It has learnt enough to move freely.",
                .. Spending(plan, figures, dailyBudget, days, currency),
                .. Counted(plan, figures, interval, currency),
            ]
        );
    }

    private static string LevelOf(StrategyPlan plan, StrategyRow row, Currency currency)
    {
        var level = new Money(currency.Round((decimal)Math.Min(row.Level, 1e9)), currency);
        return plan.Strategy switch
        {
            BidStrategy.ManualCpc => "People set its bids.",
            BidStrategy.NudgedCpc =>
                $"It multiplies each bid by how likely the click is to convert against the campaign, between {StrategyBid.LowestNudge:0.#} and {StrategyBid.HighestNudge:0.#} times.",
            BidStrategy.MaximiseClicks => $"It bids {level} for every click now: at that, the budget lasts the day.",
            BidStrategy.MaximiseConversions =>
                $"It bids {level} × how likely the click is to convert: at that, the budget lasts the day.",
            BidStrategy.MaximiseValue =>
                $"It bids {level} × how likely the click is to convert × what that is worth against others: at that, the budget lasts the day.",
            BidStrategy.TargetCpa or BidStrategy.TargetRoas => (
                plan.Strategy == BidStrategy.TargetCpa
                    ? $"It bids the target of {new Money(plan.TargetCpa ?? 0, currency)} × how likely the click is to convert"
                    : $"It bids what the click is likely to bring ÷ the return of {ReturnValue.Words(plan.TargetRoas ?? 0)}"
            )
                + (
                    row.Level == 1
                        ? "."
                        : string.Create(
                            CultureInfo.InvariantCulture,
                            $", × {row.Level:0.00}: {(row.Level > 1 ? "clicks cost less than is bid for them, or convert more often than predicted" : "clicks convert less often than predicted")}, and the target is meant on the whole."
                        )
                ),
        };
    }

    private static IEnumerable<string> Spending(
        StrategyPlan plan,
        Figures figures,
        decimal? dailyBudget,
        int days,
        Currency currency
    )
    {
        if (plan.SpendsBudget && dailyBudget is > 0 && days > 0)
        {
            var share = figures.Cost / (dailyBudget.Value * days);
            yield return $"It spent {share.ToString("P0", CultureInfo.InvariantCulture)} of the budget: {new Money(currency.Round(figures.Cost / days), currency)} a day."
                + (
                    share >= 0.9m ? ""
                    : plan.HighestBid is { } highest
                        ? $" There was no more to buy at bids up to {new Money(highest, currency)}, its highest."
                    : " There was no more to buy at bids that make sense."
                );
        }
    }

    private static TargetVerdict VerdictOf(StrategyPlan plan, Figures figures, CostInterval? interval) =>
        plan.Strategy switch
        {
            BidStrategy.TargetCpa => Against(plan.TargetCpa, interval?.Low, interval?.High, figures),
            // The worth of a conversion is taken as it is: what is uncertain is how many there are.
            BidStrategy.TargetRoas => figures.Conversions > 0 && figures.Value > 0 && plan.TargetRoas is { } target
                ? Against(100 * figures.Value / figures.Conversions / target, interval?.Low, interval?.High, figures)
                : TargetVerdict.NotYetKnown,
            BidStrategy.ManualCpc
            or BidStrategy.NudgedCpc
            or BidStrategy.MaximiseClicks
            or BidStrategy.MaximiseConversions
            or BidStrategy.MaximiseValue => TargetVerdict.NoTarget,
        };

    /// <summary>What a conversion may cost against what it truly costs.</summary>
    private static TargetVerdict Against(decimal? mayCost, decimal? low, decimal? high, Figures figures) =>
        mayCost is not { } target || low is null ? TargetVerdict.NotYetKnown
        : low > target ? TargetVerdict.Missed
        : high < target ? TargetVerdict.Surpassed
        : figures.Conversions < StrategyLearning.LeastConversions ? TargetVerdict.NotYetKnown
        : TargetVerdict.Met;

    private static IEnumerable<string> Counted(
        StrategyPlan plan,
        Figures figures,
        CostInterval? interval,
        Currency currency
    )
    {
        if (interval is not { } known)
        {
            yield return "Nothing was spent that could be judged yet.";
            yield break;
        }

        var counted = figures.Conversions.ToString("0.#", CultureInfo.InvariantCulture);
        var between = known.High is { } high
            ? $"one truly costs between {In(known.Low, currency)} and {In(high, currency)}, nine times in ten"
            : $"one truly costs more than {In(known.Low, currency)}, nine times in ten";
        var verdict = VerdictOf(plan, figures, interval) switch
        {
            TargetVerdict.NoTarget => "",
            TargetVerdict.Met => " The target lies within: it is met as far as can be told.",
            TargetVerdict.Missed => " The target is surely missed.",
            TargetVerdict.Surpassed => " It surely does better than the target: there may be more to buy.",
            TargetVerdict.NotYetKnown => " Too little to hold it to the target yet.",
        };
        yield return $"{counted} conversion{(figures.Conversions == 1 ? "" : "s")} for {In(figures.Cost, currency)}: {between}.{verdict}";
    }

    private static string In(decimal amount, Currency currency) =>
        new Money(currency.Round(amount), currency).ToString();
}
