using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>One item that differs from the live copy.</summary>
/// <param name="Kind">Kind.</param>
/// <param name="Id">Identity.</param>
/// <param name="Name">Name or text.</param>
/// <param name="Campaign">Its campaign, or its shared list.</param>
/// <param name="AdGroup">Its ad group, if any.</param>
/// <param name="Change">New, edited or removed.</param>
/// <param name="Before">Published fields as the network has them.</param>
/// <param name="After">Published fields as they would be.</param>
/// <param name="ReviewReason">Why the network refused it when it was sent last.</param>
/// <param name="IsHeld">True when it is held back from publishing.</param>
/// <param name="ChangedBy">The step that changed it last.</param>
public sealed record PendingChange(
    ItemKind Kind,
    long Id,
    string Name,
    string? Campaign,
    string? AdGroup,
    RowChange Change,
    JsonElement? Before,
    JsonElement? After,
    string? ReviewReason,
    bool IsHeld,
    long ChangedBy
);

/// <summary>What a publish would do with what differs.</summary>
/// <param name="GoesOut">Items that it would send.</param>
/// <param name="Held">Items that are held back.</param>
public sealed record PendingOutlook(long GoesOut, long Held);

/// <summary>Number of items of a kind that differ, by how.</summary>
public sealed record PendingCount(ItemKind Kind, RowChange Change, long Count);

/// <summary>What differs between the working copy and the live copy. Costs what differs, not what there is.</summary>
public sealed class PendingChanges(NpgsqlDataSource source)
{
    public async Task<IReadOnlyList<PendingCount>> CountAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var counts = await connection.QueryAsync<(short Kind, int Change, long Count)>(
            new CommandDefinition(
                string.Join(
                    " union all ",
                    ItemTable.All.Select(table =>
                        $"""
                            select {table.Number}::smallint, {table.ChangeOfRow}, count(*) from {table.Name} i
                            where i.account_id = @accountId and {table.TrulyPending} group by 2
                            """
                    )
                ),
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. counts.Select(count => new PendingCount((ItemKind)count.Kind, (RowChange)count.Change, count.Count)),
        ];
    }

    /// <summary>The newest step of the account.</summary>
    public async Task<long> AsOfAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                "select last_step_id from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>How many of them a publish would send as things stand, and how many are held back.</summary>
    public async Task<PendingOutlook> OutlookAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var held = await HeldChanges.AnyAsync(connection, accountId, cancellation);
        var (goes, stays) = await connection.QuerySingleAsync<(long, long)>(
            new CommandDefinition(
                $"""
                select coalesce(sum(goes), 0)::bigint, coalesce(sum(held), 0)::bigint from ({string.Join(
                    " union all ",
                    ItemTable.All.Select(table =>
                        $"select count(*) filter (where {PublishRecords.GoesOut(table, part: false, held)}) as goes, {(held ? $"count(*) filter (where {HeldChanges.Holds(table)})" : "0")} as held from {table.Name} i where i.account_id = @accountId and {table.TrulyPending}"
                    )
                )}) counted
                """,
                new { accountId },
                commandTimeout: 600,
                cancellationToken: cancellation
            )
        );
        return new PendingOutlook(goes, stays);
    }

    public async Task<IReadOnlyList<PendingChange>> ListAsync(
        int accountId,
        int offset,
        int limit,
        CancellationToken cancellation,
        IReadOnlyList<ItemReference>? only = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var held = await HeldChanges.AnyAsync(connection, accountId, cancellation);
        var changes = new List<PendingChange>();
        var kept = only?.ToLookup(item => item.Kind, item => item.Id);
        foreach (var table in ItemTable.All)
        {
            var from = SheetPlaces.Tables(table, SheetJoins.AdGroup | SheetJoins.Campaign);
            var ids = kept?[table.Kind].ToArray();
            const string Kept = "(@ids::bigint[] is null or i.id = any(@ids))";
            var total = await connection.ExecuteScalarAsync<int>(
                new CommandDefinition(
                    $"select count(*) from {table.Name} i where i.account_id = @accountId and {Kept} and {table.TrulyPending}",
                    new { accountId, ids },
                    cancellationToken: cancellation
                )
            );
            if (offset < total && changes.Count < limit)
            {
                var rows = await connection.QueryAsync<(
                    long Id,
                    string Name,
                    string? Campaign,
                    string? AdGroup,
                    int Change,
                    string? Before,
                    string? After,
                    string? Reason,
                    bool IsHeld,
                    long ChangedBy
                )>(
                    new CommandDefinition(
                        $"""
                    select i.id, {table.NameColumn}, {CampaignOf(table)}, {SheetPlaces.NameOf(
                        table,
                        Level.AdGroup,
                        key: false
                    ) ?? "null::text"}, {table.ChangeOfRow},
                      case when i.is_live then coalesce(i.live, {table.Published("i")})::text end,
                      case when not i.removed then {table.Published("i")}::text end,
                      case when i.review = 3 then i.review_reason end, {(held ? HeldChanges.Holds(table) : "false")}, i.changed_by
                    from {from} where i.account_id = @accountId and {Kept} and {table.TrulyPending} order by i.id offset @offset limit @limit
                    """,
                        new
                        {
                            accountId,
                            ids,
                            offset,
                            limit = limit - changes.Count,
                        },
                        cancellationToken: cancellation
                    )
                );
                changes.AddRange(
                    rows.Select(row => new PendingChange(
                        table.Kind,
                        row.Id,
                        row.Name,
                        row.Campaign,
                        row.AdGroup,
                        (RowChange)row.Change,
                        Parse(row.Before),
                        Parse(row.After),
                        row.Reason,
                        row.IsHeld,
                        row.ChangedBy
                    ))
                );
            }

            offset = Math.Max(0, offset - total);
        }

        return changes;
    }

    /// <summary>The campaign, or the list where that is what the item is in.</summary>
    private static string CampaignOf(ItemTable table)
    {
        var campaign = SheetPlaces.NameOf(table, Level.Campaign, key: false);
        var list = SheetPlaces.NameOf(table, Level.List, key: false);
        return campaign is null ? list ?? "null::text"
            : list is null ? campaign
            : $"coalesce({campaign}, {list})";
    }

    private static JsonElement? Parse(string? json) => json is null ? null : JsonDocument.Parse(json).RootElement;
}
