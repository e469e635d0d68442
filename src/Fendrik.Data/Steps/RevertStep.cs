using Fendrik.Core.Accounts;

namespace Fendrik.Data.Steps;

/// <summary>
/// Takes back one step. Only the fields that it changed are brought back, so that what others did later to the same rows
/// stays; where a later step changed the same field, nothing is taken back and the rows are named. What the network
/// knows is not taken back: an item that was published meanwhile differs from the live copy afterwards.
/// </summary>
internal sealed class RevertStep(long revertedStep, string label) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        // Two persons may press undo at once: the account is locked by now, so look again.
        var taken = await context.ScalarAsync<int>(
            """
            update step set reverted_by = @by where id = @step and account_id = @account and reverted_by is null;
            select count(*) from step where id = @step and reverted_by = @by
            """,
            new
            {
                by = context.StepId,
                step = revertedStep,
                account = context.Account.Id,
            }
        );
        if (taken == 0)
        {
            throw new InvalidChangeException("step", "Someone else has just taken this step back.");
        }

        // The newest step has no later ones to mind.
        var newest = await context.ScalarAsync<bool>(
            "select not exists (select from step where account_id = @account and id > @step and id <> @by)",
            new
            {
                account = context.Account.Id,
                step = revertedStep,
                by = context.StepId,
            }
        );
        if (!newest)
        {
            await RefuseConflictsAsync(context);
        }

        var items = 0;
        foreach (var table in ItemTable.All.Reverse())
        {
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set removed = true, {ItemTable.Version}
                from step_insertion s
                where s.step_id = @step and s.kind = @kind and i.id between s.first_id and s.last_id and not i.removed
                """,
                Parameters(table)
            );
        }

        foreach (var table in ItemTable.All)
        {
            items += await context.ExecuteAsync(
                newest ? BringBack(table) : BringBackOwnFields(table),
                Parameters(table)
            );
        }

        if (!newest)
        {
            await RefuseOrphansAsync(context);
        }

        // A step that is done again can be undone again.
        await context.ExecuteAsync(
            """
            update step set reverts = @step where id = @by;
            update step set reverted_by = null where id = (select reverts from step where id = @step)
            """,
            new { step = revertedStep, by = context.StepId }
        );
        return new StepOutcome(label, items);
    }

    private object Parameters(ItemTable table) => new { step = revertedStep, kind = (short)table.Kind };

    private const string NotMadeByIt =
        "not exists (select from step_insertion s where s.step_id = @step and s.kind = @kind and i.id between s.first_id and s.last_id)";

    private static string BringBack(ItemTable table) =>
        $"""
            update {table.Name} i set {string.Join(
                ", ",
                table.EditableColumns.Select(column => $"{column} = b.{column}")
            )}, removed = b.removed, {ItemTable.KeepLive}
            from {table.Name}_before b where b.step_id = @step and i.id = b.id and {NotMadeByIt}
            """;

    /// <summary>As the row was after the step: as the next step that touched it found it, or as it is.</summary>
    private static string AfterIt(ItemTable table, string column) =>
        $"coalesce((select case when true then row(n.{column}) end from {table.Name}_before n where n.id = i.id and n.step_id > @step order by n.step_id limit 1), row(i.{column}))";

    private static string BringBackOwnFields(ItemTable table) =>
        $"""
            update {table.Name} i set {string.Join(
                ", ",
                table
                    .EditableColumns.Append("removed")
                    .Select(column =>
                        $"{column} = case when row(b.{column}) is distinct from {AfterIt(table, column)} then b.{column} else i.{column} end"
                    )
            )}, {ItemTable.KeepLive}
            from {table.Name}_before b where b.step_id = @step and i.id = b.id and {NotMadeByIt}
            """;

    private async Task RefuseConflictsAsync(StepContext context)
    {
        var names = new List<string>();
        foreach (var table in ItemTable.All)
        {
            var changedAgain = string.Join(
                " or ",
                table
                    .EditableColumns.Append("removed")
                    .Where(column => !column.EndsWith("_key", StringComparison.Ordinal))
                    .Select(column =>
                        $"(row(b.{column}) is distinct from {AfterIt(table, column)} and {AfterIt(table, column)} is distinct from row(i.{column}))"
                    )
            );
            names.AddRange(
                await context.QueryAsync<string>(
                    $"""
                    select {table.NameColumn} from {table.Name}_before b join {table.Name} i on i.id = b.id
                    where b.step_id = @step and {NotMadeByIt} and ({changedAgain})
                    union all
                    select {table.NameColumn} from step_insertion s join {table.Name} i on i.id between s.first_id and s.last_id
                    where s.step_id = @step and s.kind = @kind and not i.removed
                      and (select item_fields(n) from {table.Name}_before n where n.id = i.id and n.step_id > @step order by n.step_id limit 1) <> item_fields(i)
                    limit 5
                    """,
                    Parameters(table)
                )
            );
        }

        if (names.Count > 0)
        {
            throw new InvalidChangeException(
                "step",
                $"Later steps changed the same: {string.Join(", ", names.Take(5).Select(name => $"“{name}”"))}{(names.Count >= 5 ? " and maybe more" : "")}. Undo those first, or go back to before this step."
            );
        }
    }

    /// <summary>Nothing may be left in a parent that is gone.</summary>
    private static async Task RefuseOrphansAsync(StepContext context)
    {
        foreach (
            var (child, parent, key) in new[]
            {
                (ItemKind.AdGroup, ItemKind.Campaign, "campaign_id"),
                (ItemKind.Keyword, ItemKind.AdGroup, "ad_group_id"),
                (ItemKind.TextAd, ItemKind.AdGroup, "ad_group_id"),
                (ItemKind.NegativeKeyword, ItemKind.AdGroup, "ad_group_id"),
                (ItemKind.NegativeKeyword, ItemKind.Campaign, "campaign_id"),
                (ItemKind.NegativeKeyword, ItemKind.NegativeList, "list_id"),
            }
        )
        {
            var (inside, outside) = (ItemTable.Of(child), ItemTable.Of(parent));
            var orphan = await context.ScalarAsync<string?>(
                $"""
                select {inside.NameColumn} from {inside.Name} i join {outside.Name} p on p.id = i.{key} and p.removed
                where not i.removed and (i.id in (select id from {inside.Name}_before where step_id = @step) or p.id in (select id from {outside.Name}_before where step_id = @step))
                limit 1
                """,
                new { step = context.StepId }
            );
            if (orphan is not null)
            {
                throw new InvalidChangeException(
                    "step",
                    $"“{orphan}” would be left without its {ItemSelection.Noun(parent)}. Undo the later steps that touch it first."
                );
            }
        }
    }
}
