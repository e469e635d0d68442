using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Accounts;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>One step as the history shows it.</summary>
[method: ExplicitConstructor]
public sealed record HistoryEntry(
    long Id,
    DateTimeOffset MadeAt,
    string Person,
    string PersonId,
    StepKind Kind,
    string Label,
    int Items,
    bool Reverted,
    string? TakesBack,
    bool CanUndo
);

/// <summary>
/// The history of an account: steps, taken back and done again. Undo goes by person; to take back another's step is a choice
/// of its own, and says whose it was.
/// </summary>
public sealed class StepHistory(NpgsqlDataSource source, WorkingCopy workingCopy)
{
    /// <summary>The step that undo takes back: the newest of the person's own that stands.</summary>
    public Task<HistoryEntry?> NextUndoAsync(
        int accountId,
        string personId,
        CancellationToken cancellation,
        Guid? requestId = null
    ) =>
        FirstAsync(
            "s.kind = 1 and s.reverted_by is null and s.person_id = @personId and s.id >= a.history_from",
            accountId,
            cancellation,
            personId: personId
        );

    /// <summary>The undo of the person's own that redo takes back; none once they did something new.</summary>
    public Task<HistoryEntry?> NextRedoAsync(
        int accountId,
        string personId,
        CancellationToken cancellation,
        Guid? requestId = null
    ) =>
        FirstAsync(
            "s.kind = 2 and s.reverted_by is null and s.person_id = @personId and not exists (select from step n where n.account_id = @accountId and n.person_id = @personId and n.kind = 1 and n.id > s.id)",
            accountId,
            cancellation,
            personId: personId
        );

    /// <summary>The newest step, or none yet.</summary>
    public Task<HistoryEntry?> NewestAsync(int accountId, CancellationToken cancellation) =>
        FirstAsync("true", accountId, cancellation);

    public async Task<IReadOnlyList<HistoryEntry>> ListAsync(
        int accountId,
        long? before,
        int most,
        CancellationToken cancellation,
        string? personId = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<HistoryEntry>(
            new CommandDefinition(
                Select
                    + """
                     where s.account_id = @accountId and (@before::bigint is null or s.id < @before) and (@personId::text is null or s.person_id = @personId)
                    order by s.id desc limit @most
                    """,
                new
                {
                    accountId,
                    before,
                    personId,
                    most,
                },
                cancellationToken: cancellation
            )
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
            new CommandDefinition(
                "select exists (select from step where id = @stepId and account_id = @accountId)",
                new { stepId, accountId },
                cancellationToken: cancellation
            )
        );
        return known ? await StepChanges.ReadAsync(connection, stepId, most, newest: false) : null;
    }

    public async Task<StepResult?> UndoAsync(
        int accountId,
        string personId,
        CancellationToken cancellation,
        Guid? requestId = null
    ) =>
        await NextUndoAsync(accountId, personId, cancellation) is { } step
            ? await workingCopy.ApplyAsync(
                accountId,
                personId,
                new RevertStep(step.Id, $"Undo “{step.Label}”"),
                false,
                cancellation,
                StepKind.Undo,
                requestId: requestId
            )
            : null;

    public async Task<StepResult?> RedoAsync(
        int accountId,
        string personId,
        CancellationToken cancellation,
        Guid? requestId = null
    ) =>
        await NextRedoAsync(accountId, personId, cancellation) is { } undo
            ? await workingCopy.ApplyAsync(
                accountId,
                personId,
                new RevertStep(undo.Id, $"Redo “{undo.TakesBack}”"),
                false,
                cancellation,
                StepKind.Redo,
                requestId: requestId
            )
            : null;

    /// <summary>
    /// Takes back one step of any age, as far as what came after does not stand in the way: a step like any other, so that undo
    /// takes back just this.
    /// </summary>
    /// <returns>None when the account has no such step.</returns>
    public Task<StepResult?> TakeBackAsync(
        int accountId,
        string personId,
        long stepId,
        bool preview,
        CancellationToken cancellation,
        Guid? requestId = null,
        ShownPreview? shown = null
    ) =>
        WayBackAsync(
            accountId,
            personId,
            stepId,
            step => new RevertStep(step.Id, LabelOf(step, personId), inPart: true),
            preview,
            requestId,
            shown,
            cancellation
        );

    /// <summary>Brings the working copy back to what it was right after a step: a step like any other, so it can be undone.</summary>
    /// <returns>None when the account has no such step.</returns>
    public Task<StepResult?> GoBackAsync(
        int accountId,
        string personId,
        long stepId,
        bool preview,
        CancellationToken cancellation,
        Guid? requestId = null,
        ShownPreview? shown = null
    ) => WayBackAsync(accountId, personId, stepId, step => new GoBack(step), preview, requestId, shown, cancellation);

    private async Task<StepResult?> WayBackAsync(
        int accountId,
        string personId,
        long stepId,
        Func<HistoryEntry, IWorkingCopyChange> way,
        bool preview,
        Guid? requestId,
        ShownPreview? shown,
        CancellationToken cancellation
    ) =>
        await FirstAsync("s.id = @stepId", accountId, cancellation, stepId) is { } step
            ? await workingCopy.ApplyAsync(
                accountId,
                personId,
                way(step),
                preview,
                cancellation,
                requestId: preview ? null : requestId,
                shown: shown
            )
            : null;

    /// <summary>What differs between the moments right after two steps; 0 stands for the beginning.</summary>
    public async Task<StepComparison> CompareAsync(
        int accountId,
        long fromStep,
        long toStep,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await StepComparison.ReadAsync(connection, accountId, fromStep, toStep, most);
    }

    private static string LabelOf(HistoryEntry step, string personId) =>
        step.PersonId == personId || step.Person.Length == 0
            ? $"Undo “{step.Label}”"
            : $"Undo {step.Person}’s “{step.Label}”";

    private const string Select = """
        select s.id, s.made_at, coalesce(p.display_name, '') as person, s.person_id, s.kind, s.label, s.items, s.reverted_by is not null as reverted,
          t.label as takes_back, s.reverted_by is null and s.id >= a.history_from as can_undo
        from step s join account a on a.id = s.account_id left join "AspNetUsers" p on p.id = s.person_id left join step t on t.id = s.reverts
        """;

    private async Task<HistoryEntry?> FirstAsync(
        string condition,
        int accountId,
        CancellationToken cancellation,
        long? stepId = null,
        string? personId = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QueryFirstOrDefaultAsync<HistoryEntry>(
            new CommandDefinition(
                $"{Select} where s.account_id = @accountId and {condition} order by s.id desc limit 1",
                new
                {
                    accountId,
                    stepId,
                    personId,
                },
                cancellationToken: cancellation
            )
        );
    }
}
