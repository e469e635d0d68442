using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Funding;

/// <summary>A campaign's daily budget as it is to be.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Budget">The budget, as it is typed.</param>
public sealed record BudgetInput(long CampaignId, string Budget);

/// <summary>The part of a move of money that lies in another account.</summary>
/// <param name="AccountId">The other account.</param>
/// <param name="Budgets">The budgets of its campaigns.</param>
/// <param name="Seen">The versions on which they were planned.</param>
public sealed record BudgetsElsewhere(int AccountId, IReadOnlyList<BudgetInput> Budgets, IReadOnlyList<SeenItem> Seen);

/// <summary>
/// Sets the daily budgets of campaigns, each to its own, in one step. Those of another account in the same currency can be set with them or not at
/// all, in a step of that account.
/// </summary>
/// <param name="Budgets">The budgets.</param>
/// <param name="KeepsSum">True where money only moves: a different sum is refused.</param>
/// <param name="With">Budgets of another account.</param>
public sealed record MoveMoney(IReadOnlyList<BudgetInput> Budgets, bool KeepsSum, BudgetsElsewhere? With = null)
    : IWorkingCopyChange
{
    /// <summary>The account that the money of this part comes from or goes to; none where it moves within one.</summary>
    private AccountFacts? Partner { get; init; }

    public int? OtherAccountId => With?.AccountId;

    public ElsewhereChange? ElsewhereOf(AccountFacts account) =>
        With is null
            ? null
            : new ElsewhereChange(
                With.AccountId,
                new MoveMoney(With.Budgets, KeepsSum: false) { Partner = KeepsSum ? account : null },
                With.Seen
            );

    /// <summary>Why money cannot move between two accounts, as a sentence; none where it can.</summary>
    public static string? ProblemBetween(AccountFacts one, AccountFacts other) =>
        one.Id == other.Id ? "Choose another account than this."
        : one.Currency != other.Currency
            ? $"{other.Name} is kept in {other.Currency.Code} and {one.Name} in {one.Currency.Code}: money moves only within one currency."
        : null;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var here = await PlannedBudgets.ReadAsync(context, context.Account, Budgets, "budgets");
        var (before, after, partner) = (here.Before, here.After, Partner);
        if (With is not null)
        {
            var other = await AccountFacts.ReadAsync(context.Connection, With.AccountId);
            if (ProblemBetween(context.Account, other) is { } problem)
            {
                throw new InvalidChangeException("with.accountId", problem);
            }

            var there = await PlannedBudgets.ReadAsync(context, other, With.Budgets, "with.budgets");
            (before, after) = (before + there.Before, after + there.After);
            partner = KeepsSum ? other : null;
        }

        Money Of(decimal amount) => new(amount, context.Account.Currency);
        if (KeepsSum && before != after)
        {
            throw new InvalidChangeException(
                "budgets",
                $"The budgets come to {Of(after)} a day, and were {Of(before)}. Give or take the {Of(Math.Abs(after - before))}, or say that the sum may change. Nothing was changed."
            );
        }

        var changed = await here.ApplyAsync(context);
        var more = here.After - here.Before;
        var label =
            partner is not null && more != 0
                ? $"{(more > 0 ? "Take" : "Give")} {Of(Math.Abs(more))} a day {(more > 0 ? "from" : "to")} {partner.Name} on {partner.Network.Name}"
            : more == 0 && here.Moved > 0
                ? $"Move {Of(here.Moved)} a day among {ItemTypes.Count(changed, [ItemKind.Campaign])}"
            : $"Set daily budget of {ItemTypes.Count(changed, [ItemKind.Campaign])}";
        return new StepOutcome(label, changed);
    }
}
