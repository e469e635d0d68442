using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>
/// Edits the texts of many items: find and replace, text before or behind, case. Each text goes through
/// <see cref="TextEdit"/> and is read again by its field, so that what is said of it in one place holds for all.
/// </summary>
/// <param name="Items">The items.</param>
/// <param name="Fields">Names of the fields to change; those that a kind does not have are none of its business.</param>
/// <param name="Operation">What is done.</param>
/// <param name="Value">What is set, added or put in place.</param>
/// <param name="Find">What is replaced.</param>
/// <param name="IsExpression">True when it is a regular expression.</param>
/// <param name="MatchCase">False to find capital and small letters alike.</param>
/// <param name="WholeWords">True to find nothing inside a longer word.</param>
public sealed record EditTexts(
    ItemSet Items,
    IReadOnlyList<string> Fields,
    TextOperation Operation,
    string Value,
    string? Find = null,
    bool IsExpression = false,
    bool MatchCase = false,
    bool WholeWords = false
) : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Texts;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Fields.Count == 0)
        {
            throw new InvalidChangeException("fields", "Choose at least one field to change.");
        }

        if (
            Fields.FirstOrDefault(name => !ItemTypes.All.Any(type => type.Find(name) is { IsText: true })) is
            { } unknown
        )
        {
            throw new InvalidChangeException("fields", $"“{Reading.Shortened(unknown)}” is no text of an item.");
        }

        var edit =
            TextEdit.Create(Operation, Value, Find, IsExpression, MatchCase, WholeWords, out var problem)
            ?? throw new InvalidChangeException(Operation == TextOperation.Replace ? "find" : "value", problem!);
        var selection = await ItemSelection.TakeAsync(context, Items);
        var changed = 0;
        foreach (var table in selection.Tables)
        {
            Field[] fields = [.. table.Type.Fields.Where(field => field.IsText && Fields.Contains(field.Name))];
            if (fields.Length > 0)
            {
                var texts = new EditedTexts(table.Type, fields, edit.Apply, context.Account.Ground);
                changed += await new RowEdits(context, table, fields, (_, values) => texts.Edit(values)).ApplyAsync(
                    ItemSelection.Holds(table.Kind)
                );
            }
        }

        return new StepOutcome(
            $"{Verb()} in {ItemTypes.Count(changed, selection.Tables.Select(table => table.Kind))}",
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
            TextOperation.LowerCase
            or TextOperation.UpperCase
            or TextOperation.CapitalWords
            or TextOperation.SentenceCase => "Change capitals",
        };

    private static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;
}

/// <summary>Applies a change of text to the fields of items, and reads the outcome as if a person had typed it.</summary>
internal sealed class EditedTexts(
    ItemType type,
    IReadOnlyList<Field> fields,
    Func<string, string> change,
    ReadingGround ground
)
{
    /// <summary>The item with its texts changed; none when they stay as they are.</summary>
    public RowEdit? Edit(ItemValues values)
    {
        var changed = false;
        string? problem = null;
        foreach (var field in fields)
        {
            switch (values[field])
            {
                case string text when change(text) is var next && next != text:
                    changed = true;
                    values[field] = next;
                    problem ??= ProblemOf(field, next);
                    break;
                case string[] lines:
                    string[] edited = [.. lines.Select(change).Where(line => line.Length > 0)];
                    if (!edited.SequenceEqual(lines))
                    {
                        changed = true;
                        values[field] = edited;
                        problem ??=
                            edited.Length == 0 && field == type.NameField ? $"No {field.LowLabel} would be left."
                            : edited.Length == 0 ? null
                            : field.Type.Read(edited, ground).Problem is { } wrong ? $"The {field.LowLabel} {wrong}."
                            : null;
                    }

                    break;
            }
        }

        return changed ? new RowEdit(values, problem) : null;
    }

    private string? ProblemOf(Field field, string text)
    {
        if (text.Length == 0)
        {
            return field.IsClearable ? null : "Nothing would be left of it.";
        }

        var reading = field.Type.Read(text, ground);
        return reading.Problem is { } problem ? $"{field.Label} {problem}."
            : reading.Also is not null || (reading.Value is string read && read != text)
                ? "It would read as a match type or a negative; change the match type instead."
            : null;
    }
}
