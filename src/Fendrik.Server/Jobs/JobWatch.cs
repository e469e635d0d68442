using Dapper;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>Looks, while a job is being done, whether a person has asked that it ends.</summary>
public sealed class JobWatch(NpgsqlDataSource source)
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(400);

    /// <summary>Does work that is cancelled when a person stops the job.</summary>
    public async Task<T> WhileAsync<T>(
        long jobId,
        JobProgress progress,
        Func<CancellationToken, Task<T>> work,
        CancellationToken cancellation
    )
    {
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        using var done = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        var watching = WatchAsync(jobId, progress, stop, done.Token);
        try
        {
            return await work(stop.Token);
        }
        finally
        {
            await done.CancelAsync();
            await watching;
        }
    }

    private async Task WatchAsync(
        long jobId,
        JobProgress progress,
        CancellationTokenSource stop,
        CancellationToken done
    )
    {
        while (true)
        {
            await Task.Delay(Every, done).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            if (done.IsCancellationRequested)
            {
                return;
            }

            try
            {
                await using var connection = await source.OpenConnectionAsync(CancellationToken.None);
                if (
                    await connection.ExecuteScalarAsync<bool>(
                        "select cancel_requested from job where id = @jobId",
                        new { jobId }
                    )
                )
                {
                    progress.StoppedByPerson = true;
                    await stop.CancelAsync();
                    return;
                }
            }
            catch (NpgsqlException)
            {
                // The work itself finds out that the database is gone.
            }
        }
    }
}
