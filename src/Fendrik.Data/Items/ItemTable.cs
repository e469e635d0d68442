using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;

namespace Fendrik.Data.Items;

/// <summary>The level of an item's parent, with the column that names it.</summary>
internal sealed record ParentColumn(Level Level, string Column, string Json)
{
    /// <summary>The kind of the parent.</summary>
    public ItemType Holder => ItemTypes.HolderOf(Level)!;
}

/// <summary>The table of a kind of item, and the SQL that follows from what the kind is.</summary>
internal sealed class ItemTable
{
    private static (IReadOnlyList<ItemType> Types, IReadOnlyList<ItemTable> Tables) _made = ([], []);

    private ItemTable(ItemType type)
    {
        Type = type;
        Parents = [.. ParentsOf(type)];
        EditableColumns =
        [
            .. type.Fields.SelectMany(field =>
                field.KeyColumn is null ? [field.Column] : new[] { field.Column, field.KeyColumn }
            ),
            .. type.IsKnownByContent ? new[] { "content_key" } : [],
        ];
        IdentityColumns = [.. type.IdentityColumns];
        NameColumn = Named("i");
    }

    /// <summary>All tables, in the order in which items are made and published.</summary>
    public static IReadOnlyList<ItemTable> All
    {
        get
        {
            if (!ReferenceEquals(_made.Types, ItemTypes.All))
            {
                _made = (ItemTypes.All, [.. ItemTypes.All.Select(type => new ItemTable(type))]);
            }

            return _made.Tables;
        }
    }

    /// <summary>The table of a kind.</summary>
    public static ItemTable Of(ItemKind kind) => All.First(table => table.Kind == kind);

    /// <summary>The description of the kind.</summary>
    public ItemType Type { get; }

    /// <summary>The kind.</summary>
    public ItemKind Kind => Type.Kind;

    /// <summary>The kind as a number in SQL.</summary>
    public int Number => (int)Kind;

    /// <summary>Name of the table.</summary>
    public string Name => Type.Table;

    /// <summary>Name of the table of rows as they were before a step.</summary>
    public string Before => Type.Table + "_before";

    /// <summary>Columns that name what an item is in.</summary>
    public IReadOnlyList<ParentColumn> Parents { get; }

    /// <summary>All columns that a step may change, but for the removal.</summary>
    public IReadOnlyList<string> EditableColumns { get; }

    /// <summary>Columns that tell an item from its siblings.</summary>
    public IReadOnlyList<string> IdentityColumns { get; }

    /// <summary>How a row is called in lists.</summary>
    public string NameColumn { get; }

    /// <summary>True when items of the kind stand at different levels.</summary>
    public bool HasLevels => Type.Levels.Count > 1;

    /// <summary>Rows that may differ from the live copy, by the condition of the partial indexes.</summary>
    public const string Pending =
        "((i.is_live and (i.removed or i.live is not null)) or (not i.is_live and not i.removed))";

    /// <summary>The row was written by this step.</summary>
    public const string Version = "changed_by = current_step()";

    /// <summary>Rows that do differ: an edit and an edit back may leave nothing to publish.</summary>
    public string TrulyPending => $"{Pending} and not (i.is_live and not i.removed and i.live = {Published("i")})";

    /// <summary>Keeps what the network has before the first edit.</summary>
    public string KeepLive => $"live = case when i.is_live then coalesce(i.live, {Published("i")}) end, {Version}";

    /// <summary>Keeps what the network has, unless the row goes back to be just that, as it was in row <c>b</c>.</summary>
    public string KeepLiveUnlessBack =>
        $"live = case when i.is_live and i.live is distinct from {Published("b")} then coalesce(i.live, {Published("i")}) end, {Version}";

    /// <summary>1 for new, 2 for edited, 3 for removed, 0 for as it is live.</summary>
    public string ChangeOfRow =>
        $"case when i.removed then 3 when not i.is_live then 1 when i.live is not null and i.live is distinct from {Published("i")} then 2 else 0 end";

    /// <summary>What goes to the network, as it travels. Another network may be sent the same item in other words.</summary>
    public string Sent(string row) => Published(row);

    /// <summary>What the network has of an item and is compared by, of a row as it is or as it was.</summary>
    public string Published(string row) => Object(row, Type.Fields.Where(field => field.IsPublished));

    /// <summary>Every field that a person sees change.</summary>
    public string Everything(string row) => Object(row, Type.Fields);

    /// <summary>Two rows stand in the same place.</summary>
    public string SamePlace(string one, string other)
    {
        static string Place(string row, IEnumerable<ParentColumn> parents) =>
            string.Join(", ", parents.Select(parent => $"coalesce({row}.{parent.Column}, 0)"));
        return !HasLevels
            ? Parents.Count == 0
                ? $"{one}.account_id = {other}.account_id"
                : $"{one}.{Parents[0].Column} = {other}.{Parents[0].Column}"
            : $"{(Type.StandsIn(Level.Account) ? $"{one}.account_id = {other}.account_id and " : "")}({Place(one, Parents)}) = ({Place(other, Parents)})";
    }

    /// <summary>How a row of this name is called in lists.</summary>
    public string Named(string row) =>
        Type.NameField is not { } field ? $"(select a.name from account a where a.id = {row}.account_id)"
        : field.Type.Storage == Storage.Texts
            ? $"array_to_string({row}.{field.Column}, '{FieldDifferences.NameSeparator}')"
        : $"{row}.{field.Column}";

    /// <summary>The name, normalised for search and order.</summary>
    public string NameKey(string row) =>
        Type.NameField is { KeyColumn: { } key } ? $"{row}.{key}" : TextMeasures.KeyOf(Named(row));

    /// <summary>
    /// Inserts rows with every column of the kind, taken from a source unless said otherwise: leaving one out is what has to
    /// be written down.
    /// </summary>
    /// <param name="from">Where the rows come from, from the word FROM on.</param>
    /// <param name="source">The row there that has the columns of this table.</param>
    /// <param name="otherwise">Columns that are something else than the source's, with their SQL.</param>
    public string InsertFrom(string from, string source, params (string Column, string Sql)[] otherwise)
    {
        var values = otherwise.ToDictionary(each => each.Column, each => each.Sql);
        var columns = Columns.Concat(values.Keys.Where(column => column == "id")).ToArray();
        return $"""
            insert into {Name} ({string.Join(", ", columns)}, removed, is_live, review)
            select {string.Join(
                ", ",
                columns.Select(column => values.GetValueOrDefault(column, $"{source}.{column}"))
            )}, false, false, 0
            {from}
            """;
    }

    /// <summary>Inserts rows of which only these columns are said; the others are what stands for nothing.</summary>
    public string Insert(string from, params (string Column, string Sql)[] said)
    {
        var values = said.ToDictionary(each => each.Column, each => each.Sql);
        var columns = Columns.Concat(values.Keys.Where(column => column == "id")).ToArray();
        return $"""
            insert into {Name} ({string.Join(", ", columns)}, removed, is_live, review)
            select {string.Join(
                ", ",
                columns.Select(column => values.GetValueOrDefault(column, DefaultOf(column)))
            )}, false, false, 0
            {from}
            """;
    }

    /// <summary>Every column but identity and what the table keeps for itself.</summary>
    public IEnumerable<string> Columns =>
        ["account_id", .. Parents.Select(parent => parent.Column), .. EditableColumns];

    /// <summary>Two rows, or a row and values, have the same identity among siblings.</summary>
    public string SameIdentity(Func<string, string> one, Func<string, string> other) =>
        string.Join(" and ", IdentityColumns.Select(column => $"{one(column)} = {other(column)}"));

    /// <summary>The field that a column is of, or none for keys and parents.</summary>
    public Field? FieldOf(string column) => Type.Fields.FirstOrDefault(field => field.Column == column);

    /// <summary>The level at which a row stands.</summary>
    public string LevelOf(string row) => HasLevels ? $"{row}.level" : $"{(int)Type.Levels[0]}";

    /// <summary>The value of a field that is in force for a row: its own, or that of what it stands in.</summary>
    public static string InForce(Field field, string row)
    {
        var own = $"{row}.{field.Column}";
        return field.InheritedFrom is { } kind && HolderColumn(field.Of, kind) is { } parent
            ? $"coalesce({own}, (select {InForce(Of(kind).Type[field.Name], "h" + row)} from {Of(kind).Name} h{row} where h{row}.id = {row}.{parent}))"
            : own;
    }

    /// <summary>The column that names the holder of a kind; none where rows do not name it themselves.</summary>
    public static string? HolderColumn(ItemType type, ItemKind holder) =>
        Of(type.Kind).Parents.FirstOrDefault(parent => parent.Holder.Kind == holder)?.Column;

    private string DefaultOf(string column) =>
        FieldOf(column) is { } field
            ? field.Default is short number
                ? $"{number}::smallint"
                : StorageSql.EmptyOf(field.Type.Storage) ?? $"null::{StorageSql.CastOf(field.Type.Storage)}"
            : "null";

    private string Object(string row, IEnumerable<Field> fields) =>
        $"jsonb_build_object('id', {row}.id, {string.Concat(Parents.Select(parent => $"'{parent.Json}', {row}.{parent.Column}, "))}{string.Join(", ", fields.Select(field => $"'{field.Name}', {StorageSql.ToJson(field.Type.Storage, $"{row}.{field.Column}")}"))})".Replace(
            ", )",
            ")",
            StringComparison.Ordinal
        );

    private static IEnumerable<ParentColumn> ParentsOf(ItemType type) =>
        type.ParentLevels.Select(level => new ParentColumn(
            level,
            level switch
            {
                Level.Campaign => "campaign_id",
                Level.AdGroup => "ad_group_id",
                Level.List => "list_id",
                Level.Account => throw new InvalidOperationException("The account is no parent of its own."),
            },
            ItemType.ParentName(level)
        ));
}
