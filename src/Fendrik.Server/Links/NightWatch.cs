using Fendrik.Data.Links;
using Fendrik.Server.Jobs;
using Npgsql;

namespace Fendrik.Server.Links;

/// <summary>Has links followed in the night where somebody chose so. Each server looks; what one has begun the others leave alone.</summary>
public sealed class NightWatch(
    NpgsqlDataSource source,
    JobDesk jobs,
    JobBell bell,
    TimeProvider clock,
    ILogger<NightWatch> log
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await LookAsync(stoppingToken);
            }
            catch (Exception error) when (error is NpgsqlException or IOException)
            {
                log.LogWarning(error, "Links to be followed tonight could not be looked up; tried again soon.");
            }

            await Task.Delay(Every, clock, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>Begins what is due.</summary>
    /// <returns>For how many accounts.</returns>
    public async Task<int> LookAsync(CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var due = await NightlyLinks.DueAsync(connection, JobKind.Links.Key(), clock.GetUtcNow());
        foreach (var (accountId, personId) in due)
        {
            await jobs.BeginAsync(connection, new JobOrder(accountId, personId, JobKind.Links));
        }

        await transaction.CommitAsync(cancellation);
        if (due.Count > 0)
        {
            bell.Ring(JobKind.Links.Lane());
        }

        return due.Count;
    }
}
