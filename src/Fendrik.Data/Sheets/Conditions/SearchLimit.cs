using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Sheets.Conditions;

/// <summary>Holds filters with regular expressions to a time.</summary>
internal static class SearchLimit
{
    /// <summary>Longest time that a regular expression may keep the database busy.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);

    private static async Task EndAsync(NpgsqlConnection connection)
    {
        try
        {
            await connection.ExecuteAsync("set statement_timeout = 0");
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.InFailedSqlTransaction)
        {
            // Within a transaction that failed, the limit goes with it.
        }
    }

    /// <summary>Regular expressions come from people: one that runs for ever is stopped, and said.</summary>
    public static async Task<T> RunAsync<T>(NpgsqlConnection connection, SheetRequest request, Func<Task<T>> read)
    {
        if (!request.Conditions.Any(ConditionSql.IsExpression))
        {
            return await read();
        }

        await connection.ExecuteAsync($"set statement_timeout = {(int)Longest.TotalMilliseconds}");
        try
        {
            return await read();
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.QueryCanceled)
        {
            throw new InvalidChangeException(
                "conditions",
                "The regular expression takes too long. Make it simpler, or narrow the rows by another condition first."
            );
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.InvalidRegularExpression)
        {
            throw new InvalidChangeException(
                "conditions",
                "The regular expression cannot be searched for: look-around and named groups are not understood in filters."
            );
        }
        finally
        {
            await EndAsync(connection);
        }
    }
}
