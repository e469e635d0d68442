using Dapper;
using Npgsql;

namespace Fendrik.Data.People;

/// <summary>What a person shows besides the password.</summary>
/// <param name="Secret">What their device was given, protected.</param>
/// <param name="Confirmed">True once a code of the device was right: from then on it is asked for.</param>
/// <param name="UsedStep">The last time step that was used.</param>
[method: ExplicitConstructor]
public sealed record KeptFactor(byte[] Secret, bool Confirmed, long? UsedStep);

/// <summary>Keeps second factors, and the codes for whoever has lost the device. Each code of either kind holds once.</summary>
public sealed class FactorBook(NpgsqlDataSource source)
{
    /// <summary>The second factor of a person; none where there is none.</summary>
    public async Task<KeptFactor?> FindAsync(string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<KeptFactor>(
            new CommandDefinition(
                "select secret, confirmed, used_step from second_factor where person_id = @personId",
                new { personId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>How many recovery codes are left.</summary>
    public async Task<int> RecoveryLeftAsync(string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<int>(
            new CommandDefinition(
                "select count(*)::int from recovery_code where person_id = @personId",
                new { personId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Keeps a secret that is to be confirmed. One that was confirmed stays.</summary>
    /// <returns>False where one was.</returns>
    public Task<bool> BeginAsync(string personId, byte[] secret, CancellationToken cancellation) =>
        DoneAsync(
            """
            insert into second_factor (person_id, secret) values (@personId, @secret)
            on conflict (person_id) do update set secret = excluded.secret, used_step = null where not second_factor.confirmed
            """,
            new { personId, secret },
            cancellation
        );

    /// <summary>Marks a time step as used, and its secret as confirmed.</summary>
    /// <returns>False where it was used already, by whoever was faster.</returns>
    public Task<bool> UseAsync(string personId, long step, CancellationToken cancellation) =>
        DoneAsync(
            "update second_factor set used_step = @step, confirmed = true where person_id = @personId and (used_step is null or used_step < @step)",
            new { personId, step },
            cancellation
        );

    /// <summary>Uses up a recovery code.</summary>
    /// <returns>False where there is no such code any more.</returns>
    public Task<bool> UseRecoveryAsync(string personId, byte[] codeHash, CancellationToken cancellation) =>
        DoneAsync(
            "delete from recovery_code where person_id = @personId and code_hash = @codeHash",
            new { personId, codeHash },
            cancellation
        );

    /// <summary>Keeps recovery codes in place of those of before.</summary>
    public Task<bool> RenewRecoveryAsync(string personId, byte[][] codeHashes, CancellationToken cancellation) =>
        DoneAsync(
            """
            with gone as (delete from recovery_code where person_id = @personId)
            insert into recovery_code (person_id, code_hash) select @personId, unnest(@codeHashes)
            """,
            new { personId, codeHashes },
            cancellation
        );

    /// <summary>From now on the password alone is asked for.</summary>
    public Task<bool> RemoveAsync(string personId, CancellationToken cancellation) =>
        DoneAsync(
            "with gone as (delete from recovery_code where person_id = @personId) delete from second_factor where person_id = @personId",
            new { personId },
            cancellation
        );

    private async Task<bool> DoneAsync(string sql, object parameters, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(new CommandDefinition(sql, parameters, cancellationToken: cancellation))
            > 0;
    }
}
