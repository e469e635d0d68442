using System.Text.Json;
using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>One item before and after a step.</summary>
/// <param name="Kind">Kind.</param>
/// <param name="Id">Identity.</param>
/// <param name="Before">Its fields before; none for an item that the step made.</param>
/// <param name="After">Its fields after; none for an item that the step removed.</param>
/// <param name="Place">What it stands in; none where that was not asked for.</param>
/// <param name="Original">What it was copied of, as that is; none for what is no copy, and once the step is done.</param>
public sealed record ItemChange(
    ItemKind Kind,
    long Id,
    JsonElement? Before,
    JsonElement? After,
    ItemPlaceNames? Place = null,
    JsonElement? Original = null
);

/// <summary>Names of what an item stands in.</summary>
public sealed record ItemPlaceNames
{
    public long Id { get; init; }
    public string? Campaign { get; init; }
    public string? AdGroup { get; init; }
    public string? List { get; init; }
}

/// <summary>Reads what a step changed, from the rows as they were.</summary>
public static class StepChanges
{
    public static async Task<IReadOnlyList<ItemChange>> ReadAsync(
        NpgsqlConnection connection,
        long stepId,
        int most,
        bool newest
    )
    {
        var changes = new List<ItemChange>();
        // Most steps touch one kind or two: which, is asked once, and the others are left alone.
        var touched = (await connection.QueryAsync<short>(Touched, new { stepId })).ToHashSet();
        foreach (var table in ItemTable.All.Where(table => touched.Contains((short)table.Kind)))
        {
            if (changes.Count >= most)
            {
                break;
            }

            var sql = newest ? Newest(table) : Later(table);
            var rows = (
                await connection.QueryAsync<(long Id, string? Before, string? After)>(
                    sql,
                    new
                    {
                        stepId,
                        kind = (short)table.Kind,
                        most = most - changes.Count,
                    }
                )
            ).ToArray();
            var places = await PlacesAsync(connection, table, [.. rows.Select(row => row.Id)]);
            changes.AddRange(
                rows.Select(row => new ItemChange(
                    table.Kind,
                    row.Id,
                    Parse(row.Before),
                    Parse(row.After),
                    places.GetValueOrDefault(row.Id)
                ))
            );
        }

        return changes;
    }

    /// <summary>The same changes, copies with what they were copied of. Within the step alone is that known.</summary>
    internal static async Task<IReadOnlyList<ItemChange>> WithOriginalsAsync(
        StepContext context,
        IReadOnlyList<ItemChange> changes
    )
    {
        var originals = new Dictionary<(ItemKind, long), JsonElement?>();
        foreach (var (kind, pairs) in context.Copied)
        {
            var table = ItemTable.Of(kind);
            var rows = await context.QueryAsync<(long Id, string Item)>(
                $"select e.new_id, {table.Everything("i")}::text from {pairs} e join {table.Name} i on i.id = e.source_id where e.new_id = any(@ids)",
                new { ids = changes.Where(each => each.Kind == table.Kind).Select(each => each.Id).ToArray() }
            );
            foreach (var (id, item) in rows)
            {
                originals.Add((table.Kind, id), Parse(item));
            }
        }

        return originals.Count == 0
            ? changes
            : [.. changes.Select(each => each with { Original = originals.GetValueOrDefault((each.Kind, each.Id)) })];
    }

    /// <summary>What items of a kind stand in.</summary>
    internal static async Task<Dictionary<long, ItemPlaceNames>> PlacesAsync(
        NpgsqlConnection connection,
        ItemTable table,
        long[] ids
    )
    {
        if (ids.Length == 0)
        {
            return [];
        }

        string Name(Level level, string sql) =>
            table.Parents.FirstOrDefault(parent => parent.Level == level) is { } parent
                ? sql.Replace("@parent", $"i.{parent.Column}", StringComparison.Ordinal)
                : "null::text";
        var ofGroup = Name(
            Level.AdGroup,
            "(select c.name from ad_group g join campaign c on c.id = g.campaign_id where g.id = @parent)"
        );
        var places = await connection.QueryAsync<ItemPlaceNames>(
            $"""
            select i.id, coalesce({Name(
                Level.Campaign,
                "(select c.name from campaign c where c.id = @parent)"
            )}, {ofGroup}) as campaign,
              {Name(Level.AdGroup, "(select g.name from ad_group g where g.id = @parent)")} as ad_group,
              {Name(Level.List, "(select l.name from negative_list l where l.id = @parent)")} as list
            from {table.Name} i where i.id = any(@ids)
            """,
            new { ids }
        );
        return places.ToDictionary(place => place.Id);
    }

    /// <summary>The kinds of which a step made, changed or removed anything.</summary>
    private static string Touched =>
        "select kind from step_insertion where step_id = @stepId"
        + string.Concat(
            ItemTable.All.Select(table =>
                $" union select {table.Number}::smallint where exists (select from {table.Before} where step_id = @stepId)"
            )
        );

    /// <summary>After the newest step, rows are as they are.</summary>
    private static string Newest(ItemTable table) =>
        $"""
            select * from (
              select i.id, case when not b.removed then {table.Everything("b")}::text end as before,
                case when not i.removed then {table.Everything("i")}::text end as after
              from {table.Before} b join {table.Name} i on i.id = b.id where b.step_id = @stepId
              union all
              select i.id, null, case when not i.removed then {table.Everything("i")}::text end
              from step_insertion s join {table.Name} i on i.id between s.first_id and s.last_id
              where s.step_id = @stepId and s.kind = @kind
            ) changes where before is distinct from after order by id limit @most
            """;

    /// <summary>After an older step, a row is as the next step that touched it found it.</summary>
    private static string Later(ItemTable table) =>
        $"""
            select * from (
              select i.id, case when not b.removed then {table.Everything("b")}::text end as before, {AfterOf(
                table
            )} as after
              from {table.Before} b join {table.Name} i on i.id = b.id where b.step_id = @stepId
              union all
              select i.id, null, {AfterOf(table)}
              from step_insertion s join {table.Name} i on i.id between s.first_id and s.last_id
              where s.step_id = @stepId and s.kind = @kind
            ) changes where before is distinct from after order by id limit @most
            """;

    private static string AfterOf(ItemTable table) =>
        $"""
            nullif(coalesce(
              (select case when n.removed then 'gone' else {table.Everything("n")}::text end from {table.Before} n
               where n.id = i.id and n.step_id > @stepId order by n.step_id limit 1),
              case when i.removed then 'gone' else {table.Everything("i")}::text end), 'gone')
            """;

    private static JsonElement? Parse(string? json) => json is null ? null : JsonDocument.Parse(json).RootElement;
}
