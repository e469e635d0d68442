using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Live;

/// <summary>
/// Takes back what was changed since the last publish, item by item, whatever steps changed it: what is live is as it is on the
/// network again, what is new goes with all that is new in it, what was removed comes back with what it stands in.
/// </summary>
/// <param name="Items">The items.</param>
public sealed record TakeBackChanges(IReadOnlyList<ItemReference> Items) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Revert;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await context.ExecuteAsync(
            $"""
            create temp table decided (kind smallint not null, id bigint not null, theirs jsonb, version bigint not null, key text not null default '', primary key (kind, id)) on commit drop;
            create temp table wished on commit drop as select distinct w.kind, w.id from unnest(@kinds, @ids) as w(kind, id);
            alter table wished add primary key (kind, id);
            {string.Join(";\n", Inside().Concat(Around()).Concat(ItemTable.All.Select(Decide)))}
            """,
            new
            {
                account = context.Account.Id,
                kinds = Items.Select(item => (short)item.Kind).ToArray(),
                ids = Items.Select(item => item.Id).ToArray(),
            }
        );
        var items = await DecideLive.TakeAsync(context);
        return items == 0
            ? throw new InvalidChangeException("items", "These do not differ from the live copy any more.")
            : new StepOutcome($"Take back the changes of {ItemTypes.Count(items, [])}", items);
    }

    /// <summary>What is new in something new goes with it.</summary>
    private static IEnumerable<string> Inside() =>
        from table in ItemTable.All
        from parent in table.Parents
        let holder = ItemTable.Of(parent.Holder.Kind)
        select $"insert into wished select {table.Number}, c.id from wished w join {holder.Name} i on w.kind = {holder.Number} and i.id = w.id and not i.is_live and i.account_id = @account join {table.Name} c on c.{parent.Column} = i.id and not c.removed on conflict do nothing";

    /// <summary>What comes back needs something to stand in.</summary>
    private static IEnumerable<string> Around() =>
        from table in ItemTable.All.Reverse()
        from parent in table.Parents
        let holder = ItemTable.Of(parent.Holder.Kind)
        select $"insert into wished select {holder.Number}, p.id from wished w join {table.Name} i on w.kind = {table.Number} and i.id = w.id and i.removed and i.is_live and i.account_id = @account join {holder.Name} p on p.id = i.{parent.Column} and p.removed and p.is_live on conflict do nothing";

    private static string Decide(ItemTable table) =>
        $"""
            insert into decided (kind, id, theirs, version)
            select {table.Number}, i.id, case when i.is_live then coalesce(i.live, {table.Published(
                "i"
            )}) end, coalesce(i.live_version, 0)
            from wished w join {table.Name} i on w.kind = {table.Number} and i.id = w.id and i.account_id = @account where {table.TrulyPending}
            """;
}
