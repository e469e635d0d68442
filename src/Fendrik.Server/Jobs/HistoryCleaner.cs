using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>Once a day, forgets how rows were before steps that are older than the setting <c>Fendrik:HistoryDays</c> says.</summary>
public sealed class HistoryCleaner(KeptHistory history, IConfiguration configuration, ILogger<HistoryCleaner> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromHours(24);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var days = configuration.GetValue("Fendrik:HistoryDays", KeptHistory.UsualDays);
        while (days > 0 && !stoppingToken.IsCancellationRequested)
        {
            try
            {
                var forgotten = await history.ForgetAsync(days, stoppingToken);
                if (forgotten > 0)
                {
                    log.LogInformation("Forgot {Rows} rows as they were more than {Days} days ago.", forgotten, days);
                }
            }
            catch (Exception error) when (error is NpgsqlException or IOException)
            {
                log.LogWarning(error, "The history could not be cleaned up; tried again tomorrow.");
            }

            await Task.Delay(Every, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }
}
