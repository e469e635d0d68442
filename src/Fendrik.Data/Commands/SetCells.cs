using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>The text of one cell.</summary>
/// <param name="Item">The item.</param>
/// <param name="Field">The field.</param>
/// <param name="Text">What was typed or pasted.</param>
/// <param name="Part">Number of the part, from 1, where the cell is one of several: the second headline.</param>
public sealed record CellEdit(ItemReference Item, string Field, string Text, int? Part = null);

/// <summary>
/// Fills cells of the sheet, one by an edit in place or many by a paste, each with a text of its own, as one step. All are
/// read before any is written.
/// </summary>
public sealed record SetCells(IReadOnlyList<CellEdit> Cells) : IWorkingCopyChange
{
    /// <summary>Most cells at once.</summary>
    public const int MostCells = 200_000;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Cells.Count is 0 or > MostCells)
        {
            throw new InvalidChangeException(
                "cells",
                Cells.Count == 0
                    ? "There is nothing to paste. Copy some cells first."
                    : $"These are {Cells.Count:N0} cells; {MostCells:N0} at most. Bring longer lists in through Intake."
            );
        }

        var read = Cells
            .Where(cell => cell.Part is null)
            .Select((cell, place) => (cell.Item, Values: Read(context.Account, cell, place).ToArray()))
            .Concat(await CellParts.ReadAsync(context, [.. Cells.Where(cell => cell.Part is not null)]))
            .ToArray();
        var changed = 0;
        foreach (var kind in read.GroupBy(cell => cell.Item.Kind).OrderBy(group => group.Key))
        {
            // Of several texts for one cell the last holds.
            var rows = kind.GroupBy(cell => cell.Item.Id)
                .Select(row =>
                    (
                        row.Key,
                        (IReadOnlyDictionary<Field, object?>)
                            row.SelectMany(cell => cell.Values)
                                .GroupBy(value => value.Field)
                                .ToDictionary(value => value.Key, value => value.Last().Value)
                    )
                )
                .ToArray();
            changed += await new CellUpdate(context, ItemTable.Of(kind.Key), rows).ApplyAsync();
        }

        return new StepOutcome(
            Cells.Count == 1
                ? LabelOfOne(context.Account)
                : $"Paste into {ItemTypes.Count(changed, Cells.Select(cell => cell.Item.Kind))}",
            changed
        );
    }

    private string LabelOfOne(AccountFacts account)
    {
        var type = ItemTypes.Of(Cells[0].Item.Kind);
        var field = FieldOf(type, Cells[0].Field)!;
        var text = Reading.Shortened(Cells[0].Text.Trim());
        var part = Cells[0].Part is { } number ? $"{CellParts.NameOf(field)} {number}" : null;
        return part is not null
            ? text.Length == 0
                ? $"Clear {part} of 1 {type.Noun}"
                : $"Set {part} to “{text}” on 1 {type.Noun}"
            : text.Length == 0
                ? $"Clear {field.LowLabel} of 1 {type.Noun}"
                : field == type.NameField
                    ? $"Reword {type.Noun} as “{text}”"
                    : field.Type is AmountValue && field.Read(text, account.RelativeGround).Value is decimal amount
                        ? $"Set {field.LowLabel} to {field.Type.InWords(amount, account.Currency)} on 1 {type.Noun}"
                        : $"Set {field.LowLabel} to {text} on 1 {type.Noun}";
    }

    /// <summary>The column of the item itself is that of its name, whatever the kind calls it.</summary>
    internal static Field? FieldOf(ItemType type, string name) => name == "name" ? type.NameField : type.Find(name);

    private static IEnumerable<(Field Field, object? Value)> Read(AccountFacts account, CellEdit cell, int place)
    {
        var type = ItemTypes.Of(cell.Item.Kind);
        InvalidChangeException Wrong(string what) => new("cells", $"Cell {place + 1}: {what}.");
        if (FieldOf(type, cell.Field) is not { } field)
        {
            throw Wrong(
                $"“{Reading.Shortened(cell.Text)}” cannot be put there; {FieldInputs.Article(type.Noun).ToLowerInvariant()} {type.Noun} has no such cell. Select cells of the right column"
            );
        }

        var reading = field.Read(cell.Text, account.RelativeGround);
        if (reading.Problem is { } problem)
        {
            throw Wrong($"{field.Label} {problem}");
        }

        yield return (field, reading.Value);
        if (reading.Also is { } also && type.Find(also.Field) is { } other)
        {
            yield return (other, also.Value);
        }
    }
}

/// <summary>Gives many rows of one kind values of their own, in one statement.</summary>
internal sealed class CellUpdate(
    StepContext context,
    ItemTable table,
    IReadOnlyList<(long Id, IReadOnlyDictionary<Field, object?> Values)> rows
)
{
    private readonly DynamicParameters _parameters = new();
    private readonly List<string> _unnest = ["@ids"];
    private readonly List<string> _names = ["id"];

    public async Task<int> ApplyAsync()
    {
        var account = context.Account;
        _parameters.Add("account", account.Id);
        _parameters.Add("ids", rows.Select(row => row.Id).ToArray());
        var fields = rows.SelectMany(row => row.Values.Keys).Distinct().ToArray();
        if (table.Type.IsKnownByContent && fields.Any(field => field.IsIdentity))
        {
            return await new ContentUpdate(context, table, rows).ApplyAsync(
                "i.id = any(@ids) and i.account_id = @account and not i.removed",
                _parameters
            );
        }

        var next = new Dictionary<string, string>();
        foreach (var field in fields)
        {
            await AddAsync(field, next);
        }

        await RefuseTwinsAsync(fields);
        var differs = string.Join(" or ", next.Select(each => $"i.{each.Key} is distinct from {each.Value}"));
        return await context.ExecuteAsync(
            $"""
            update {table.Name} i set {string.Join(
                ", ",
                next.Select(each => $"{each.Key} = {each.Value}")
            )}, {table.KeepLive}
            from unnest({string.Join(", ", _unnest)}) as v({string.Join(", ", _names)})
            where i.id = v.id and i.account_id = @account and not i.removed and ({differs})
            """,
            _parameters
        );
    }

    private async Task AddAsync(Field field, Dictionary<string, string> next)
    {
        var storage = field.Type.Storage;
        var values = rows.Select(row => row.Values.TryGetValue(field, out var value) ? value : null).ToArray();
        var has = rows.Select(row => row.Values.ContainsKey(field)).ToArray();
        Unnest($"has_{field.Column}", has, $"@has_{field.Column}");
        var changes = values.Select(value => value as BidChange).ToArray();
        if (field.Type is AmountValue && changes.Any(change => change is not null))
        {
            Unnest(
                $"op_{field.Column}",
                changes.Select(change => (short)(change?.Operation ?? 0)).ToArray(),
                $"@op_{field.Column}::smallint[]"
            );
            Unnest(
                field.Column,
                values.Select(value => (value as BidChange)?.Value ?? (decimal?)value).ToArray(),
                $"@{field.Column}::numeric[]"
            );
            next[field.Column] = Changed(field);
            await context.RefuseAsync(
                table,
                $"i.id = any(@relative) and i.account_id = @account and not i.removed and {ItemTable.InForce(field, "i")} is null",
                AmountChanges.NothingToChange(field),
                new
                {
                    account = context.Account.Id,
                    relative = rows.Where((_, place) => changes[place] is not null).Select(row => row.Id).ToArray(),
                }
            );
            return;
        }

        Unnest(
            field.Column,
            StorageSql.ArrayOf(storage, values.Select(field.OrNothing)),
            StorageSql.Unnested(storage, field.Column)
        );
        next[field.Column] =
            $"case when v.has_{field.Column} then {StorageSql.FromUnnested(storage, $"v.{field.Column}")} else i.{field.Column} end";
        if (field.KeyColumn is { } key)
        {
            Unnest(
                key,
                values.Select(value => value is string text ? TextIdentity.Of(text) : null).ToArray(),
                $"@{key}::text[]"
            );
            next[key] = $"case when v.has_{field.Column} then v.{key} else i.{key} end";
        }
    }

    private string Changed(Field field)
    {
        var plain = new BidChange(AmountOperation.AddPercent, 0);
        _parameters.Add("step", context.Account.Currency.SmallestAmount);
        _parameters.Add($"floor_{field.Column}", AmountChanges.FloorOf(field, plain, context.Account));
        string Next(AmountOperation operation) =>
            AmountChanges.Next(
                operation,
                ItemTable.InForce(field, "i"),
                $"v.{field.Column}",
                "@step",
                $"@floor_{field.Column}",
                $"{AmountValue.Highest}"
            );
        return $"""
            case when not v.has_{field.Column} then i.{field.Column}
              when v.op_{field.Column} = {(int)AmountOperation.AddAmount} then {Next(AmountOperation.AddAmount)}
              when v.op_{field.Column} = {(int)AmountOperation.AddPercent} then {Next(AmountOperation.AddPercent)}
              else v.{field.Column} end
            """;
    }

    private void Unnest(string name, object values, string sql)
    {
        _parameters.Add(name, values);
        _unnest.Add(sql);
        _names.Add(name);
    }

    private async Task RefuseTwinsAsync(Field[] fields)
    {
        if (!fields.Any(field => field.IsIdentity))
        {
            return;
        }

        string Next(string column)
        {
            var field = table.Type.Fields.First(each => each.Column == column || each.KeyColumn == column);
            return _names.Contains(column)
                ? $"case when v.has_{field.Column} then v.{column} else i.{column} end"
                : $"i.{column}";
        }

        var twin = await context.ScalarAsync<string?>(
            $"""
            select {table.Named("t")} from unnest({string.Join(", ", _unnest)}) as v({string.Join(", ", _names)})
            join {table.Name} i on i.id = v.id and i.account_id = @account
            join {table.Name} t on {table.SamePlace("t", "i")} and {table.SameIdentity(
                column => $"t.{column}",
                Next
            )} and not t.removed and t.id <> all(@ids)
            limit 1
            """,
            _parameters
        );
        if (twin is not null)
        {
            throw new InvalidChangeException(
                "cells",
                $"“{twin}” is there already in the same place. Nothing was changed."
            );
        }
    }
}
