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
        long done = 0;
        var network = await networks.OfAccountAsync(accountId, cancellation);
        try
        {
            // While the answers of a batch are written down, the next one is under way already.
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
                    done += answers.Count;
                    recorded = RecordAsync(publishId, batch, answers, done, progress, cancellation);
                }
            }
            finally
            {
                await recorded;
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

    private async Task RecordAsync(
        long publishId,
        PublishBatch batch,
        IReadOnlyList<NetworkAnswer> answers,
        long done,
        JobProgress progress,
        CancellationToken cancellation
    )
    {
        await records.RecordAsync(publishId, batch, answers, cancellation);
        await progress.TellAsync(done, force: true);
    }
}
