using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Lists;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Live;

/// <summary>
/// Decides whose version of items holds that were changed on the network: theirs comes into the working copy, or ours
/// stays and differs from theirs until it is published.
/// </summary>
/// <param name="Items">The items; all that differ when none are named.</param>
/// <param name="TakeTheirs">Whose version holds.</param>
public sealed record DecideLive(IReadOnlyList<ItemReference> Items, bool TakeTheirs) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var parameters = new
        {
            account = context.Account.Id,
            all = Items.Count == 0,
            kinds = Items.Select(item => (short)item.Kind).ToArray(),
            ids = Items.Select(item => item.Id).ToArray(),
        };
        var decided = await context.ExecuteAsync(
            """
            create temp table decided on commit drop as
            select d.kind, d.item_id as id, d.theirs, d.version, ''::text as key from live_difference d
            where d.account_id = @account and (@all or exists (select from unnest(@kinds, @ids) as w(kind, id) where w.kind = d.kind and w.id = d.item_id));
            delete from live_difference d using decided w where d.account_id = @account and d.kind = w.kind and d.item_id = w.id
            """,
            parameters
        );
        if (decided == 0)
        {
            throw new InvalidChangeException("items", "These are decided already. Read the live copy again.");
        }

        var items = TakeTheirs ? await TakeAsync(context) : await KeepAsync(context);
        return new StepOutcome(
            TakeTheirs
                ? $"Take the network’s version of {ItemTypes.Count(items, [])}"
                : $"Keep our version of {ItemTypes.Count(items, [])}",
            items
        );
    }

    /// <summary>Ours stays: what theirs is becomes what ours is compared with.</summary>
    private static async Task<int> KeepAsync(StepContext context)
    {
        var items = 0;
        foreach (var table in ItemTable.All)
        {
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set is_live = d.theirs is not null, live = d.theirs, live_version = nullif(d.version, 0), {ItemTable.Version}
                from decided d where d.kind = {table.Number} and d.id = i.id and i.account_id = @account
                """,
                new { account = context.Account.Id }
            );
        }

        // What they made and we do not want stays there: it is known only once it is taken.
        return items;
    }

    /// <summary>
    /// Theirs comes into the working copy, by the table <c>decided</c>: with what it stands in where that was removed here, and
    /// nothing stays in what goes.
    /// </summary>
    internal static async Task<int> TakeAsync(StepContext context)
    {
        var items = 0;
        foreach (var table in ItemTable.All.Reverse())
        {
            foreach (var parent in table.Parents)
            {
                await context.ExecuteAsync(BringParent(table, parent), new { account = context.Account.Id });
            }
        }

        await WriteKeysAsync(context);
        foreach (var table in ItemTable.All)
        {
            var columns = ColumnsOf(table);
            var own = table.EditableColumns.Where(columns.ContainsKey).ToArray();
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set removed = true, is_live = false, live = null, live_version = nullif(d.version, 0), {ItemTable.Version}
                from decided d where d.kind = {table.Number} and d.id = i.id and i.account_id = @account and d.theirs is null and (not i.removed or i.is_live)
                """,
                new { account = context.Account.Id }
            );
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set {string.Concat(
                    own.Select(column => $"{column} = {columns[column]}, ")
                )}removed = false, is_live = true, live = null, live_version = nullif(d.version, 0), {ItemTable.Version}
                from decided d where d.kind = {table.Number} and d.id = i.id and i.account_id = @account and d.theirs is not null
                """,
                new { account = context.Account.Id }
            );
            // What the network never sees begins as it does in any new item.
            foreach (var field in table.Type.Fields.Where(field => !field.IsPublished))
            {
                if (field.Default is short number)
                {
                    columns[field.Column] = $"{number}::smallint";
                }
            }

            var all = columns.Keys.ToArray();
            items += await context.ExecuteAsync(
                $"""
                insert into {table.Name} (id, account_id, removed, is_live, live_version, review{string.Concat(
                    all.Select(column => $", {column}")
                )})
                select d.id, @account, false, true, nullif(d.version, 0), 0{string.Concat(all.Select(column => $", {columns[column]}"))}
                from decided d where d.kind = {table.Number} and d.theirs is not null and not exists (select from {table.Name} i where i.id = d.id)
                """,
                new { account = context.Account.Id }
            );
        }

        foreach (var table in ItemTable.All)
        {
            foreach (var parent in table.Parents)
            {
                items += await context.ExecuteAsync(
                    RemoveLeft(table, parent),
                    new { account = context.Account.Id, step = context.StepId }
                );
            }
        }

        return items;
    }

    /// <summary>What they have stands in something that they have: where it was removed here, it comes back as it is there.</summary>
    private static string BringParent(ItemTable table, ParentColumn parent)
    {
        var holder = ItemTable.Of(parent.Holder.Kind);
        return $"""
            insert into decided (kind, id, theirs, version, key)
            select distinct {holder.Number}::smallint, p.id, coalesce(p.live, {holder.Published(
                "p"
            )}), coalesce(p.live_version, 0), ''
            from decided d join {holder.Name} p on p.id = (d.theirs->>'{parent.Json}')::bigint and p.account_id = @account and p.removed and p.is_live
            where d.kind = {table.Number} and d.theirs is not null
              and not exists (select from decided o where o.kind = {holder.Number} and o.id = p.id)
              and not exists (select from live_difference o where o.account_id = @account and o.kind = {holder.Number} and o.item_id = p.id)
            """;
    }

    private static string RemoveLeft(ItemTable table, ParentColumn parent)
    {
        var holder = ItemTable.Of(parent.Holder.Kind);
        return $"""
            update {table.Name} i set removed = true, {table.KeepLive}
            from {holder.Name} p where p.id = i.{parent.Column} and p.removed and i.account_id = @account and not i.removed
              and (p.id in (select id from {holder.Before} where step_id = @step) or exists (select from decided d where d.kind = {table.Number} and d.id = i.id))
            """;
    }

    /// <summary>The normalised texts by which items are the same are Core's to make.</summary>
    private static async Task WriteKeysAsync(StepContext context)
    {
        var rows = (
            await context.QueryAsync<(short Kind, long Id, string Item)>(
                "select kind, id, theirs::text from decided where theirs is not null"
            )
        ).ToArray();
        await context.ExecuteAsync(
            "update decided d set key = k.key from unnest(@kinds, @ids, @keys) as k(kind, id, key) where k.kind = d.kind and k.id = d.id",
            new
            {
                kinds = rows.Select(row => row.Kind).ToArray(),
                ids = rows.Select(row => row.Id).ToArray(),
                keys = rows.Select(row => KeyOf(ItemTypes.Of((ItemKind)row.Kind), row.Item)).ToArray(),
            }
        );
    }

    private static string KeyOf(ItemType type, string item)
    {
        var values = ItemValues.ReadStored(type, JsonDocument.Parse(item).RootElement);
        return type.IsKnownByContent ? type.ContentKeyOf(values)
            : type.Fields.FirstOrDefault(field => field.KeyColumn is not null) is { } keyed
                ? TextIdentity.Of(values.Text(keyed.Name))
            : "";
    }

    /// <summary>The columns of a row as the network has them.</summary>
    private static Dictionary<string, string> ColumnsOf(ItemTable table)
    {
        var columns = table.Parents.ToDictionary(
            parent => parent.Column,
            parent => $"(d.theirs->>'{parent.Json}')::bigint"
        );
        foreach (var field in table.Type.Fields.Where(field => field.IsPublished))
        {
            var sql = StorageSql.FromJson(field.Type.Storage, "d.theirs", field.Name);
            columns[field.Column] = field.Default is short number ? $"coalesce({sql}, {number}::smallint)" : sql;
            if (field.KeyColumn is { } key)
            {
                columns[key] = "d.key";
            }
        }

        if (table.Type.IsKnownByContent)
        {
            columns["content_key"] = "d.key";
        }

        return columns;
    }
}
