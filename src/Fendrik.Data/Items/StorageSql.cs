using Fendrik.Core.Items.Values;
using NpgsqlTypes;

namespace Fendrik.Data.Items;

/// <summary>How each form in which values are kept looks in SQL, in JSON made by SQL, and in a binary COPY.</summary>
internal static class StorageSql
{
    /// <summary>Separates the texts of one value where many values travel as an array of their own.</summary>
    public const char Separator = '\u001f';

    /// <summary>The type of a column.</summary>
    public static string TypeOf(Storage storage) =>
        storage switch
        {
            Storage.Text => "text",
            Storage.Amount => "numeric(14,3)",
            Storage.Day => "date",
            Storage.Number => "smallint",
            Storage.Texts => "text[]",
            Storage.References => "bigint[]",
        };

    /// <summary>The type of a parameter or a cast: as the column's, without its precision.</summary>
    public static string CastOf(Storage storage) => storage == Storage.Amount ? "numeric" : TypeOf(storage);

    /// <summary>The type of a value in a binary COPY and of a parameter.</summary>
    public static NpgsqlDbType DbTypeOf(Storage storage) =>
        storage switch
        {
            Storage.Text => NpgsqlDbType.Text,
            Storage.Amount => NpgsqlDbType.Numeric,
            Storage.Day => NpgsqlDbType.Date,
            Storage.Number => NpgsqlDbType.Smallint,
            Storage.Texts => NpgsqlDbType.Array | NpgsqlDbType.Text,
            Storage.References => NpgsqlDbType.Array | NpgsqlDbType.Bigint,
        };

    /// <summary>A column as it stands in the JSON of an item.</summary>
    public static string ToJson(Storage storage, string column) =>
        storage switch
        {
            Storage.Amount => $"trim_scale({column})",
            Storage.Texts or Storage.References => $"to_jsonb({column})",
            Storage.Text or Storage.Day or Storage.Number => column,
        };

    /// <summary>A value of the JSON of an item as a column holds it.</summary>
    public static string FromJson(Storage storage, string item, string name) =>
        storage switch
        {
            Storage.Text => $"{item}->>'{name}'",
            Storage.Amount or Storage.Day or Storage.Number => $"({item}->>'{name}')::{CastOf(storage)}",
            Storage.Texts => $"array(select jsonb_array_elements_text(nullif({item}->'{name}', 'null')))",
            Storage.References =>
                $"array(select (jsonb_array_elements_text(nullif({item}->'{name}', 'null')))::bigint order by 1)",
        };

    /// <summary>Whether the JSON of two items is the same: a field that is missing and one that is none are.</summary>
    public static string SameItem(string one, string other) =>
        $"jsonb_strip_nulls({one}) is not distinct from jsonb_strip_nulls({other})";

    /// <summary>What stands for nothing in a column that always has a value; none where it may be null.</summary>
    public static string? EmptyOf(Storage storage) =>
        storage switch
        {
            Storage.Texts or Storage.References => "'{}'",
            Storage.Text or Storage.Amount or Storage.Day or Storage.Number => null,
        };

    /// <summary>An array of one value for each row, to be taken apart by unnest; lists travel as one text each.</summary>
    public static object ArrayOf(Storage storage, IEnumerable<object?> values) =>
        storage switch
        {
            Storage.Text => values.Select(value => (string?)value).ToArray(),
            Storage.Amount => values.Select(value => (decimal?)value).ToArray(),
            Storage.Day => values
                .Select(value =>
                    ((DateOnly?)value)?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
                )
                .ToArray(),
            Storage.Number => values.Select(value => (short?)value).ToArray(),
            Storage.Texts => values
                .Select(value => value is string[] texts ? string.Join(Separator, texts) : null)
                .ToArray(),
            Storage.References => values
                .Select(value => value is long[] ids ? string.Join(Separator, ids) : null)
                .ToArray(),
        };

    /// <summary>The parameter of <see cref="ArrayOf"/> with the type that unnest needs.</summary>
    public static string Unnested(Storage storage, string parameter) =>
        storage switch
        {
            Storage.Day => $"@{parameter}::date[]",
            Storage.Text or Storage.Texts or Storage.References => $"@{parameter}::text[]",
            Storage.Amount => $"@{parameter}::numeric[]",
            Storage.Number => $"@{parameter}::smallint[]",
        };

    /// <summary>A value that came out of unnest, as the column holds it.</summary>
    public static string FromUnnested(Storage storage, string value) =>
        storage switch
        {
            Storage.Texts => $"coalesce(string_to_array(nullif({value}, ''), chr(31)), '{{}}')",
            Storage.References => $"coalesce(string_to_array(nullif({value}, ''), chr(31))::bigint[], '{{}}')",
            Storage.Text or Storage.Amount or Storage.Day or Storage.Number => value,
        };

    /// <summary>One value as a parameter.</summary>
    public static object? ParameterOf(object? value) =>
        value is DateOnly day ? day.ToDateTime(TimeOnly.MinValue) : value;
}
