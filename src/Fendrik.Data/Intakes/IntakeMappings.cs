using System.Security.Cryptography;
using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>What a person said of the columns of a list, kept for the next list with the same headers.</summary>
internal static class IntakeMappings
{
    public static async Task<IReadOnlyList<string>?> FindAsync(
        NpgsqlConnection connection,
        int accountId,
        string[] headers
    )
    {
        var columns = await connection.QuerySingleOrDefaultAsync<string[]?>(
            "select columns from intake_mapping where account_id = @accountId and header_key = @key",
            new { accountId, key = KeyOf(headers) }
        );
        return columns?.Length == headers.Length ? columns : null;
    }

    public static async Task RememberAsync(
        NpgsqlConnection connection,
        int accountId,
        long intakeId,
        IReadOnlyList<string> columns,
        DateTimeOffset now
    )
    {
        var sample = await connection.ExecuteScalarAsync<string?>(
            "select (sample -> 0)::text from intake where id = @intakeId and account_id = @accountId and state in (1, 2)",
            new { intakeId, accountId }
        );
        if (
            sample is null
            || System.Text.Json.JsonSerializer.Deserialize<string[]>(sample) is not { } headers
            || headers.Length != columns.Count
        )
        {
            return;
        }

        await connection.ExecuteAsync(
            """
            insert into intake_mapping (account_id, header_key, columns, used_at) values (@accountId, @key, @columns, @now)
            on conflict (account_id, header_key) do update set columns = excluded.columns, used_at = excluded.used_at
            """,
            new
            {
                accountId,
                key = KeyOf(headers),
                columns = columns.ToArray(),
                now,
            }
        );
    }

    private static string KeyOf(string[] headers) =>
        Convert.ToHexStringLower(
            SHA256.HashData(Encoding.UTF8.GetBytes(TextIdentity.Of(headers.Select(IntakeRecords.WithoutControls))))
        );
}
