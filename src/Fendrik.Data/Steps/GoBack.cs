using Fendrik.Data.Accounts;
using Fendrik.Data.Items;

namespace Fendrik.Data.Steps;

/// <summary>Brings every row back to what it was right after a step, whatever came later.</summary>
internal sealed class GoBack(HistoryEntry step) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Revert;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await KeptHistory.RefuseOlderAsync(context, step.Id + 1);
        var parameters = new { account = context.Account.Id, step = step.Id };
        var items = 0;
        foreach (var table in ItemTable.All.Reverse())
        {
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set removed = true, {ItemTable.Version} from step_insertion s join step t on t.id = s.step_id
                where t.account_id = @account and s.step_id > @step and s.kind = {table.Number} and i.id between s.first_id and s.last_id and not i.removed
                """,
                parameters
            );
        }

        foreach (var table in ItemTable.All)
        {
            var columns = table.EditableColumns.Append("removed").ToArray();
            var then = string.Join(", ", columns.Select(column => $"b.{column}"));
            items += await context.ExecuteAsync(
                $"""
                update {table.Name} i set {string.Join(
                    ", ",
                    columns.Select(column => $"{column} = b.{column}")
                )}, {table.KeepLive}
                from (select distinct on (b.id) b.* from {table.Before} b where b.account_id = @account and b.step_id > @step order by b.id, b.step_id) b
                where b.id = i.id and ({then}) is distinct from ({string.Join(", ", columns.Select(column => $"i.{column}"))})
                  and not exists (select from step_insertion s join step t on t.id = s.step_id
                    where t.account_id = @account and s.step_id > @step and s.kind = {table.Number} and i.id between s.first_id and s.last_id)
                """,
                parameters
            );
        }

        return new StepOutcome($"Go back to “{step.Label}”", items);
    }
}
