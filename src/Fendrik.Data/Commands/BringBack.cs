using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>
/// Brings removed items back, with whatever was removed together with them: all that stood in them and went in the same step.
/// </summary>
public sealed record BringBack(ItemSet Items) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Remove;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = await ItemSelection.TakeAsync(context, Items, removed: true);
        var count = selection.Count;
        var kinds = selection.Tables.Select(table => table.Kind).ToArray();
        foreach (var table in ItemTable.All.Where(table => table.Parents.Count > 0))
        {
            await SelectWhatWentWithItAsync(context, table);
        }

        var changed = 0;
        foreach (var table in ItemTable.All.Where(table => table.Type.ComesAndGoes))
        {
            changed += await BringBackAsync(context, table);
        }

        var more = changed > count ? $" and {changed - count:N0} in them" : "";
        return new StepOutcome($"Bring back {ItemTypes.Count(Math.Min(count, changed), kinds)}{more}", changed);
    }

    /// <summary>Kinds come in the order in which they hold each other, so what is in something selected is selected in turn.</summary>
    private static Task<int> SelectWhatWentWithItAsync(StepContext context, ItemTable table)
    {
        var inside = table.Parents.Select(parent =>
            $"exists (select from selected s join {parent.Holder.Table} p on p.id = s.id where s.kind = {(int)parent.Holder.Kind} and p.id = i.{parent.Column} and p.changed_by = i.changed_by)"
        );
        return context.ExecuteAsync(
            $"""
            insert into selected select {table.Number}, i.id from {table.Name} i
            where i.account_id = @account and i.removed and ({string.Join(" or ", inside)})
              and i.id not in (select s.id from selected s where s.kind = {table.Number})
            """,
            new { account = context.Account.Id }
        );
    }

    private static async Task<int> BringBackAsync(StepContext context, ItemTable table)
    {
        var account = new { account = context.Account.Id };
        var mine = $"{ItemSelection.Holds(table.Kind)} and i.account_id = @account and i.removed";
        foreach (var parent in table.Parents)
        {
            var gone = $"exists (select from {parent.Holder.Table} p where p.id = i.{parent.Column} and p.removed)";
            await context.RefuseAsync(
                table,
                $"{mine} and {gone}",
                $"Its {parent.Holder.Noun} is removed too; bring that back first.",
                account
            );
            mine += $" and not {gone}";
        }

        // Of removed items that were each other's twins at different times, the newest comes back.
        var same = table.SameIdentity(column => $"t.{column}", column => $"i.{column}");
        var twin =
            $"exists (select from {table.Name} t where {table.SamePlace("t", "i")} and {same} and t.id <> i.id and (not t.removed or (t.id > i.id and t.id in (select s.id from selected s where s.kind = {table.Number}))))";
        await context.RefuseAsync(table, $"{mine} and {twin}", table.Type.TwinProblem, account);
        return await context.ExecuteAsync(
            $"update {table.Name} i set removed = false, {table.KeepLive} where {mine} and not {twin}",
            account
        );
    }
}
