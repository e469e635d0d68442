using Fendrik.Data.Live;
using Fendrik.Data.Publishing;

namespace Fendrik.Server.Networks;

/// <summary>Reads what changed on the network since it was last read, a part at a time.</summary>
public sealed class LiveCopy(SearchNetworks networks, LiveDifferences differences, ReviewRecords reviewed)
{
    /// <summary>Reads items on from where the last reading ended.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <param name="onRead">Is told how many items were read up to now.</param>
    /// <returns>How many items differ that nobody has decided about.</returns>
    /// <exception cref="NetworkUnavailableException">The network does not answer.</exception>
    public async Task<int> ReadAsync(int accountId, CancellationToken cancellation, Func<long, Task>? onRead = null)
    {
        var read = 0L;
        var network = await networks.OfAccountAsync(accountId, cancellation);
        while (true)
        {
            var changed = await network.ItemsChangedAsync(
                accountId,
                await differences.ReadUpToAsync(accountId, cancellation),
                cancellation
            );
            var differ = await differences.RecordAsync(accountId, changed, cancellation);
            read += changed.Items.Count;
            if (onRead is not null)
            {
                await onRead(read);
            }

            if (changed.Items.Count == 0)
            {
                return differ;
            }
        }
    }

    /// <summary>Reads what the reviewers said since they were last asked, the network's clock and who pays there.</summary>
    /// <exception cref="NetworkUnavailableException">The network does not answer.</exception>
    public async Task ReadReviewsAsync(int accountId, CancellationToken cancellation)
    {
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var clock = await network.ClockAsync(accountId, cancellation);
        var payer = await network.PayerAsync(accountId, cancellation);
        NetworkReviews reviews;
        do
        {
            reviews = await network.ReviewsAsync(
                accountId,
                await reviewed.ReadUpToAsync(accountId, cancellation),
                cancellation
            );
            await reviewed.RecordAsync(accountId, reviews, clock.Now, payer, cancellation);
        } while (reviews.Reviews.Count > 0);
    }
}
