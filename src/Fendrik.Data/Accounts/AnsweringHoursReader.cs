using Dapper;
using Fendrik.Core.Accounts;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>Reads when somebody takes the calls of an account.</summary>
public sealed class AnsweringHoursReader(NpgsqlDataSource source)
{
    /// <summary>The hours; none where nobody said.</summary>
    public async Task<WeekHours?> ReadAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await ReadAsync(connection, accountId, cancellation);
    }

    internal static async Task<WeekHours?> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        await connection.ExecuteScalarAsync<string?>(
            new CommandDefinition(
                "select answering_hours from account_item where account_id = @accountId and not removed",
                new { accountId },
                cancellationToken: cancellation
            )
        )
            is { } said
            ? WeekHours.Of(said)
            : null;
}
