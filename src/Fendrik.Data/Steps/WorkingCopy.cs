using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>What came of a change, done or only previewed.</summary>
/// <param name="StepId">The recorded step; none for a preview or when nothing changed.</param>
/// <param name="Label">What was done, in words.</param>
/// <param name="Items">Number of items that changed.</param>
/// <param name="Refused">The first of the items left as they were.</param>
/// <param name="RefusedCount">How many those are in all.</param>
/// <param name="Changes">Before and after of the first of them.</param>
/// <param name="AsOf">The newest step of the account before this one.</param>
public sealed record StepResult(
    long? StepId,
    string Label,
    int Items,
    IReadOnlyList<RefusedItem> Refused,
    int RefusedCount,
    IReadOnlyList<ItemChange> Changes,
    long AsOf = 0
)
{
    /// <summary>What is likely wrong with what it makes.</summary>
    public IReadOnlyList<StepWarning> Warnings { get; init; } = [];
}

/// <summary>
/// The one way to change the working copy: a change runs in a transaction as a recorded step. A preview is the same
/// run, rolled back, so that it cannot differ from what will happen.
/// </summary>
public sealed class WorkingCopy(NpgsqlDataSource source, TimeProvider clock)
{
    private const int ExamplesInPreview = 200;

    /// <summary>Steps of so few items were most likely typed without a preview, and say what is wrong afterwards.</summary>
    private const int FewItems = 20;

    /// <summary>The longest that one step may hold the account, or a preview keep the database busy.</summary>
    public static readonly TimeSpan LongestStep = TimeSpan.FromMinutes(20);

    private const int MostAttempts = 20;
    private static readonly TimeSpan PauseBetweenAttempts = TimeSpan.FromMilliseconds(200);

    public async Task<StepResult> ApplyAsync(
        int accountId,
        string personId,
        IWorkingCopyChange change,
        bool preview,
        CancellationToken cancellation,
        StepKind kind = StepKind.Change,
        IReadOnlyList<SeenItem>? seen = null,
        Guid? requestId = null,
        ShownPreview? shown = null
    )
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        limited.CancelAfter(LongestStep);
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                return await TryAsync(
                    accountId,
                    personId,
                    change,
                    preview,
                    kind,
                    seen,
                    requestId,
                    shown,
                    limited.Token
                );
            }
            catch (OperationCanceledException)
                when (limited.IsCancellationRequested && !cancellation.IsCancellationRequested)
            {
                throw new InvalidChangeException(
                    "items",
                    $"This takes longer than {LongestStep.TotalMinutes:0} minutes, and was stopped. Nothing was changed; do it in smaller parts."
                );
            }
            catch (PostgresException error)
                when (preview && error.SqlState == PostgresErrorCodes.LockNotAvailable && attempt < MostAttempts)
            {
                // A command is at work on the same items; it goes first.
                await Task.Delay(PauseBetweenAttempts, cancellation);
            }
            catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.LockNotAvailable)
            {
                throw new AccountBusyException();
            }
        }
    }

    private async Task<StepResult> TryAsync(
        int accountId,
        string personId,
        IWorkingCopyChange change,
        bool preview,
        StepKind kind,
        IReadOnlyList<SeenItem>? seen,
        Guid? requestId,
        ShownPreview? shown,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (preview)
        {
            await BeginPreviewAsync(connection);
        }
        else
        {
            // Where there are two, the one with the lower number comes first, so that two moves in opposite directions wait in line.
            int[] held = change.OtherAccountId is { } other && other != accountId ? [accountId, other] : [accountId];
            foreach (var each in held.Order())
            {
                await AccountLock.TakeAsync(
                    connection,
                    each,
                    new AccountWork(personId, change.Doing, requestId),
                    cancellation
                );
            }
        }

        var account = await AccountFacts.ReadAsync(connection, accountId);
        if (await FindAsync(connection, accountId, requestId) is { } done)
        {
            return done;
        }

        var asOf = await connection.ExecuteScalarAsync<long>(
            "select last_step_id from account where id = @accountId",
            new { accountId }
        );
        await StaleEdits.RefuseAsync(connection, accountId, seen ?? []);
        var (context, outcome) = await TakeStepAsync(
            connection,
            account,
            personId,
            change,
            kind,
            requestId,
            cancellation
        );
        var stepId = context.StepId;

        var changes =
            preview || outcome.Items <= FewItems
                ? await StepChanges.WithOriginalsAsync(
                    context,
                    await StepChanges.ReadAsync(connection, stepId, ExamplesInPreview, newest: true)
                )
                : [];
        var warnings = kind == StepKind.Change ? await StepWarnings.FindAsync(context, changes) : [];
        if (change.ElsewhereOf(account) is { } elsewhere)
        {
            if (outcome.Items == 0)
            {
                throw new InvalidChangeException(
                    "elsewhere",
                    "Nothing changes in this account. Do it in the other one."
                );
            }

            await StaleEdits.RefuseAsync(connection, elsewhere.AccountId, elsewhere.Seen);
            var (there, outcomeThere) = await TakeStepAsync(
                connection,
                await AccountFacts.ReadAsync(connection, elsewhere.AccountId),
                personId,
                elsewhere.Change,
                kind,
                null,
                cancellation
            );
            if (outcomeThere.Items == 0)
            {
                throw new InvalidChangeException("elsewhere", "Nothing changes in the other account. Leave it out.");
            }

            await CloseStepAsync(there, outcomeThere);
        }

        if (preview || outcome.Items == 0)
        {
            await transaction.RollbackAsync(cancellation);
            return new StepResult(
                null,
                outcome.Label,
                outcome.Items,
                context.Refused.Named,
                context.Refused.Count,
                changes,
                asOf
            )
            {
                Warnings = warnings,
            };
        }

        if (shown is not null && shown.AsOf < asOf)
        {
            await ShownPreviews.RefuseMovedAsync(connection, stepId, outcome.Items, shown);
        }

        await CloseStepAsync(context, outcome);
        await transaction.CommitAsync(cancellation);
        return new StepResult(
            stepId,
            outcome.Label,
            outcome.Items,
            context.Refused.Named,
            context.Refused.Count,
            [],
            asOf
        )
        {
            Warnings = warnings,
        };
    }

    /// <summary>Begins a step of an account and does what changes in it.</summary>
    private async Task<(StepContext Context, StepOutcome Outcome)> TakeStepAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        string personId,
        IWorkingCopyChange change,
        StepKind kind,
        Guid? requestId,
        CancellationToken cancellation
    )
    {
        var stepId = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                """
                insert into step (account_id, person_id, made_at, kind, label, items, request_id)
                values (@Id, @personId, @now, @kind, '', 0, @requestId) returning id
                """,
                new
                {
                    account.Id,
                    personId,
                    now = clock.GetUtcNow(),
                    kind = (short)kind,
                    requestId,
                },
                cancellationToken: cancellation
            )
        );
        await connection.ExecuteAsync(
            new CommandDefinition(
                "select set_config('fendrik.step', @step, true)",
                new { step = $"{stepId}" },
                cancellationToken: cancellation
            )
        );
        var context = new StepContext(connection, account, stepId, cancellation);
        try
        {
            var outcome = await change.ApplyAsync(context);
            // What is taken back stands again as it was, goals too.
            var followed = kind == StepKind.Change ? await GoalsFollow.AfterAsync(context) : 0;
            return (context, outcome with { Items = outcome.Items + followed });
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            throw new InvalidChangeException("text", Twin(error.TableName));
        }
        catch (EditTooSlowException error)
        {
            throw new InvalidChangeException("find", error.Message);
        }
    }

    /// <summary>Writes down what a step did, and tells all who look at its account.</summary>
    private static Task CloseStepAsync(StepContext context, StepOutcome outcome) =>
        context.ExecuteAsync(
            """
            update step set label = @Label, items = @Items where id = @StepId;
            update account set last_step_id = @StepId where id = @account;
            select account_moved(@account)
            """,
            new
            {
                context.StepId,
                account = context.Account.Id,
                outcome.Label,
                outcome.Items,
            }
        );

    /// <summary>
    /// What became of a request whose answer was lost: the step that it made, or nothing, and then nothing was changed.
    /// Waits for a request that is still being worked on, or that waits itself.
    /// </summary>
    public async Task<StepResult?> FindAsync(int accountId, Guid requestId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        while (await AccountQueue.IsUnderWayAsync(connection, requestId, cancellation))
        {
            await Task.Delay(PauseBetweenAttempts, cancellation);
        }

        return await FindAsync(connection, accountId, (Guid?)requestId);
    }

    private static async Task<StepResult?> FindAsync(NpgsqlConnection connection, int accountId, Guid? requestId)
    {
        if (requestId is null)
        {
            return null;
        }

        var step = await connection.QuerySingleOrDefaultAsync<(long Id, string Label, int Items)?>(
            "select id, label, items from step where request_id = @requestId and account_id = @accountId",
            new { requestId, accountId }
        );
        return step is { } done ? new StepResult(done.Id, done.Label, done.Items, [], 0, []) : null;
    }

    /// <summary>Facts about an account, for reading.</summary>
    public async Task<AccountFacts> FactsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await AccountFacts.ReadAsync(connection, accountId);
    }

    /// <summary>
    /// A preview holds nobody up: it takes no lock of the account, and gives up its place when a command is at work on the
    /// same items, sooner than the database would see a deadlock (one second).
    /// </summary>
    private static Task BeginPreviewAsync(NpgsqlConnection connection) =>
        connection.ExecuteAsync("set local lock_timeout = '700ms'");

    private static string Twin(string? table) =>
        ItemTable.All.FirstOrDefault(each => each.Name == table)?.Type.TwinProblem
        ?? "The same is there already. Choose another name.";
}
