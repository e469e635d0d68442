using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;

namespace Fendrik.Data.Steps;

/// <summary>Sets items running or paused.</summary>
public sealed record SetState(ItemSet Items, ItemState State) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        foreach (var table in selection.Tables)
        {
            if (table.Kind is ItemKind.NegativeKeyword or ItemKind.NegativeList)
            {
                await context.RefuseAsync(
                    table,
                    ItemSelection.Holds(table.Kind),
                    "A negative has no state; remove it instead.",
                    null
                );
                continue;
            }

            changed += await context.ExecuteAsync(
                $"update {table.Name} i set state = @state, {ItemTable.KeepLive} where {ItemSelection.Holds(table.Kind)} and i.state <> @state",
                new { state = (short)State }
            );
        }

        var verb = State == ItemState.Running ? "Run" : "Pause";
        return new StepOutcome(
            $"{verb} {ItemSelection.Describe(changed, selection.Tables.Select(table => table.Kind))}",
            changed
        );
    }
}

/// <summary>The amounts that an item may carry.</summary>
public enum AmountField
{
    /// <summary>Of ad groups and keywords.</summary>
    MaxCpc = 1,

    /// <summary>Of campaigns.</summary>
    DailyBudget = 2,
}

/// <summary>Sets, raises or lowers max CPC or daily budgets, by amount or percent, rounded and held between bounds.</summary>
public sealed record ChangeAmount(
    ItemSet Items,
    AmountField Field,
    AmountOperation Operation,
    decimal Value,
    decimal? RoundTo = null,
    decimal? AtLeast = null,
    decimal? AtMost = null
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var change = new BidChange(Operation, Value, RoundTo, AtLeast, AtMost);
        var currency = context.Account.Currency;
        if (change.Problem() is { } problem)
        {
            throw new InvalidChangeException("value", problem);
        }

        if (change.Step(currency) % currency.SmallestAmount != 0)
        {
            throw new InvalidChangeException(
                "roundTo",
                $"{currency.Code} has no amounts finer than {currency.SmallestAmount}. Choose a step that is a multiple of it."
            );
        }

        var selection = await ItemSelection.TakeAsync(context, Items);
        var (column, kinds, networkFloor) = Field switch
        {
            AmountField.DailyBudget => (
                "daily_budget",
                new[] { ItemKind.Campaign },
                context.Account.Network.MinimumDailyBudget
            ),
            _ => ("max_cpc", [ItemKind.AdGroup, ItemKind.Keyword], context.Account.Network.MinimumCpc),
        };
        if (Operation == AmountOperation.Inherit && Field == AmountField.DailyBudget)
        {
            throw new InvalidChangeException("operation", "A campaign has nothing to take its daily budget from.");
        }

        var floor = change.Floor(networkFloor);
        var parameters = new
        {
            value = Value,
            step = change.Step(currency),
            floor,
            ceiling = Math.Max(floor, AtMost ?? BidChange.Ceiling),
        };
        var changed = 0;
        foreach (var table in selection.Tables.Where(table => kinds.Contains(table.Kind)))
        {
            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set {column} = {NewAmount(column)}, {ItemTable.KeepLive}
                where {ItemSelection.Holds(table.Kind)} and i.{column} is distinct from {NewAmount(column)}
                """,
                parameters
            );
            if (Operation is AmountOperation.AddAmount or AmountOperation.AddPercent)
            {
                await context.RefuseAsync(
                    table,
                    $"{ItemSelection.Holds(table.Kind)} and i.{column} is null",
                    $"It has no {Name} of its own to raise or lower; set one.",
                    null
                );
            }
        }

        return new StepOutcome(
            $"{Verb(currency)} on {ItemSelection.Describe(changed, selection.Tables.Select(table => table.Kind).Where(kinds.Contains))}",
            changed
        );
    }

    private string Name => Field == AmountField.DailyBudget ? "daily budget" : "max CPC";

    /// <summary><see cref="BidChange.Apply"/> as SQL; a test holds the two together.</summary>
    private string NewAmount(string column)
    {
        static string Bounded(string raw) => $"least(greatest(round(({raw}) / @step) * @step, @floor), @ceiling)";
        return Operation switch
        {
            AmountOperation.Set => Bounded("@value::numeric"),
            AmountOperation.AddAmount => $"{Bounded($"i.{column} + @value::numeric")} + 0 * i.{column}",
            AmountOperation.AddPercent => $"{Bounded($"i.{column} * (1 + @value::numeric / 100)")} + 0 * i.{column}",
            _ => "null::numeric",
        };
    }

    private string Verb(Currency currency)
    {
        var amount = new Money(Math.Abs(Value), currency).ToString();
        return Operation switch
        {
            AmountOperation.Set => $"Set {Name} to {amount}",
            AmountOperation.AddAmount => $"{(Value < 0 ? "Lower" : "Raise")} {Name} by {amount}",
            AmountOperation.AddPercent => $"{(Value < 0 ? "Lower" : "Raise")} {Name} by {Math.Abs(Value):0.##}%",
            _ => $"Inherit {Name}",
        };
    }
}

/// <summary>Sets the match type of keywords and negatives; what would become a twin is left as it was.</summary>
public sealed record SetMatchType(ItemSet Items, MatchType Match) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        foreach (
            var table in selection.Tables.Where(table => table.Kind is ItemKind.Keyword or ItemKind.NegativeKeyword)
        )
        {
            var parameters = new { match = (short)Match };
            var mine = $"{ItemSelection.Holds(table.Kind)} and i.match_type <> @match";

            // Of several selected with the same words, one can change; a twin that is there already keeps all back.
            var twins = $"""
                (exists (select from {table.Name} t where {table.SameParent} and t.text_key = i.text_key and t.match_type = @match and not t.removed)
                 or exists (select from {table.Name} t join selected s on s.kind = {(int)table.Kind} and s.id = t.id
                   where {table.SameParent} and t.text_key = i.text_key and t.id < i.id and not t.removed and t.match_type <> @match))
                """;
            await context.RefuseAsync(
                table,
                $"{mine} and {twins}",
                "The same words with this match type are there already.",
                parameters
            );
            changed += await context.ExecuteAsync(
                $"update {table.Name} i set match_type = @match, {ItemTable.KeepLive} where {mine} and not {twins}",
                parameters
            );
        }

        var match = Match == MatchType.AllWords ? "all words" : Match.ToString().ToLowerInvariant();
        return new StepOutcome(
            $"Match {ItemSelection.Describe(changed, selection.Tables.Select(table => table.Kind))} by {match}",
            changed
        );
    }
}

/// <summary>Takes items away, with all that belongs to them.</summary>
public sealed record RemoveItems(ItemSet Items) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = await SelectedAsync(context);
        var more = changed > selection.Count ? $" and {changed - selection.Count:N0} in them" : "";
        return new StepOutcome(
            $"Remove {ItemSelection.Describe(selection.Count, selection.Tables.Select(table => table.Kind))}{more}",
            changed
        );
    }

    /// <summary>Takes away what is in the table <c>selected</c>.</summary>
    /// <returns>How many, with all that belongs to them.</returns>
    internal static async Task<int> SelectedAsync(StepContext context)
    {
        var campaigns = "(select s.id from selected s where s.kind = 1)";
        var inGroups =
            $"i.ad_group_id in (select g.id from ad_group g where g.id in (select s.id from selected s where s.kind = 2) or g.campaign_id in {campaigns})";
        var changed = 0;
        foreach (
            var (table, inside) in new[]
            {
                (ItemTable.Of(ItemKind.TextAd), inGroups),
                (
                    ItemTable.Of(ItemKind.NegativeKeyword),
                    $"i.campaign_id in {campaigns} or {inGroups} or i.list_id in (select s.id from selected s where s.kind = 6)"
                ),
                (ItemTable.Of(ItemKind.Keyword), inGroups),
                (ItemTable.Of(ItemKind.NegativeList), "false"),
                (ItemTable.Of(ItemKind.AdGroup), $"i.campaign_id in {campaigns}"),
                (ItemTable.Of(ItemKind.Campaign), "false"),
            }
        )
        {
            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set removed = true, {ItemTable.Version}
                where i.account_id = @account and not i.removed and ({ItemSelection.Holds(table.Kind)} or {inside})
                """,
                new { account = context.Account.Id }
            );
        }

        return changed;
    }
}
