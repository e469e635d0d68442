using Dapper;
using Npgsql;

namespace Fendrik.Data.Checking;

/// <summary>What was found that lies in no single item.</summary>
internal static class AccountFindings
{
    /// <summary>Those of an account, the heaviest first.</summary>
    public static async Task<IReadOnlyList<AccountFinding>> ListAsync(
        NpgsqlConnection connection,
        int accountId,
        int most,
        string? code,
        CancellationToken cancellation
    ) =>
        [
            .. (
                await connection.QueryAsync<(
                    Weight Weight,
                    string Code,
                    string Message,
                    string Detail,
                    long? SearchId
                )>(
                    new CommandDefinition(
                        """
                        select weight, code, message, detail, saved_search_id from account_finding
                        where account_id = @accountId and (@code::text is null or code = @code) order by weight desc, saved_search_id nulls first limit @most
                        """,
                        new
                        {
                            accountId,
                            most,
                            code,
                        },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row => new AccountFinding(row.Weight, row.Code, row.Message, row.Detail, row.SearchId)),
        ];

    public static Task StoreAsync(
        NpgsqlConnection connection,
        int accountId,
        IReadOnlyCollection<AccountFinding> findings,
        CancellationToken cancellation
    ) =>
        connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into account_finding (account_id, weight, code, saved_search_id, message, detail)
                select @accountId, * from unnest(@weights, @codes, @searches, @messages, @details)
                """,
                new
                {
                    accountId,
                    weights = findings.Select(each => (short)each.Weight).ToArray(),
                    codes = findings.Select(each => each.Code).ToArray(),
                    searches = findings.Select(each => each.SavedSearchId).ToArray(),
                    messages = findings.Select(each => each.Message).ToArray(),
                    details = findings.Select(each => each.Detail).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
}
