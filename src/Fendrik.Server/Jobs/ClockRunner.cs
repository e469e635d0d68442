using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Jobs;

/// <summary>Moves the network's simulated clock to a moment, a week at a time at most, and takes in reports and reviews.</summary>
public sealed class ClockRunner(SearchNetworks networks, PerformanceStore performance, SheetReader sheet, LiveCopy live)
{
    private const int HoursAtOnce = 24 * 7;
    private const int MostAttempts = 3;

    public async Task<string?> RunAsync(
        int accountId,
        DateTimeOffset target,
        JobProgress? progress,
        CancellationToken cancellation
    )
    {
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var clock = await network.ClockAsync(accountId, cancellation);
        var begin = clock.Now;
        while (clock.Now < target)
        {
            var left = (int)Math.Round((target - clock.Now).TotalHours);
            clock = await network.AdvanceAsync(accountId, Math.Clamp(left, 1, HoursAtOnce), cancellation);
            await TakeReportsAsync(network, accountId, clock, cancellation);
            if (progress is not null)
            {
                await progress.TellAsync(
                    (long)(clock.Now - begin).TotalHours,
                    (long)(target - begin).TotalHours,
                    force: true
                );
            }
        }

        await TakeReportsAsync(network, accountId, clock, cancellation);
        await sheet.AddUpFiguresAsync(accountId, cancellation);
        // Items first: what a publish left there without an answer has to be known as live when its review is heard.
        await live.ReadAsync(accountId, cancellation);
        await live.ReadReviewsAsync(accountId, cancellation);
        return null;
    }

    private async Task TakeReportsAsync(
        ISearchNetwork network,
        int accountId,
        NetworkClock clock,
        CancellationToken cancellation
    )
    {
        if (clock.LastFullDay is not { } last)
        {
            return;
        }

        var reported = await performance.ReportedToAsync(accountId, cancellation);
        var next = reported?.AddDays(1) ?? clock.FirstDay;
        if (next <= last)
        {
            var days = new Period(next, last);
            await FromTheBeginningAsync(() =>
                performance.StoreAsync(
                    accountId,
                    days,
                    network.ReportAsync(accountId, days, cancellation),
                    cancellation
                )
            );
            await FromTheBeginningAsync(() =>
                performance.StoreTermsAsync(
                    accountId,
                    days,
                    network.SearchTermsAsync(accountId, days, cancellation),
                    cancellation
                )
            );
        }
    }

    /// <summary>A report that breaks off in the middle is taken in from its beginning: nothing of it was kept.</summary>
    private static async Task FromTheBeginningAsync(Func<Task> take)
    {
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                await take();
                return;
            }
            catch (NetworkUnavailableException) when (attempt < MostAttempts)
            {
                // The network has been waited for already.
            }
        }
    }
}
