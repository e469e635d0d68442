namespace Fendrik.Data.Intakes;

/// <summary>
/// The value of a field after a row of a list: what the row says, nothing where it takes the value away, else what is there.
/// Judging and keeping both take it from here, so that they cannot differ.
/// </summary>
internal static class NextValue
{
    /// <summary>The fields of items that a row can change: what tells an item from its siblings stays, but for capitals that count.</summary>
    public static Field[] FieldsOf(ItemTable table) =>
        [
            .. Staging
                .FieldsOf(table.Type)
                .Where(field =>
                    !field.IsIdentity
                    || table.Type.IsKnownByContent
                    || (field.KeyColumn is not null && field.Type.CapitalsCount)
                ),
        ];

    /// <summary>The columns that are written, in order.</summary>
    public static string Columns(ItemTable table) =>
        string.Join(", ", FieldsOf(table).Select(field => field.Column).Concat(KeyOf(table)));

    /// <summary>The values that are written, in the same order.</summary>
    public static string Of(ItemTable table, string row, string item) =>
        string.Join(
            ", ",
            FieldsOf(table)
                .Select(field => Of(field, row, item))
                .Concat(
                    KeyOf(table)
                        .Select(_ => $"case when {row}.item_key = '' then {item}.content_key else {row}.item_key end")
                )
        );

    /// <summary>A row says otherwise than what is there.</summary>
    public static string Differs(ItemTable table, string row, string item)
    {
        var fields = FieldsOf(table);
        return fields.Length == 0
            ? "false"
            : $"({string.Join(", ", fields.Select(field => Of(field, row, item)))}) is distinct from ({string.Join(", ", fields.Select(field => $"{item}.{field.Column}"))})";
    }

    /// <summary>A field of a new item.</summary>
    public static string New(Field field, string row)
    {
        var nothing = field.Default is short number ? $"{number}::smallint" : StorageSql.EmptyOf(field.Type.Storage);
        return nothing is null ? $"{row}.{field.Column}" : $"coalesce({row}.{field.Column}, {nothing})";
    }

    private static string Of(Field field, string row, string item) =>
        field.IsClearable
            ? $"case when {row}.{field.Column} is not null then {row}.{field.Column} when {row}.cleared & {Staging.BitOf(field)} <> 0 then {StorageSql.EmptyOf(field.Type.Storage) ?? "null"} else {item}.{field.Column} end"
            : $"coalesce({row}.{field.Column}, {item}.{field.Column})";

    private static IEnumerable<string> KeyOf(ItemTable table) => table.Type.IsKnownByContent ? ["content_key"] : [];
}
