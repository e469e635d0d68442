using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>What other budgets would change, before they are set.</summary>
internal static class BudgetPlanEndpoints
{
    public static void MapBudgetPlans(this RouteGroupBuilder account) =>
        account.MapPost("/budgets/plan", PlanAsync).WithName("planBudgets");

    /// <summary>A campaign of a plan while it is worked out.</summary>
    private sealed record Planned(CampaignMoney Money, decimal? Chosen, string? Typed, string? Problem)
    {
        public decimal Now => Money.Campaign.Budget ?? 0;
    }

    private static async Task<Ok<PlanAnswer>> PlanAsync(
        int accountId,
        PlanRequest request,
        AccountDemand demand,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var period = await PricingPeriod.OfAsync(store, accountId, request.Weeks, cancellation);
        var money = await demand.ReadAsync(accountId, period, cancellation);
        var asked = request.Budgets.DistinctBy(each => each.CampaignId).ToDictionary(each => each.CampaignId);
        Planned[] planned =
        [
            .. money
                .Campaigns.Where(each => asked.ContainsKey(each.Campaign.Id))
                .OrderByDescending(each => each.Demand.Figures.Cost)
                .ThenBy(each => each.Campaign.Name, StringComparer.Ordinal)
                .Select(each => Read(each, request.Proposes ? null : asked[each.Campaign.Id].Budget, facts)),
        ];
        if (planned.Length == 0)
        {
            throw new InvalidChangeException("budgets", "Choose campaigns whose budgets are to be planned.");
        }

        var (then, problem) = ThenOf(planned, request, facts.Currency);
        var write = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"].Type;
        return TypedResults.Ok(
            new PlanAnswer(
                [
                    .. planned.Select(
                        (each, at) =>
                            new PlannedBudget(
                                each.Money.Campaign.Id,
                                each.Money.Campaign.Version,
                                each.Money.Campaign.Name,
                                each.Money.Campaign.Budget,
                                each.Typed ?? (then[at] > 0 ? write.Write(then[at], facts.Ground) : ""),
                                then[at] != each.Now,
                                each.Problem
                            )
                    ),
                ],
                planned.Sum(each => each.Now),
                then.Sum(),
                problem,
                EffectOf(planned, then, money, facts.Currency)
            )
        );
    }

    private static Planned Read(CampaignMoney money, string? text, AccountFacts facts)
    {
        if (text is null)
        {
            return new Planned(money, null, null, null);
        }

        var typed = TypedBudget.Read(text, facts);
        return typed.Amount is { } amount
            ? new Planned(money, amount, null, null)
            : new Planned(money, money.Campaign.Budget ?? 0, text, typed.Problem);
    }

    private static (IReadOnlyList<decimal> Then, string? Problem) ThenOf(
        Planned[] planned,
        PlanRequest request,
        Currency currency
    )
    {
        decimal[] chosen = [.. planned.Select(each => each.Chosen ?? each.Now)];
        if (planned.FirstOrDefault(each => each.Problem is not null) is { } wrong)
        {
            return (chosen, $"{wrong.Money.Campaign.Name}: {wrong.Problem}");
        }

        if (request.Proposes)
        {
            return (
                BudgetShares.Best(
                    [.. planned.Select(each => new FundedCampaign(each.Now, each.Money.Curve))],
                    currency
                ),
                null
            );
        }

        if (!request.KeepsSum || planned.All(each => each.Chosen is null))
        {
            return (chosen, null);
        }

        if (BudgetShares.KeepSum([.. planned.Select(each => (each.Now, each.Chosen))], currency) is { } kept)
        {
            return (kept, null);
        }

        var difference = planned.Sum(each => each.Now) - chosen.Sum();
        var amount = new Money(Math.Abs(difference), currency);
        return (
            chosen,
            planned.All(each => each.Chosen is not null)
                ? $"{amount} a day is {(difference > 0 ? "left to give" : "more than there is")}: all budgets are chosen. Change one, let one go free, or let the sum change."
                : "The others cannot give as much. Choose less, or let the sum change."
        );
    }

    private static PlanEffect? EffectOf(
        Planned[] planned,
        IReadOnlyList<decimal> then,
        AccountMoney money,
        Currency currency
    )
    {
        if (
            money.Days is not { } days
            || planned.All(each => !each.Money.Curve.IsKnown)
            || planned.Select((each, at) => then[at] == each.Now).All(same => same)
        )
        {
            return null;
        }

        var forecast = BudgetForecast.Of([
            .. planned.Select((each, at) => (new FundedCampaign(each.Now, each.Money.Curve), then[at])),
        ]);
        decimal Amount(double amount) => BudgetWords.Amount(amount, currency);
        static decimal Number(double number) => Math.Round((decimal)number, 1, MidpointRounding.AwayFromZero);
        static decimal Whole(double number) => Math.Round((decimal)number, 0, MidpointRounding.AwayFromZero);
        return new PlanEffect(
            Whole(forecast.Now.Clicks),
            BudgetsEndpoints.Range(forecast.Clicks, Whole),
            Amount(forecast.Now.Cost),
            BudgetsEndpoints.Range(forecast.Cost, Amount),
            Number(forecast.Now.Conversions),
            BudgetsEndpoints.Range(forecast.Conversions, Number),
            forecast.Now.CostPerConversion is { } cost ? Amount(cost) : null,
            forecast.CostPerConversion is { } range ? BudgetsEndpoints.Range(range, Amount) : null,
            BudgetWords.RestsOn([.. planned.Select(each => each.Money.Demand)], days.Days, money.Trial)
        );
    }
}
