using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>What a person was shown before saying yes.</summary>
/// <param name="AsOf">The newest step of the account when it was shown.</param>
/// <param name="Items">How many items were to change.</param>
public sealed record ShownPreview(long AsOf, int Items);

/// <summary>What was shown is no longer what would be done. Nothing was changed.</summary>
public sealed class PreviewMovedException(IReadOnlyList<string> names)
    : Exception(
        names.Count > 0
            ? $"Changed by somebody else meanwhile: {string.Join(", ", names.Take(5).Select(name => $"“{name}”"))}{(names.Count > 5 ? " and more" : "")}. Look again at what would be done."
            : "Somebody else changed the account meanwhile. Look again at what would be done."
    )
{
    /// <summary>The first of the items that moved.</summary>
    public IReadOnlyList<string> Names { get; } = names;
}

/// <summary>Holds what was done against what was shown, before it is kept.</summary>
internal static class ShownPreviews
{
    /// <exception cref="PreviewMovedException">Rows that the step touched were changed since, or others are to change.</exception>
    public static async Task RefuseMovedAsync(NpgsqlConnection connection, long stepId, int items, ShownPreview shown)
    {
        var names = new List<string>();
        foreach (var table in ItemTable.All)
        {
            names.AddRange(
                await connection.QueryAsync<string>(
                    $"""
                    select {table.NameColumn} from {table.Before} b join {table.Name} i on i.id = b.id
                    where b.step_id = @stepId and b.changed_by > @AsOf order by i.id limit 6
                    """,
                    new { stepId, shown.AsOf }
                )
            );
        }

        if (names.Count > 0 || items != shown.Items)
        {
            throw new PreviewMovedException(names);
        }
    }

    /// <exception cref="PreviewMovedException">Of what a publish would send, rows were changed since, or there are more than were shown.</exception>
    public static async Task RefuseUnseenAsync(
        NpgsqlConnection connection,
        long publishId,
        bool isMore,
        ShownPreview shown
    )
    {
        var names = new List<string>();
        foreach (var table in ItemTable.All)
        {
            names.AddRange(
                await connection.QueryAsync<string>(
                    $"""
                    select {table.NameColumn} from publish_item b join {table.Name} i on i.id = b.item_id
                    where b.publish_id = @publishId and b.kind = {table.Number} and i.changed_by > @AsOf order by i.id limit 6
                    """,
                    new { publishId, shown.AsOf }
                )
            );
        }

        if (names.Count > 0 || isMore)
        {
            throw new PreviewMovedException(names);
        }
    }
}
