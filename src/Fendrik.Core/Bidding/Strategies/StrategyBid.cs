using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>What a strategy goes by at a moment.</summary>
/// <param name="Rates">How likely clicks are to convert, as far as it was known when the day began.</param>
/// <param name="Level">
/// Its level: for strategies that spend the budget what they bid for a click, for a conversion, or for one of usual worth; for those with
/// a target how many times the target, so that it is met.
/// </param>
public sealed record StrategyNow(ConversionRates Rates, double Level)
{
    /// <summary>A campaign with nothing else to go by begins with a bid at which its day's budget buys so many clicks. Fendrik's own choice.</summary>
    public const int ClicksOfBudget = 40;

    /// <summary>The level at which a strategy begins: a little above what was paid, else at the bids that people set.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="rates">How likely clicks are to convert.</param>
    /// <param name="paid">What clicks of the last <see cref="TargetLevel.Days"/> days cost.</param>
    /// <param name="clicks">How many these were.</param>
    /// <param name="usualMaxCpc">The average max CPC of its keywords; none where none has one.</param>
    /// <param name="dailyBudget">The daily budget.</param>
    public static double OpeningLevel(
        StrategyPlan plan,
        ConversionRates rates,
        decimal paid,
        double clicks,
        decimal? usualMaxCpc,
        decimal? dailyBudget
    )
    {
        if (!plan.SpendsBudget)
        {
            return 1;
        }

        var ofClick = plan.NeedsConversions ? rates.Rate : 1;
        return BudgetLevel.Opening(
            (double)paid,
            clicks * ofClick,
            (double)(usualMaxCpc ?? (dailyBudget ?? 0) / ClicksOfBudget),
            ofClick
        );
    }
}

/// <summary>
/// What a strategy bids. Target CPA bids the target × how likely a click is to convert, target ROAS what it is likely to bring ÷ the
/// return that is wanted; those that spend the budget bid so much for each click, or likely conversion by its worth, that it is spent.
/// </summary>
public static class StrategyBid
{
    /// <summary>Nudged bids become no lower than this many times the manual bid. Fendrik's own choice.</summary>
    public const double LowestNudge = 0.5;

    /// <summary>Nudged bids become no higher than this many times the manual bid. Fendrik's own choice.</summary>
    public const double HighestNudge = 1.5;

    /// <summary>What is bid for a search, and how that comes about.</summary>
    /// <param name="plan">The plan of the campaign.</param>
    /// <param name="bases">What may have a max CPC, the one that comes before all others first.</param>
    /// <param name="modifiers">Modifiers; strategies that set bids themselves take no notice of them.</param>
    /// <param name="now">What the strategy goes by; none where that is not known: then bids are manual.</param>
    /// <param name="click">The click that may come.</param>
    /// <param name="currency">The account's currency.</param>
    /// <returns>The stack; none when bids are manual and nothing has a max CPC.</returns>
    public static BidStack? Of(
        StrategyPlan plan,
        ReadOnlySpan<(string Name, decimal? MaxCpc)> bases,
        IReadOnlyList<(string Name, decimal Percent)> modifiers,
        StrategyNow? now,
        in ClickAhead click,
        Currency currency
    )
    {
        if (
            now is null
            || plan.Strategy == BidStrategy.ManualCpc
            // A return on spend says nothing as long as no value is counted.
            || plan.Strategy == BidStrategy.TargetRoas && now.Rates.Value <= 0
        )
        {
            return BidStack.Of(bases, modifiers, currency);
        }

        var predicted = plan.NeedsConversions ? now.Rates.Of(click) : null;
        if (plan.Strategy == BidStrategy.NudgedCpc)
        {
            return BidStack.Of(bases, modifiers, currency) is { } manual
                ? Nudged(plan, manual, predicted!, now, currency)
                : null;
        }

        var steps = new List<BidStep>();
        var bid = (double)Begin(plan, now, steps, currency);
        if (plan.Strategy == BidStrategy.MaximiseClicks)
        {
            return Ended(plan, steps, (decimal)bid, currency);
        }

        var isRate = true;
        foreach (var (name, factor) in predicted!.Factors)
        {
            bid *= factor;
            steps.Add(Step(isRate ? "a click converts" : name, factor, bid, isRate));
            isRate = false;
        }

        // What the factors make too sure is taken back.
        if (predicted.Rate == ConversionRates.MostRate)
        {
            bid = bid / predicted.Factors.Aggregate(1.0, (product, each) => product * each.Factor) * predicted.Rate;
            steps.Add(new BidStep("no click is surer", 0, Rounded(bid), "at most 90%"));
        }

        if (plan.Strategy == BidStrategy.MaximiseValue && predicted.RelativeValue != 1)
        {
            bid *= predicted.RelativeValue;
            steps.Add(Step("what it is worth against others", predicted.RelativeValue, bid, false));
        }

        if (plan.Strategy == BidStrategy.TargetRoas)
        {
            bid *= predicted.Value;
            steps.Add(
                new BidStep(
                    "what a conversion is worth",
                    0,
                    Rounded(bid),
                    $"× {new Money(currency.Round((decimal)predicted.Value), currency)}"
                )
            );
        }

        if (!plan.SpendsBudget && now.Level != 1)
        {
            bid *= now.Level;
            steps.Add(Step("to meet the target", now.Level, bid, false));
        }

        return Ended(plan, steps, Rounded(bid), currency);
    }

    /// <summary>What is bid for a certain unit: a click, a conversion, or each 1 of value.</summary>
    private static decimal Begin(StrategyPlan plan, StrategyNow now, List<BidStep> steps, Currency currency)
    {
        var (name, amount, words) = plan.Strategy switch
        {
            BidStrategy.MaximiseClicks => ("for a click, to spend the budget", (decimal)now.Level, (string?)null),
            BidStrategy.MaximiseConversions => ("for a conversion, to spend the budget", (decimal)now.Level, null),
            BidStrategy.TargetCpa => ("target CPA", plan.TargetCpa ?? 0, null),
            BidStrategy.MaximiseValue => (
                "for a conversion of usual worth, to spend the budget",
                (decimal)now.Level,
                null
            ),
            BidStrategy.TargetRoas => (
                $"for each {new Money(1, currency)} of value at a return of {ReturnValue.Words(plan.TargetRoas ?? 0)}",
                plan.TargetRoas is > 0 ? 100 / plan.TargetRoas.Value : 0,
                null
            ),
            BidStrategy.ManualCpc or BidStrategy.NudgedCpc => throw new ArgumentOutOfRangeException(nameof(plan)),
        };
        amount = Rounded((double)amount);
        steps.Add(new BidStep(name, 0, amount, words));
        return amount;
    }

    private static BidStack Nudged(
        StrategyPlan plan,
        BidStack manual,
        PredictedClick predicted,
        StrategyNow now,
        Currency currency
    )
    {
        var nudge = Math.Clamp(predicted.Rate / now.Rates.Rate, LowestNudge, HighestNudge);
        var bid = (double)manual.Steps[^1].BidAfter * nudge;
        return Ended(
            plan,
            [
                .. manual.Steps,
                new BidStep(
                    $"likely to convert: {Percent(predicted.Rate)} of clicks, {Percent(now.Rates.Rate)} in the campaign",
                    (decimal)Math.Round((nudge - 1) * 100, 1),
                    Rounded(bid),
                    ConversionRates.InWords(nudge)
                ),
            ],
            Rounded(bid),
            currency
        );
    }

    private static BidStack Ended(StrategyPlan plan, List<BidStep> steps, decimal bid, Currency currency)
    {
        var limited = plan.Limited(bid);
        if (limited != bid)
        {
            steps.Add(
                new BidStep(
                    limited < bid ? "highest bid" : "lowest bid",
                    0,
                    limited,
                    $"{(limited < bid ? "at most" : "at least")} {new Money(limited, currency)}"
                )
            );
        }

        // Rounding up must not lift a bid above its cap.
        return BidStack.OfSteps(steps, plan.Limited(currency.Round(limited)));
    }

    private static BidStep Step(string name, double factor, double bid, bool isRate) =>
        new(name, (decimal)Math.Round((factor - 1) * 100, 1), Rounded(bid), ConversionRates.InWords(factor, isRate));

    /// <summary>Amounts on the way keep as many places as tell them apart; the two sides that compute them agree in all of these.</summary>
    private static decimal Rounded(double amount) => Math.Round((decimal)Math.Min(amount, 1e12), 6);

    private static string Percent(double rate) => (rate * 100).ToString("0.##", CultureInfo.InvariantCulture) + "%";
}
