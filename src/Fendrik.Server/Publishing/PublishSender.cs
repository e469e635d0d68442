using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Publishing;

/// <summary>Sends a publish to the network, batch by batch, from wherever it stands.</summary>
public sealed class PublishSender(
    PublishRecords records,
    PublishBatches batches,
    PublishAnswers written,
    SearchNetworks networks,
    LiveCopy live
)
{
    /// <summary>
    /// Sends what is left of a publish. Where the network fails it or a person stops it, it is interrupted; where the server ends or
    /// the database is lost, it stays as it is and its job is taken up again.
    /// </summary>
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
            if (!await BeginRoundAsync(network, accountId, publishId, cancellation))
            {
                return null;
            }

            // Figures go by the network's days, and so does what was done to them.
            await records.DateAsync(publishId, (await network.ClockAsync(accountId, cancellation)).Now, cancellation);
            await SendAsync(network, accountId, publishId, progress, cancellation);
            if (await batches.NextAsync(publishId, cancellation) is not null)
            {
                throw new NetworkUnavailableException("The network left some items without an answer.");
            }
        }
        catch (NetworkUnavailableException error)
        {
            await records.EndAsync(publishId, PublishState.Interrupted, error.Message, CancellationToken.None);
            throw;
        }
        catch (OperationCanceledException) when (progress.StoppedByPerson)
        {
            await records.EndAsync(publishId, PublishState.Interrupted, "Stopped by a person.", CancellationToken.None);
            throw;
        }

        await records.EndAsync(publishId, PublishState.Done, null, cancellation);
        await live.ReadReviewsAsync(accountId, cancellation);
        return null;
    }

    /// <summary>
    /// Settles with the network what may be on it: batches that it carried out are answered now, the others never will be carried
    /// out. After that it is known of every item whether it was sent.
    /// </summary>
    /// <exception cref="NetworkUnavailableException">The network does not answer; nothing is settled that was not.</exception>
    public async Task<PublishRound> SettleAsync(int accountId, long publishId, CancellationToken cancellation) =>
        await SettleAsync(await networks.OfAccountAsync(accountId, cancellation), accountId, publishId, cancellation);

    private async Task<PublishRound> SettleAsync(
        ISearchNetwork network,
        int accountId,
        long publishId,
        CancellationToken cancellation
    )
    {
        var round = await batches.RoundAsync(publishId, cancellation);
        foreach (var batch in round.Unanswered)
        {
            if (await network.CloseAsync(accountId, batch.Key, cancellation) is { } answers)
            {
                await written.RecordAsync(publishId, batch.First, batch.Next, answers, CancellationToken.None);
            }
        }

        return round;
    }

    /// <returns>False when the publish is done: only its job was not ended.</returns>
    private async Task<bool> BeginRoundAsync(
        ISearchNetwork network,
        int accountId,
        long publishId,
        CancellationToken cancellation
    )
    {
        PublishRound round;
        do
        {
            round = await SettleAsync(network, accountId, publishId, cancellation);
            if (round.State == PublishState.Done)
            {
                return false;
            }

            if (round.State != PublishState.Running)
            {
                throw new PublishTakenOverException();
            }
        } while (!await batches.NextRoundAsync(publishId, round, cancellation));
        return true;
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
        var done = await batches.DoneAsync(publishId, cancellation);
        await progress.TellAsync(done, force: true);
        var recorded = Task.CompletedTask;
        try
        {
            for (var from = 0; await batches.NextAsync(publishId, cancellation, from) is { } batch; from = batch.Next)
            {
                await batches.MarkSentAsync(publishId, batch, cancellation);
                var answers = await network.ChangeAsync(accountId, batch, cancellation);
                await recorded;

                // What the network has done is written down whoever stops the rest.
                recorded = written.RecordAsync(publishId, batch.First, batch.Next, answers, CancellationToken.None);
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
