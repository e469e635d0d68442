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
            while (await records.NextBatchAsync(publishId, cancellation) is { } batch)
            {
                var answers = await network.ChangeAsync(accountId, batch, cancellation);
                await records.RecordAsync(publishId, answers, cancellation);
                done += answers.Count;
                await progress.TellAsync(done, force: true);
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
}
