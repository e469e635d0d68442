using Dapper;
using Fendrik.Core.Accounts;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>When somebody takes the calls of an account.</summary>
/// <param name="ItemId">The item that says so: that of the account as a whole.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Hours">The hours; none where nobody said.</param>
public sealed record AnsweringHours(long ItemId, long Version, WeekHours? Hours);

/// <summary>Reads when somebody takes the calls of an account.</summary>
public sealed class AnsweringHoursReader(NpgsqlDataSource source)
{
    public async Task<AnsweringHours> ReadAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await ReadAsync(connection, accountId, cancellation);
    }

    internal static async Task<AnsweringHours> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    )
    {
        var (id, version, hours) = await connection.QuerySingleOrDefaultAsync<(long, long, string?)>(
            new CommandDefinition(
                "select id, changed_by, answering_hours from account_item where account_id = @accountId and not removed",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return new AnsweringHours(id, version, hours is null ? null : WeekHours.Of(hours));
    }
}
