using Dapper;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>
/// Does the jobs that wait in the database, on every server that runs: each lane has workers of its own, and of each account one
/// job at a time is done in a lane, so that nobody's work waits behind all of another's. Looks again after a while without being
/// woken, for jobs of servers that stopped; <see cref="JobRunner"/> sees to it that no job is done by two.
/// </summary>
public sealed class JobWorker(NpgsqlDataSource source, JobRunner runner, JobBell bell, ILogger<JobWorker> log)
    : BackgroundService
{
    private static readonly TimeSpan LookAgainAfter = TimeSpan.FromSeconds(2);

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        Task.WhenAll(
            Enum.GetValues<JobLane>()
                .SelectMany(lane => Enumerable.Range(0, lane.Workers()).Select(_ => WorkAsync(lane, stoppingToken)))
        );

    private async Task WorkAsync(JobLane lane, CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                if (!await DoOneAsync(lane, stopping))
                {
                    await bell.WaitAsync(lane, LookAgainAfter, stopping);
                }
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error) when (error is NpgsqlException or IOException)
            {
                log.LogWarning(error, "The database does not answer; jobs wait.");
                await Task.Delay(LookAgainAfter, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private async Task<bool> DoOneAsync(JobLane lane, CancellationToken stopping)
    {
        foreach (var job in await OpenAsync(lane, stopping))
        {
            if (await runner.RunAsync(job, stopping))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>Jobs to be done, the oldest first; one of each account. One that is marked as running may have lost its server.</summary>
    private async Task<IEnumerable<long>> OpenAsync(JobLane lane, CancellationToken stopping)
    {
        await using var connection = await source.OpenConnectionAsync(stopping);
        return await connection.QueryAsync<long>(
            new CommandDefinition(
                """
                select id from (
                  select distinct on (account_id) id, state from job where state in (1, 2) and kind = any(@kinds) order by account_id, state desc, id) next
                order by id limit 100
                """,
                new { kinds = JobKinds.KeysOf(lane) },
                cancellationToken: stopping
            )
        );
    }
}
