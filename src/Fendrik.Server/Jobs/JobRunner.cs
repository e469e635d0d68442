using System.Data;
using Dapper;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Data.Tables;
using Fendrik.Server.Networks;
using Fendrik.Server.Operation;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>A job that a server is to do.</summary>
[method: ExplicitConstructor]
internal sealed record JobTask(long Id, int AccountId, string PersonId, string Kind, long SubjectId, string? Message);

/// <summary>
/// Does jobs. Each is done by one server at a time, held by a lock that goes with the server's connection: a job that
/// is marked as running but not locked was left by a server that stopped, and is taken up again; but not for ever.
/// </summary>
public sealed class JobRunner(
    NpgsqlDataSource source,
    IServiceScopeFactory scopes,
    JobWatch watch,
    JobMeasures measures,
    TimeProvider clock,
    ILogger<JobRunner> log
)
{
    /// <summary>How often a job is begun before it is set aside.</summary>
    public const int MostAttempts = 3;

    /// <summary>Does a job unless another server is at it.</summary>
    /// <returns>False when there was nothing to do.</returns>
    public async Task<bool> RunAsync(long jobId, CancellationToken stopping)
    {
        await using var connection = await source.OpenConnectionAsync(stopping);
        if (
            !await connection.ExecuteScalarAsync<bool>(
                "select pg_try_advisory_lock(7002, @id)",
                new { id = (int)jobId }
            )
        )
        {
            return false;
        }

        try
        {
            var job = await connection.QuerySingleOrDefaultAsync<JobTask>(
                "select id, account_id, person_id, kind, subject_id, message from job where id = @jobId and state in (1, 2)",
                new { jobId }
            );
            if (job is null)
            {
                return false;
            }

            await DoAsync(connection, job, stopping);
            return true;
        }
        finally
        {
            // A session that was lost has lost its locks with it.
            if (connection.State == ConnectionState.Open)
            {
                await connection.ExecuteAsync("select pg_advisory_unlock(7002, @id)", new { id = (int)jobId });
            }
        }
    }

    private async Task DoAsync(NpgsqlConnection connection, JobTask job, CancellationToken stopping)
    {
        var kind = JobKinds.Of(job.Kind);
        var attempt = await connection.ExecuteScalarAsync<int>(
            "update job set state = 2, attempts = attempts + 1 where id = @Id returning attempts",
            new { job.Id }
        );
        if (attempt > MostAttempts)
        {
            await EndAsync(
                connection,
                job,
                kind,
                JobState.SetAside,
                $"It was begun {MostAttempts} times and never came to its end, so it is set aside."
            );
            log.LogError("Job {Job} ({Kind}) is set aside after {Attempts} attempts.", job.Id, job.Kind, MostAttempts);
            return;
        }

        using var span = measures.Begin(job.Kind, job.Id);
        var progress = new JobProgress(connection, job.Id);
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        if (kind.LongestTime() is { } longest)
        {
            limited.CancelAfter(longest);
        }

        try
        {
            var message = await watch.WhileAsync(
                job.Id,
                progress,
                async stop =>
                {
                    await using var scope = scopes.CreateAsyncScope();
                    return await scope.ServiceProvider.GetRequiredService<JobWork>().DoAsync(kind, job, progress, stop);
                },
                limited.Token
            );
            await EndAsync(connection, job, kind, JobState.Done, message);
        }
        catch (OperationCanceledException) when (progress.StoppedByPerson)
        {
            await EndAsync(
                connection,
                job,
                kind,
                JobState.Cancelled,
                "Stopped. Nothing was changed by what was left undone."
            );
        }
        catch (OperationCanceledException) when (stopping.IsCancellationRequested)
        {
            // The server ends in good order: that is no attempt. Whoever comes next takes the job up.
            await connection.ExecuteAsync("update job set attempts = attempts - 1 where id = @Id", new { job.Id });
            throw;
        }
        catch (OperationCanceledException) when (limited.IsCancellationRequested)
        {
            await EndAsync(
                connection,
                job,
                kind,
                JobState.Failed,
                $"It took longer than {kind.LongestTime()!.Value.TotalMinutes:0} minutes and was stopped. Nothing of it was kept; try it in smaller parts."
            );
        }
        catch (PublishTakenOverException error)
        {
            await EndAsync(connection, job, kind, JobState.Cancelled, error.Message);
        }
        catch (Exception error)
            when (error
                    is IntakeFileException
                        or InvalidChangeException
                        or NetworkUnavailableException
                        or AccountBusyException
            )
        {
            await EndAsync(connection, job, kind, JobState.Failed, error.Message);
        }
        catch (Exception error) when (error is NpgsqlException lost && IsLost(lost))
        {
            // It stays marked as running without anybody at it, and is taken up again.
            log.LogWarning(error, "Job {Job} ({Kind}) lost the database.", job.Id, job.Kind);
        }
        catch (Exception error)
        {
            var id = span?.TraceId.ToString() ?? Guid.NewGuid().ToString("N");
            log.LogError(error, "{Id}: job {Job} ({Kind}) failed.", id, job.Id, job.Kind);
            await EndAsync(
                connection,
                job,
                kind,
                JobState.Failed,
                $"Something went wrong here. What was not finished is as it was; try again. If it stays so, tell whoever runs Fendrik: {id}"
            );
        }
    }

    /// <summary>The session is gone, whoever ended it; nothing is wrong with what was asked.</summary>
    private static bool IsLost(NpgsqlException error) =>
        error is PostgresException refused
            ? refused.SqlState.StartsWith("57P", StringComparison.Ordinal)
                || refused.SqlState.StartsWith("08", StringComparison.Ordinal)
            : error.InnerException is not TimeoutException;

    /// <summary>By the session that holds the job, so that whoever has lost it ends nothing that another is at.</summary>
    private async Task EndAsync(NpgsqlConnection connection, JobTask job, JobKind kind, JobState state, string? message)
    {
        var madeAt = await connection.ExecuteScalarAsync<DateTime>(
            "update job set state = @state, message = @message, ended_at = @now where id = @Id returning made_at at time zone 'UTC'",
            new
            {
                job.Id,
                state = (short)state,
                message,
                now = clock.GetUtcNow(),
            }
        );
        measures.End(
            job.Kind,
            state.ToString(),
            clock.GetUtcNow() - new DateTimeOffset(DateTime.SpecifyKind(madeAt, DateTimeKind.Utc))
        );
        if (kind == JobKind.Intake && state is JobState.Failed or JobState.SetAside)
        {
            await connection.ExecuteAsync(
                "update intake set state = 5, problem = @message where id = @SubjectId and account_id = @AccountId and state = 1",
                new
                {
                    message,
                    job.SubjectId,
                    job.AccountId,
                }
            );
        }
    }
}
