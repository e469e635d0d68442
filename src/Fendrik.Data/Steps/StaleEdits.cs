using System.Text.Json;
using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>An item with the version that a person saw when making an edit.</summary>
public sealed record SeenItem(ItemKind Kind, long Id, long Version);

/// <summary>An item that somebody changed while another edited it.</summary>
/// <param name="Kind">Kind.</param>
/// <param name="Id">Identity.</param>
/// <param name="Person">Who changed it last.</param>
/// <param name="Label">What was done, in words.</param>
/// <param name="Before">Its fields as the other person saw them.</param>
/// <param name="Now">Its fields now; none when it was removed.</param>
/// <param name="Version">Its version now: with it, the edit can be made all the same.</param>
public sealed record StaleItem(
    ItemKind Kind,
    long Id,
    string Person,
    string Label,
    JsonElement? Before,
    JsonElement? Now,
    long Version
);

/// <summary>An edit made on rows that have moved on. Nothing was changed.</summary>
public sealed class StaleEditException(IReadOnlyList<StaleItem> items)
    : Exception("Someone else has changed this meanwhile. Look at both versions and choose.")
{
    public IReadOnlyList<StaleItem> Items { get; } = items;
}

/// <summary>Holds the versions that a person saw against those that are there.</summary>
internal static class StaleEdits
{
    /// <exception cref="StaleEditException">Some have moved on.</exception>
    public static async Task RefuseAsync(NpgsqlConnection connection, int accountId, IReadOnlyList<SeenItem> seen)
    {
        var stale = new List<StaleItem>();
        foreach (var group in seen.GroupBy(item => item.Kind))
        {
            var table = ItemTable.Of(group.Key);
            var rows = await connection.QueryAsync<(
                long Id,
                string Person,
                string Label,
                string? Before,
                string? Now,
                long Version
            )>(
                $"""
                select i.id, coalesce(p.display_name, 'Someone'), coalesce(s.label, ''),
                  (select {table.Everything(
                    "b"
                )}::text from {table.Before} b where b.id = i.id and b.step_id > v.version order by b.step_id limit 1),
                  case when not i.removed then {table.Everything("i")}::text end, i.changed_by
                from unnest(@ids, @versions) as v(id, version)
                join {table.Name} i on i.id = v.id and i.account_id = @accountId and i.changed_by <> v.version
                left join step s on s.id = i.changed_by left join "AspNetUsers" p on p.id = s.person_id
                limit 100
                """,
                new
                {
                    accountId,
                    ids = group.Select(item => item.Id).ToArray(),
                    versions = group.Select(item => item.Version).ToArray(),
                }
            );
            stale.AddRange(
                rows.Select(row => new StaleItem(
                    group.Key,
                    row.Id,
                    row.Person,
                    row.Label,
                    Parse(row.Before),
                    Parse(row.Now),
                    row.Version
                ))
            );
        }

        if (stale.Count > 0)
        {
            throw new StaleEditException(stale);
        }
    }

    private static JsonElement? Parse(string? json) => json is null ? null : JsonDocument.Parse(json).RootElement;
}
