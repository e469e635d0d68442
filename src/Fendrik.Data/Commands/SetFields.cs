using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>Sets fields of many items of any kinds. An amount may be said as a change: <c>+10%</c>.</summary>
public sealed record SetFields(
    ItemSet Items,
    IReadOnlyDictionary<string, FieldInput> Values,
    AmountBounds? Bounds = null
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Values.Count == 0)
        {
            throw new InvalidChangeException("values", "Say which field is to be set.");
        }

        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        var kinds = new List<ItemTable>();
        string? label = null;
        foreach (var table in selection.Tables)
        {
            var mine = Values.Where(each => table.Type.Find(each.Key) is not null).ToDictionary();
            var holds = ItemSelection.Holds(table.Kind);
            if (mine.Count == 0)
            {
                await context.RefuseAsync(table, holds, NoSuchField(table.Type), null);
                continue;
            }

            var said = FieldInputs.Read(table.Type, mine, context.Account.RelativeGround);
            label ??= Label(said, context.Account.Currency);
            kinds.Add(table);
            changed += await new FieldUpdate(table, said, context.Account, Bounds, followHolders: true).ApplyAsync(
                context,
                holds
            );
        }

        if (label is null)
        {
            throw new InvalidChangeException(
                Values.Keys.First(),
                $"{NoSuchField(selection.Tables.First().Type)} Select other items."
            );
        }

        return new StepOutcome($"{label} {ItemTypes.Count(changed, kinds.Select(table => table.Kind))}", changed);
    }

    private string NoSuchField(ItemType type)
    {
        var name = Values.Keys.First();
        var label =
            ItemTypes.All.Select(each => each.Find(name)).FirstOrDefault(field => field is not null)?.LowLabel ?? name;
        return $"{FieldInputs.Article(type.Noun)} {type.Noun} has no {label}.";
    }

    private static string Shortened(string? words) => words is { Length: > 60 } ? words[..60] + "…" : words ?? "";

    private static string Label(IReadOnlyDictionary<Field, object?> said, Currency currency)
    {
        if (said.Count > 1)
        {
            return $"Set {string.Join(", ", said.Keys.Select(each => each.LowLabel))} of";
        }

        var (field, value) = said.First();
        return value switch
        {
            BidChange { Operation: AmountOperation.AddPercent } change =>
                $"{(change.Value < 0 ? "Lower" : "Raise")} {field.LowLabel} by {Math.Abs(change.Value):0.##}% on",
            BidChange change =>
                $"{(change.Value < 0 ? "Lower" : "Raise")} {field.LowLabel} by {new Money(Math.Abs(change.Value), currency)} on",
            null => field.InheritedFrom is null ? $"Clear {field.LowLabel} of" : $"Inherit {field.LowLabel} on",
            short number when field.Type.Choices.FirstOrDefault(choice => choice.Number == number)?.Verb is { } verb =>
                verb,
            { } nothing when field.Type.IsNothing(nothing) => $"Clear {field.LowLabel} of",
            { } something => $"Set {field.LowLabel} to {Shortened(field.Type.InWords(something, currency))} on",
        };
    }
}
