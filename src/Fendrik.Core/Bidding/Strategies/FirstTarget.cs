using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>A first target for a strategy, or why none is proposed.</summary>
/// <param name="Target">The target: an amount, or per cent; none where none is proposed.</param>
/// <param name="Why">What it rests on, or what is missing.</param>
/// <param name="Season">What the time of the year has to do with it.</param>
public sealed record TargetProposal(decimal? Target, string Why, string? Season);

/// <summary>
/// A first target from what conversions cost in the last months. A target is nothing exact: it is rounded, and where the same months of
/// the year before were dearer or cheaper than that year, this is said.
/// </summary>
public static class FirstTarget
{
    private const int MonthsOfYear = 12;

    /// <summary>Months that cost so much more or less than their year are worth a word.</summary>
    private const decimal SeasonMatters = 0.1m;

    /// <summary>A first target.</summary>
    /// <param name="strategy">Target CPA or target ROAS.</param>
    /// <param name="months">Full months, the latest first.</param>
    /// <param name="count">How many of these the target rests on: at least 1.</param>
    /// <param name="facts">What is known of the campaign.</param>
    /// <param name="currency">The account's currency.</param>
    public static TargetProposal Of(
        BidStrategy strategy,
        IReadOnlyList<Figures> months,
        int count,
        StrategyFacts facts,
        Currency currency
    )
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(count, 1);
        var before = Choices.NameOf(Choices.Strategy, (int)StrategyFacts.Before(strategy));
        if (!facts.IsReadyForTarget(strategy) && facts.Runs != strategy)
        {
            return new TargetProposal(
                null,
                $"No target is proposed before {StrategyFacts.DaysBeforeTarget} days of {before} with {StrategyLearning.LeastConversions} conversions.",
                null
            );
        }

        var taken = months.Take(count).Aggregate(Figures.Zero, (sum, month) => sum + month);
        var isReturn = strategy == BidStrategy.TargetRoas;
        if (taken.Conversions == 0 || isReturn && (taken.Cost == 0 || taken.Value == 0))
        {
            return new TargetProposal(null, "The months chosen have nothing to go by.", null);
        }

        var exact = isReturn ? 100 * taken.Value / taken.Cost : taken.Cost / taken.Conversions;
        var target = Math.Max(isReturn ? ReturnValue.Lowest : currency.SmallestAmount, Rounded(exact));
        return new TargetProposal(
            target,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{taken.Conversions:0.#} conversions in {(count == 1 ? "the last full month" : $"the last {Math.Min(count, months.Count)} full months")}: {(isReturn ? ReturnValue.Words(Math.Round(exact, 0)) + " returned" : new Money(currency.Round(exact), currency) + " each")}, rounded."
            ),
            SeasonOf(isReturn, months, count)
        );
    }

    /// <summary>An amount as people set it: two digits that count.</summary>
    public static decimal Rounded(decimal amount)
    {
        if (amount <= 0)
        {
            return 0;
        }

        var unit = 1m;
        while (amount >= unit * 100)
        {
            unit *= 10;
        }

        while (amount < unit * 10)
        {
            unit /= 10;
        }

        return Math.Round(amount / unit, MidpointRounding.AwayFromZero) * unit;
    }

    private static string SeasonOf(bool isReturn, IReadOnlyList<Figures> months, int count)
    {
        if (months.Count < MonthsOfYear + count)
        {
            return "Less than a year is known before these months: whether they are dearer than others by the season cannot be told. Look at the target again when the season changes.";
        }

        // The same months of the year before, against the year that they are the end of.
        var then = months.Skip(MonthsOfYear).Take(count).Aggregate(Figures.Zero, (sum, month) => sum + month);
        var year = months.Take(MonthsOfYear).Aggregate(Figures.Zero, (sum, month) => sum + month);
        decimal? Of(Figures figures) =>
            isReturn
                ? figures.Cost > 0
                    ? figures.Value / figures.Cost
                    : null
                : figures.Conversions > 0
                    ? figures.Cost / figures.Conversions
                    : null;
        return Of(then) is not { } same || Of(year) is not { } whole || whole == 0
                ? "A year ago nothing was counted in these months: nothing is known of the season."
            : Math.Abs(same / whole - 1) < SeasonMatters
                ? "The same months a year ago were about as the whole year since: the season matters little."
            : $"The same months a year ago were {Math.Abs(same / whole - 1).ToString("P0", CultureInfo.InvariantCulture)} {(isReturn ? same > whole ? "better" : "worse" : same > whole ? "dearer" : "cheaper")} than the year since: the season is in the target, and goes.";
    }
}
