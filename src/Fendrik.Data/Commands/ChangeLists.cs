using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using ValueType = Fendrik.Core.Items.Values.ValueType;

namespace Fendrik.Data.Commands;

/// <summary>Puts labels on items and takes labels off, leaving their other labels alone.</summary>
public sealed record SetLabels(ItemSet Items, IReadOnlyList<string> Add, IReadOnlyList<string> Remove)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var (add, remove) = (Read(Add, context.Account), Remove.Select(ValueType.Single).ToArray());
        if (add.Length + remove.Length == 0)
        {
            throw new InvalidChangeException("labels", "Name a label to put on or to take off.");
        }

        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        foreach (var table in selection.Tables)
        {
            const string next =
                "(select coalesce(array_agg(l order by l), '{}') from (select unnest(i.labels) as l union select unnest(@add)) l where l <> all(@remove))";
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
            $"{verb} {ItemTypes.Count(changed, selection.Tables.Select(table => table.Kind))}",
            changed
        );
    }

    private static string[] Read(IReadOnlyList<string> labels, AccountFacts account)
    {
        if (labels.Count == 0)
        {
            return [];
        }

        var reading = new LabelsValue().Read(labels, account.Ground);
        return reading.Problem is { } problem
            ? throw new InvalidChangeException("labels", $"Labels {problem}.")
            : (string[])reading.Value!;
    }
}

/// <summary>Adds references to a field that names other items, or takes them away: which campaigns share a list.</summary>
public sealed record ChangeReferences(ItemSet Items, string Field, IReadOnlyList<long> Ids, bool Add)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Ids.Count == 0)
        {
            throw new InvalidChangeException("ids", "Choose at least one.");
        }

        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        ReferencesValue? type = null;
        var kinds = new List<ItemKind>();
        foreach (var table in selection.Tables)
        {
            if (table.Type.Find(Field) is not { Type: ReferencesValue references } field)
            {
                continue;
            }

            (type, var column) = (references, $"i.{field.Column}");
            kinds.Add(table.Kind);
            var known = References.OfAccount(ItemTable.Of(references.To), "@ids");
            var next = Add
                ? $"array(select unnest({column}) union select unnest({known}) order by 1)"
                : $"array(select c from unnest({column}) c where c <> all(@ids) order by 1)";
            changed += await context.ExecuteAsync(
                $"""
                update {table.Name} i set {field.Column} = {next}, {table.KeepLive}
                where {ItemSelection.Holds(table.Kind)} and {column} is distinct from {next}
                """,
                new { account = context.Account.Id, ids = Ids.ToArray() }
            );
        }

        if (type is null)
        {
            throw new InvalidChangeException("field", "None of the selected items can be shared. Select lists.");
        }

        return new StepOutcome(
            Add
                ? $"Share {ItemTypes.Count(changed, kinds)} with {ItemTypes.Count(Ids.Count, [type.To])}"
                : $"Stop sharing {ItemTypes.Count(changed, kinds)}",
            changed
        );
    }
}

/// <summary>References to other items.</summary>
internal static class References
{
    /// <summary>Those of the named items that are the account's own and not removed, ascending.</summary>
    public static string OfAccount(ItemTable table, string ids) =>
        $"(select coalesce(array_agg(c.id order by c.id), '{{}}') from {table.Name} c where c.account_id = @account and c.id = any({ids}) and not c.removed)";
}
