using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Jobs;

/// <summary>Sends a publish to the network, batch by batch, from wherever it stands.</summary>
public sealed class Publishing(PublishRecords records, SearchNetworks networks, LiveCopy live)
{
    public async Task<string?> RunAsync(
        int accountId,
        long publishId,
        JobProgress progress,
        CancellationToken cancellation
    )
    {
        var network = await networks.OfAccountAsync(accountId, cancellation);
        try
        {
            await SendAsync(network, accountId, publishId, progress, cancellation);
            if (await records.NextBatchAsync(publishId, cancellation) is not null)
            {
                throw new NetworkUnavailableException("The network left some items without an answer.");
            }
        }
        catch (Exception error) when (error is NetworkUnavailableException or OperationCanceledException)
        {
            var problem = error is NetworkUnavailableException ? error.Message : "Stopped by a person.";
            await records.EndAsync(publishId, PublishState.Interrupted, problem, CancellationToken.None);
            throw;
        }

        await records.EndAsync(publishId, PublishState.Done, null, cancellation);
        await live.ReadReviewsAsync(accountId, cancellation);
        return null;
    }

    /// <summary>While the answers of a batch are written down, the next one is under way already.</summary>
    private async Task SendAsync(
        ISearchNetwork network,
        int accountId,
        long publishId,
        JobProgress progress,
        CancellationToken cancellation
    )
    {
        long done = 0;
        var recorded = Task.CompletedTask;
        try
        {
            for (
                var from = 0;
                await records.NextBatchAsync(publishId, cancellation, from) is { } batch;
                from = batch.Next
            )
            {
                var answers = await network.ChangeAsync(accountId, batch, cancellation);
                await recorded;

                // What the network has done is written down whoever stops the rest.
                recorded = records.RecordAsync(publishId, batch, answers, CancellationToken.None);
                done += answers.Count;
                await progress.TellAsync(done, force: true);
            }
        }
        finally
        {
            await recorded;
        }
    }
}
