using Fendrik.Data.Items;
using Fendrik.Data.Steps;
using NpgsqlTypes;

namespace Fendrik.Data.Commands;

/// <summary>What becomes of one row: its values, or why they cannot be.</summary>
internal sealed record RowEdit(ItemValues Values, string? Problem = null);

/// <summary>
/// Changes rows of one kind by a function of their values: rows are read in slices, go through Core, come back by COPY, and
/// are written by one statement. Keys are made on the way.
/// </summary>
/// <param name="context">The step.</param>
/// <param name="table">The kind.</param>
/// <param name="fields">The fields that may change.</param>
/// <param name="edit">What becomes of a row; none when it stays.</param>
internal sealed class RowEdits(
    StepContext context,
    ItemTable table,
    IReadOnlyList<Field> fields,
    Func<long, ItemValues, RowEdit?> edit
)
{
    private readonly string _edited = $"edited_{table.Name}";
    private readonly bool _byContent = table.Type.IsKnownByContent && fields.Any(field => field.IsIdentity);

    /// <summary>Applies it to the rows that a condition holds for, and says how many changed.</summary>
    public async Task<int> ApplyAsync(string where, object? parameters = null)
    {
        await PipeAsync($"select i.id, {Columns("i", ReadFields)} from {table.Name} i where {where}", parameters);
        await RefuseProblemsAsync();
        var identity = table
            .IdentityColumns.Intersect(fields.SelectMany(KeysOf).Append(_byContent ? "content_key" : ""))
            .Any();
        if (identity)
        {
            await RefuseTwinsAsync();
        }

        var columns = WrittenColumns.Select(column => column.Name).ToArray();
        return await context.ExecuteAsync(
            $"update {table.Name} i set {string.Join(", ", columns.Select(column => $"{column} = e.{column}"))}, {table.KeepLive} from {_edited} e where e.id = i.id and e.problem is null"
        );
    }

    private IEnumerable<Field> ReadFields =>
        _byContent ? fields.Union(table.Type.Fields.Where(each => each.IsIdentity)) : fields;

    /// <summary>The columns that are written, with their types and how they follow from the values.</summary>
    private IEnumerable<(string Name, string Type, NpgsqlDbType DbType, Func<ItemValues, object?> Of)> WrittenColumns
    {
        get
        {
            foreach (var each in fields)
            {
                var storage = each.Type.Storage;
                yield return (
                    each.Column,
                    StorageSql.TypeOf(storage),
                    StorageSql.DbTypeOf(storage),
                    values => each.OrNothing(values[each])
                );
                if (each.KeyColumn is { } key)
                {
                    yield return (key, "text", NpgsqlDbType.Text, values => TextIdentity.Of(values.Text(each.Name)));
                }
            }

            if (_byContent)
            {
                yield return ("content_key", "text", NpgsqlDbType.Text, table.Type.ContentKeyOf);
            }
        }
    }

    private static IEnumerable<string> KeysOf(Field field) => [field.Column, field.KeyColumn ?? field.Column];

    private static string Columns(string row, IEnumerable<Field> fields) =>
        string.Join(", ", fields.Select(field => $"{row}.{field.Column}"));

    private async Task PipeAsync(string select, object? parameters)
    {
        var columns = WrittenColumns.ToArray();
        await context.ExecuteAsync(
            $"drop table if exists {_edited}; create temp table {_edited} (id bigint not null, problem text, {string.Join(", ", columns.Select(column => $"{column.Name} {column.Type}"))}) on commit drop"
        );
        var read = ReadFields.ToArray();
        await RowPipe.RunAsync(
            context,
            select,
            $"{_edited} (id, problem, {string.Join(", ", columns.Select(column => column.Name))})",
            reader =>
                edit(reader.GetInt64(0), ItemReader.ReadValues(table.Type, reader, 1, read)) is { } result
                    ? new Written(reader.GetInt64(0), result)
                    : null,
            (importer, row) =>
            {
                importer.Write(row.Id, NpgsqlDbType.Bigint);
                RowPipe.WriteText(importer, row.Edit.Problem);
                foreach (var column in columns)
                {
                    RowPipe.Write(importer, column.Of(row.Edit.Values), column.DbType);
                }
            },
            parameters
        );
        await context.ExecuteAsync($"create index on {_edited} (id); analyze {_edited}");
    }

    private sealed record Written(long Id, RowEdit Edit);

    private async Task RefuseProblemsAsync()
    {
        var reasons = await context.QueryAsync<string>(
            $"select distinct problem from {_edited} where problem is not null limit 20"
        );
        foreach (var reason in reasons.ToArray())
        {
            await context.RefuseAsync(
                table,
                $"i.id in (select e.id from {_edited} e where e.problem = @reason)",
                reason,
                new { reason }
            );
        }
    }

    private async Task RefuseTwinsAsync()
    {
        var written = WrittenColumns.Select(column => column.Name).ToHashSet();
        string Next(string edited, string row, string column) =>
            written.Contains(column) ? $"{edited}.{column}" : $"{row}.{column}";
        // Nothing changes places with what is changed in the same step: the other may be refused itself.
        await context.ExecuteAsync(
            $"""
            update {_edited} e set problem = 'twin' from {table.Name} i
            where i.id = e.id and e.problem is null and exists (select from {table.Name} t where {table.SamePlace(
                "t",
                "i"
            )} and not t.removed and t.id <> i.id
              and {table.SameIdentity(column => $"t.{column}", column => Next("e", "i", column))});
            update {_edited} e set problem = 'twin' from {table.Name} i, {_edited} o, {table.Name} t
            where i.id = e.id and e.problem is null and o.problem is null and o.id < e.id and t.id = o.id and {table.SamePlace(
                "t",
                "i"
            )}
              and {table.SameIdentity(column => Next("o", "t", column), column => Next("e", "i", column))}
            """
        );
        await context.RefuseAsync(
            table,
            $"i.id in (select e.id from {_edited} e where e.problem = 'twin')",
            "Its twin is there already, or would come to be.",
            null
        );
    }
}

/// <summary>Sets fields of what is known by its content: the key has to be made of all of it.</summary>
internal sealed class ContentUpdate
{
    private readonly RowEdits _edits;

    /// <summary>The same values for all rows.</summary>
    public ContentUpdate(StepContext context, ItemTable table, IReadOnlyDictionary<Field, object?> said) =>
        _edits = new RowEdits(context, table, [.. said.Keys], (_, values) => With(table.Type, values, said));

    /// <summary>Values of its own for each row.</summary>
    public ContentUpdate(
        StepContext context,
        ItemTable table,
        IReadOnlyList<(long Id, IReadOnlyDictionary<Field, object?> Values)> rows
    )
    {
        var byId = rows.ToDictionary(row => row.Id, row => row.Values);
        _edits = new RowEdits(
            context,
            table,
            [.. rows.SelectMany(row => row.Values.Keys).Distinct()],
            (id, values) => With(table.Type, values, byId[id])
        );
    }

    public Task<int> ApplyAsync(string where, object? parameters) => _edits.ApplyAsync(where, parameters);

    private static RowEdit? With(ItemType type, ItemValues values, IReadOnlyDictionary<Field, object?> said)
    {
        var changed = false;
        foreach (var (field, value) in said)
        {
            changed |= !Same(values[field], field.OrNothing(value));
            values[field] = field.OrNothing(value);
        }

        return !changed ? null
            : type.NameField is { } name && name.Type.IsNothing(values[name])
                ? new RowEdit(values, $"No {name.LowLabel} would be left.")
            : new RowEdit(values);
    }

    private static bool Same(object? one, object? other) =>
        one is string[] left && other is string[] right ? left.SequenceEqual(right) : Equals(one, other);
}
