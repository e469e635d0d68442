using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>
/// A part of the changes that is published by itself, in the table <c>part</c> of the transaction: what was ticked, with what it
/// cannot do without on the network.
/// </summary>
internal static class PublishPart
{
    /// <summary>Row <c>i</c> is of the part.</summary>
    public static string Has(ItemTable table) =>
        $"exists (select from part t where t.kind = {table.Number} and t.id = i.id)";

    public static async Task TakeAsync(
        NpgsqlConnection connection,
        int accountId,
        IReadOnlyList<ItemReference> items,
        CancellationToken cancellation
    )
    {
        // What is new needs what is new around it; what is removed needs what is removed inside it.
        var around = ItemTable
            .All.Reverse()
            .SelectMany(table =>
                table.Parents.Select(parent =>
                {
                    var holder = ItemTable.Of(parent.Holder.Kind);
                    return $"insert into part select {holder.Number}, p.id from part t join {table.Name} i on t.kind = {table.Number} and i.id = t.id and not i.removed join {holder.Name} p on p.id = i.{parent.Column} and not p.is_live and not p.removed on conflict do nothing";
                })
            );
        var inside =
            from table in ItemTable.All
            from parent in table.Parents
            select $"insert into part select {table.Number}, c.id from part t join {ItemTable.Of(parent.Holder.Kind).Name} i on t.kind = {(int)parent.Holder.Kind} and i.id = t.id and i.removed join {table.Name} c on c.{parent.Column} = i.id and c.is_live and c.removed on conflict do nothing";
        await connection.ExecuteAsync(
            new CommandDefinition(
                $"""
                create temp table part (kind smallint not null, id bigint not null, primary key (kind, id)) on commit drop;
                insert into part select distinct w.kind, w.id from unnest(@kinds, @ids) as w(kind, id);
                {string.Join(";\n", around.Concat(inside))};
                """,
                new
                {
                    accountId,
                    kinds = items.Select(item => (short)item.Kind).ToArray(),
                    ids = items.Select(item => item.Id).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
    }
}
