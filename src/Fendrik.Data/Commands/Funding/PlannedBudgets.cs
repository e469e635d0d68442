using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Funding;

/// <summary>Budgets of campaigns of one account as they are and as they are to be.</summary>
internal sealed class PlannedBudgets
{
    private const int MostCampaigns = 5_000;

    private readonly IReadOnlyDictionary<long, decimal> _now;
    private readonly IReadOnlyDictionary<long, decimal> _then;

    private PlannedBudgets(IReadOnlyDictionary<long, decimal> now, IReadOnlyDictionary<long, decimal> then) =>
        (_now, _then) = (now, then);

    /// <summary>Their sum now.</summary>
    public decimal Before => _now.Values.Sum();

    /// <summary>Their sum then.</summary>
    public decimal After => _then.Values.Sum();

    /// <summary>What those get that get something.</summary>
    public decimal Moved => _then.Sum(each => Math.Max(0, each.Value - _now[each.Key]));

    /// <summary>Reads what was typed and what stands there.</summary>
    /// <param name="context">The step in which it is read.</param>
    /// <param name="account">The account of the campaigns.</param>
    /// <param name="budgets">The budgets, as they were typed.</param>
    /// <param name="where">The field of the request that they stand in.</param>
    /// <exception cref="InvalidChangeException">A budget is none, or a campaign is not there.</exception>
    public static async Task<PlannedBudgets> ReadAsync(
        StepContext context,
        AccountFacts account,
        IReadOnlyList<BudgetInput> budgets,
        string where
    )
    {
        if (budgets.Count is 0 or > MostCampaigns)
        {
            throw new InvalidChangeException(
                where,
                budgets.Count == 0
                    ? "Say which budgets are to be changed."
                    : $"At most {MostCampaigns:N0} budgets at once."
            );
        }

        var then = new Dictionary<long, decimal>();
        foreach (var (input, place) in budgets.Select((each, place) => (each, place)))
        {
            then[input.CampaignId] = TypedBudget.Read(input.Budget, account).In($"{where}[{place}].budget");
        }

        var now = (
            await context.QueryAsync<(long Id, decimal? Budget)>(
                "select id, daily_budget from campaign where account_id = @account and not removed and id = any(@ids)",
                new { account = account.Id, ids = then.Keys.ToArray() }
            )
        ).ToDictionary(row => row.Id, row => row.Budget ?? 0);
        return now.Count < then.Count
            ? throw new InvalidChangeException(
                where,
                $"Campaign {then.Keys.First(id => !now.ContainsKey(id))} is not there any more. Nothing was changed."
            )
            : new PlannedBudgets(now, then);
    }

    /// <summary>Sets them.</summary>
    /// <returns>How many campaigns changed.</returns>
    public Task<int> ApplyAsync(StepContext context)
    {
        var field = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"];
        return new CellUpdate(
            context,
            ItemTable.Of(ItemKind.Campaign),
            [
                .. _then.Select(each =>
                    (
                        each.Key,
                        (IReadOnlyDictionary<Field, object?>)new Dictionary<Field, object?> { [field] = each.Value }
                    )
                ),
            ]
        ).ApplyAsync();
    }
}
