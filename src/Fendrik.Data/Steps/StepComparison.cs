using System.Text.Json;
using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>What differs between two moments of the working copy.</summary>
/// <param name="Total">Number of items that differ.</param>
/// <param name="Changes">The first of them, before and after.</param>
public sealed record StepComparison(int Total, IReadOnlyList<ItemChange> Changes)
{
    internal static async Task<StepComparison> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        long from,
        long to,
        int most
    )
    {
        var total = 0;
        var changes = new List<ItemChange>();
        foreach (var table in ItemTable.All)
        {
            var rows = (
                await connection.QueryAsync<(long Id, string? Before, string? After, int All)>(
                    $"""
                    select id, before::text, after::text, (count(*) over ())::int from (
                      select i.id, {StateAt(table, "@from")} as before, {StateAt(table, "@to")} as after from (
                        select distinct b.id from {table.Before} b where b.account_id = @accountId and b.step_id > @from and b.step_id <= @to
                        union
                        select i.id from step_insertion s join step t on t.id = s.step_id and t.account_id = @accountId
                        join {table.Name} i on i.id between s.first_id and s.last_id and i.account_id = @accountId
                        where s.kind = {table.Number} and s.step_id > @from and s.step_id <= @to) touched
                      join {table.Name} i on i.id = touched.id) states
                    where before is distinct from after order by id limit @most
                    """,
                    new
                    {
                        accountId,
                        from,
                        to,
                        most = Math.Max(1, most - changes.Count),
                    },
                    commandTimeout: 120
                )
            ).ToArray();
            total += rows.Length == 0 ? 0 : rows[0].All;
            changes.AddRange(
                rows.Take(most - changes.Count)
                    .Select(row => new ItemChange(table.Kind, row.Id, Parse(row.Before), Parse(row.After)))
            );
        }

        return new StepComparison(total, changes);
    }

    /// <summary>The fields of row <c>i</c> right after a step; none when it was not there.</summary>
    private static string StateAt(ItemTable table, string step) =>
        $"""
            case when exists (select from step_insertion s where s.kind = {table.Number} and i.id between s.first_id and s.last_id and s.step_id > {step}) then null
              else (select state from (
                (select n.step_id, case when not n.removed then {table.Everything(
                "n"
            )} end as state from {table.Before} n where n.id = i.id and n.step_id > {step} order by n.step_id limit 1)
                union all select 9223372036854775807, case when not i.removed then {table.Everything(
                "i"
            )} end) next order by step_id limit 1) end
            """;

    private static JsonElement? Parse(string? json) => json is null ? null : JsonDocument.Parse(json).RootElement;
}
