using System.Collections.Concurrent;
using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Serving;

/// <summary>Moves the clock of an account on, hour by hour: reviewers read, people search.</summary>
public sealed class ClockMover(NetworkStore store)
{
    /// <summary>Most hours at once.</summary>
    public const int MostHours = 24 * 400;

    /// <summary>Hours that are kept together: who stops the clock loses no more.</summary>
    private const int HoursOfSlice = 24;

    /// <summary>Accounts that are kept in memory between two moves of their clocks.</summary>
    private const int MostLaidAside = 8;

    private readonly ConcurrentDictionary<string, PlaySession> _laidAside = new(StringComparer.Ordinal);

    /// <summary>Moves the clock on. What was played is kept slice by slice, also when the caller goes away.</summary>
    public async Task<NetworkClock> AdvanceAsync(string accountId, int hours, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        // Taking an account up costs more than playing a day of it: it is laid aside for whoever moves the clock next.
        _laidAside.TryRemove(accountId, out var session);
        for (var left = hours; left > 0; left -= HoursOfSlice)
        {
            await using var transaction = await connection.BeginTransactionAsync(cancellation);
            var account = await LockedAsync(connection, accountId);
            if (session is null || await session.IsStaleAsync(connection, account))
            {
                session = await PlaySession.OpenAsync(connection, account, World.Shipped);
            }

            await session.AdvanceAsync(connection, account, Math.Min(left, HoursOfSlice), cancellation);
            if (left <= HoursOfSlice)
            {
                await session.ReadReviewsAsync(connection, account);
            }

            await transaction.CommitAsync(cancellation);
        }

        if (_laidAside.Count >= MostLaidAside)
        {
            _laidAside.Clear();
        }

        _laidAside[accountId] = session!;
        var moved = await NetworkStore.FindAsync(connection, accountId);
        return ClockOf(moved!, moved!.Clock);
    }

    /// <summary>What the clock of an account says.</summary>
    public static NetworkClock ClockOf(NetworkAccount account, DateTimeOffset now)
    {
        var days = new AccountDay(account.TimeZone);
        var yesterday = days.At(now).Day.AddDays(-1);
        var began = days.At(account.Start).Day;
        return new NetworkClock(now, began, yesterday < began ? null : yesterday);
    }

    private static async Task<NetworkAccount> LockedAsync(Npgsql.NpgsqlConnection connection, string accountId) =>
        await NetworkStore.FindAsync(connection, accountId, locking: true)
        ?? throw new BadHttpRequestException("There is no such account.", StatusCodes.Status404NotFound);
}
