using Dapper;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>
/// The keys of items that are known by their content and that a row changes: of what the row says and what it leaves as it
/// was. Core makes them, as everywhere.
/// </summary>
internal static class MergedKeys
{
    private const int AtOnce = 5_000;

    public static async Task WriteAsync(
        NpgsqlConnection connection,
        ItemTable table,
        long intakeId,
        CancellationToken cancellation
    )
    {
        Field[] fields = [.. table.Type.Fields.Where(field => field.IsIdentity)];
        var select = $"""
            select r.row_number, r.cleared, {string.Join(
                ", ",
                fields.Select(field => $"r.{field.Column}")
            )}, {string.Join(", ", fields.Select(field => $"i.{field.Column}"))}
            from intake_row r join {table.Name} i on i.id = r.resolved
            where r.intake_id = @intakeId and r.kind = {table.Number} and r.row_number > @after order by r.row_number limit {AtOnce}
            """;
        for (var after = 0; ; )
        {
            var (rows, keys) = (new List<int>(), new List<string>());
            await using (
                var reader = await connection.ExecuteReaderAsync(
                    new CommandDefinition(select, new { intakeId, after }, cancellationToken: cancellation)
                )
            )
            {
                while (await reader.ReadAsync(cancellation))
                {
                    var cleared = reader.GetInt64(1);
                    var said = ItemReader.ReadValues(table.Type, reader, 2, fields);
                    var there = ItemReader.ReadValues(table.Type, reader, 2 + fields.Length, fields);
                    foreach (var field in fields)
                    {
                        if (said[field] is null && (!field.IsClearable || (cleared & Staging.BitOf(field)) == 0))
                        {
                            said[field] = there[field];
                        }
                    }

                    rows.Add(reader.GetInt32(0));
                    keys.Add(table.Type.ContentKeyOf(said));
                }
            }

            if (rows.Count == 0)
            {
                return;
            }

            await connection.ExecuteAsync(
                new CommandDefinition(
                    "update intake_row r set item_key = k.key from unnest(@rows, @keys) as k(row_number, key) where r.intake_id = @intakeId and r.row_number = k.row_number",
                    new
                    {
                        intakeId,
                        rows = rows.ToArray(),
                        keys = keys.ToArray(),
                    },
                    cancellationToken: cancellation
                )
            );
            after = rows[^1];
        }
    }
}
