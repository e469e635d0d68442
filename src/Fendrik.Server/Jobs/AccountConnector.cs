using Fendrik.Data.Accounts;
using Fendrik.Data.Live;
using Fendrik.Data.Steps;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Jobs;

/// <summary>
/// Reads an account that was on the network before: all that is in it comes into the working copy as the network has it, so that nothing is to be published, and
/// then its reports. Each part can be done again: a job that was stopped goes on.
/// </summary>
public sealed class AccountConnector(
    LiveCopy live,
    LiveDifferences differences,
    WorkingCopy workingCopy,
    AccountRegister register,
    ClockRunner clock
)
{
    /// <summary>Reads it.</summary>
    /// <returns>What was taken, in words; none where nothing was left to take.</returns>
    public async Task<string?> RunAsync(
        int accountId,
        string personId,
        JobProgress progress,
        CancellationToken cancellation
    )
    {
        await live.ReadAsync(accountId, cancellation, read => progress.TellAsync(read, null, force: true));
        var items = await differences.CountAsync(accountId, cancellation);
        if (items > 0)
        {
            await differences.AdoptAsync(accountId, cancellation);
            await workingCopy.ApplyAsync(
                accountId,
                personId,
                new DecideLive([], TakeTheirs: true),
                preview: false,
                cancellation
            );
            await register.BeginHistoryAsync(accountId, cancellation);
        }

        await clock.CatchUpAsync(accountId, cancellation);
        // A job that goes on finds what it took before taken.
        return items == 0 ? null : $"{items:N0} items are here as the network has them.";
    }
}
