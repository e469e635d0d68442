using System.Security.Cryptography;
using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Npgsql;

namespace Fendrik.Data.People;

/// <summary>
/// Counts wrong attempts to sign in, and says how long to wait. An attempt counts as wrong before the password is looked at, so that a hundred at once are a
/// hundred, and is taken back where it was right.
/// </summary>
public sealed class AttemptBook(NpgsqlDataSource source, TimeProvider clock)
{
    private sealed record Counted(AttemptsOf Of, byte[] Key);

    /// <summary>Begins an attempt.</summary>
    /// <param name="email">On whom, whether there is such a person or not.</param>
    /// <param name="address">From where.</param>
    /// <param name="isHome">True where that person signed in at this address before.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <returns>How long to wait first; none where it may go on, and is counted.</returns>
    public async Task<TimeSpan?> BeginAsync(string email, string address, bool isHome, CancellationToken cancellation)
    {
        var now = clock.GetUtcNow();
        var all = Of(email, address, isHome);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // One after the other in the order of their keys: of two at once neither waits for what the other holds.
        var until = default(DateTimeOffset);
        foreach (var each in all)
        {
            var kept = await connection.QuerySingleAsync<DateTime>(
                new CommandDefinition(
                    """
                    insert into sign_in_wait as w (key_hash, wrong, last_at, until) values (@Key, 0, @now, '-infinity')
                    on conflict (key_hash) do update set
                      wrong = case when w.last_at < @forgotten then 0 else w.wrong end,
                      until = case when w.last_at < @forgotten then '-infinity' else w.until end
                    returning greatest(until, '1970-01-01')
                    """,
                    new
                    {
                        each.Key,
                        now,
                        forgotten = now - SignInPatience.Forgets,
                    },
                    cancellationToken: cancellation
                )
            );
            var ends = new DateTimeOffset(DateTime.SpecifyKind(kept, DateTimeKind.Utc));
            until = ends > until ? ends : until;
        }

        if (until > now)
        {
            await transaction.CommitAsync(cancellation);
            return until - now;
        }

        foreach (var each in all)
        {
            var wrong = await connection.QuerySingleAsync<int>(
                new CommandDefinition(
                    "update sign_in_wait set wrong = wrong + 1, last_at = @now where key_hash = @Key returning wrong",
                    new { each.Key, now },
                    cancellationToken: cancellation
                )
            );
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "update sign_in_wait set until = @until where key_hash = @Key",
                    new { each.Key, until = now + SignInPatience.WaitAfter(each.Of, wrong) },
                    cancellationToken: cancellation
                )
            );
        }

        await transaction.CommitAsync(cancellation);
        return null;
    }

    /// <summary>The attempt was not wrong, and is taken back: as much was right as was said.</summary>
    public Task NotWrongAsync(string email, string address, bool isHome, CancellationToken cancellation) =>
        TakeBackAsync(email, address, isHome, forgets: false, cancellation);

    /// <summary>The attempt was right: the person's own wrong ones are forgotten, and it does not count for others.</summary>
    public Task RightAsync(string email, string address, bool isHome, CancellationToken cancellation) =>
        TakeBackAsync(email, address, isHome, forgets: true, cancellation);

    private async Task TakeBackAsync(
        string email,
        string address,
        bool isHome,
        bool forgets,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        foreach (var each in Of(email, address, isHome))
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    forgets && each.Of == AttemptsOf.PersonFromAddress
                        ? "delete from sign_in_wait where key_hash = @Key"
                        : "update sign_in_wait set wrong = greatest(0, wrong - 1), until = case when wrong <= @free + 1 then '-infinity' else until end where key_hash = @Key",
                    new { each.Key, free = SignInPatience.FreeOf(each.Of) },
                    cancellationToken: cancellation
                )
            );
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                // Whoever is counted in this moment holds their rows in an order: those are left alone.
                "delete from sign_in_wait where key_hash in (select key_hash from sign_in_wait where last_at < @forgotten for update skip locked)",
                new { forgotten = clock.GetUtcNow() - SignInPatience.Forgets },
                cancellationToken: cancellation
            )
        );
    }

    private static Counted[] Of(string email, string address, bool isHome) =>
        [
            .. new Counted[]
            {
                new(AttemptsOf.PersonFromAddress, KeyOf(AttemptsOf.PersonFromAddress, email, address)),
                new(AttemptsOf.Address, KeyOf(AttemptsOf.Address, "", address)),
                new(AttemptsOf.PersonFromElsewhere, KeyOf(AttemptsOf.PersonFromElsewhere, email, "")),
            }
                .Where(each => !(isHome && each.Of == AttemptsOf.PersonFromElsewhere))
                .OrderBy(each => Convert.ToHexString(each.Key), StringComparer.Ordinal),
        ];

    private static byte[] KeyOf(AttemptsOf of, string email, string address) =>
        SHA256.HashData(Encoding.UTF8.GetBytes($"{(int)of}\n{email.Trim().ToUpperInvariant()}\n{address}"));
}
