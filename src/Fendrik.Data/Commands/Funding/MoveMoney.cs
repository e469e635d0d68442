using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Funding;

/// <summary>A campaign's daily budget as it is to be.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Budget">The budget, as it is typed.</param>
public sealed record BudgetInput(long CampaignId, string Budget);

/// <summary>Sets the daily budgets of campaigns, each to its own, in one step.</summary>
/// <param name="Budgets">The budgets.</param>
/// <param name="KeepsSum">True where money only moves: a different sum is refused.</param>
public sealed record MoveMoney(IReadOnlyList<BudgetInput> Budgets, bool KeepsSum) : IWorkingCopyChange
{
    private const int MostCampaigns = 5_000;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Budgets.Count is 0 or > MostCampaigns)
        {
            throw new InvalidChangeException(
                "budgets",
                Budgets.Count == 0
                    ? "Say which budgets are to be changed."
                    : $"At most {MostCampaigns:N0} budgets at once."
            );
        }

        var field = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"];
        var then = new Dictionary<long, decimal>();
        foreach (var (input, place) in Budgets.Select((each, place) => (each, place)))
        {
            then[input.CampaignId] = TypedBudget.Read(input.Budget, context.Account).In($"budgets[{place}].budget");
        }

        var now = (
            await context.QueryAsync<(long Id, decimal? Budget)>(
                "select id, daily_budget from campaign where account_id = @account and not removed and id = any(@ids)",
                new { account = context.Account.Id, ids = then.Keys.ToArray() }
            )
        ).ToDictionary(row => row.Id, row => row.Budget ?? 0);
        if (now.Count < then.Count)
        {
            throw new InvalidChangeException(
                "budgets",
                $"Campaign {then.Keys.First(id => !now.ContainsKey(id))} is not there any more. Nothing was changed."
            );
        }

        var (before, after) = (now.Values.Sum(), then.Values.Sum());
        Money Of(decimal amount) => new(amount, context.Account.Currency);
        if (KeepsSum && before != after)
        {
            throw new InvalidChangeException(
                "budgets",
                $"The budgets come to {Of(after)} a day, and were {Of(before)}. Give or take the {Of(Math.Abs(after - before))}, or say that the sum may change. Nothing was changed."
            );
        }

        var changed = await new CellUpdate(
            context,
            ItemTable.Of(ItemKind.Campaign),
            [
                .. then.Select(each =>
                    (
                        each.Key,
                        (IReadOnlyDictionary<Field, object?>)new Dictionary<Field, object?> { [field] = each.Value }
                    )
                ),
            ]
        ).ApplyAsync();
        var moved = then.Sum(each => Math.Max(0, each.Value - now[each.Key]));
        return new StepOutcome(
            before == after && moved > 0
                ? $"Move {Of(moved)} a day among {ItemTypes.Count(changed, [ItemKind.Campaign])}"
                : $"Set daily budget of {ItemTypes.Count(changed, [ItemKind.Campaign])}",
            changed
        );
    }
}
