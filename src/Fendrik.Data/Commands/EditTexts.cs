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
/// <param name="Fields">
/// Names of the fields to change, or of one part of them, such as <c>headlines.2</c>; those that a kind does not have are none
/// of its business.
/// </param>
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
            Fields.FirstOrDefault(name =>
                !ItemTypes.All.Any(type => type.Fields.Any(field => TextParts.Of(field, [name]) is not null))
            ) is
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
            TextParts[] fields =
            [
                .. table.Type.Fields.Select(field => TextParts.Of(field, Fields)).OfType<TextParts>(),
            ];
            if (
                Operation == TextOperation.Set
                && fields.FirstOrDefault(parts => parts.Field.Type is LinesValue && parts.Numbers is not [_])
                    is { } several
            )
            {
                throw new InvalidChangeException(
                    "fields",
                    $"Choose which {CellParts.NameOf(several.Field)} is set: all of them would say the same."
                );
            }

            if (fields.Length > 0)
            {
                var texts = new EditedTexts(table.Type, fields, edit.Apply, context.Account.Ground, ChangesLetters);
                changed += await new RowEdits(
                    context,
                    table,
                    [.. fields.Select(parts => parts.Field)],
                    (_, values) => texts.Edit(values)
                ).ApplyAsync(ItemSelection.Holds(table.Kind));
            }
        }

        return new StepOutcome(
            $"{Verb()} in {ItemTypes.Count(changed, selection.Tables.Select(table => table.Kind))}",
            changed
        );
    }

    private bool ChangesLetters =>
        Operation switch
        {
            TextOperation.Set or TextOperation.Append or TextOperation.Prepend or TextOperation.Replace => false,
            TextOperation.LowerCase
            or TextOperation.UpperCase
            or TextOperation.CapitalWords
            or TextOperation.SentenceCase => true,
        };

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

/// <summary>A field whose texts are changed, all of them or some of its parts.</summary>
/// <param name="Field">The field.</param>
/// <param name="Numbers">Numbers of the parts, from 1; none for all.</param>
internal sealed record TextParts(Field Field, IReadOnlyList<int> Numbers)
{
    /// <summary>What of a field is named: all of it, some parts, or none.</summary>
    public static TextParts? Of(Field field, IReadOnlyList<string> names)
    {
        if (!field.IsText)
        {
            return null;
        }

        if (names.Contains(field.Name))
        {
            return new TextParts(field, []);
        }

        int[] numbers =
        [
            .. names
                .Where(name => field.Type is LinesValue && name.StartsWith(field.Name + ".", StringComparison.Ordinal))
                .Select(name =>
                    int.TryParse(
                        name.AsSpan(field.Name.Length + 1),
                        System.Globalization.NumberStyles.None,
                        System.Globalization.CultureInfo.InvariantCulture,
                        out var number
                    )
                        ? number
                        : 0
                )
                .Where(number => number is >= 1 and <= 100)
                .Distinct(),
        ];
        return numbers.Length == 0 ? null : new TextParts(field, numbers);
    }

    /// <summary>The part with this number, from 1, is changed.</summary>
    public bool Has(int number) => Numbers.Count == 0 || Numbers.Contains(number);
}

/// <summary>Applies a change of text to the fields of items, and reads the outcome as if a person had typed it.</summary>
internal sealed class EditedTexts(
    ItemType type,
    IReadOnlyList<TextParts> fields,
    Func<string, string> change,
    ReadingGround ground,
    bool letters = false
)
{
    /// <summary>The item with its texts changed; none when they stay as they are.</summary>
    public RowEdit? Edit(ItemValues values)
    {
        var changed = false;
        string? problem = null;
        foreach (var parts in fields)
        {
            var field = parts.Field;
            switch (values[field])
            {
                case string text when change(text) is var next && next != text:
                    changed = true;
                    values[field] = next;
                    problem ??= ProblemOf(field, next);
                    break;
                case string[] lines:
                    string[] edited =
                    [
                        .. lines
                            .Select((line, place) => parts.Has(place + 1) ? Changed(field, line) : line)
                            .Where(line => line.Length > 0),
                    ];
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

    private string Changed(Field field, string line) =>
        field.Type is LinesValue type ? type.Changed(line, change, letters) : change(line);

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
