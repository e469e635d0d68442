using System.Globalization;
using System.Text.RegularExpressions;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;

namespace Fendrik.Data.Sheets.Conditions;

/// <summary>Turns the conditions of a filter into SQL. Values travel as parameters, whatever is in them.</summary>
internal static class ConditionSql
{
    /// <summary>Most conditions in one filter, and most values in one condition.</summary>
    public const int MostConditions = 20;
    public const int MostValues = 1_000;
    private const int LongestValue = 500;

    /// <summary>The SQL of one condition for one kind; <c>false</c> where the kind has no such field.</summary>
    public static string Of(SheetCondition condition, int number, ItemTable table)
    {
        var field = Field(condition);
        return field.Sql(table) is not { } sql
            ? "false"
            : field.Type switch
            {
                FieldType.Text => OfText(condition, number, sql, field.Written!(table)!),
                FieldType.Texts => OfTexts(condition, number, sql),
                FieldType.Choice => OfChoice(condition, number, sql),
                FieldType.Flags => OfFlags(condition, number, sql),
                FieldType.Date => OfNumber(condition, $"@v{number}::date[]", sql),
                _ when NeedsFigures(condition) => OfNumber(condition, $"@v{number}", SheetFields.Bare(sql)),
                _ => OfNumber(condition, $"@v{number}", sql),
            };
    }

    /// <summary>Adds the values of one condition, read by the type of its field.</summary>
    /// <exception cref="InvalidChangeException">A value cannot be read, or the test does not suit the field.</exception>
    public static void AddValues(SheetCondition condition, int number, DynamicParameters parameters)
    {
        var field = Field(condition);
        if (condition.Values.Count > MostValues || condition.Values.Any(value => value.Length > LongestValue))
        {
            throw Wrong(field, $"takes at most {MostValues:N0} values of {LongestValue} characters");
        }

        if (condition.Test is SheetTest.Empty or SheetTest.Filled)
        {
            return;
        }

        if (condition.Values.Count == 0)
        {
            throw Wrong(field, "has nothing to be held against. Enter a value, or take the condition out");
        }

        object values = field.Type switch
        {
            FieldType.Text or FieldType.Texts => TextValues(condition, field),
            FieldType.Choice or FieldType.Flags => ChoiceValues(condition, field),
            FieldType.Date => condition.Values.Select(value => DateValue(field, value)).ToArray(),
            _ => condition.Values.Select(value => NumberValue(field, value)).ToArray(),
        };
        parameters.Add($"v{number}", values);
    }

    public static bool IsExpression(SheetCondition condition) =>
        condition.Test is SheetTest.Matches or SheetTest.MatchesNot;

    /// <summary>True when a row without any figures cannot pass: then rows are looked for among those that have some.</summary>
    private static bool NeedsFigures(SheetCondition condition) =>
        condition.Test is SheetTest.Above or SheetTest.AtLeast
        && condition.Values.All(value =>
            decimal.TryParse(value, NumberStyles.Number, CultureInfo.InvariantCulture, out var number)
            && (number > 0 || (number == 0 && condition.Test == SheetTest.Above))
        );

    private static string OfText(SheetCondition condition, int number, string key, string written) =>
        condition.Test switch
        {
            SheetTest.Contains or SheetTest.Starts or SheetTest.Ends => $"{key} like any(@v{number})",
            SheetTest.Lacks => $"not coalesce({key} like any(@v{number}), false)",
            SheetTest.Is => $"{key} = any(@v{number})",
            SheetTest.IsNot => $"coalesce({key}, '') <> all(@v{number})",
            SheetTest.Matches => $"{written} ~* any(@v{number})",
            SheetTest.MatchesNot => $"not coalesce({written} ~* any(@v{number}), false)",
            // Said of the column itself, of which the database knows how often it is empty.
            SheetTest.Empty => $"({written} is null or {key} = '')",
            _ => $"({written} is not null and {key} <> '')",
        };

    private static string OfTexts(SheetCondition condition, int number, string array) =>
        condition.Test switch
        {
            SheetTest.Empty => $"{array} = '{{}}'",
            SheetTest.Filled => $"{array} <> '{{}}'",
            SheetTest.Is when array == "i.labels" => $"({array} <> '{{}}' and {array} && @v{number})",
            SheetTest.IsNot when array == "i.labels" => $"not {array} && @v{number}",
            SheetTest.Is => $"exists (select from unnest({array}) e where {TextMeasures.KeyOf("e")} = any(@v{number}))",
            SheetTest.IsNot =>
                $"not exists (select from unnest({array}) e where {TextMeasures.KeyOf("e")} = any(@v{number}))",
            SheetTest.Lacks =>
                $"not exists (select from unnest({array}) e where {TextMeasures.KeyOf("e")} like any(@v{number}))",
            SheetTest.Matches => $"exists (select from unnest({array}) e where e ~* any(@v{number}))",
            SheetTest.MatchesNot => $"not exists (select from unnest({array}) e where e ~* any(@v{number}))",
            _ => $"exists (select from unnest({array}) e where {TextMeasures.KeyOf("e")} like any(@v{number}))",
        };

    private static string OfChoice(SheetCondition condition, int number, string sql) =>
        condition.Test switch
        {
            SheetTest.Is => $"{sql} = any(@v{number})",
            SheetTest.IsNot => $"coalesce({sql}, -1) <> all(@v{number})",
            SheetTest.Empty => $"{sql} is null",
            _ => $"{sql} is not null",
        };

    private static string OfFlags(SheetCondition condition, int number, string sql) =>
        condition.Test switch
        {
            SheetTest.Is => $"exists (select from unnest(@v{number}) e where {sql} & e <> 0)",
            SheetTest.IsNot => $"not exists (select from unnest(@v{number}) e where {sql} & e <> 0)",
            SheetTest.Empty => $"coalesce({sql}, 0) = 0",
            _ => $"{sql} <> 0",
        };

    private static string OfNumber(SheetCondition condition, string values, string sql) =>
        condition.Test switch
        {
            SheetTest.Above => $"{sql} > any({values})",
            SheetTest.Below => $"{sql} < any({values})",
            SheetTest.AtLeast => $"{sql} >= any({values})",
            SheetTest.AtMost => $"{sql} <= any({values})",
            SheetTest.Is => $"{sql} = any({values})",
            SheetTest.IsNot => $"({sql} is null or {sql} <> all({values}))",
            SheetTest.Empty => $"{sql} is null",
            _ => $"{sql} is not null",
        };

    private static SheetField Field(SheetCondition condition)
    {
        var field =
            SheetFields.Find(condition.Field)
            ?? throw new InvalidChangeException("conditions", $"“{condition.Field}” is no field of the sheet.");
        var suits = field.Type switch
        {
            FieldType.Text or FieldType.Texts => condition.Test
                is not (SheetTest.Above or SheetTest.Below or SheetTest.AtLeast or SheetTest.AtMost),
            FieldType.Choice or FieldType.Flags => condition.Test
                is SheetTest.Is
                    or SheetTest.IsNot
                    or SheetTest.Empty
                    or SheetTest.Filled,
            _ => condition.Test is SheetTest.Is or SheetTest.IsNot or (>= SheetTest.Above and <= SheetTest.Filled),
        };
        return suits && Enum.IsDefined(condition.Test)
            ? field
            : throw Wrong(field, "cannot be held against values in this way. Choose another test");
    }

    private static string[] TextValues(SheetCondition condition, SheetField field)
    {
        if (IsExpression(condition))
        {
            foreach (var value in condition.Values)
            {
                CheckExpression(field, value);
            }

            return [.. condition.Values];
        }

        // Labels are compared as they are written; all else by its normalised form.
        return
        [
            .. condition.Values.Select(value =>
                condition.Test switch
                {
                    SheetTest.Contains or SheetTest.Lacks => LikePattern.Containing(value),
                    SheetTest.Starts => LikePattern.Starting(value),
                    SheetTest.Ends => LikePattern.Ending(value),
                    _ when field.Name == "labels" => value.Trim(),
                    _ => TextIdentity.Of(value),
                }
            ),
        ];
    }

    private static void CheckExpression(SheetField field, string value)
    {
        try
        {
            _ = new Regex(value, RegexOptions.None, TimeSpan.FromSeconds(1));
        }
        catch (ArgumentException)
        {
            throw Wrong(field, $"has “{value}”, which is not a regular expression. Check brackets and backslashes");
        }
    }

    private static int[] ChoiceValues(SheetCondition condition, SheetField field) =>
        [
            .. condition.Values.Select(value =>
            {
                var choice = field.Choices.FirstOrDefault(each => each.Key == value);
                return choice?.Number
                    ?? throw Wrong(
                        field,
                        $"is never “{value}”. Choose from {string.Join(", ", field.Choices.Select(each => each.Key))}"
                    );
            }),
        ];

    private static string DateValue(SheetField field, string value) =>
        DayValue.TryRead(value, out var date)
            ? date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
            : throw Wrong(field, $"“{value}” is not a date. Write it like 2026-11-25");

    private static decimal NumberValue(SheetField field, string value)
    {
        var text = value.Trim();
        var percent = text.EndsWith('%');
        if (
            !decimal.TryParse(
                percent ? text[..^1].Trim() : text,
                NumberStyles.Number & ~NumberStyles.AllowThousands,
                CultureInfo.InvariantCulture,
                out var number
            )
            || Math.Abs(number) > 1_000_000_000_000m
        )
        {
            throw Wrong(field, $"“{value}” is not a number. Write it like 1.20");
        }

        return percent ? number / 100 : number;
    }

    private static InvalidChangeException Wrong(SheetField field, string what) =>
        new("conditions", $"{field.Label}: {what}.");
}
