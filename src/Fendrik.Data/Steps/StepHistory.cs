using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>One step as the history shows it.</summary>
[method: ExplicitConstructor]
public sealed record HistoryEntry(
    long Id,
    DateTimeOffset MadeAt,
    string Person,
    StepKind Kind,
    string Label,
    int Items,
    bool Reverted
);

/// <summary>Undo and redo: steps that take a step back by the rows as they were.</summary>
public sealed class StepHistory(NpgsqlDataSource source, WorkingCopy workingCopy)
{
    /// <summary>The step that an undo would take back, or none.</summary>
    public Task<HistoryEntry?> NextUndoAsync(int accountId, CancellationToken cancellation) =>
        FirstAsync("s.kind = 1 and s.reverted_by is null", accountId, cancellation);

    /// <summary>The undo that a redo would take back: the newest, unless something new was done since.</summary>
    public Task<HistoryEntry?> NextRedoAsync(int accountId, CancellationToken cancellation) =>
        FirstAsync(
            "s.kind = 2 and s.reverted_by is null and not exists (select from step n where n.account_id = @accountId and n.kind = 1 and n.id > s.id)",
            accountId,
            cancellation
        );

    public async Task<IReadOnlyList<HistoryEntry>> ListAsync(
        int accountId,
        long? before,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<HistoryEntry>(
            Select
                + " where s.account_id = @accountId and (@before::bigint is null or s.id < @before) order by s.id desc limit @most",
            new
            {
                accountId,
                before,
                most,
            }
        );
        return [.. rows];
    }

    public async Task<IReadOnlyList<ItemChange>?> ChangesOfAsync(
        int accountId,
        long stepId,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var known = await connection.ExecuteScalarAsync<bool>(
            "select exists (select from step where id = @stepId and account_id = @accountId)",
            new { stepId, accountId }
        );
        return known ? await StepChanges.ReadAsync(connection, stepId, most, newest: false) : null;
    }

    public async Task<StepResult?> UndoAsync(int accountId, string personId, CancellationToken cancellation) =>
        await NextUndoAsync(accountId, cancellation) is { } step
            ? await workingCopy.ApplyAsync(
                accountId,
                personId,
                new RevertStep(step.Id, $"Undo “{step.Label}”"),
                false,
                cancellation,
                StepKind.Undo
            )
            : null;

    public async Task<StepResult?> RedoAsync(int accountId, string personId, CancellationToken cancellation) =>
        await NextRedoAsync(accountId, cancellation) is { } undo
            ? await workingCopy.ApplyAsync(
                accountId,
                personId,
                new RevertStep(undo.Id, $"Redo “{TakenBackBy(undo)}”"),
                false,
                cancellation,
                StepKind.Redo
            )
            : null;

    /// <summary>Label of the step that an undo took back.</summary>
    public static string TakenBackBy(HistoryEntry undo) => undo.Label["Undo “".Length..^1];

    private const string Select = """
        select s.id, s.made_at, coalesce(p.display_name, '') as person, s.kind, s.label, s.items, s.reverted_by is not null as reverted
        from step s left join "AspNetUsers" p on p.id = s.person_id
        """;

    private async Task<HistoryEntry?> FirstAsync(string condition, int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QueryFirstOrDefaultAsync<HistoryEntry>(
            $"{Select} where s.account_id = @accountId and {condition} order by s.id desc limit 1",
            new { accountId }
        );
    }

    /// <summary>
    /// Brings back the rows of one step. What the network knows of them is not taken back: an item that was published
    /// meanwhile differs from the live copy afterwards, and shows as a change.
    /// </summary>
    private sealed class RevertStep(long revertedStep, string label) : IWorkingCopyChange
    {
        public async Task<StepOutcome> ApplyAsync(StepContext context)
        {
            // Two persons may press undo at once: the account is locked by now, so look again.
            var taken = await context.ScalarAsync<int>(
                "update step set reverted_by = @by where id = @step and account_id = @account and reverted_by is null; select count(*) from step where id = @step and reverted_by = @by",
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

            var items = 0;
            foreach (var table in ItemTable.All.Reverse())
            {
                items += await context.ExecuteAsync(
                    $"""
                    update {table.Name} i set removed = true
                    from step_insertion s
                    where s.step_id = @step and s.kind = @kind and i.id between s.first_id and s.last_id and not i.removed
                    """,
                    new { step = revertedStep, kind = (short)table.Kind }
                );
            }

            foreach (var table in ItemTable.All)
            {
                var columns = string.Join(", ", table.EditableColumns.Select(column => $"{column} = b.{column}"));
                items += await context.ExecuteAsync(
                    $"""
                    update {table.Name} i set {columns}, removed = b.removed, {ItemTable.KeepLive}
                    from {table.Name}_before b
                    where b.step_id = @step and i.id = b.id and not exists
                      (select from step_insertion s where s.step_id = @step and s.kind = @kind and i.id between s.first_id and s.last_id)
                    """,
                    new { step = revertedStep, kind = (short)table.Kind }
                );
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
    }
}
