using Fendrik.Data.Accounts;
using Fendrik.Data.Items;

namespace Fendrik.Data.Steps;

/// <summary>
/// Takes back one step. Only the fields that it changed are brought back, so that what others did later to the same rows
/// stays; where a later step changed the same field, nothing is taken back and the rows are named. What the network
/// knows is not taken back: an item that was published meanwhile differs from the live copy afterwards.
/// </summary>
/// <param name="inPart">
/// Takes back what can be, and names each row that cannot with the reason; the step then counts as standing still.
/// </param>
internal sealed class RevertStep(long revertedStep, string label, bool inPart = false) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Revert;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await KeptHistory.RefuseOlderAsync(context, revertedStep);
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
            throw new InvalidChangeException("step", "This step was taken back already.");
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
        if (!newest && inPart)
        {
            await HeldBackRows.FindAsync(context, revertedStep);
        }
        else if (!newest)
        {
            await RefuseConflictsAsync(context);
        }

        var mayGo = !newest && inPart ? HeldBackRows.IsNone : "true";

        var items = 0;
        foreach (var table in ItemTable.All.Reverse())
        {
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set removed = true, {ItemTable.Version}
                from step_insertion s
                where s.step_id = @step and s.kind = @kind and i.id between s.first_id and s.last_id and not i.removed and {mayGo}
                """,
                Parameters(table)
            );
        }

        foreach (var table in ItemTable.All)
        {
            items += await context.ExecuteAsync(
                newest ? BringBack(table) : $"{BringBackOwnFields(table)} and {mayGo}",
                Parameters(table)
            );
        }

        if (!newest)
        {
            await RefuseOrphansAsync(context);
        }

        // What it decided about search terms stands and falls with it.
        items += await context.ScalarAsync<int>(
            "select count(*) from term_decision where step_id in (@step, (select reverts from step where id = @step))",
            new { step = revertedStep }
        );

        // A step that is done again can be undone again; one that was taken back in part still stands with the rest.
        await context.ExecuteAsync(
            $"""
            update step set reverts = @step where id = @by;
            {(context.Refused.Count > 0 ? "update step set reverted_by = null where id = @step;" : "")}
            update step set reverted_by = null where id = (select reverts from step where id = @step)
            """,
            new { step = revertedStep, by = context.StepId }
        );
        return new StepOutcome(label, items);
    }

    private object Parameters(ItemTable table) => new { step = revertedStep, kind = (short)table.Kind };

    internal const string MadeByIt =
        "exists (select from step_insertion s where s.step_id = @step and s.kind = @kind and i.id between s.first_id and s.last_id)";

    private const string NotMadeByIt = "not " + MadeByIt;

    private static string BringBack(ItemTable table) =>
        $"""
            update {table.Name} i set {string.Join(
                ", ",
                table.EditableColumns.Select(column => $"{column} = b.{column}")
            )}, removed = b.removed, {table.KeepLiveUnlessBack}
            from {table.Before} b where b.step_id = @step and i.id = b.id and {NotMadeByIt}
            """;

    /// <summary>As the row was after the step: as the next step that touched it found it, or as it is.</summary>
    private static string AfterIt(ItemTable table, string column) =>
        $"coalesce((select case when true then row(n.{column}) end from {table.Before} n where n.id = i.id and n.step_id > @step order by n.step_id limit 1), row(i.{column}))";

    private static string BringBackOwnFields(ItemTable table) =>
        $"""
            update {table.Name} i set {string.Join(
                ", ",
                table
                    .EditableColumns.Append("removed")
                    .Select(column =>
                        $"{column} = case when row(b.{column}) is distinct from {AfterIt(table, column)} then b.{column} else i.{column} end"
                    )
            )}, {table.KeepLive}
            from {table.Before} b where b.step_id = @step and i.id = b.id and {NotMadeByIt}
            """;

    /// <summary>Identities of the rows in which a later step changed what this one had changed or made.</summary>
    internal static string ChangedAgain(ItemTable table)
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
        return $"""
            select i.id from {table.Before} b join {table.Name} i on i.id = b.id
            where b.step_id = @step and {NotMadeByIt} and ({changedAgain})
            union all
            select i.id from step_insertion s join {table.Name} i on i.id between s.first_id and s.last_id
            where s.step_id = @step and s.kind = @kind and not i.removed
              and (select {table.Everything(
                "n"
            )} from {table.Before} n where n.id = i.id and n.step_id > @step order by n.step_id limit 1) <> {table.Everything(
                "i"
            )}
            """;
    }

    private async Task RefuseConflictsAsync(StepContext context)
    {
        var names = new List<string>();
        foreach (var table in ItemTable.All)
        {
            names.AddRange(
                await context.QueryAsync<string>(
                    $"select {table.NameColumn} from {table.Name} i where i.id in ({ChangedAgain(table)}) limit 5",
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
        foreach (var inside in ItemTable.All)
        {
            foreach (var parent in inside.Parents)
            {
                await RefuseOrphansAsync(context, inside, ItemTable.Of(parent.Holder.Kind), parent.Column);
            }
        }
    }

    private static async Task RefuseOrphansAsync(StepContext context, ItemTable inside, ItemTable outside, string key)
    {
        var orphan = await context.ScalarAsync<string?>(
            $"""
            select {inside.NameColumn} from {inside.Name} i join {outside.Name} p on p.id = i.{key} and p.removed
            where not i.removed and (i.id in (select id from {inside.Before} where step_id = @step) or p.id in (select id from {outside.Before} where step_id = @step))
            limit 1
            """,
            new { step = context.StepId }
        );
        if (orphan is not null)
        {
            throw new InvalidChangeException(
                "step",
                $"“{orphan}” would be left without its {outside.Type.Noun}. Undo the later steps that touch it first."
            );
        }
    }
}
