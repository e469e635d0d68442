using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Sheets;
using Fendrik.Data.Terms;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Jobs;

/// <summary>Moves the network's simulated clock to a moment, a day at a time at most, and takes in reports and reviews.</summary>
public sealed class ClockRunner(
    SearchNetworks networks,
    PerformanceStore performance,
    DayReports reports,
    SheetReader sheet,
    AlertBook alerts,
    TermSums terms,
    LiveCopy live
)
{
    private const int HoursAtOnce = 24;
    private const int MostAttempts = 3;
    private const int MostDaysLookedAt = 31;

    public async Task<string?> RunAsync(
        int accountId,
        DateTimeOffset target,
        JobProgress? progress,
        CancellationToken cancellation
    )
    {
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var begin = (await network.ClockAsync(accountId, cancellation)).Now;
        try
        {
            await PassAsync(network, accountId, begin, target, progress, cancellation);
        }
        catch (OperationCanceledException) when (progress?.StoppedByPerson == true)
        {
            // The days that passed before it was stopped are reported like any others.
            await TakeInAsync(network, accountId, CancellationToken.None);
            throw;
        }

        return await TakeInAsync(network, accountId, cancellation) is { } news
            ? $"{Passed(begin, target)} {news}"
            : null;
    }

    /// <summary>Takes in what is new, without moving the clock.</summary>
    public async Task CatchUpAsync(int accountId, CancellationToken cancellation) =>
        await TakeInAsync(await networks.OfAccountAsync(accountId, cancellation), accountId, cancellation);

    private static async Task PassAsync(
        ISearchNetwork network,
        int accountId,
        DateTimeOffset begin,
        DateTimeOffset target,
        JobProgress? progress,
        CancellationToken cancellation
    )
    {
        for (var now = begin; now < target; )
        {
            var left = (int)Math.Round((target - now).TotalHours);
            now = (await network.AdvanceAsync(accountId, Math.Clamp(left, 1, HoursAtOnce), cancellation)).Now;
            if (progress is not null)
            {
                await progress.TellAsync(
                    (long)(now - begin).TotalHours,
                    (long)(target - begin).TotalHours,
                    force: true
                );
            }
        }
    }

    /// <summary>Takes in reports, items and reviews, and says what came of the days that are new.</summary>
    private async Task<string?> TakeInAsync(ISearchNetwork network, int accountId, CancellationToken cancellation)
    {
        var clock = await network.ClockAsync(accountId, cancellation);
        var (reported, _) = await performance.ReportedToAsync(accountId, cancellation);
        await TakeReportsAsync(network, accountId, clock, cancellation);
        await reports.StoreAsync(accountId, await network.StrategiesAsync(accountId, cancellation), cancellation);
        await sheet.AddUpFiguresAsync(accountId, cancellation);
        if (clock.LastFullDay is { } newest)
        {
            await terms.AddUpAsync(accountId, newest, cancellation);
            // Each day that is new is looked at as it ends: an alert that went off in the week is told, whatever the last day was like.
            var unseen = Math.Max(
                newest.AddDays(1 - MostDaysLookedAt).DayNumber,
                (reported ?? newest.AddDays(-1)).AddDays(1).DayNumber
            );
            for (var day = unseen; day <= newest.DayNumber; day++)
            {
                await alerts.LookAsync(accountId, DateOnly.FromDayNumber(day), cancellation);
            }
        }

        // Items first: what a publish left there without an answer has to be known as live when its review is heard.
        await live.ReadAsync(accountId, cancellation);
        await live.ReadReviewsAsync(accountId, cancellation);
        var next = reported?.AddDays(1) ?? clock.FirstDay;
        return clock.LastFullDay is { } last && next <= last
            ? await performance.NewsAsync(accountId, new Period(next, last), cancellation)
            : "The day is not over; its report comes when it is.";
    }

    private static string Passed(DateTimeOffset begin, DateTimeOffset end) =>
        (end - begin).TotalHours switch
        {
            1 => "An hour has passed.",
            24 => "A day has passed.",
            168 => "A week has passed.",
            < 48 and var hours => $"{hours:0} hours have passed.",
            var hours => $"{hours / 24:0} days have passed.",
        };

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

        var (reported, heard) = await performance.ReportedToAsync(accountId, cancellation);
        var next = reported?.AddDays(1) ?? clock.FirstDay;
        // Conversions come after their clicks: the reports of days that are known change for weeks.
        var changed = heard is { } moment
            ? (await network.ReportDaysAsync(accountId, moment, cancellation)).Where(day => day < next)
            : [];
        foreach (var days in Period.Of(changed))
        {
            await TakeFiguresAsync(network, accountId, days, cancellation);
        }

        if (next <= last)
        {
            var days = new Period(next, last);
            await FromTheBeginningAsync(() =>
                reports.StoreAsync(accountId, days, network.StandingsAsync(accountId, days, cancellation), cancellation)
            );
            await FromTheBeginningAsync(() =>
                reports.StoreAsync(accountId, days, network.PacesAsync(accountId, days, cancellation), cancellation)
            );
            await FromTheBeginningAsync(() =>
                reports.StoreAsync(accountId, days, network.RivalsAsync(accountId, days, cancellation), cancellation)
            );
            await FromTheBeginningAsync(() =>
                reports.StoreAsync(accountId, days, network.QualitiesAsync(accountId, days, cancellation), cancellation)
            );
            await TakeFiguresAsync(network, accountId, days, cancellation);
        }

        await performance.HeardAsync(accountId, clock.Now, cancellation);
    }

    private async Task TakeFiguresAsync(
        ISearchNetwork network,
        int accountId,
        Period days,
        CancellationToken cancellation
    )
    {
        await FromTheBeginningAsync(() =>
            reports.StoreAsync(accountId, days, network.SearchTermsAsync(accountId, days, cancellation), cancellation)
        );
        await FromTheBeginningAsync(() =>
            reports.StoreAsync(accountId, days, network.ExtensionsAsync(accountId, days, cancellation), cancellation)
        );
        await FromTheBeginningAsync(() =>
            reports.StoreAsync(accountId, days, network.CombinationsAsync(accountId, days, cancellation), cancellation)
        );
        await FromTheBeginningAsync(() =>
            reports.StoreAsync(accountId, days, network.ReachedAsync(accountId, days, cancellation), cancellation)
        );
        await FromTheBeginningAsync(() =>
            reports.StoreAsync(accountId, days, network.ConversionsAsync(accountId, days, cancellation), cancellation)
        );
        await FromTheBeginningAsync(() =>
            reports.StoreAsync(accountId, days, network.CallsAsync(accountId, days, cancellation), cancellation)
        );
        await FromTheBeginningAsync(() =>
            performance.StoreAsync(accountId, days, network.ReportAsync(accountId, days, cancellation), cancellation)
        );
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
