using System.Collections.Concurrent;
using System.Diagnostics;
using Dapper;
using Fendrik.Data.Checking;
using Fendrik.Data.Publishing;
using Npgsql;

namespace Fendrik.Server.Live;

/// <summary>What is counted of an account at one revision: changes since the last publish, and what the checks found.</summary>
public sealed record AccountCounts(long Revision, long Changes, CheckCounts Found);

/// <summary>
/// Counts changes and findings of accounts. After a big step that takes seconds, and the strip does not wait for it: it gets
/// the counts of before, told as such, and asks again.
/// </summary>
/// <remarks>What is kept here is only a saving; every server counts for itself.</remarks>
public sealed partial class StatusCounts(
    NpgsqlDataSource source,
    PendingChanges pending,
    AccountChecks checks,
    ILogger<StatusCounts> log
)
{
    /// <summary>How long a page that shows what was found waits for the newest changes to be looked at.</summary>
    public static readonly TimeSpan PatienceOfPages = TimeSpan.FromSeconds(2);

    private static readonly TimeSpan Patience = TimeSpan.FromMilliseconds(100);

    private readonly ConcurrentDictionary<int, AccountCounts> _known = new();
    private readonly ConcurrentDictionary<int, Task<AccountCounts>> _underWay = new();

    /// <summary>The counts at a revision, or the newest there are while those are being counted.</summary>
    public Task<AccountCounts> ReadAsync(int accountId, long revision) => ReadAsync(accountId, revision, Patience);

    /// <summary>Waits a while for all that changed up to now to be counted and checked.</summary>
    /// <returns>False when it is not yet.</returns>
    public async Task<bool> IsUpToDateAsync(int accountId, TimeSpan patience, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var revision = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                "select revision from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        for (var waited = Stopwatch.StartNew(); waited.Elapsed < patience; )
        {
            // What is counted already may have begun before the newest change.
            if ((await ReadAsync(accountId, revision, patience - waited.Elapsed)).Revision >= revision)
            {
                return true;
            }
        }

        return false;
    }

    private async Task<AccountCounts> ReadAsync(int accountId, long revision, TimeSpan patience)
    {
        if (_known.TryGetValue(accountId, out var known) && known.Revision == revision)
        {
            return known;
        }

        // One at a time for each account. One that was begun at an earlier revision is let end first.
        var counting = _underWay.GetOrAdd(accountId, _ => Task.Run(() => CountAsync(accountId, revision)));
        _ = counting.ContinueWith(
            ended => _underWay.TryRemove(new KeyValuePair<int, Task<AccountCounts>>(accountId, ended)),
            TaskScheduler.Default
        );
        try
        {
            return await counting.WaitAsync(patience);
        }
        catch (TimeoutException)
        {
            return known ?? new AccountCounts(-1, 0, new CheckCounts(0, 0, 0));
        }
    }

    private async Task<AccountCounts> CountAsync(int accountId, long revision)
    {
        try
        {
            // Nobody's leaving stops it: the next to ask would have to begin anew.
            var changes = await pending.CountAsync(accountId, CancellationToken.None);
            var found = await checks.CountsAsync(accountId, CancellationToken.None);
            var counts = new AccountCounts(revision, changes.Sum(count => count.Count), found);
            _known[accountId] = counts;
            return counts;
        }
        catch (Exception error)
        {
            LogFailed(error, accountId);
            throw;
        }
    }

    [LoggerMessage(LogLevel.Error, "Counting the changes and findings of account {AccountId} failed.")]
    private partial void LogFailed(Exception exception, int accountId);
}
