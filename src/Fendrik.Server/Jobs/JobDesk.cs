using Dapper;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>A job as a person sees it.</summary>
[method: ExplicitConstructor]
public sealed record JobView(
    long Id,
    string Kind,
    long SubjectId,
    JobState State,
    long Done,
    long? Total,
    string? Message,
    bool CancelRequested
);

/// <summary>Takes on long work and tells how it stands. All of it is in the database; any server may do it.</summary>
public sealed class JobDesk(NpgsqlDataSource source, JobBell bell, TimeProvider clock)
{
    public async Task<JobView> BeginAsync(
        int accountId,
        string personId,
        string kind,
        long subjectId,
        long? total,
        string? message,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var id = await connection.ExecuteScalarAsync<long>(
            """
            insert into job (account_id, person_id, kind, subject_id, state, done, total, message, cancel_requested, made_at)
            values (@accountId, @personId, @kind, @subjectId, 1, 0, @total, @message, false, @now) returning id
            """,
            new
            {
                accountId,
                personId,
                kind,
                subjectId,
                total,
                message,
                now = clock.GetUtcNow(),
            }
        );
        bell.Ring();
        return (await FindAsync(accountId, id, cancellation))!;
    }

    public async Task<JobView?> FindAsync(int accountId, long jobId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<JobView?>(
            "select id, kind, subject_id, state, done, total, message, cancel_requested from job where id = @jobId and account_id = @accountId",
            new { jobId, accountId }
        );
    }

    public async Task<bool> CancelAsync(int accountId, long jobId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                "update job set cancel_requested = true where id = @jobId and account_id = @accountId and state in (1, 2)",
                new { jobId, accountId }
            ) > 0;
    }
}
