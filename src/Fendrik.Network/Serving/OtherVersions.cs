using System.Text.Json;
using Dapper;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>The items of a batch that are here in another version than the sender had seen.</summary>
internal sealed class OtherVersions
{
    private readonly Dictionary<(ItemKind, long), Row> _rows;

    private OtherVersions(Dictionary<(ItemKind, long), Row> rows) => _rows = rows;

    [method: ExplicitConstructor]
    private sealed record Row(short Kind, long Id, long Version, bool AsSent, string? Item);

    /// <summary>Looks for them with one query.</summary>
    public static async Task<OtherVersions> FindAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<NetworkChange> changes
    )
    {
        var held = changes.Where(change => change.Seen is not null).ToArray();
        if (held.Length == 0)
        {
            return new OtherVersions([]);
        }

        // A field that is missing and one that is none are the same.
        var rows = await connection.QueryAsync<Row>(
            """
            select s.kind, s.id, coalesce(i.version, g.version, 0) as version,
              jsonb_strip_nulls(i.item) is not distinct from jsonb_strip_nulls(s.item::jsonb) as as_sent, i.item::text as item
            from unnest(@kinds, @ids, @seen, @items) as s(kind, id, seen, item)
            left join lateral (select version, item from item i where i.account_id = @accountId and i.kind = s.kind and i.item_id = s.id offset 0) i on true
            left join lateral (select version from gone_item g where g.account_id = @accountId and g.kind = s.kind and g.item_id = s.id offset 0) g on i.version is null
            where coalesce(i.version, 0) <> s.seen
            """,
            new
            {
                accountId,
                kinds = held.Select(change => (short)change.Kind).ToArray(),
                ids = held.Select(change => change.ItemId).ToArray(),
                seen = held.Select(change => change.Seen!.Value).ToArray(),
                items = held.Select(change => change.Action == ChangeAction.Remove ? null : change.Item?.GetRawText())
                    .ToArray(),
            }
        );
        return new OtherVersions(rows.ToDictionary(row => ((ItemKind)row.Kind, row.Id)));
    }

    /// <summary>
    /// What is to be said of a change without carrying it out: that it was done already, when the item is just as it was sent, or
    /// that the item has changed since. None when it can be carried out.
    /// </summary>
    public NetworkAnswer? AnswerTo(NetworkChange change) =>
        !_rows.TryGetValue((change.Kind, change.ItemId), out var row) ? null
        : row.AsSent ? new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Accepted, Version: row.Version)
        : new NetworkAnswer(
            change.Kind,
            change.ItemId,
            NetworkVerdict.ChangedSince,
            "It was changed on the network since it was last read.",
            row.Version,
            row.Item is null ? null : JsonDocument.Parse(row.Item).RootElement
        );
}
