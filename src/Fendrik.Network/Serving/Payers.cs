using Dapper;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Who pays an account, from when on. What nobody pays for is reviewed as ever, but does not serve.</summary>
internal static class Payers
{
    /// <summary>Who pays at a moment; none when nobody does.</summary>
    /// <param name="connection">To the network's database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="moment">The moment; none for now.</param>
    public static Task<string?> AtAsync(NpgsqlConnection connection, string accountId, DateTimeOffset? moment = null) =>
        connection.QuerySingleOrDefaultAsync<string?>(
            "select payer from account_payer where account_id = @accountId and (@moment::timestamptz is null or since <= @moment) order by since desc, version desc limit 1",
            new { accountId, moment }
        );

    /// <summary>Somebody else pays from now on, or nobody. Who is named again stays.</summary>
    public static async Task SetAsync(NpgsqlConnection connection, NetworkAccount account, string? payer)
    {
        if (await AtAsync(connection, account.Id) != payer)
        {
            await connection.ExecuteAsync(
                "insert into account_payer (account_id, since, payer) values (@Id, @Clock, @payer)",
                new
                {
                    account.Id,
                    account.Clock,
                    payer,
                }
            );
        }
    }
}
