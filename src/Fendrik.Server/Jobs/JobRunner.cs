using Dapper;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Steps;
using Fendrik.Data.Tables;
using Fendrik.Server.Networks;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>A job being done: tell how far it is; throws when a person has cancelled it.</summary>
public sealed class JobProgress(NpgsqlConnection connection, long jobId)
{
    private DateTimeOffset _told = DateTimeOffset.MinValue;

    public async Task TellAsync(long done, long? total = null, bool force = false)
    {
        var now = DateTimeOffset.UtcNow;
        if (!force && now - _told < TimeSpan.FromMilliseconds(150))
        {
            return;
        }

        _told = now;
        var cancel = await connection.ExecuteScalarAsync<bool>(
            "update job set done = @done, total = coalesce(@total, total) where id = @jobId returning cancel_requested",
            new
            {
                jobId,
                done,
                total,
            }
        );
        if (cancel)
        {
            throw new OperationCanceledException("Cancelled by a person.");
        }
    }
}

/// <summary>
/// Does jobs. Each is done by one server at a time, held by a lock that goes with the server's connection: a job that
/// is marked as running but not locked was left by a server that stopped, and is taken up again.
/// </summary>
public sealed class JobRunner(
    NpgsqlDataSource source,
    IServiceScopeFactory scopes,
    TimeProvider clock,
    ILogger<JobRunner> log
)
{
    [method: ExplicitConstructor]
    private sealed record Row(
        long Id,
        int AccountId,
        string PersonId,
        string Kind,
        long SubjectId,
        JobState State,
        string? Message
    );

    public async Task RunAsync(long jobId, CancellationToken stopping)
    {
        await using var connection = await source.OpenConnectionAsync(stopping);
        if (
            !await connection.ExecuteScalarAsync<bool>(
                "select pg_try_advisory_lock(7002, @id)",
                new { id = (int)jobId }
            )
        )
        {
            return;
        }

        try
        {
            var job = await connection.QuerySingleOrDefaultAsync<Row>(
                "select id, account_id, person_id, kind, subject_id, state, message from job where id = @jobId and state in (1, 2)",
                new { jobId }
            );
            if (job is not null)
            {
                await DoAsync(connection, job, stopping);
            }
        }
        finally
        {
            await connection.ExecuteAsync("select pg_advisory_unlock(7002, @id)", new { id = (int)jobId });
        }
    }

    private async Task DoAsync(NpgsqlConnection connection, Row job, CancellationToken stopping)
    {
        await connection.ExecuteAsync("update job set state = 2 where id = @Id", new { job.Id });
        var progress = new JobProgress(connection, job.Id);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var message = job.Kind switch
            {
                "intake" => await ReadIntakeAsync(scope.ServiceProvider, job, progress, stopping),
                "keep" => await KeepIntakeAsync(scope.ServiceProvider, job, stopping),
                "publish" => await scope
                    .ServiceProvider.GetRequiredService<Publishing>()
                    .RunAsync(job.AccountId, job.SubjectId, progress, stopping),
                "clock" => await scope
                    .ServiceProvider.GetRequiredService<ClockRunner>()
                    .RunAsync(job.AccountId, DateTimeOffset.Parse(job.Message!), progress, stopping),
                _ => throw new InvalidOperationException($"Unknown job “{job.Kind}”."),
            };
            await EndAsync(connection, job.Id, JobState.Done, message);
        }
        catch (OperationCanceledException) when (!stopping.IsCancellationRequested)
        {
            await EndAsync(
                connection,
                job.Id,
                JobState.Cancelled,
                "Cancelled. Nothing was changed by what was left undone."
            );
        }
        catch (Exception error)
            when (error is IntakeFileException or InvalidChangeException or NetworkUnavailableException)
        {
            await EndAsync(connection, job.Id, JobState.Failed, error.Message);
        }
        catch (Exception error) when (error is not OperationCanceledException)
        {
            log.LogError(error, "Job {Job} ({Kind}) failed.", job.Id, job.Kind);
            await EndAsync(
                connection,
                job.Id,
                JobState.Failed,
                "Something went wrong here. What was not finished is as it was; try again."
            );
        }
    }

    private static async Task<string?> ReadIntakeAsync(
        IServiceProvider services,
        Row job,
        JobProgress progress,
        CancellationToken stopping
    )
    {
        try
        {
            await services
                .GetRequiredService<IntakeReading>()
                .ReadAsync(job.SubjectId, rows => progress.TellAsync(rows), stopping);
            return null;
        }
        catch (IntakeFileException error)
        {
            await using var connection = await services
                .GetRequiredService<NpgsqlDataSource>()
                .OpenConnectionAsync(stopping);
            await connection.ExecuteAsync(
                "update intake set state = 5, problem = @Message where id = @SubjectId",
                new { error.Message, job.SubjectId }
            );
            throw;
        }
    }

    private async Task<string?> KeepIntakeAsync(IServiceProvider services, Row job, CancellationToken stopping)
    {
        var database = services.GetRequiredService<FendrikContext>();
        if (await database.Intakes.FindAsync([job.SubjectId], stopping) is { State: IntakeState.Kept })
        {
            return null;
        }

        var result = await services
            .GetRequiredService<WorkingCopy>()
            .ApplyAsync(job.AccountId, job.PersonId, new KeepIntake(job.SubjectId), preview: false, stopping);
        if (result.StepId is null)
        {
            throw new InvalidChangeException("intake", "There is nothing in it to bring in.");
        }

        // What was staged has done its work; history and undo go by the step.
        await using var connection = await source.OpenConnectionAsync(stopping);
        await IntakeDesk.DropAsync(connection, job.SubjectId);
        return result.Label;
    }

    private async Task EndAsync(NpgsqlConnection connection, long jobId, JobState state, string? message) =>
        await connection.ExecuteAsync(
            "update job set state = @state, message = @message, ended_at = @now where id = @jobId",
            new
            {
                jobId,
                state = (short)state,
                message,
                now = clock.GetUtcNow(),
            }
        );
}
