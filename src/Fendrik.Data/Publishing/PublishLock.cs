using Dapper;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>Takes the account of a publish: locks are taken in one order everywhere, the account and then the rest.</summary>
internal static class PublishLock
{
    public static async Task TakeAsync(NpgsqlConnection connection, long publishId, CancellationToken cancellation)
    {
        var accountId = await connection.ExecuteScalarAsync<int>(
            new CommandDefinition(
                "select account_id from publish where id = @publishId",
                new { publishId },
                cancellationToken: cancellation
            )
        );
        await AccountLock.TakeAsync(connection, accountId, new AccountWork(null, AccountDoing.Publish), cancellation);
    }
}
