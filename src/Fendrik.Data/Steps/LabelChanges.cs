using Fendrik.Core.Accounts;

namespace Fendrik.Data.Steps;

/// <summary>Puts labels on items and takes labels off.</summary>
public sealed record SetLabels(ItemSet Items, IReadOnlyList<string> Add, IReadOnlyList<string> Remove)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var (add, remove) = (Add.Select(Checked).Distinct().ToArray(), Remove.Select(label => label.Trim()).ToArray());
        if (add.Length + remove.Length == 0)
        {
            throw new InvalidChangeException("labels", "Name a label to put on or to take off.");
        }

        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        foreach (var table in selection.Tables)
        {
            var next =
                $"(select coalesce(array_agg(l order by l), '{{}}') from (select unnest(i.labels) as l union select unnest(@add)) l where l <> all(@remove))";
            var mine = $"{ItemSelection.Holds(table.Kind)} and (not i.labels @> @add or i.labels && @remove)";
            await context.RefuseAsync(
                table,
                $"{mine} and cardinality({next}) > {LabelText.MostOnItem}",
                $"It would have more than {LabelText.MostOnItem} labels.",
                new { add, remove }
            );
            changed += await context.ExecuteAsync(
                $"update {table.Name} i set labels = {next}, {ItemTable.Version} where {mine} and cardinality({next}) <= {LabelText.MostOnItem}",
                new { add, remove }
            );
        }

        var verb =
            add.Length > 0
                ? $"Label “{string.Join("”, “", add)}” on"
                : $"Take label “{string.Join("”, “", remove)}” off";
        return new StepOutcome(
            $"{verb} {ItemSelection.Describe(changed, selection.Tables.Select(table => table.Kind))}",
            changed
        );
    }

    /// <summary>A label without the sign that separates labels in files.</summary>
    internal static string Checked(string label)
    {
        var single = Texts.Checked("labels", label, "The label");
        return LabelText.ProblemOf(single) is { } problem
            ? throw new InvalidChangeException("labels", problem)
            : single;
    }
}
