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

/// <summary>Long work to be taken on.</summary>
/// <param name="AccountId">The account that it is for.</param>
/// <param name="PersonId">Who asked for it.</param>
/// <param name="Kind">What it is.</param>
/// <param name="SubjectId">What it is about: an intake, a publish.</param>
/// <param name="Total">How much there is to do, where that is known.</param>
/// <param name="Message">What its doer needs to know.</param>
public sealed record JobOrder(
    int AccountId,
    string PersonId,
    JobKind Kind,
    long SubjectId = 0,
    long? Total = null,
    string? Message = null
);

/// <summary>Takes on long work and tells how it stands. All of it is in the database; any server may do it.</summary>
public sealed class JobDesk(NpgsqlDataSource source, JobBell bell, TimeProvider clock)
{
    private const string Columns = "id, kind, subject_id, state, done, total, message, cancel_requested";

    public async Task<JobView> BeginAsync(JobOrder order, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var id = await BeginAsync(connection, order);
        bell.Ring(order.Kind.Lane());
        return (await FindAsync(order.AccountId, id, cancellation))!;
    }

    /// <summary>Takes on work within a transaction; ring the bell when that is through.</summary>
    public Task<long> BeginAsync(NpgsqlConnection connection, JobOrder order) =>
        connection.ExecuteScalarAsync<long>(
            """
            insert into job (account_id, person_id, kind, subject_id, state, done, total, message, cancel_requested, attempts, made_at)
            values (@AccountId, @PersonId, @kind, @SubjectId, 1, 0, @Total, @Message, false, 0, @now) returning id
            """,
            new
            {
                order.AccountId,
                order.PersonId,
                kind = order.Kind.Key(),
                order.SubjectId,
                order.Total,
                order.Message,
                now = clock.GetUtcNow(),
            }
        );

    public async Task<JobView?> FindAsync(int accountId, long jobId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<JobView?>(
            new CommandDefinition(
                $"select {Columns} from job where id = @jobId and account_id = @accountId",
                new { jobId, accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The job that works, or is to work, on a subject.</summary>
    public Task<JobView?> OpenAsync(int accountId, JobKind kind, long subjectId, CancellationToken cancellation) =>
        NewestAsync(accountId, kind, subjectId, "state in (1, 2)", cancellation);

    /// <summary>The newest job on a subject, however it stands.</summary>
    public Task<JobView?> NewestAsync(int accountId, JobKind kind, long subjectId, CancellationToken cancellation) =>
        NewestAsync(accountId, kind, subjectId, "true", cancellation);

    private async Task<JobView?> NewestAsync(
        int accountId,
        JobKind kind,
        long subjectId,
        string condition,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QueryFirstOrDefaultAsync<JobView?>(
            new CommandDefinition(
                $"select {Columns} from job where account_id = @accountId and kind = @kind and subject_id = @subjectId and {condition} order by id desc limit 1",
                new
                {
                    accountId,
                    kind = kind.Key(),
                    subjectId,
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Jobs that were set aside, until a later one of their kind comes to its end.</summary>
    public async Task<IReadOnlyList<JobView>> SetAsideAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var jobs = await connection.QueryAsync<JobView>(
            new CommandDefinition(
                $"""
                select {Columns} from job j where account_id = @accountId and state = 6
                  and not exists (select from job n where n.account_id = j.account_id and n.kind = j.kind and n.id > j.id and n.state = 3)
                order by id desc limit 5
                """,
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return [.. jobs];
    }

    public async Task<bool> CancelAsync(int accountId, long jobId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    "update job set cancel_requested = true where id = @jobId and account_id = @accountId and state in (1, 2)",
                    new { jobId, accountId },
                    cancellationToken: cancellation
                )
            ) > 0;
    }
}
