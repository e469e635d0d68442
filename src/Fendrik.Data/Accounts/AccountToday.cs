using Dapper;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>The day that an account is in: that of the network's clock when it was last read; before that, today.</summary>
public sealed class AccountToday(NpgsqlDataSource source)
{
    /// <summary>The day in the account's time zone.</summary>
    public async Task<DateOnly> ReadAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await ReadAsync(connection, accountId, cancellation);
    }

    internal static Task<DateOnly> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        connection.ExecuteScalarAsync<DateOnly>(
            new CommandDefinition(
                "select (coalesce(network_now, now()) at time zone time_zone)::date from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );

    /// <summary>The clock on the account's wall.</summary>
    public async Task<DateTime> ClockAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<DateTime>(
            new CommandDefinition(
                "select coalesce(network_now, now()) at time zone time_zone from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The minute of that day, on the account's clock.</summary>
    internal static Task<int> MinuteAsync(NpgsqlConnection connection, int accountId, CancellationToken cancellation) =>
        connection.ExecuteScalarAsync<int>(
            new CommandDefinition(
                "select floor(extract(epoch from (coalesce(network_now, now()) at time zone time_zone)::time) / 60)::int from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
}
