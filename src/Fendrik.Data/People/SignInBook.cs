using Dapper;
using Npgsql;

namespace Fendrik.Data.People;

/// <summary>A sign-in of a person.</summary>
/// <param name="Id">Its identity, which opens nothing.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="SeenAt">When it was last used, within some minutes.</param>
/// <param name="Address">From which address it was made.</param>
/// <param name="Browser">With which browser, as that calls itself.</param>
[method: ExplicitConstructor]
public sealed record KeptSignIn(Guid Id, DateTimeOffset MadeAt, DateTimeOffset SeenAt, string Address, string Browser);

/// <summary>An attempt to sign in.</summary>
/// <param name="At">When.</param>
/// <param name="WentWell">True where the password was right.</param>
/// <param name="Address">From which address.</param>
/// <param name="Browser">With which browser.</param>
[method: ExplicitConstructor]
public sealed record SignInAttempt(DateTimeOffset At, bool WentWell, string Address, string Browser);

/// <summary>
/// Keeps sign-ins: whoever has the key of one is its person until it ends. Of the key only a hash is kept, so that whoever reads the database cannot sign in
/// by it.
/// </summary>
public sealed class SignInBook(NpgsqlDataSource source, TimeProvider clock)
{
    private static readonly TimeSpan SeenWithin = TimeSpan.FromMinutes(5);
    private static readonly TimeSpan LogKept = TimeSpan.FromDays(90);
    private const int LongestBrowser = 300;
    private const int MostListed = 100;

    /// <summary>Keeps a new sign-in. Those that have run out go.</summary>
    public async Task AddAsync(
        byte[] keyHash,
        string personId,
        byte[] ticket,
        DateTimeOffset expires,
        string address,
        string browser,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from sign_in where expires_at < @now;
                insert into sign_in (id, key_hash, person_id, ticket, made_at, seen_at, expires_at, address, browser)
                values (@id, @keyHash, @personId, @ticket, @now, @now, @expires, @address, @browser)
                """,
                new
                {
                    id = Guid.NewGuid(),
                    keyHash,
                    personId,
                    ticket,
                    now = clock.GetUtcNow(),
                    expires = expires.ToUniversalTime(),
                    address,
                    browser = Shortened(browser),
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The ticket of a key; none where it has ended or run out.</summary>
    public async Task<(Guid Id, byte[] Ticket)?> FindAsync(byte[] keyHash, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var now = clock.GetUtcNow();
        var found = await connection.QuerySingleOrDefaultAsync<(Guid Id, byte[] Ticket, DateTime SeenAt)?>(
            new CommandDefinition(
                "select id, ticket, seen_at from sign_in where key_hash = @keyHash and expires_at >= @now",
                new { keyHash, now },
                cancellationToken: cancellation
            )
        );
        if (found is not { } kept)
        {
            return null;
        }

        if (now.UtcDateTime - kept.SeenAt > SeenWithin)
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "update sign_in set seen_at = @now where id = @Id",
                    new { kept.Id, now },
                    cancellationToken: cancellation
                )
            );
        }

        return (kept.Id, kept.Ticket);
    }

    /// <summary>True while a sign-in has not ended or run out.</summary>
    public async Task<bool> HoldsAsync(Guid id, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from sign_in where id = @id and expires_at >= @now)",
                new { id, now = clock.GetUtcNow() },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Renews what a sign-in says, and until when; one that has ended stays so.</summary>
    public async Task RenewAsync(byte[] keyHash, byte[] ticket, DateTimeOffset expires, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update sign_in set ticket = @ticket, expires_at = @expires where key_hash = @keyHash",
                new
                {
                    keyHash,
                    ticket,
                    expires = expires.ToUniversalTime(),
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Ends the sign-in of a key.</summary>
    public async Task EndAsync(byte[] keyHash, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from sign_in where key_hash = @keyHash",
                new { keyHash },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The sign-ins of a person, the last used first.</summary>
    public async Task<IReadOnlyList<KeptSignIn>> ListAsync(string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<KeptSignIn>(
                new CommandDefinition(
                    "select id, made_at, seen_at, address, browser from sign_in where person_id = @personId and expires_at >= @now order by seen_at desc, made_at desc, id limit @MostListed",
                    new
                    {
                        personId,
                        now = clock.GetUtcNow(),
                        MostListed,
                    },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>Ends sign-ins of a person: one, or all but one.</summary>
    /// <param name="personId">The person.</param>
    /// <param name="id">The one; none for all.</param>
    /// <param name="but">The one that stays; none for none.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <returns>How many.</returns>
    public async Task<int> EndAsync(string personId, Guid? id, Guid? but, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from sign_in where person_id = @personId and (@id::uuid is null or id = @id) and (@but::uuid is null or id <> @but)",
                new
                {
                    personId,
                    id,
                    but,
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Writes down an attempt of a person; what is old goes.</summary>
    public async Task LogAsync(
        string personId,
        bool wentWell,
        string address,
        string browser,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var now = clock.GetUtcNow();
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from sign_in_log where person_id = @personId and at < @old;
                insert into sign_in_log (person_id, at, went_well, address, browser) values (@personId, @now, @wentWell, @address, @browser)
                """,
                new
                {
                    personId,
                    now,
                    old = now - LogKept,
                    wentWell,
                    address,
                    browser = Shortened(browser),
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>True where a person signed in at an address before, as far back as attempts are kept.</summary>
    public async Task<bool> IsHomeAsync(string personId, string address, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from sign_in_log where person_id = @personId and went_well and address = @address)",
                new { personId, address },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The last attempts of a person, the newest first.</summary>
    public async Task<IReadOnlyList<SignInAttempt>> AttemptsAsync(string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<SignInAttempt>(
                new CommandDefinition(
                    "select at, went_well, address, browser from sign_in_log where person_id = @personId order by at desc, id desc limit @MostListed",
                    new { personId, MostListed },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    private static string Shortened(string browser) =>
        browser.Length > LongestBrowser ? browser[..LongestBrowser] : browser;
}
