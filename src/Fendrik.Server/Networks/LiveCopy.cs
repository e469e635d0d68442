using Fendrik.Data.Live;

namespace Fendrik.Server.Networks;

/// <summary>Reads what changed on the network since it was last read.</summary>
public sealed class LiveCopy(SearchNetwork network, LiveDifferences differences)
{
    /// <summary>Reads on from where the last reading ended.</summary>
    /// <returns>How many items differ that nobody has decided about.</returns>
    /// <exception cref="NetworkUnavailableException">The network does not answer.</exception>
    public async Task<int> ReadAsync(int accountId, CancellationToken cancellation)
    {
        var changed = await network.ItemsChangedAsync(
            accountId,
            await differences.ReadUpToAsync(accountId, cancellation),
            cancellation
        );
        return await differences.RecordAsync(accountId, changed, cancellation);
    }
}
