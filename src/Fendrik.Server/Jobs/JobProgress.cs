using Dapper;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>A job being done: tell how far it is; throws when a person has stopped it.</summary>
public sealed class JobProgress(NpgsqlConnection connection, long jobId)
{
    private static readonly TimeSpan BetweenTellings = TimeSpan.FromMilliseconds(150);

    private DateTimeOffset _told = DateTimeOffset.MinValue;

    /// <summary>True once a person has asked that it ends.</summary>
    public bool StoppedByPerson { get; internal set; }

    /// <summary>Tells how far the job is, at most a few times a second unless forced.</summary>
    /// <exception cref="OperationCanceledException">A person has stopped it.</exception>
    public async Task TellAsync(long done, long? total = null, bool force = false)
    {
        var now = DateTimeOffset.UtcNow;
        if (!force && now - _told < BetweenTellings)
        {
            return;
        }

        _told = now;
        StoppedByPerson |= await connection.ExecuteScalarAsync<bool>(
            "update job set done = @done, total = coalesce(@total, total) where id = @jobId returning cancel_requested",
            new
            {
                jobId,
                done,
                total,
            }
        );
        if (StoppedByPerson)
        {
            throw new OperationCanceledException("Stopped by a person.");
        }
    }
}
