using Fendrik.Data.Checking;
using Fendrik.Data.Live;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Publishing;

/// <summary>
/// Begins, continues and gives up publishes. What goes out is what stands at the moment of pressing; what an earlier publish may
/// have left on the network is asked for first.
/// </summary>
public sealed class PublishDesk(
    PublishRecords records,
    PublishSender sender,
    PendingChanges pending,
    LiveDifferences differences,
    LiveCopy live,
    AccountChecks checks,
    JobDesk jobs,
    JobBell bell
)
{
    private const int MostChecks = 5;

    /// <summary>Publishes what stands now, instead of what an interrupted publish had left.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="personId">Who publishes.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <param name="part">What is published, with what it cannot do without; none for all but what is held back.</param>
    /// <param name="shown">What the person saw before pressing; none to send what stands now, seen or not.</param>
    /// <returns>The job that does it; that of the publish under way when there is one.</returns>
    /// <exception cref="InvalidChangeException">Something is in the way, or there is nothing to publish.</exception>
    /// <exception cref="PreviewMovedException">What would go out was changed since it was shown, or there is more of it.</exception>
    /// <exception cref="NetworkUnavailableException">The network does not answer; nothing was sent.</exception>
    public async Task<JobView> BeginAsync(
        int accountId,
        string personId,
        CancellationToken cancellation,
        IReadOnlyList<ItemReference>? part = null,
        ShownPreview? shown = null
    )
    {
        while (true)
        {
            if (await records.OpenAsync(accountId, cancellation) is { } open)
            {
                if (open.State == PublishState.Interrupted)
                {
                    await CloseAsync(accountId, open, "What was left was published anew.", cancellation);
                }
                else if (await JobOfAsync(accountId, open.Id, cancellation) is { } running)
                {
                    return running;
                }

                continue;
            }

            await ReadLiveAsync(accountId, cancellation);
            var publish =
                await BeginCheckedAsync(accountId, personId, part, shown, cancellation)
                ?? throw await NothingToPublishAsync(accountId, cancellation);
            bell.Ring(JobKind.Publish.Lane());
            if (await JobOfAsync(accountId, publish, cancellation) is { } job)
            {
                return job;
            }

            // It is over already, or somebody else's came first and was interrupted at once.
            if (await jobs.NewestAsync(accountId, JobKind.Publish, publish, cancellation) is { } ended)
            {
                return ended;
            }
        }
    }

    /// <summary>
    /// Where many edit without a pause, the checks may never have seen the newest of it: after some times the publish begins with
    /// what they have seen, and the network judges the rest.
    /// </summary>
    private async Task<long?> BeginCheckedAsync(
        int accountId,
        string personId,
        IReadOnlyList<ItemReference>? part,
        ShownPreview? shown,
        CancellationToken cancellation
    )
    {
        for (var attempt = 1; ; attempt++)
        {
            var found = await checks.CountsAsync(accountId, cancellation);

            // Of a part, or where something is held back, only what goes out has to be without blockers.
            if (part is null && (await pending.OutlookAsync(accountId, cancellation)).Held == 0)
            {
                RefuseBlockers(found);
            }

            try
            {
                return await records.BeginAsync(
                    accountId,
                    personId,
                    (connection, id, total) =>
                        jobs.BeginAsync(connection, new JobOrder(accountId, personId, JobKind.Publish, id, total)),
                    cancellation,
                    onlyChecked: attempt < MostChecks,
                    part,
                    shown
                );
            }
            catch (ChecksBehindException)
            {
                // Somebody has changed something since: look once more.
            }
        }
    }

    /// <summary>Goes on with an interrupted publish: what is still as it was goes out, the rest is left out and named.</summary>
    /// <exception cref="InvalidChangeException">It is not interrupted.</exception>
    public async Task<JobView> ContinueAsync(
        int accountId,
        string personId,
        long publishId,
        CancellationToken cancellation
    )
    {
        await ReadLiveAsync(accountId, cancellation);
        if (
            !await records.ContinueAsync(
                accountId,
                publishId,
                (connection, total) =>
                    jobs.BeginAsync(connection, new JobOrder(accountId, personId, JobKind.Publish, publishId, total)),
                cancellation
            )
        )
        {
            throw NotInterrupted();
        }

        bell.Ring(JobKind.Publish.Lane());
        return (await jobs.NewestAsync(accountId, JobKind.Publish, publishId, cancellation))!;
    }

    /// <summary>Gives up what an interrupted publish has not sent. What the network has taken by then is live.</summary>
    /// <exception cref="InvalidChangeException">It is not interrupted.</exception>
    /// <exception cref="NetworkUnavailableException">The network does not say what it has taken; the publish stays interrupted.</exception>
    public async Task AbandonAsync(int accountId, long publishId, CancellationToken cancellation)
    {
        if (
            await records.FindAsync(accountId, publishId, cancellation)
                is not { State: PublishState.Interrupted } publish
            || !await CloseAsync(accountId, publish, "What was left was given up.", cancellation)
        )
        {
            throw NotInterrupted();
        }
    }

    private static InvalidChangeException NotInterrupted() =>
        new("publish", "This publish is not interrupted: it goes on, has ended, or was given up. Load the page again.");

    /// <returns>False when somebody else has gone on with it, or ended it, meanwhile.</returns>
    private async Task<bool> CloseAsync(
        int accountId,
        PublishSummary publish,
        string ending,
        CancellationToken cancellation
    ) =>
        await records.HoldAsync(accountId, publish.Id, publish.Problem, cancellation)
        && await records.AbandonAsync(
            publish.Id,
            await sender.SettleAsync(accountId, publish.Id, cancellation),
            ending,
            cancellation
        );

    private async Task ReadLiveAsync(int accountId, CancellationToken cancellation)
    {
        try
        {
            await live.ReadAsync(accountId, cancellation);
        }
        catch (NetworkUnavailableException error)
        {
            throw new NetworkUnavailableException(
                $"{error.Message} Nothing was sent; try again when it is back.",
                error
            );
        }
    }

    private static void RefuseBlockers(CheckCounts found)
    {
        if (found.Blockers is var blockers and > 0)
        {
            throw new InvalidChangeException(
                "blockers",
                blockers == 1
                    ? "1 blocker stops publishing. Clear it first."
                    : $"{blockers} blockers stop publishing. Clear them first."
            );
        }
    }

    private async Task<InvalidChangeException> NothingToPublishAsync(int accountId, CancellationToken cancellation)
    {
        var waiting = (await pending.CountAsync(accountId, cancellation)).Sum(count => count.Count);
        var undecided = await differences.CountAsync(accountId, cancellation);
        if (waiting > 0 && (await pending.OutlookAsync(accountId, cancellation)).Held is var held and > 0)
        {
            return new InvalidChangeException(
                "changes",
                $"There is nothing to publish: {(held == 1 ? "1 change is" : $"{held} changes are")} held back. Let go of what is to go out."
            );
        }

        var changed =
            undecided == 1
                ? "1 item was changed on the network itself"
                : $"{undecided} items were changed on the network itself";
        return new InvalidChangeException(
            "changes",
            waiting > 0 ? $"{changed}, and nothing else is to be published. Decide under Changes whose version holds."
                : undecided > 0
                    ? $"There is nothing of yours to publish; {changed}. Decide under Changes whose version holds."
                : "There is nothing to publish: the working copy and the live copy are the same."
        );
    }

    private Task<JobView?> JobOfAsync(int accountId, long publishId, CancellationToken cancellation) =>
        jobs.OpenAsync(accountId, JobKind.Publish, publishId, cancellation);
}
