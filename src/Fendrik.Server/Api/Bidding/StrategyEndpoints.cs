using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Strategies;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Bidding;

/// <summary>Strategies of campaigns: whether one is ready, what it would have done, and what the one that runs does.</summary>
internal static class StrategyEndpoints
{
    private const int MostMonths = 12;
    private const int MostWeeks = 13;
    private const int MostOfKind = 6;

    /// <summary>What differs by less than a tenth is not told.</summary>
    private const double LeastDifference = 0.1;

    private const int UsualMonths = 3;
    private const int UsualWeeks = 8;

    public static void MapStrategies(this RouteGroupBuilder account) =>
        account.MapGet("/bids/campaigns/{campaignId:long}/strategy", ReadAsync).WithName("readStrategy");

    private static async Task<Results<Ok<StrategyAnswer>, NotFound>> ReadAsync(
        int accountId,
        long campaignId,
        string? strategy,
        string? targetCpa,
        string? targetRoas,
        string? lowestBid,
        string? highestBid,
        int? months,
        int? weeks,
        StrategyBasisReader reader,
        ReplayReader replays,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        if (months is < 1 or > MostMonths || weeks is < 1 or > MostWeeks)
        {
            throw new InvalidChangeException(
                months is < 1 or > MostMonths ? "months" : "weeks",
                $"Choose 1 to {MostMonths} months and 1 to {MostWeeks} weeks."
            );
        }

        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        if (await reader.BasisAsync(accountId, campaignId, cancellation) is not { } basis)
        {
            return TypedResults.NotFound();
        }

        var problems = new List<TypedProblem>();
        var plan = strategy is null
            ? basis.Plan
            : Read(
                new Dictionary<string, string?>
                {
                    ["strategy"] = strategy,
                    ["targetCpa"] = targetCpa,
                    ["targetRoas"] = targetRoas,
                    ["lowestBid"] = lowestBid,
                    ["highestBid"] = highestBid,
                },
                facts,
                problems
            );
        problems.AddRange(
            plan.Problems(facts.Currency).Select(problem => new TypedProblem(problem.Field, problem.Advice))
        );
        // A target that is not yet said is taken for the one that is proposed, so that a replay can be shown for it.
        var proposal = plan.Strategy is BidStrategy.TargetCpa or BidStrategy.TargetRoas
            ? FirstTarget.Of(plan.Strategy, basis.Months, months ?? UsualMonths, basis.Facts, facts.Currency)
            : null;
        var playable = problems.All(problem => problem.Field is "targetCpa" or "targetRoas");
        var replayed = plan.Strategy switch
        {
            BidStrategy.TargetCpa => plan with { TargetCpa = plan.TargetCpa ?? proposal?.Target },
            BidStrategy.TargetRoas => plan with { TargetRoas = plan.TargetRoas ?? proposal?.Target },
            BidStrategy.ManualCpc
            or BidStrategy.NudgedCpc
            or BidStrategy.MaximiseClicks
            or BidStrategy.MaximiseConversions
            or BidStrategy.MaximiseValue => plan,
        };
        var history =
            playable && plan.Strategy != BidStrategy.ManualCpc && !replayed.Problems(facts.Currency).Any()
                ? await replays.WeeksAsync(accountId, campaignId, weeks ?? UsualWeeks, cancellation)
                : [];
        return TypedResults.Ok(
            new StrategyAnswer(
                basis.Version,
                Choosable,
                KeyOf(basis.Plan.Strategy),
                Typed(basis.Plan, facts),
                KeyOf(plan.Strategy),
                problems,
                RunningOf(basis, facts),
                StrategyReadiness.Of(plan, basis.Facts, facts.Currency),
                proposal,
                proposal?.Target is { } target
                    ? Field(plan.Strategy == BidStrategy.TargetCpa ? "targetCpa" : "targetRoas")
                        .Type.Write(target, facts.Ground)
                    : null,
                history.Count > 0
                    ? ReplayAnswer.Of(
                        StrategyReplay.Of(replayed, basis.Facts.DailyBudget, history, facts.Currency),
                        facts.Currency
                    )
                    : null,
                Math.Round((decimal)basis.Rates.Rate * 100, 2),
                PartsOf(basis.Rates)
            )
        );
    }

    private static IReadOnlyList<StrategyChoice> Choosable { get; } =
    [
        .. Enum.GetValues<BidStrategy>()
            .Select(each =>
            {
                var (says, fields) = Said(each);
                return new StrategyChoice(KeyOf(each), Choices.NameOf(Choices.Strategy, (int)each), says, fields);
            }),
    ];

    private static (string Says, string[] Fields) Said(BidStrategy strategy)
    {
        string[] limits = ["lowestBid", "highestBid"];
        return strategy switch
        {
            BidStrategy.ManualCpc => ("You set max CPC and modifiers.", []),
            BidStrategy.NudgedCpc => (
                "You set them; each bid is nudged by how likely the click is to convert.",
                limits
            ),
            BidStrategy.MaximiseClicks => ("As many clicks as the budget buys.", limits),
            BidStrategy.MaximiseConversions => ("As many conversions as the budget buys.", limits),
            BidStrategy.TargetCpa => ("Conversions at a cost that you set.", ["targetCpa", .. limits]),
            BidStrategy.MaximiseValue => ("As much value as the budget buys.", limits),
            BidStrategy.TargetRoas => ("Value at a return that you set.", ["targetRoas", .. limits]),
        };
    }

    private static Field Field(string name) => ItemTypes.Of(ItemKind.Campaign)[name];

    private static string KeyOf(BidStrategy strategy) =>
        Choices.Strategy.First(choice => choice.Number == (short)strategy).Key;

    private static StrategyPlan Read(Dictionary<string, string?> typed, AccountFacts facts, List<TypedProblem> problems)
    {
        object? Of(string name)
        {
            var reading = Field(name).Read(typed[name] ?? "", facts.Ground);
            if (reading.Problem is { } problem)
            {
                problems.Add(new TypedProblem(name, $"{Field(name).Label}: {problem}."));
            }

            return reading.Problem is null ? reading.Value : null;
        }

        return new StrategyPlan(
            (BidStrategy)(Of("strategy") as short? ?? (short)BidStrategy.ManualCpc),
            Of("targetCpa") as decimal?,
            Of("targetRoas") as decimal?,
            Of("lowestBid") as decimal?,
            Of("highestBid") as decimal?
        );
    }

    private static Dictionary<string, string> Typed(StrategyPlan plan, AccountFacts facts)
    {
        string Written(string name, object? value) => value is null ? "" : Field(name).Type.Write(value, facts.Ground);
        return new Dictionary<string, string>
        {
            ["targetCpa"] = Written("targetCpa", plan.TargetCpa),
            ["targetRoas"] = Written("targetRoas", plan.TargetRoas),
            ["lowestBid"] = Written("lowestBid", plan.LowestBid),
            ["highestBid"] = Written("highestBid", plan.HighestBid),
        };
    }

    private static RunningStrategy? RunningOf(StrategyBasis basis, AccountFacts facts)
    {
        if (basis is not { Standing: { } standing, Runs: { } plan })
        {
            return null;
        }

        var days =
            standing.Since is { } since && basis.ReportedTo is { } last
                ? Math.Max(0, last.DayNumber - since.DayNumber + 1 - TargetLevel.FreshDays)
                : 0;
        var report = StrategyReport.Of(plan, standing, basis.Judged, basis.Facts.DailyBudget, days, facts.Currency);
        return new RunningStrategy(
            Choices.NameOf(Choices.Strategy, (int)standing.Strategy),
            standing.Since,
            report.Verdict,
            basis.Judged.CostPerConversion is { } cost ? facts.Currency.Round(cost) : null,
            report.Interval is { } interval ? facts.Currency.Round(interval.Low) : null,
            report.Interval?.High is { } high ? facts.Currency.Round(high) : null,
            report.Sentences
        );
    }

    private static IReadOnlyList<StrategyPart> PartsOf(ConversionRates rates) =>
        [
            .. rates
                .Parts.Where(part => Math.Abs(Math.Log(part.Factor)) >= LeastDifference)
                .GroupBy(part => part.Kind)
                .SelectMany(kind => kind.OrderByDescending(part => Math.Abs(Math.Log(part.Factor))).Take(MostOfKind))
                .Select(part => new StrategyPart(part.Kind, part.Name, Math.Round((decimal)part.Factor, 2))),
        ];
}
