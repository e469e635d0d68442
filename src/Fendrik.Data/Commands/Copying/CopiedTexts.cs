using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;
using NpgsqlTypes;

namespace Fendrik.Data.Commands.Copying;

/// <summary>The values of copies that are not their originals': what is set, and texts that are replaced, with their keys.</summary>
internal sealed class CopiedTexts(
    StepContext context,
    ItemTable table,
    CopyEdits edits,
    IReadOnlyList<TextEdit> replacements,
    Dictionary<Field, object?> said
)
{
    private readonly Field? _name = table.Type.Holds is null ? null : table.Type.NameField;
    private readonly string _texts = $"text_{table.Name}";

    private bool NamesChange => edits.NamePattern is not null && _name is not null;

    /// <summary>The fields whose text goes through the replacements, and those that keys are made of.</summary>
    private Field[] Piped =>
        [
            .. table.Type.Fields.Where(each =>
                !said.ContainsKey(each)
                && (
                    (replacements.Count > 0 && each is { IsText: true, IsPublished: true })
                    || (NamesChange && each == _name)
                )
            ),
        ];

    /// <summary>True when the values of copies have to be made one by one.</summary>
    private bool IsPiped => Piped.Length > 0 || (table.Type.IsKnownByContent && said.Keys.Any(each => each.IsIdentity));

    /// <summary>Joins the texts that were made, when there are any.</summary>
    public string Join => IsPiped ? $"join {_texts} x on x.source_id = e.source_id and x.chosen = e.chosen" : "";

    /// <summary>Columns that are something else than the original's.</summary>
    public IEnumerable<(string Column, string Sql)> Overrides =>
        table
            .EditableColumns.Select(column => (column, Sql: Next(column)))
            .Where(each => each.Sql != $"i.{each.column}");

    /// <summary>A column of a copy.</summary>
    public string Next(string column)
    {
        var field = table.Type.Fields.FirstOrDefault(each => each.Column == column || each.KeyColumn == column);
        return field is null
            ? IsPiped
                ? $"x.{column}"
                : $"i.{column}"
            : said.ContainsKey(field)
                ? $"@s_{column}::{(field.Column == column ? StorageSql.CastOf(field.Type.Storage) : "text")}"
                : Piped.Contains(field)
                    ? $"x.{column}"
                    : $"i.{column}";
    }

    public void AddParameters(DynamicParameters parameters)
    {
        foreach (var (field, value) in said)
        {
            parameters.Add("s_" + field.Column, StorageSql.ParameterOf(field.OrNothing(value)));
            if (field.KeyColumn is { } key)
            {
                parameters.Add("s_" + key, TextIdentity.Of((string)value!));
            }
        }
    }

    /// <summary>Makes the texts, once for each original.</summary>
    public async Task MakeAsync()
    {
        if (!IsPiped)
        {
            return;
        }

        var piped = Piped;
        Field[] read = table.Type.IsKnownByContent
            ? [.. piped.Union(table.Type.Fields.Where(field => field.IsIdentity))]
            : piped;
        (string Name, Field Field, bool IsKey)[] columns =
        [
            .. piped.Select(field => (field.Column, field, false)),
            .. piped.Where(field => field.KeyColumn is not null).Select(field => (field.KeyColumn!, field, true)),
        ];
        await context.ExecuteAsync(
            $"create temp table {_texts} (source_id bigint not null, chosen boolean not null{string.Concat(columns.Select(column => $", {column.Name} {(column.IsKey ? "text" : StorageSql.TypeOf(column.Field.Type.Storage))}"))}{(table.Type.IsKnownByContent ? ", content_key text" : "")}) on commit drop"
        );
        await RowPipe.RunAsync(
            context,
            $"select distinct on (e.source_id, e.chosen) e.source_id, e.chosen{string.Concat(read.Select(field => $", i.{field.Column}"))} from copy_{table.Name} e join {table.Name} i on i.id = e.source_id order by e.source_id, e.chosen",
            $"{_texts} (source_id, chosen{string.Concat(columns.Select(column => $", {column.Name}"))}{(table.Type.IsKnownByContent ? ", content_key" : "")})",
            reader =>
            {
                var values = ItemReader.ReadValues(table.Type, reader, 2, read);
                Edit(values, piped, reader.GetBoolean(1));
                return new Made(reader.GetInt64(0), reader.GetBoolean(1), values);
            },
            (importer, made) =>
            {
                importer.Write(made.Source, NpgsqlDbType.Bigint);
                importer.Write(made.Chosen, NpgsqlDbType.Boolean);
                foreach (var (_, field, isKey) in columns)
                {
                    if (isKey)
                    {
                        RowPipe.WriteText(importer, TextIdentity.Of(made.Values.Text(field.Name)));
                    }
                    else
                    {
                        RowPipe.Write(importer, made.Values[field], StorageSql.DbTypeOf(field.Type.Storage));
                    }
                }

                if (table.Type.IsKnownByContent)
                {
                    RowPipe.WriteText(importer, table.Type.ContentKeyOf(made.Values));
                }
            }
        );
        await context.ExecuteAsync($"create index on {_texts} (source_id); analyze {_texts}");
    }

    private sealed record Made(long Source, bool Chosen, ItemValues Values);

    private void Edit(ItemValues values, Field[] piped, bool chosen)
    {
        foreach (var (field, value) in said)
        {
            values[field] = field.OrNothing(value);
        }

        var before = _name is not null && piped.Contains(_name) ? values.Text(_name.Name) : "";
        Func<string, string> replaced = text => replacements.Aggregate(text, (current, edit) => edit.Apply(current));
        if (replacements.Count > 0)
        {
            var result = new EditedTexts(
                table.Type,
                [.. piped.Select(field => new TextParts(field, []))],
                replaced,
                context.Account.Ground
            ).Edit(values);
            if (result?.Problem is { } problem)
            {
                throw new InvalidChangeException("replace", problem);
            }
        }

        if (NamesChange && chosen && _name is { } name && piped.Contains(name))
        {
            var next = edits.NamePattern!.Replace("{name}", values.Text(name.Name), StringComparison.Ordinal);
            var reading = name.Read(next, context.Account.Ground);
            values[name] = reading.Problem is { } wrong
                ? throw new InvalidChangeException(
                    "namePattern",
                    $"The name of the copy of “{Reading.Shortened(before)}” {wrong}."
                )
                : reading.Value;
        }
    }
}
