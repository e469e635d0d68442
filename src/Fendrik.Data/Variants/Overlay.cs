using System.Text.Json;
using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Variants;

/// <summary>An item as somebody proposes it to be, with how it was then.</summary>
/// <param name="Id">Identity of the proposal.</param>
/// <param name="Kind">Kind of the item.</param>
/// <param name="ItemId">The item; one that is proposed anew has its identity already, and nothing else ever gets it.</param>
/// <param name="Before">Its fields when it was proposed; none for a new one.</param>
/// <param name="After">Its fields as proposed; none where it is to go.</param>
/// <param name="MadeAt">When it was proposed so.</param>
internal sealed record ProposedItem(
    long Id,
    ItemKind Kind,
    long ItemId,
    JsonElement? Before,
    JsonElement? After,
    DateTimeOffset MadeAt
)
{
    /// <summary>True where the proposal changes a field.</summary>
    public bool Says(Field field) => Before is { } before && After is { } after && !AreSame(before, after, field);

    /// <summary>A field that one of the two knows nothing of was described later, and says nothing.</summary>
    public static bool AreSame(JsonElement one, JsonElement other, Field field) =>
        !one.TryGetProperty(field.Name, out var left)
        || !other.TryGetProperty(field.Name, out var right)
        || JsonElement.DeepEquals(left, right);
}

/// <summary>
/// Lays what is proposed over the working copy, within a transaction: what goes first, then what is changed, then what is new.
/// Of an item just the fields that were proposed are written. One that has moved on meanwhile in the same field is left as it
/// is, with the reason: <see cref="StepContext.Refused"/>.
/// </summary>
internal sealed class Overlay(StepContext context, IReadOnlyList<ProposedItem> items)
{
    private readonly Dictionary<long, string> _refused = [];
    private readonly HashSet<(ItemKind Kind, long Id)> _there = [];
    private readonly HashSet<ItemReference> _going = [];

    /// <summary>The proposals that could not be laid over, with the reason.</summary>
    public IReadOnlyDictionary<long, string> Refused => _refused;

    /// <summary>Lays it over, and says how many items changed.</summary>
    public async Task<int> ApplyAsync()
    {
        foreach (var table in ItemTable.All)
        {
            foreach (var id in (await ReadAsync(table, [.. Of(table)])).Keys)
            {
                _there.Add((table.Kind, id));
            }
        }

        var changed = await RemoveAsync();
        foreach (var table in ItemTable.All)
        {
            changed += await ChangeAsync(
                table,
                [.. Of(table).Where(item => item is { Before: not null, After: not null })]
            );
        }

        foreach (var table in ItemTable.All)
        {
            foreach (var item in Of(table).Where(item => item.Before is null && !StandsInWhatGoes(item)))
            {
                changed += await GuardedAsync([item], () => AddAsync(table, item)) ?? 0;
            }
        }

        return changed;
    }

    private IEnumerable<ProposedItem> Of(ItemTable table) => items.Where(item => item.Kind == table.Kind);

    private bool StandsInWhatGoes(ProposedItem item) =>
        ItemTypes
            .Of(item.Kind)
            .ParentsOf(item.After!.Value)
            .Any(parent => _going.Contains(new ItemReference(parent.Kind, parent.Id)));

    private async Task<int> RemoveAsync()
    {
        foreach (var table in ItemTable.All)
        {
            ProposedItem[] mine = [.. Of(table).Where(item => item.After is null)];
            var now = await ReadAsync(table, mine);
            foreach (var item in mine)
            {
                if (!now.TryGetValue(item.ItemId, out var there))
                {
                    Refuse(item, "It is not there any more.");
                }
                else if (FirstMoved(table.Type, item, there, table.Type.Fields) is { } moved)
                {
                    Refuse(item, moved);
                }
                else
                {
                    _going.Add(new ItemReference(item.Kind, item.ItemId));
                }
            }
        }

        if (_going.Count == 0)
        {
            return 0;
        }

        await ItemSelection.TakeAsync(context, _going.ToArray());
        return await RemoveItems.SelectedAsync(context);
    }

    private async Task<int> ChangeAsync(ItemTable table, IReadOnlyList<ProposedItem> mine)
    {
        var now = await ReadAsync(table, mine);
        var rows = new List<(ProposedItem Item, IReadOnlyDictionary<Field, object?> Values)>();
        foreach (var item in mine)
        {
            Field[] said = [.. table.Type.Fields.Where(item.Says)];
            if (!now.TryGetValue(item.ItemId, out var there))
            {
                // What goes with what it stands in, as proposed, needs no change before.
                if (!_there.Contains((item.Kind, item.ItemId)))
                {
                    Refuse(item, "It is not there any more.");
                }
            }
            else if (
                FirstMoved(
                    table.Type,
                    item,
                    there,
                    said.Where(field => !ProposedItem.AreSame(there, item.After!.Value, field))
                ) is
                { } moved
            )
            {
                Refuse(item, moved);
            }
            else
            {
                var after = ItemValues.ReadStored(table.Type, item.After!.Value);
                rows.Add((item, said.ToDictionary(field => field, field => after[field])));
            }
        }

        if (rows.Count == 0)
        {
            return 0;
        }

        Task<int> WriteAsync(IEnumerable<(ProposedItem Item, IReadOnlyDictionary<Field, object?> Values)> some) =>
            new CellUpdate(context, table, [.. some.Select(row => (row.Item.ItemId, row.Values))]).ApplyAsync();
        if (await GuardedAsync([], () => WriteAsync(rows)) is { } all)
        {
            return all;
        }

        // One of them cannot be: which, is found one by one, and the others are written all the same.
        var changed = 0;
        foreach (var row in rows)
        {
            changed += await GuardedAsync([row.Item], () => WriteAsync([row])) ?? 0;
        }

        return changed;
    }

    private async Task<int> AddAsync(ItemTable table, ProposedItem item)
    {
        var values = ItemValues.ReadStored(table.Type, item.After!.Value).WithDefaults();
        var columns = PutItem.ColumnsOf(table.Type, values).ToArray();
        var parents = table
            .Parents.Select(parent =>
                (
                    parent.Column,
                    parent.Holder.Table,
                    Id: item.After!.Value.GetProperty(parent.Json) is { ValueKind: JsonValueKind.Number } id
                        ? id.GetInt64()
                        : (long?)null
                )
            )
            .ToArray();
        var parameters = new DynamicParameters(new { account = context.Account.Id, id = item.ItemId });
        foreach (var (column, value) in columns)
        {
            parameters.Add("v_" + column, StorageSql.ParameterOf(value));
        }

        foreach (var parent in parents)
        {
            parameters.Add("p_" + parent.Column, parent.Id);
        }

        var alive = string.Concat(
            parents
                .Where(parent => parent.Id is not null)
                .Select(parent =>
                    $" and exists (select from {parent.Table} h where h.id = p.{parent.Column} and h.account_id = @account and not h.removed)"
                )
        );
        var place = string.Join(
            ", ",
            parents.Select(parent => $"@p_{parent.Column}::bigint as {parent.Column}").DefaultIfEmpty("1 as one")
        );
        var twin = string.Join(
            " and ",
            table.Type.IdentityColumns.Select(column =>
                $"t.{column} is not distinct from {PutItem.CastOf(table, column)}"
            )
        );
        var samePlace = table.SamePlace("t", "p").Replace("p.account_id", "@account", StringComparison.Ordinal);
        if (
            await context.ScalarAsync<int>($"select count(*) from (select {place}) p where true{alive}", parameters)
            == 0
        )
        {
            throw new InvalidChangeException("items", "What it is to stand in is not there.");
        }

        var added = await context.ExecuteAsync(
            table.Insert(
                $"from (select {place}) p where not exists (select from {table.Name} t where {samePlace} and {twin} and not t.removed)",
                [
                    ("id", "@id"),
                    ("account_id", "@account"),
                    .. parents.Select(parent => (parent.Column, $"p.{parent.Column}")),
                    .. columns.Select(column => (column.Column, PutItem.CastOf(table, column.Column))),
                ]
            ),
            parameters
        );
        return added > 0 ? added : throw new InvalidChangeException("items", "The same is there already.");
    }

    /// <summary>Items as they are, of those that are there.</summary>
    private async Task<Dictionary<long, JsonElement>> ReadAsync(ItemTable table, IReadOnlyList<ProposedItem> some) =>
        some.Count == 0
            ? []
            : (
                await context.QueryAsync<(long Id, string Item)>(
                    $"select i.id, {table.Everything("i")}::text from {table.Name} i where i.id = any(@ids) and i.account_id = @account and not i.removed",
                    new { ids = some.Select(item => item.ItemId).ToArray(), account = context.Account.Id }
                )
            ).ToDictionary(row => row.Id, row => JsonDocument.Parse(row.Item).RootElement);

    /// <summary>What is said of the first field that is not any more as it was; none where all are.</summary>
    private string? FirstMoved(ItemType type, ProposedItem item, JsonElement now, IEnumerable<Field> fields)
    {
        string InWords(JsonElement of, Field field) =>
            of.TryGetProperty(field.Name, out var stored)
            && field.Type.ReadStored(stored) is { } value
            && !field.Type.IsNothing(value)
                ? field.Type.InWords(value, context.Account.Currency) ?? "nothing"
                : "nothing";
        return fields.FirstOrDefault(field => !ProposedItem.AreSame(item.Before!.Value, now, field)) is { } moved
            ? $"Its {moved.LowLabel} is {Reading.Shortened(InWords(now, moved))} now; it was {Reading.Shortened(InWords(item.Before!.Value, moved))} when this was proposed."
            : null;
    }

    private void Refuse(ProposedItem item, string reason)
    {
        if (_refused.TryAdd(item.Id, reason))
        {
            var type = ItemTypes.Of(item.Kind);
            context.Refused.Add(
                new RefusedItem(
                    item.Kind,
                    item.ItemId,
                    Core.Changes.FieldDifferences.NameOf(type, (item.After ?? item.Before)!.Value),
                    reason
                )
            );
        }
    }

    /// <summary>
    /// Does something as a whole or not at all, and says how many items changed; none where it cannot be done. What is refused
    /// on the way is refused of the proposals, too.
    /// </summary>
    private async Task<int?> GuardedAsync(IReadOnlyList<ProposedItem> mine, Func<Task<int>> work)
    {
        await context.ExecuteAsync("savepoint laid");
        try
        {
            var before = context.Refused.Count;
            var changed = await work();
            await context.ExecuteAsync("release savepoint laid");
            foreach (var refused in context.Refused.Named.Skip(before))
            {
                foreach (var item in items.Where(item => item.Kind == refused.Kind && item.ItemId == refused.Id))
                {
                    _refused.TryAdd(item.Id, refused.Reason);
                }
            }

            return changed;
        }
        catch (InvalidChangeException error)
        {
            await BackAsync(error.Message.Replace(" Nothing was changed.", "", StringComparison.Ordinal));
        }
        catch (PostgresException error) when (error.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            await BackAsync("The same is there already.");
        }

        return null;

        async Task BackAsync(string reason)
        {
            await context.ExecuteAsync("rollback to savepoint laid");
            foreach (var item in mine)
            {
                Refuse(item, reason);
            }
        }
    }
}
