using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>
/// Cells that hold one part of a value of several, such as the second headline of an ad: the other parts stay. An emptied part
/// lets those behind it move up; one beyond the last comes last.
/// </summary>
internal static class CellParts
{
    /// <summary>Most parts that a value may be said to have.</summary>
    private const int MostParts = 100;

    /// <summary>What a part of a field is called: headline.</summary>
    public static string NameOf(Field field) => (field.Type as LinesValue)?.Part ?? field.LowLabel;

    /// <summary>The whole values that come of parts, by the rows as they are.</summary>
    /// <exception cref="InvalidChangeException">A cell is no part of anything, or the value that comes of it cannot be.</exception>
    public static async Task<IReadOnlyList<(ItemReference Item, (Field Field, object? Value)[] Values)>> ReadAsync(
        StepContext context,
        IReadOnlyList<CellEdit> cells
    )
    {
        var read = new List<(ItemReference, (Field, object?)[])>();
        foreach (var group in cells.GroupBy(cell => (cell.Item.Kind, cell.Field)))
        {
            var table = ItemTable.Of(group.Key.Kind);
            if (
                SetCells.FieldOf(table.Type, group.Key.Field) is not { Type: LinesValue } field
                || group.Any(cell => cell.Part is < 1 or > MostParts)
            )
            {
                throw new InvalidChangeException(
                    "cells",
                    $"{FieldInputs.Article(table.Type.Noun)} {table.Type.Noun} has no such cell. Select cells of the right column."
                );
            }

            var before = (
                await context.QueryAsync<(long Id, string[] Lines)>(
                    $"select i.id, i.{field.Column} from {table.Name} i where i.id = any(@ids) and i.account_id = @account and not i.removed",
                    new { ids = group.Select(cell => cell.Item.Id).ToArray(), account = context.Account.Id }
                )
            ).ToDictionary(row => row.Id, row => row.Lines);
            foreach (var item in group.GroupBy(cell => cell.Item))
            {
                if (before.TryGetValue(item.Key.Id, out var lines))
                {
                    read.Add((item.Key, [(field, WithParts(field, lines, item, context.Account))]));
                }
            }
        }

        return read;
    }

    private static object? WithParts(
        Field field,
        IReadOnlyList<string> lines,
        IEnumerable<CellEdit> cells,
        AccountFacts account
    )
    {
        var next = lines.ToList();
        foreach (var cell in cells)
        {
            while (next.Count < cell.Part)
            {
                next.Add("");
            }

            next[cell.Part!.Value - 1] = cell.Text.Trim();
        }

        string[] filled = [.. next.Where(line => line.Length > 0)];
        if (filled.Length == 0 && !field.IsClearable)
        {
            throw new InvalidChangeException("cells", $"No {field.LowLabel} would be left. Write one.");
        }

        var reading = field.Read(filled, account.Ground);
        return reading.Problem is { } problem
            ? throw new InvalidChangeException("cells", $"{field.Label} {problem}.")
            : reading.Value;
    }
}
