using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>What a person said of the columns of a list, kept for the next list with the same headers.</summary>
internal static class IntakeMappings
{
    public static async Task<IReadOnlyList<IntakeField>?> FindAsync(
        NpgsqlConnection connection,
        int accountId,
        string[] headers
    )
    {
        var fields = await connection.QuerySingleOrDefaultAsync<int[]?>(
            "select fields from intake_mapping where account_id = @accountId and header_key = @key",
            new { accountId, key = KeyOf(headers) }
        );
        return fields?.Length == headers.Length ? [.. fields.Select(field => (IntakeField)field)] : null;
    }

    public static async Task RememberAsync(
        NpgsqlConnection connection,
        int accountId,
        long intakeId,
        IReadOnlyList<IntakeField> fields,
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
            || headers.Length != fields.Count
        )
        {
            return;
        }

        await connection.ExecuteAsync(
            """
            insert into intake_mapping (account_id, header_key, fields, used_at) values (@accountId, @key, @fields, @now)
            on conflict (account_id, header_key) do update set fields = excluded.fields, used_at = excluded.used_at
            """,
            new
            {
                accountId,
                key = KeyOf(headers),
                fields = fields.Select(field => (int)field).ToArray(),
                now,
            }
        );
    }

    private static string KeyOf(string[] headers) =>
        Texts.Hash(TextIdentity.Of(headers.Select(IntakeRecords.WithoutControls)));
}
