using System.Collections.Concurrent;
using System.Globalization;
using System.Threading.Channels;
using Dapper;
using Npgsql;

namespace Fendrik.Server.Live;

/// <summary>
/// Hears from the database when an account moves, whichever server moved it, and tells everybody who looks at that
/// account here.
/// </summary>
public sealed class AccountNews(NpgsqlDataSource source, ILogger<AccountNews> log) : BackgroundService
{
    private static readonly TimeSpan TryAgainAfter = TimeSpan.FromSeconds(2);

    private readonly ConcurrentDictionary<Guid, (int AccountId, Channel<long> Channel)> _listeners = new();

    /// <summary>
    /// Where the account is, and then its revisions as they come; only the newest when a listener is slow.
    /// </summary>
    public async IAsyncEnumerable<long> ListenAsync(
        int accountId,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var channel = Channel.CreateBounded<long>(
            new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        var id = Guid.NewGuid();
        _listeners[id] = (accountId, channel);
        try
        {
            // Asked for after the listener is in place, so that nothing falls in between.
            channel.Writer.TryWrite(await RevisionAsync(accountId, cancellation));
            await foreach (var revision in channel.Reader.ReadAllAsync(cancellation))
            {
                yield return revision;
            }
        }
        finally
        {
            _listeners.TryRemove(id, out _);
        }
    }

    private async Task<long> RevisionAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                "select revision from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync(stoppingToken);
                connection.Notification += (_, told) => Tell(told.Payload);
                await using (var listen = new NpgsqlCommand("listen account_moved", connection))
                {
                    await listen.ExecuteNonQueryAsync(stoppingToken);
                }

                while (true)
                {
                    await connection.WaitAsync(stoppingToken);
                }
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error) when (error is NpgsqlException or IOException)
            {
                log.LogWarning(error, "The database does not answer; news of accounts wait.");
                await Task.Delay(TryAgainAfter, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private void Tell(string payload)
    {
        var parts = payload.Split(' ');
        if (
            parts.Length != 2
            || !int.TryParse(parts[0], CultureInfo.InvariantCulture, out var account)
            || !long.TryParse(parts[1], CultureInfo.InvariantCulture, out var revision)
        )
        {
            return;
        }

        foreach (var (accountId, channel) in _listeners.Values)
        {
            if (accountId == account)
            {
                channel.Writer.TryWrite(revision);
            }
        }
    }
}
