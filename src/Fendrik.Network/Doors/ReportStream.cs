using System.Runtime.CompilerServices;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>Reads a report row by row, as far as the network's clock knows it.</summary>
internal static class ReportStream
{
    /// <summary>Rows as they are read.</summary>
    public static IAsyncEnumerable<T> ReadAsync<T>(
        NetworkStore store,
        string accountId,
        DateOnly first,
        DateOnly last,
        string sql,
        CancellationToken cancellation
    ) => ReadAsync<T, T>(store, accountId, first, last, sql, (row, _) => row, cancellation);

    /// <summary>Rows as they are told of; nothing of an account that is not known.</summary>
    /// <param name="store">The network's database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="first">First day.</param>
    /// <param name="last">Last day.</param>
    /// <param name="sql">The rows, by <c>@accountId</c>, <c>@first</c>, <c>@last</c>, <c>@now</c> and <c>@unit</c>.</param>
    /// <param name="told">How a row of the account is told.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public static async IAsyncEnumerable<TTold> ReadAsync<TRow, TTold>(
        NetworkStore store,
        string accountId,
        DateOnly first,
        DateOnly last,
        string sql,
        Func<TRow, NetworkAccount, TTold> told,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            yield break;
        }

        var rows = connection.QueryUnbufferedAsync<TRow>(
            sql,
            new
            {
                accountId,
                first,
                last,
                now = account.Clock,
                unit = Currency.Of(account.Currency).FromMinor(1),
            }
        );
        await foreach (var row in rows.WithCancellation(cancellation))
        {
            yield return told(row, account);
        }
    }
}
