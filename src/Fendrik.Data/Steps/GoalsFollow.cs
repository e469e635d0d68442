using Fendrik.Core.Items.Values;
using Fendrik.Data.Items;

namespace Fendrik.Data.Steps;

/// <summary>Campaigns name their goals: where an action is called something else, their goals follow in the same step.</summary>
internal static class GoalsFollow
{
    /// <summary>Takes what a step renamed into the goals of campaigns.</summary>
    /// <returns>How many campaigns.</returns>
    public static async Task<int> AfterAsync(StepContext context)
    {
        var actions = ItemTable.Of(ItemKind.ConversionAction);
        var renamed = (
            await context.QueryAsync<(string Old, string New)>(
                $"select b.name, i.name from {actions.Before} b join {actions.Name} i on i.id = b.id where b.step_id = @StepId and b.name <> i.name and not i.removed",
                new { context.StepId }
            )
        ).ToDictionary(pair => TextIdentity.Of(pair.Old), pair => pair.New, StringComparer.Ordinal);
        if (renamed.Count == 0)
        {
            return 0;
        }

        var goals = await context.QueryAsync<(long Id, string Goals)>(
            "select id, goals from campaign where account_id = @account and goals is not null and not removed order by id",
            new { account = context.Account.Id }
        );
        var moved = goals
            .Select(row =>
                (
                    row.Id,
                    row.Goals,
                    Then: GoalsValue.Kept(
                        GoalsValue
                            .NamesIn(row.Goals)
                            .Select(name => renamed.GetValueOrDefault(TextIdentity.Of(name), name))
                    )
                )
            )
            .Where(row => row.Then != row.Goals)
            .ToArray();
        return moved.Length == 0
            ? 0
            : await context.ExecuteAsync(
                $"update campaign i set goals = t.goals, {ItemTable.Version} from unnest(@ids, @names) t(id, goals) where i.id = t.id",
                new { ids = moved.Select(row => row.Id).ToArray(), names = moved.Select(row => row.Then).ToArray() }
            );
    }
}
