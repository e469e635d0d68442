using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Live;

/// <summary>An item that somebody changed on the network itself, in its three versions.</summary>
/// <param name="Kind">Kind.</param>
/// <param name="Id">Identity.</param>
/// <param name="Agreed">Fields as both sides had them last; none when the item was not there.</param>
/// <param name="Ours">Fields in the working copy; none when removed or not there.</param>
/// <param name="Theirs">Fields on the network; none when it is gone there.</param>
public sealed record ThreeVersions(ItemKind Kind, long Id, JsonElement? Agreed, JsonElement? Ours, JsonElement? Theirs);

/// <summary>
/// What the network has that the working copy does not know of: read after every change there, kept until somebody
/// decides whose version holds. Until then the item is not published, so nothing of theirs is overwritten unseen.
/// </summary>
public sealed class LiveDifferences(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Number of the last change on the network that was read.</summary>
    public async Task<long> ReadUpToAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long>(
            "select network_sequence from account where id = @accountId",
            new { accountId }
        );
    }

    /// <summary>Writes down what changed on the network, and forgets what is no difference any more.</summary>
    /// <returns>How many items differ now.</returns>
    public async Task<int> RecordAsync(int accountId, NetworkItems changed, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync("select from account where id = @accountId for no key update", new { accountId });
        await connection.ExecuteAsync(
            """
            create temp table theirs on commit drop as
            select kind, id, item::jsonb as item from unnest(@kinds, @ids, @items) as t(kind, id, item)
            """,
            new
            {
                kinds = changed.Items.Select(item => (short)item.Kind).ToArray(),
                ids = changed.Items.Select(item => item.ItemId).ToArray(),
                items = changed.Items.Select(item => item.Item?.GetRawText()).ToArray(),
            }
        );
        foreach (var table in ItemTable.All)
        {
            // A field that is missing and one that is none are the same.
            await connection.ExecuteAsync(
                $"""
                delete from live_difference d using theirs t where d.account_id = @accountId and d.kind = @kind and t.kind = @kind and t.id = d.item_id;
                insert into live_difference (account_id, kind, item_id, agreed, theirs, found_at)
                select @accountId, @kind, t.id, known.agreed, t.item, @now
                from theirs t left join {table.Name} i on i.id = t.id and i.account_id = @accountId
                cross join lateral (select case when i.is_live then coalesce(i.live, {table.Published(
                    "i"
                )}) end as agreed) known
                where t.kind = @kind and jsonb_strip_nulls(t.item) is distinct from jsonb_strip_nulls(known.agreed)
                """,
                new
                {
                    accountId,
                    kind = (short)table.Kind,
                    now = clock.GetUtcNow(),
                }
            );
        }

        var count = await connection.ExecuteScalarAsync<int>(
            """
            update account set network_sequence = greatest(network_sequence, @Last), live_read_at = @now where id = @accountId;
            insert into check_due select @accountId, kind, id from theirs;
            select count(*) from live_difference where account_id = @accountId
            """,
            new
            {
                accountId,
                changed.Last,
                now = clock.GetUtcNow(),
            }
        );
        if (changed.Items.Count > 0)
        {
            await connection.ExecuteAsync("select account_moved(@accountId)", new { accountId });
        }

        await transaction.CommitAsync(cancellation);
        return count;
    }

    /// <summary>The items that differ, parents first.</summary>
    public async Task<IReadOnlyList<ThreeVersions>> ListAsync(int accountId, int most, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var versions = new List<ThreeVersions>();
        foreach (var table in ItemTable.All)
        {
            var rows = await connection.QueryAsync<(long Id, string? Agreed, string? Ours, string? Theirs)>(
                $"""
                select d.item_id, d.agreed::text, case when i.id is not null and not i.removed then {table.Published(
                    "i"
                )}::text end, d.theirs::text
                from live_difference d left join {table.Name} i on i.id = d.item_id and i.account_id = @accountId
                where d.account_id = @accountId and d.kind = {table.Number} order by d.item_id limit @most
                """,
                new { accountId, most = most - versions.Count }
            );
            versions.AddRange(
                rows.Select(row => new ThreeVersions(
                    table.Kind,
                    row.Id,
                    Parse(row.Agreed),
                    Parse(row.Ours),
                    Parse(row.Theirs)
                ))
            );
        }

        return versions;
    }

    private static JsonElement? Parse(string? json) => json is null ? null : JsonDocument.Parse(json).RootElement;
}
