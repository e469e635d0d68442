using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Bidding.Strategies;

/// <summary>Clicks of a week that had one bid.</summary>
/// <param name="Clicks">What they were and brought.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Bid">What was bid for them.</param>
public readonly record struct ReplayCell(ClickCell Clicks, decimal Cost, decimal Bid);

/// <summary>A week that is played again.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Before">What was known before it began.</param>
/// <param name="Cells">Its clicks.</param>
/// <param name="Room">Searches lost to rank for each impression: more than these no bid could have won.</param>
public sealed record ReplayWeek(
    DateOnly First,
    ConversionRates Before,
    IReadOnlyList<ReplayCell> Cells,
    double Room = 0
);

/// <summary>What clicks come to.</summary>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Conversions">Conversions.</param>
/// <param name="Value">What these are worth.</param>
public readonly record struct ReplayedFigures(double Clicks, double Cost, double Conversions, double Value)
{
    /// <summary>Adds up.</summary>
    public static ReplayedFigures operator +(ReplayedFigures one, ReplayedFigures other) =>
        new(
            one.Clicks + other.Clicks,
            one.Cost + other.Cost,
            one.Conversions + other.Conversions,
            one.Value + other.Value
        );
}

/// <summary>A week as it was and as it might have been.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Was">What was reported.</param>
/// <param name="Would">What might have been.</param>
/// <param name="Level">The strategy's level.</param>
public sealed record ReplayedWeek(DateOnly First, ReplayedFigures Was, ReplayedFigures Would, double Level);

/// <summary>Weeks under another strategy.</summary>
/// <param name="Weeks">The weeks.</param>
/// <param name="Low">The lower ends of what all might have come to.</param>
/// <param name="High">The upper ends.</param>
/// <param name="CannotKnow">What a replay cannot know, in sentences.</param>
public sealed record ReplayReport(
    IReadOnlyList<ReplayedWeek> Weeks,
    ReplayedFigures Low,
    ReplayedFigures High,
    IReadOnlyList<string> CannotKnow
)
{
    /// <summary>What was.</summary>
    public ReplayedFigures Was => Weeks.Aggregate(default(ReplayedFigures), (sum, week) => sum + week.Was);

    /// <summary>What might have been.</summary>
    public ReplayedFigures Would => Weeks.Aggregate(default(ReplayedFigures), (sum, week) => sum + week.Would);
}

/// <summary>
/// Plays past weeks again with the bids that a strategy would have made: for each week it knows only what was counted before it. More bid
/// is taken to bring more clicks at higher prices (<see cref="BidResponse"/>), more and less so for the range; what the clicks brought stays what it was.
/// </summary>
public static class StrategyReplay
{
    /// <summary>Bids are taken to count no further from what was bid: nothing was seen there.</summary>
    public const double Farthest = 4;

    private const double Weak = 0.6;
    private const double Strong = 1.4;
    private const int DaysOfWeek = 7;
    private const double Sure = 1.645;

    /// <summary>Plays weeks again.</summary>
    /// <param name="plan">The strategy; one that people set the bids of changes nothing but by a nudge.</param>
    /// <param name="dailyBudget">The daily budget; none for no limit.</param>
    /// <param name="weeks">The weeks.</param>
    /// <param name="currency">The account's currency.</param>
    public static ReplayReport Of(
        StrategyPlan plan,
        decimal? dailyBudget,
        IReadOnlyList<ReplayWeek> weeks,
        Currency currency
    )
    {
        var usual = Played(plan, dailyBudget, weeks, currency, 1);
        var weak = Sum(Played(plan, dailyBudget, weeks, currency, Weak));
        var strong = Sum(Played(plan, dailyBudget, weeks, currency, Strong));
        var all = Sum(usual);
        // Conversions are counts: they would have come otherwise by chance alone.
        var chance = Sure * Math.Sqrt(Math.Max(1, all.Conversions));
        var ofOne = all.Conversions > 0 ? all.Value / all.Conversions : 0;
        double Least(Func<ReplayedFigures, double> of) => Math.Min(of(all), Math.Min(of(weak), of(strong)));
        double Most(Func<ReplayedFigures, double> of) => Math.Max(of(all), Math.Max(of(weak), of(strong)));
        return new ReplayReport(
            usual,
            new ReplayedFigures(
                Least(each => each.Clicks),
                Least(each => each.Cost),
                Math.Max(0, Least(each => each.Conversions) - chance),
                Math.Max(0, Least(each => each.Value) - chance * ofOne)
            ),
            new ReplayedFigures(
                Most(each => each.Clicks),
                Most(each => each.Cost),
                Most(each => each.Conversions) + chance,
                Most(each => each.Value) + chance * ofOne
            ),
            CannotKnow(plan)
        );
    }

    private static ReplayedFigures Sum(IEnumerable<ReplayedWeek> weeks) =>
        weeks.Aggregate(default(ReplayedFigures), (sum, week) => sum + week.Would);

    private static List<ReplayedWeek> Played(
        StrategyPlan plan,
        decimal? dailyBudget,
        IReadOnlyList<ReplayWeek> weeks,
        Currency currency,
        double answers
    ) => [.. weeks.Select(week => Played(plan, dailyBudget, week, currency, answers))];

    private static ReplayedWeek Played(
        StrategyPlan plan,
        decimal? dailyBudget,
        ReplayWeek week,
        Currency currency,
        double answers
    )
    {
        var was = week.Cells.Aggregate(
            default(ReplayedFigures),
            (sum, cell) =>
                sum
                + new ReplayedFigures(cell.Clicks.Clicks, (double)cell.Cost, cell.Clicks.Conversions, cell.Clicks.Value)
        );
        if (plan.Strategy == BidStrategy.ManualCpc)
        {
            return new ReplayedWeek(week.First, was, was, 1);
        }

        PlayedCell[] cells =
        [
            .. week
                .Cells.Where(cell => cell is { Bid: > 0, Clicks.Clicks: > 0 })
                .Select(cell => PlayedCell.Of(plan, cell, week.Before, currency)),
        ];
        (ReplayedFigures Figures, double Units) At(double level)
        {
            var (sum, units) = (default(ReplayedFigures), 0.0);
            foreach (var cell in cells)
            {
                var share = cell.At(plan, level, week.Room, answers, currency, out var figures);
                sum += figures;
                units += share * cell.Units;
            }

            return (sum, units);
        }

        var level =
            plan.SpendsBudget ? SpendingLevel(dailyBudget, was, cells, At)
            : plan.IsAutomatic ? MeetingLevel(plan, At)
            : 1;
        var would = At(level).Figures;
        // What a budget does not reach is not bought, whatever the strategy wants.
        var most = (double?)dailyBudget * DaysOfWeek;
        return new ReplayedWeek(
            week.First,
            was,
            most is { } budget && would.Cost > budget
                ? new ReplayedFigures(
                    would.Clicks * budget / would.Cost,
                    budget,
                    would.Conversions * budget / would.Cost,
                    would.Value * budget / would.Cost
                )
                : would,
            level
        );
    }

    /// <summary>The level at which the week's budget is spent, or the highest that is sensible.</summary>
    private static double SpendingLevel(
        decimal? dailyBudget,
        ReplayedFigures was,
        PlayedCell[] cells,
        Func<double, (ReplayedFigures Figures, double Units)> at
    )
    {
        var units = cells.Sum(cell => cell.Units);
        if (was.Cost <= 0 || units <= 0)
        {
            return 0;
        }

        var price = was.Cost / units;
        var budget = (double)(dailyBudget ?? decimal.MaxValue / 10) * DaysOfWeek;
        return Solve(price / Farthest, price * BudgetLevel.MostAbovePrice, level => at(level).Figures.Cost - budget);
    }

    /// <summary>The level at which what is predicted costs the target.</summary>
    private static double MeetingLevel(StrategyPlan plan, Func<double, (ReplayedFigures Figures, double Units)> at)
    {
        var ofUnit = plan.NeedsValue
            ? plan.TargetRoas is > 0
                ? 100 / (double)plan.TargetRoas.Value
                : 0
            : (double)(plan.TargetCpa ?? 0);
        return ofUnit <= 0
            ? 1
            : Solve(
                TargetLevel.Lowest,
                TargetLevel.Highest,
                level =>
                {
                    var (would, units) = at(level);
                    return would.Cost - ofUnit * units;
                }
            );
    }

    /// <summary>Where a function that rises crosses zero, or the nearer end.</summary>
    private static double Solve(double low, double high, Func<double, double> rises)
    {
        if (rises(high) <= 0)
        {
            return high;
        }

        for (var turn = 0; turn < 40; turn++)
        {
            var middle = Math.Sqrt(low * high);
            (low, high) = rises(middle) > 0 ? (low, middle) : (middle, high);
        }

        return low;
    }

    /// <summary>A cell with what the strategy bids for it, worked out once: what it bids at a level is so many times that at level 1.</summary>
    /// <param name="Cell">The cell.</param>
    /// <param name="AtOne">The bid at level 1, before its limits.</param>
    /// <param name="IsFixed">True where no level has a part in it.</param>
    /// <param name="Units">What its clicks are predicted to buy of that which the strategy goes by.</param>
    private readonly record struct PlayedCell(ReplayCell Cell, decimal AtOne, bool IsFixed, double Units)
    {
        public static PlayedCell Of(StrategyPlan plan, ReplayCell cell, ConversionRates rates, Currency currency)
        {
            var (clicks, bid) = (cell.Clicks, cell.Bid);
            var ahead = new ClickAhead(
                clicks.AdGroupId,
                clicks.KeywordId,
                "",
                clicks.Device,
                clicks.Block,
                clicks.Site,
                null
            );
            var unlimited = plan with { LowestBid = null, HighestBid = null };
            var stack = StrategyBid.Of(unlimited, [("bid", bid)], [], new StrategyNow(rates, 1), ahead, currency);
            return new PlayedCell(
                cell,
                stack?.Steps[^1].BidAfter ?? bid,
                !plan.IsAutomatic || plan.Strategy == BidStrategy.TargetRoas && rates.Value <= 0,
                clicks.Clicks * plan.UnitsOf(rates.Of(ahead))
            );
        }

        /// <summary>What it would have come to at a level.</summary>
        /// <returns>How many times the clicks that there were.</returns>
        public double At(
            StrategyPlan plan,
            double level,
            double room,
            double answers,
            Currency currency,
            out ReplayedFigures figures
        )
        {
            var wanted = IsFixed ? AtOne : (decimal)Math.Min((double)AtOne * level, (double)BidChange.Ceiling);
            var bid = (double)plan.Limited(currency.Round(plan.Limited(wanted)));
            var clicks = Cell.Clicks;
            var times = Math.Clamp(bid / (double)Cell.Bid, 1 / Farthest, Farthest);
            var share = bid <= 0 ? 0 : BidResponse.Clicks(times, room, answers);
            var price = (double)Cell.Cost / clicks.Clicks * BidResponse.Price(times, answers);
            figures = new ReplayedFigures(
                share * clicks.Clicks,
                share * clicks.Clicks * Math.Min(price, bid),
                share * clicks.Conversions,
                share * clicks.Value
            );
            return share;
        }
    }

    private static IReadOnlyList<string> CannotKnow(StrategyPlan plan) =>
        [
            "Searches in which the ad did not show: what they would have brought is not known.",
            "What rivals would have done in answer.",
            .. plan.SpendsBudget
                ? ["Weeks with more budget than was ever spent rest on bids that nobody made."]
                : Array.Empty<string>(),
            "The week or more in which the strategy learns, and moves by small steps.",
        ];
}
