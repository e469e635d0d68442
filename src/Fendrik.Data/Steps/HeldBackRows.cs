using Fendrik.Data.Items;

namespace Fendrik.Data.Steps;

/// <summary>
/// The rows of an old step that cannot go back although the others can: those that a later step changed, those that hold what
/// came later or stand in what is gone, and those whose place has been taken. Each is refused with its reason.
/// </summary>
internal static class HeldBackRows
{
    /// <summary>Row <c>i</c> of kind <c>@kind</c> may go back.</summary>
    public const string IsNone = "not exists (select from held_back h where h.kind = @kind and h.id = i.id)";

    private const string ChangedSince =
        "coalesce(nullif(p.display_name, ''), 'Somebody') || ' changed it again since: “' || coalesce(s.label, '') || '”'";

    public static async Task FindAsync(StepContext context, long step)
    {
        await context.ExecuteAsync(
            "create temp table held_back (kind smallint not null, id bigint not null, reason text not null, primary key (kind, id)) on commit drop"
        );
        foreach (var table in ItemTable.All)
        {
            await HoldAsync(context, table, step, $"i.id in ({RevertStep.ChangedAgain(table)})", ChangedSince);
            await HoldAsync(context, table, step, TwinOf(table), "'the same is there again'");
        }

        // From the inside out: what stays keeps what it is in.
        foreach (var holder in ItemTable.All.Reverse().Where(table => table.Type.Holds is not null))
        {
            foreach (var (inside, column) in InsideOf(holder))
            {
                await HoldAsync(
                    context,
                    holder,
                    step,
                    $"""
                    not i.removed and {RevertStep.MadeByIt} and exists (select from {inside.Name} c where c.{column} = i.id and not c.removed
                      and (not exists (select from step_insertion n where n.step_id = @step and n.kind = {inside.Number} and c.id between n.first_id and n.last_id)
                        or exists (select from held_back h where h.kind = {inside.Number} and h.id = c.id)))
                    """,
                    $"'holds {inside.Type.Plural} that stay'"
                );
            }
        }

        // From the outside in: what would come back needs something to stand in.
        foreach (var table in ItemTable.All)
        {
            foreach (var parent in table.Parents)
            {
                var outside = ItemTable.Of(parent.Holder.Kind);
                await HoldAsync(
                    context,
                    table,
                    step,
                    $"""
                    i.removed and exists (select from {table.Before} b where b.step_id = @step and b.id = i.id and not b.removed)
                      and exists (select from {outside.Name} o where o.id = i.{parent.Column} and o.removed
                        and not (exists (select from {outside.Before} ob where ob.step_id = @step and ob.id = o.id and not ob.removed)
                          and not exists (select from held_back h where h.kind = {outside.Number} and h.id = o.id)))
                    """,
                    $"'its {outside.Type.Noun} is gone'"
                );
            }
        }

        foreach (var table in ItemTable.All)
        {
            await NameAsync(context, table);
        }
    }

    private static Task HoldAsync(StepContext context, ItemTable table, long step, string condition, string reason) =>
        context.ExecuteAsync(
            $"""
            insert into held_back
            select {table.Number}, i.id, {reason}
            from {table.Name} i left join step s on s.id = i.changed_by left join "AspNetUsers" p on p.id = s.person_id
            where (i.id in (select id from {table.Before} where step_id = @step) or {RevertStep.MadeByIt}) and ({condition})
            on conflict do nothing
            """,
            new { step, kind = (short)table.Kind }
        );

    private static string TwinOf(ItemTable table) =>
        table.IdentityColumns.Count == 0
            ? "false"
            : $"""
                exists (select from {table.Before} b join {table.Name} t on {table.SamePlace("t", "i")}
                  and {table.SameIdentity(column => $"t.{column}", column => $"b.{column}")}
                  where b.step_id = @step and b.id = i.id and not b.removed and t.id <> i.id and not t.removed
                    and not exists (select from {table.Before} tb where tb.step_id = @step and tb.id = t.id)
                    and not exists (select from step_insertion n where n.step_id = @step and n.kind = {table.Number} and t.id between n.first_id and n.last_id))
                """;

    private static IEnumerable<(ItemTable Inside, string Column)> InsideOf(ItemTable holder) =>
        from inside in ItemTable.All
        from parent in inside.Parents
        where parent.Holder.Kind == holder.Kind
        select (inside, parent.Column);

    private static async Task NameAsync(StepContext context, ItemTable table)
    {
        var rows = (
            await context.QueryAsync<(long Id, string Name, string Reason, int All)>(
                $"""
                select i.id, {table.NameColumn}, h.reason, (count(*) over ())::int from held_back h join {table.Name} i on i.id = h.id
                where h.kind = {table.Number} order by i.id limit {Refusals.MostNamed}
                """
            )
        ).ToArray();
        for (var place = 0; place < rows.Length; place++)
        {
            // The last one named stands for those that are not.
            var standingFor = place == rows.Length - 1 ? rows[place].All - place : 1;
            context.Refused.Add(
                new RefusedItem(table.Kind, rows[place].Id, rows[place].Name, rows[place].Reason),
                standingFor
            );
        }
    }
}
