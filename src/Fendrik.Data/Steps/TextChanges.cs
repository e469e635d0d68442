using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;

namespace Fendrik.Data.Steps;

/// <summary>The texts that an item may carry.</summary>
public enum TextField
{
    /// <summary>Name of a campaign, an ad group or a list.</summary>
    Name = 1,

    /// <summary>Words of a keyword or negative.</summary>
    Words = 2,
    Headlines = 3,
    Descriptions = 4,
    DisplayPath = 5,
    FinalUrl = 6,
}

/// <summary>
/// Edits the texts of many items: find and replace, text before or behind, case. Each text goes through
/// <see cref="TextEdit"/>, so that what is said of it in one place holds for all; rows come and go in bulk.
/// </summary>
public sealed record EditTexts(
    ItemSet Items,
    IReadOnlyList<TextField> Fields,
    TextOperation Operation,
    string Value,
    string? Find = null,
    bool IsExpression = false,
    bool MatchCase = false,
    bool WholeWords = false
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Fields.Count == 0)
        {
            throw new InvalidChangeException("fields", "Choose at least one field to change.");
        }

        var edit =
            TextEdit.Create(Operation, Value, Find, IsExpression, MatchCase, WholeWords, out var problem)
            ?? throw new InvalidChangeException(Operation == TextOperation.Replace ? "find" : "value", problem!);
        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        foreach (var table in selection.Tables)
        {
            changed += await new EditedTexts(context, table, edit, Fields.ToHashSet()).ApplyAsync();
        }

        return new StepOutcome(
            $"{Verb()} in {ItemSelection.Describe(changed, selection.Tables.Select(table => table.Kind))}",
            changed
        );
    }

    private string Verb() =>
        Operation switch
        {
            TextOperation.Set => $"Set “{Short(Value)}”",
            TextOperation.Append => $"Append “{Short(Value)}”",
            TextOperation.Prepend => $"Prepend “{Short(Value)}”",
            TextOperation.Replace => $"Replace “{Short(Find!)}” by “{Short(Value)}”",
            _ => "Change capitals",
        };

    private static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;
}
