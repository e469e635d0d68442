using Dapper;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>Wakes the workers of this server when it has taken on a job, so that they need not look all the time.</summary>
public sealed class JobBell : IDisposable
{
    private readonly SemaphoreSlim _rung = new(0);

    public void Ring() => _rung.Release();

    public void Dispose() => _rung.Dispose();

    public Task WaitAsync(TimeSpan atMost, CancellationToken stopping) => _rung.WaitAsync(atMost, stopping);
}

/// <summary>
/// Does the jobs that wait in the database, on every server that runs. Looks again after a while without being woken,
/// for jobs of servers that stopped; <see cref="JobRunner"/> sees to it that no job is done by two.
/// </summary>
public sealed class JobWorker(NpgsqlDataSource source, JobRunner runner, JobBell bell, ILogger<JobWorker> log)
    : BackgroundService
{
    private const int Workers = 4;

    private static readonly TimeSpan LookAgainAfter = TimeSpan.FromSeconds(2);

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        Task.WhenAll(Enumerable.Range(0, Workers).Select(_ => WorkAsync(stoppingToken)));

    private async Task WorkAsync(CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                foreach (var job in await OpenAsync(stopping))
                {
                    await runner.RunAsync(job, stopping);
                }

                await bell.WaitAsync(LookAgainAfter, stopping);
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

    private async Task<IEnumerable<long>> OpenAsync(CancellationToken stopping)
    {
        await using var connection = await source.OpenConnectionAsync(stopping);
        return await connection.QueryAsync<long>(
            new CommandDefinition(
                "select id from job where state in (1, 2) order by id limit 100",
                cancellationToken: stopping
            )
        );
    }
}
