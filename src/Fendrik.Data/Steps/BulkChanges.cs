using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;

namespace Fendrik.Data.Steps;

/// <summary>Sets items running or paused.</summary>
public sealed record SetState(IReadOnlyList<ItemReference> Items, ItemState State) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = new ItemSelection(Items);
        var changed = 0;
        foreach (var table in selection.Tables.Where(table => table.Kind != ItemKind.NegativeKeyword))
        {
            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set state = @state, {ItemTable.KeepLive}
                where i.id = any(@ids) and i.account_id = @account and not i.removed and i.state <> @state
                """,
                new
                {
                    ids = selection.IdsOf(table.Kind),
                    account = context.Account.Id,
                    state = (short)State,
                }
            );
        }

        if (selection.IdsOf(ItemKind.NegativeKeyword) is { Length: > 0 } negatives)
        {
            context.Refused.AddRange(
                negatives.Select(id => new RefusedItem(
                    ItemKind.NegativeKeyword,
                    id,
                    "",
                    "A negative has no state; remove it instead."
                ))
            );
        }

        var verb = State == ItemState.Running ? "Run" : "Pause";
        return new StepOutcome($"{verb} {ItemSelection.Describe(changed, Items.Select(item => item.Kind))}", changed);
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

/// <summary>Sets, raises or lowers max CPC or daily budgets, by amount or percent.</summary>
public sealed record ChangeAmount(
    IReadOnlyList<ItemReference> Items,
    AmountField Field,
    AmountOperation Operation,
    decimal Value
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var change = new BidChange(Operation, Value);
        if (change.Problem() is { } problem)
        {
            throw new InvalidChangeException("value", problem);
        }

        var selection = new ItemSelection(Items);
        var (column, kinds, floor) = Field switch
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

        var changed = 0;
        foreach (var table in selection.Tables)
        {
            if (!kinds.Contains(table.Kind))
            {
                continue;
            }

            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set {column} = {NewAmount(column)}, {ItemTable.KeepLive}
                where i.id = any(@ids) and i.account_id = @account and not i.removed
                  and i.{column} is distinct from {NewAmount(column)}
                """,
                Parameters(context, selection.IdsOf(table.Kind), floor)
            );
            if (Operation is AmountOperation.AddAmount or AmountOperation.AddPercent)
            {
                var without = await context.QueryAsync<(long Id, string Name)>(
                    $"select i.id, i.{(table.Kind == ItemKind.Keyword ? "text" : "name")} from {table.Name} i where i.id = any(@ids) and i.account_id = @account and not i.removed and i.{column} is null",
                    new { ids = selection.IdsOf(table.Kind), account = context.Account.Id }
                );
                context.Refused.AddRange(
                    without.Select(row => new RefusedItem(
                        table.Kind,
                        row.Id,
                        row.Name,
                        $"It has no {Name} of its own to raise or lower; set one."
                    ))
                );
            }
        }

        return new StepOutcome(
            $"{Verb(context.Account.Currency)} on {ItemSelection.Describe(changed, selection.Tables.Select(table => table.Kind).Where(kinds.Contains))}",
            changed
        );
    }

    private string Name => Field == AmountField.DailyBudget ? "daily budget" : "max CPC";

    /// <summary><see cref="BidChange.Apply"/> as SQL; a test holds the two together.</summary>
    private string NewAmount(string column) =>
        Operation switch
        {
            AmountOperation.Set => "least(greatest(round(@value::numeric, @digits), @floor), @ceiling)",
            AmountOperation.AddAmount =>
                $"least(greatest(round(i.{column} + @value::numeric, @digits), @floor), @ceiling) + 0 * i.{column}",
            AmountOperation.AddPercent =>
                $"least(greatest(round(i.{column} * (1 + @value::numeric / 100), @digits), @floor), @ceiling) + 0 * i.{column}",
            _ => "null::numeric",
        };

    private object Parameters(StepContext context, long[] ids, decimal floor) =>
        new
        {
            ids,
            account = context.Account.Id,
            value = Value,
            digits = context.Account.Currency.MinorUnits,
            floor,
            ceiling = BidChange.Ceiling,
        };

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
public sealed record SetMatchType(IReadOnlyList<ItemReference> Items, MatchType Match) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = new ItemSelection(Items);
        var changed = 0;
        foreach (
            var table in selection.Tables.Where(table => table.Kind is ItemKind.Keyword or ItemKind.NegativeKeyword)
        )
        {
            var parent =
                table.Kind == ItemKind.Keyword
                    ? "t.ad_group_id = i.ad_group_id"
                    : "t.campaign_id = i.campaign_id and t.ad_group_id is not distinct from i.ad_group_id";
            var parameters = new
            {
                ids = selection.IdsOf(table.Kind),
                account = context.Account.Id,
                match = (short)Match,
            };
            var mine = "i.id = any(@ids) and i.account_id = @account and not i.removed and i.match_type <> @match";

            // Of several selected with the same words, one can change; a twin that is there already keeps all back.
            var twins = $"""
                (exists (select from {table.Name} t where {parent} and t.text_key = i.text_key and t.match_type = @match and not t.removed)
                 or exists (select from {table.Name} t where {parent} and t.text_key = i.text_key and t.id < i.id
                   and t.id = any(@ids) and not t.removed and t.match_type <> @match))
                """;
            var refused = await context.QueryAsync<(long Id, string Text)>(
                $"select i.id, i.text from {table.Name} i where {mine} and {twins}",
                parameters
            );
            context.Refused.AddRange(
                refused.Select(row => new RefusedItem(
                    table.Kind,
                    row.Id,
                    row.Text,
                    "The same words with this match type are there already."
                ))
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
public sealed record RemoveItems(IReadOnlyList<ItemReference> Items) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = new ItemSelection(Items);
        var parameters = new
        {
            account = context.Account.Id,
            campaigns = selection.IdsOf(ItemKind.Campaign),
            adGroups = selection.IdsOf(ItemKind.AdGroup),
            keywords = selection.IdsOf(ItemKind.Keyword),
            negatives = selection.IdsOf(ItemKind.NegativeKeyword),
            ads = selection.IdsOf(ItemKind.TextAd),
        };
        const string inGroups =
            "i.ad_group_id in (select g.id from ad_group g where g.account_id = @account and (g.id = any(@adGroups) or g.campaign_id = any(@campaigns)))";
        var changed = 0;
        foreach (
            var (table, condition) in new[]
            {
                ("text_ad", $"i.id = any(@ads) or {inGroups}"),
                ("negative_keyword", $"i.id = any(@negatives) or i.campaign_id = any(@campaigns) or {inGroups}"),
                ("keyword", $"i.id = any(@keywords) or {inGroups}"),
                ("ad_group", "i.id = any(@adGroups) or i.campaign_id = any(@campaigns)"),
                ("campaign", "i.id = any(@campaigns)"),
            }
        )
        {
            changed += await context.ExecuteAsync(
                $"update {table} i set removed = true where i.account_id = @account and not i.removed and ({condition})",
                parameters
            );
        }

        var more = changed > selection.Count ? $" and {changed - selection.Count:N0} in them" : "";
        return new StepOutcome(
            $"Remove {ItemSelection.Describe(selection.Count, Items.Select(item => item.Kind))}{more}",
            changed
        );
    }
}
