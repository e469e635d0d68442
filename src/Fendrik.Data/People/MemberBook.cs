using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.People;

/// <summary>Somebody who works on an account.</summary>
/// <param name="PersonId">Who.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Email">Their e-mail address.</param>
/// <param name="Role">What they are there.</param>
[method: ExplicitConstructor]
public sealed record Member(string PersonId, string Name, string Email, AccountRole Role);

/// <summary>Who works on which account, as what. There is always an owner.</summary>
public sealed class MemberBook(NpgsqlDataSource source)
{
    /// <summary>What a person is at an account; none where they do not belong to it.</summary>
    public async Task<AccountRole?> RoleAsync(int accountId, string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<AccountRole?>(
            new CommandDefinition(
                "select role from account_member where person_id = @personId and account_id = @accountId",
                new { accountId, personId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>What a person is at an account, and whether that is put away; none where they do not belong to it.</summary>
    public async Task<(AccountRole Role, bool IsArchived)?> StandingAsync(
        int accountId,
        string personId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<(AccountRole Role, bool IsArchived)?>(
            new CommandDefinition(
                "select m.role, a.archived_at is not null from account_member m join account a on a.id = m.account_id where m.person_id = @personId and m.account_id = @accountId",
                new { accountId, personId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Who works on an account, owners first.</summary>
    public async Task<IReadOnlyList<Member>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<Member>(
                new CommandDefinition(
                    """
                    select m.person_id, p.display_name as name, p.email, m.role from account_member m join "AspNetUsers" p on p.id = m.person_id
                    where m.account_id = @accountId order by m.role desc, lower(p.display_name), m.person_id
                    """,
                    new { accountId },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>Gives a member another role. Their sign-ins end, so that no page of theirs goes on as before.</summary>
    /// <exception cref="InvalidChangeException">They do not belong to the account, or no owner would be left.</exception>
    public Task ChangeAsync(int accountId, string personId, AccountRole role, CancellationToken cancellation) =>
        AlterAsync(accountId, personId, role, cancellation);

    /// <summary>Removes a member. Their sign-ins end.</summary>
    /// <exception cref="InvalidChangeException">They do not belong to the account, or no owner would be left.</exception>
    public Task RemoveAsync(int accountId, string personId, CancellationToken cancellation) =>
        AlterAsync(accountId, personId, null, cancellation);

    private async Task AlterAsync(int accountId, string personId, AccountRole? role, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Two owners that take each other's role at once wait for one another here.
        var members = (
            await connection.QueryAsync<(string PersonId, AccountRole Role)>(
                new CommandDefinition(
                    "select person_id, role from account_member where account_id = @accountId order by person_id for update",
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(member => member.PersonId, member => member.Role);
        if (!members.ContainsKey(personId))
        {
            throw new InvalidChangeException("personId", "They do not work on this account any more.");
        }

        if (
            role != AccountRole.Owner
            && !members.Any(member => member.Key != personId && member.Value == AccountRole.Owner)
        )
        {
            throw new InvalidChangeException("role", "An account needs an owner. Make somebody else an owner first.");
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                (
                    role is null
                        ? "delete from account_member where account_id = @accountId and person_id = @personId;"
                        : "update account_member set role = @role where account_id = @accountId and person_id = @personId;"
                ) + " delete from sign_in where person_id = @personId",
                new
                {
                    accountId,
                    personId,
                    role,
                },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }
}
