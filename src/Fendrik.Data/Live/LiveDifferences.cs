using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
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
            new CommandDefinition(
                "select network_sequence from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>How many items differ that nobody has decided about.</summary>
    public async Task<int> CountAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await CountAsync(connection, accountId, cancellation);
    }

    private static Task<int> CountAsync(NpgsqlConnection connection, int accountId, CancellationToken cancellation) =>
        connection.ExecuteScalarAsync<int>(
            new CommandDefinition(
                "select count(*) from live_difference where account_id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );

    /// <summary>
    /// Writes down what changed on the network, and forgets what is no difference any more. What is there as both sides agreed on
    /// it, as the working copy has it, or as a publish sent it that has no answer yet, is nobody else's edit.
    /// </summary>
    /// <returns>How many items differ now.</returns>
    public async Task<int> RecordAsync(int accountId, NetworkItems changed, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(connection, accountId, new AccountWork(null, AccountDoing.Live), cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition("select set_config('fendrik.step', '0', true)", cancellationToken: cancellation)
        );

        if (changed.Items.Count == 0 && await CountAsync(connection, accountId, cancellation) == 0)
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "update account set live_read_at = @now where id = @accountId",
                    new { accountId, now = clock.GetUtcNow() },
                    cancellationToken: cancellation
                )
            );
            await transaction.CommitAsync(cancellation);
            return 0;
        }

        // What differed before is looked at again: an edit here may have made it the same.
        var kinds = await connection.QueryAsync<short>(
            new CommandDefinition(
                """
                create temp table theirs on commit drop as
                select kind, id, item::jsonb as item, version from unnest(@kinds, @ids, @items, @versions) as t(kind, id, item, version);
                insert into theirs select d.kind, d.item_id, d.theirs, d.version from live_difference d
                  where d.account_id = @accountId and not exists (select from theirs t where t.kind = d.kind and t.id = d.item_id);
                create temp table unanswered on commit drop as
                select q.kind, q.item_id as id, q.sent from publish p join publish_item q on q.publish_id = p.id
                where p.account_id = @accountId and p.state in (1, 3) and q.outcome = 0 and q.position < p.sent_up_to;
                analyze theirs;
                analyze unanswered;
                select distinct kind from theirs
                """,
                new
                {
                    accountId,
                    kinds = changed.Items.Select(item => (short)item.Kind).ToArray(),
                    ids = changed.Items.Select(item => item.ItemId).ToArray(),
                    items = changed.Items.Select(item => item.Item?.GetRawText()).ToArray(),
                    versions = changed.Items.Select(item => item.Version).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
        var settled = 0;
        foreach (var table in ItemTable.All.Where(table => kinds.Contains((short)table.Kind)))
        {
            settled += await connection.ExecuteScalarAsync<int>(
                new CommandDefinition(
                    OfKind(table),
                    new
                    {
                        accountId,
                        kind = (short)table.Kind,
                        now = clock.GetUtcNow(),
                    },
                    commandTimeout: 600,
                    cancellationToken: cancellation
                )
            );
        }

        var count = await connection.ExecuteScalarAsync<int>(
            new CommandDefinition(
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
                },
                cancellationToken: cancellation
            )
        );
        if (changed.Items.Count + settled > 0)
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "select account_moved(@accountId)",
                    new { accountId },
                    cancellationToken: cancellation
                )
            );
        }

        await transaction.CommitAsync(cancellation);
        return count;
    }

    /// <summary>
    /// What every account has one of goes by the network's name for it, where the account was there before: it is the same thing, and not another.
    /// </summary>
    public async Task AdoptAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(connection, accountId, new AccountWork(null, AccountDoing.Live), cancellation);
        foreach (var table in ItemTable.All.Where(table => !table.Type.ComesAndGoes))
        {
            await connection.ExecuteAsync(
                new CommandDefinition(
                    $"""
                    select set_config('fendrik.step', '0', true);
                    update {table.Name} i set id = d.item_id from live_difference d
                    where i.account_id = @accountId and d.account_id = @accountId and d.kind = {table.Number} and d.theirs is not null and d.item_id <> i.id
                    """,
                    new { accountId },
                    cancellationToken: cancellation
                )
            );
        }

        await transaction.CommitAsync(cancellation);
    }

    /// <summary>A reading may be older than what is known: an answer to a publish comes with the version that it made.</summary>
    private static string OfKind(ItemTable table)
    {
        var agreed = $"case when i.is_live then coalesce(i.live, {table.Published("i")}) end";
        var ours = $"case when not i.removed then {table.Published("i")} end";
        return $"""
            delete from theirs t using {table.Name} i where t.kind = @kind and i.id = t.id and i.account_id = @accountId
              and (t.version < i.live_version or t.version = i.live_version and not exists (
                select from live_difference d where d.account_id = @accountId and d.kind = @kind and d.item_id = t.id));
            create temp table known on commit drop as
            select t.id, t.item, t.version from theirs t join {table.Name} i on i.id = t.id and i.account_id = @accountId
            where t.kind = @kind and (
              {StorageSql.SameItem("t.item", agreed)} or (not i.removed or i.is_live) and {StorageSql.SameItem("t.item", ours)}
              or t.id in (select q.id from unanswered q join theirs s on s.kind = q.kind and s.id = q.id where q.kind = @kind and {StorageSql.SameItem(
                "s.item",
                "q.sent"
            )}));
            update {table.Name} i set is_live = t.item is not null, live_version = t.version,
              live = case when t.item is not null and (i.removed or not {StorageSql.SameItem(
                "t.item",
                table.Published("i")
            )}) then t.item end
            from known t where i.id = t.id and (i.is_live, i.live_version) is distinct from (t.item is not null, t.version);
            with gone as (delete from live_difference d using known t where d.account_id = @accountId and d.kind = @kind and d.item_id = t.id returning 1),
            found as (
              insert into live_difference (account_id, kind, item_id, agreed, theirs, version, found_at)
              select @accountId, @kind, t.id, {agreed}, t.item, t.version, @now
              from theirs t left join {table.Name} i on i.id = t.id and i.account_id = @accountId
              where t.kind = @kind and not exists (select from known k where k.id = t.id) and (i.id is not null or t.item is not null)
              on conflict (account_id, kind, item_id) do update set agreed = excluded.agreed, theirs = excluded.theirs, version = excluded.version
              where live_difference.version <= excluded.version)
            select count(*) from gone;
            drop table known
            """;
    }

    /// <summary>The items that differ, parents first.</summary>
    public async Task<IReadOnlyList<ThreeVersions>> ListAsync(int accountId, int most, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var versions = new List<ThreeVersions>();
        foreach (var table in ItemTable.All)
        {
            var rows = await connection.QueryAsync<(long Id, string? Agreed, string? Ours, string? Theirs)>(
                new CommandDefinition(
                    $"""
                select d.item_id, d.agreed::text, case when i.id is not null and not i.removed then {table.Published(
                    "i"
                )}::text end, d.theirs::text
                from live_difference d left join {table.Name} i on i.id = d.item_id and i.account_id = @accountId
                where d.account_id = @accountId and d.kind = {table.Number} order by d.item_id limit @most
                """,
                    new { accountId, most = most - versions.Count },
                    cancellationToken: cancellation
                )
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
