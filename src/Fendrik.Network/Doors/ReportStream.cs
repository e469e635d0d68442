using System.Runtime.CompilerServices;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>Days of an account that are asked for.</summary>
/// <param name="AccountId">The account.</param>
/// <param name="First">First day in the account's time zone.</param>
/// <param name="Last">Last day.</param>
/// <param name="Store">The network's database.</param>
internal readonly record struct AskedDays(string AccountId, DateOnly First, DateOnly Last, NetworkStore Store);

/// <summary>Reads a report row by row, as far as the network's clock knows it.</summary>
internal static class ReportStream
{
    /// <summary>Rows as they are read.</summary>
    public static IAsyncEnumerable<T> ReadAsync<T>(AskedDays days, string sql, CancellationToken cancellation) =>
        ReadAsync<T, T>(days, sql, (row, _) => row, cancellation);

    /// <summary>Rows as they are told of; nothing of an account that is not known.</summary>
    /// <param name="days">What is asked for.</param>
    /// <param name="sql">The rows, by <c>@accountId</c>, <c>@first</c>, <c>@last</c>, <c>@now</c> and <c>@unit</c>.</param>
    /// <param name="told">How a row of the account is told.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public static async IAsyncEnumerable<TTold> ReadAsync<TRow, TTold>(
        AskedDays days,
        string sql,
        Func<TRow, NetworkAccount, TTold> told,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        await using var connection = await days.Store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, days.AccountId) is not { } account)
        {
            yield break;
        }

        var rows = connection.QueryUnbufferedAsync<TRow>(
            sql,
            new
            {
                accountId = days.AccountId,
                first = days.First,
                last = days.Last,
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
