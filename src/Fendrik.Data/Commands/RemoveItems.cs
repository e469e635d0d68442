using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>Removes items with all that is in them.</summary>
public sealed record RemoveItems(ItemSet Items) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Remove;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var selection = await ItemSelection.TakeAsync(context, Items);
        foreach (var table in selection.Tables.Where(table => !table.Type.ComesAndGoes))
        {
            await context.RefuseAsync(
                table,
                ItemSelection.Holds(table.Kind),
                $"The {table.Type.Noun} cannot be removed.",
                null
            );
        }

        ItemTable[] removed = [.. selection.Tables.Where(table => table.Type.ComesAndGoes)];
        var count = removed.Sum(table => selection.CountOf(table.Kind));
        var changed = await SelectedAsync(context);
        var more = changed > count ? $" and {changed - count:N0} in them" : "";
        return new StepOutcome($"Remove {ItemTypes.Count(count, removed.Select(table => table.Kind))}{more}", changed);
    }

    /// <summary>Removes what is selected: what is inside first, so that nothing is left without what it belongs to.</summary>
    internal static async Task<int> SelectedAsync(StepContext context)
    {
        var changed = 0;
        foreach (var table in ItemTable.All.Reverse().Where(table => table.Type.ComesAndGoes))
        {
            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set removed = true, {ItemTable.Version}
                where i.account_id = @account and not i.removed and ({string.Join(
                    " or ",
                    table.Parents.SelectMany(parent => Inside($"i.{parent.Column}", ItemTable.Of(parent.Holder.Kind)))
                        .Prepend(ItemSelection.Holds(table.Kind))
                )})
                """,
                new { account = context.Account.Id }
            );
        }

        return changed;
    }

    /// <summary>A parent is selected, or in something that is.</summary>
    private static IEnumerable<string> Inside(string parent, ItemTable holder)
    {
        yield return $"{parent} in (select s.id from selected s where s.kind = {holder.Number})";
        foreach (var above in holder.Parents)
        {
            yield return $"{parent} in (select h.id from {holder.Name} h where h.{above.Column} in (select s.id from selected s where s.kind = {(int)above.Holder.Kind}))";
        }
    }
}
