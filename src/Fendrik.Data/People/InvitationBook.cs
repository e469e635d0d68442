using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.People;

/// <summary>Somebody who was asked to join an account and has not yet.</summary>
/// <param name="Id">Its identity, which opens nothing.</param>
/// <param name="Email">Who was asked.</param>
/// <param name="Role">What they will be.</param>
/// <param name="MadeAt">When they were asked.</param>
/// <param name="ExpiresAt">Until when the link opens.</param>
[method: ExplicitConstructor]
public sealed record Invitation(
    Guid Id,
    string Email,
    AccountRole Role,
    DateTimeOffset MadeAt,
    DateTimeOffset ExpiresAt
);

/// <summary>What a link opens.</summary>
/// <param name="AccountId">The account.</param>
/// <param name="Account">What it is called.</param>
/// <param name="Email">Who was asked.</param>
/// <param name="Role">What they will be.</param>
/// <param name="AskedBy">Who asked them.</param>
/// <param name="IsKnown">True where somebody signs in by that address already.</param>
[method: ExplicitConstructor]
public sealed record OpenInvitation(
    int AccountId,
    string Account,
    string Email,
    AccountRole Role,
    string AskedBy,
    bool IsKnown
);

/// <summary>Who was asked to join which account. A link opens once, for some days; of the key in it only a hash is kept.</summary>
public sealed class InvitationBook(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>How long a link opens.</summary>
    public static readonly TimeSpan Lasts = TimeSpan.FromDays(7);

    /// <summary>Asks somebody. Whoever was asked before has a new link; the one of before opens nothing more.</summary>
    /// <exception cref="InvalidChangeException">They belong to the account already.</exception>
    public async Task<Invitation> AddAsync(
        int accountId,
        string email,
        AccountRole role,
        string askedBy,
        byte[] keyHash,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var isMember = await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                """
                select exists (select from account_member m join "AspNetUsers" p on p.id = m.person_id where m.account_id = @accountId and p.normalized_email = upper(@email))
                """,
                new { accountId, email },
                cancellationToken: cancellation
            )
        );
        if (isMember)
        {
            throw new InvalidChangeException("email", "They work on this account already. Change their role instead.");
        }

        var now = clock.GetUtcNow();
        var invitation = new Invitation(Guid.NewGuid(), email, role, now, now + Lasts);
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from invitation where expires_at < @now or account_id = @accountId and upper(email) = upper(@email);
                insert into invitation (id, key_hash, account_id, email, role, asked_by, made_at, expires_at)
                values (@Id, @keyHash, @accountId, @email, @role, @askedBy, @now, @ExpiresAt)
                """,
                new
                {
                    invitation.Id,
                    keyHash,
                    accountId,
                    email,
                    role,
                    askedBy,
                    now,
                    invitation.ExpiresAt,
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
        return invitation;
    }

    /// <summary>Who was asked and has not joined, the newest first.</summary>
    public async Task<IReadOnlyList<Invitation>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<Invitation>(
                new CommandDefinition(
                    "select id, email, role, made_at, expires_at from invitation where account_id = @accountId and expires_at >= @now order by made_at desc, id",
                    new { accountId, now = clock.GetUtcNow() },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>Takes an invitation back.</summary>
    /// <returns>True where there was one.</returns>
    public async Task<bool> WithdrawAsync(int accountId, Guid id, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    "delete from invitation where account_id = @accountId and id = @id",
                    new { accountId, id },
                    cancellationToken: cancellation
                )
            ) > 0;
    }

    /// <summary>What a link opens; none where it is used, taken back or too old.</summary>
    public async Task<OpenInvitation?> FindAsync(byte[] keyHash, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<OpenInvitation>(
            new CommandDefinition(
                """
                select i.account_id, a.name as account, i.email, i.role, coalesce(p.display_name, '') as asked_by,
                  exists (select from "AspNetUsers" k where k.normalized_email = upper(i.email)) as is_known
                from invitation i join account a on a.id = i.account_id left join "AspNetUsers" p on p.id = i.asked_by
                where i.key_hash = @keyHash and i.expires_at >= @now
                """,
                new { keyHash, now = clock.GetUtcNow() },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Joins by a link, which opens nothing from then on. Whoever belongs to the account already keeps their role where it may more.</summary>
    /// <returns>True where the link still opened.</returns>
    public async Task<bool> JoinAsync(byte[] keyHash, string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    """
                    with taken as (delete from invitation where key_hash = @keyHash and expires_at >= @now returning account_id, role)
                    insert into account_member (account_id, person_id, role) select account_id, @personId, role from taken
                    on conflict (person_id, account_id) do update set role = greatest(account_member.role, excluded.role)
                    """,
                    new
                    {
                        keyHash,
                        personId,
                        now = clock.GetUtcNow(),
                    },
                    cancellationToken: cancellation
                )
            ) > 0;
    }
}
