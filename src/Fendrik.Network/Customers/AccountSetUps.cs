using Dapper;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Customers;

/// <summary>Makes accounts known to the network.</summary>
internal static class AccountSetUps
{
    /// <summary>Makes an account known; one that is known stays as it is.</summary>
    public static async Task MakeAsync(
        NetworkStore store,
        string accountId,
        AccountSetUp setUp,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        await connection.ExecuteAsync(
            """
            with made as (
              insert into account (id, network, currency, time_zone, seed, now, started_at) values (@accountId, @Network, @Currency, @TimeZone, @Seed, @StartAt, @StartAt)
              on conflict (id) do nothing returning id)
            insert into account_payer (account_id, since, payer) select id, @StartAt, @Payer from made
            """,
            new
            {
                accountId,
                setUp.Network,
                setUp.Currency,
                setUp.TimeZone,
                setUp.Seed,
                StartAt = setUp.StartAt.ToUniversalTime(),
                setUp.Payer,
            }
        );
    }
}
