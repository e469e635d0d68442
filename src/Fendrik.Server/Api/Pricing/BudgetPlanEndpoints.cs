using Fendrik.Core.Budgets;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.People;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>What other budgets would change, before they are set.</summary>
internal static class BudgetPlanEndpoints
{
    public static void MapBudgetPlans(this RouteGroupBuilder account) =>
        account.MapPost("/budgets/plan", PlanAsync).WithName("planBudgets").Needs(AccountRight.Look);

    /// <summary>So many campaigns of another account are planned with one's own, the dearest of those that run.</summary>
    private const int MostElsewhere = 12;

    /// <summary>What is known of the money of an account.</summary>
    private sealed record Known(AccountFacts Facts, AccountMoney Money);

    /// <summary>A campaign of a plan while it is worked out.</summary>
    private sealed record Planned(
        AccountFacts Account,
        CampaignMoney Money,
        decimal? Chosen,
        string? Typed,
        string? Problem
    )
    {
        public decimal Now => Money.Campaign.Budget ?? 0;
    }

    private static async Task<Ok<PlanAnswer>> PlanAsync(
        int accountId,
        PlanRequest request,
        HttpContext context,
        MemberBook members,
        AccountDemand demand,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        async Task<Known> KnownAsync(int account) =>
            new(
                await workingCopy.FactsAsync(account, cancellation),
                await demand.ReadAsync(
                    account,
                    await PricingPeriod.OfAsync(store, account, request.Weeks, cancellation),
                    cancellation
                )
            );
        var here = await KnownAsync(accountId);
        Known? there = null;
        if (request.OtherAccountId is { } other)
        {
            await AccountAccess.RefuseOthersAsync(
                members,
                context.User,
                other,
                AccountRight.Look,
                "otherAccountId",
                cancellation
            );
            there = await KnownAsync(other);
            if (MoveMoney.ProblemBetween(here.Facts, there.Facts) is { } different)
            {
                throw new InvalidChangeException("otherAccountId", different);
            }
        }

        var facts = here.Facts;
        var asked = request.Budgets.DistinctBy(each => each.CampaignId).ToDictionary(each => each.CampaignId);
        var askedThere = (request.Elsewhere ?? [])
            .DistinctBy(each => each.CampaignId)
            .ToDictionary(each => each.CampaignId);
        (Known Of, CampaignMoney Money)[] chosen =
        [
            .. ByCost(here.Money.Campaigns.Where(each => asked.ContainsKey(each.Campaign.Id)))
                .Select(each => (here, each)),
            .. there is null
                ? []
                : ByCost(there.Money.Campaigns.Where(Runs)).Take(MostElsewhere).Select(each => (there, each)),
        ];
        Planned[] planned =
        [
            .. chosen.Select(each =>
                Read(
                    each.Money,
                    request.Proposes
                        ? null
                        : (each.Of == here ? asked : askedThere).GetValueOrDefault(each.Money.Campaign.Id)?.Budget,
                    each.Of.Facts
                )
            ),
        ];
        if (chosen.All(each => each.Of != here))
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
                                each.Account.Id,
                                each.Money.Campaign.Id,
                                each.Money.Campaign.Version,
                                each.Money.Campaign.Name,
                                each.Money.Campaign.Budget,
                                each.Typed ?? (then[at] > 0 ? write.Write(then[at], each.Account.Ground) : ""),
                                then[at] != each.Now,
                                each.Problem
                            )
                    ),
                ],
                planned.Sum(each => each.Now),
                then.Sum(),
                problem,
                EffectOf(planned, then, there is null ? [here] : [here, there])
            )
        );
    }

    private static IEnumerable<CampaignMoney> ByCost(IEnumerable<CampaignMoney> campaigns) =>
        campaigns
            .OrderByDescending(each => each.Demand.Figures.Cost)
            .ThenBy(each => each.Campaign.Name, StringComparer.Ordinal);

    private static bool Runs(CampaignMoney money) =>
        money.Campaign is { State: not ItemState.Paused, Budget: not null };

    private static Planned Read(CampaignMoney money, string? text, AccountFacts facts)
    {
        if (text is null)
        {
            return new Planned(facts, money, null, null, null);
        }

        var typed = TypedBudget.Read(text, facts);
        return typed.Amount is { } amount
            ? new Planned(facts, money, amount, null, null)
            : new Planned(facts, money, money.Campaign.Budget ?? 0, text, typed.Problem);
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

    private static PlanEffect? EffectOf(Planned[] planned, IReadOnlyList<decimal> then, Known[] known)
    {
        var currency = known[0].Facts.Currency;
        if (
            known.Any(each => each.Money.Days is null)
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
            string.Join(' ', known.Select(each => RestsOn(each, planned, known.Length > 1)))
        );
    }

    /// <summary>What the figures of an account rest on; with its network before it where there are two.</summary>
    private static string RestsOn(Known known, Planned[] planned, bool named)
    {
        var says = BudgetWords.RestsOn(
            [.. planned.Where(each => each.Account == known.Facts).Select(each => each.Money.Demand)],
            known.Money.Days!.Value.Days,
            known.Money.Trial
        );
        return named ? $"{known.Facts.Name} on {known.Facts.Network.Name}: {says}" : says;
    }
}
