using System.Globalization;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Steps;
using Fendrik.Server.Estimates;
using Fendrik.Server.Links;
using Fendrik.Server.Networks;
using Fendrik.Server.Publishing;
using Npgsql;

namespace Fendrik.Server.Jobs;

/// <summary>What is done for each kind of job.</summary>
internal sealed class JobWork(
    NpgsqlDataSource source,
    FendrikContext database,
    IntakeReading reading,
    WorkingCopy workingCopy,
    PublishSender sender,
    SearchNetworks networks,
    ClockRunner clock,
    AccountConnector connector,
    LinkChecker links,
    EstimateDesk estimates
)
{
    /// <summary>Does a job; the words that it ends with, if there is something to say.</summary>
    public Task<string?> DoAsync(JobKind kind, JobTask job, JobProgress progress, CancellationToken stop) =>
        kind switch
        {
            JobKind.Intake => ReadAsync(job, progress, stop),
            JobKind.Keep => KeepAsync(job, stop),
            JobKind.Publish => sender.RunAsync(job.AccountId, job.SubjectId, progress, stop),
            JobKind.Clock => clock.RunAsync(
                job.AccountId,
                DateTimeOffset.Parse(job.Message!, CultureInfo.InvariantCulture),
                progress,
                stop
            ),
            JobKind.Links => links.RunAsync(job.AccountId, progress, stop),
            JobKind.Estimates => estimates.AskAsync(job.AccountId, job.SubjectId, progress, stop),
            JobKind.Connect => connector.RunAsync(job.AccountId, job.PersonId, progress, stop),
        };

    private async Task<string?> ReadAsync(JobTask job, JobProgress progress, CancellationToken stop)
    {
        await reading.ReadAsync(job.SubjectId, rows => progress.TellAsync(rows), stop);
        return null;
    }

    private async Task<string?> KeepAsync(JobTask job, CancellationToken stop)
    {
        if (await database.Intakes.FindAsync([job.SubjectId], stop) is { State: IntakeState.Kept })
        {
            return null;
        }

        var result = await workingCopy.ApplyAsync(
            job.AccountId,
            job.PersonId,
            new KeepIntake(job.SubjectId, await TodayAsync(job.AccountId, stop)),
            preview: false,
            stop
        );
        if (result.StepId is null)
        {
            throw new InvalidChangeException("intake", "There is nothing in it to bring in.");
        }

        // What was staged has done its work; history and undo go by the step.
        await using var connection = await source.OpenConnectionAsync(CancellationToken.None);
        await IntakeDesk.DropAsync(connection, job.SubjectId);
        return result.Label;
    }

    /// <summary>The network's day in the account's time zone; none while the network does not answer.</summary>
    private async Task<DateOnly?> TodayAsync(int accountId, CancellationToken stop)
    {
        try
        {
            var network = await networks.OfAccountAsync(accountId, stop);
            var now = (await network.ClockAsync(accountId, stop)).Now;
            var account = await workingCopy.FactsAsync(accountId, stop);
            return new AccountDay(account.TimeZone).At(now).Day;
        }
        catch (NetworkUnavailableException)
        {
            return null;
        }
    }
}
