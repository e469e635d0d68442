using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>Adds an item of any kind, or changes one when <paramref name="Id"/> is given; what is not said stays, or is the default.</summary>
public sealed record PutItem(
    ItemKind Kind,
    IReadOnlyDictionary<string, FieldInput> Values,
    ItemPlaces Place,
    long? Id = null
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var table = ItemTable.Of(Kind);
        var said = FieldInputs.Read(table.Type, Values, context.Account.Ground);
        if (Id is { } id)
        {
            var changed = await new FieldUpdate(table, said, context.Account).ApplyAsync(
                context,
                "i.id = @id",
                new { id }
            );
            return new StepOutcome($"Change {table.Type.Noun} “{await NameAsync(context, table, id)}”", changed);
        }

        if (!table.Type.ComesAndGoes)
        {
            throw new InvalidChangeException(
                "kind",
                $"{FieldInputs.Article(table.Type.Noun)} {table.Type.Noun} cannot be added."
            );
        }

        Place.Check(table.Type);
        var values = ValuesOf(table.Type, said);
        var added = await InsertAsync(context, table, values, Place);
        return added is { } made
            ? new StepOutcome($"Add {table.Type.Noun} “{await NameAsync(context, table, made)}”", 1)
            : throw new InvalidChangeException(
                "places",
                $"The {PlaceNoun(table.Type)} is not there any more. Choose another."
            );
    }

    /// <summary>Inserts one item and says its identity; none when its place is gone.</summary>
    internal static Task<long?> InsertAsync(StepContext context, ItemTable table, ItemValues values, ItemPlaces place)
    {
        var columns = ColumnsOf(table.Type, values).ToArray();
        var parameters = new DynamicParameters(place.Parameters(context.Account.Id));
        foreach (var (column, value) in columns)
        {
            parameters.Add("v_" + column, StorageSql.ParameterOf(value));
        }

        return context.ScalarAsync<long?>(
            table.Insert(
                $"from {ItemPlaces.Rows}",
                [
                    ("account_id", "@account"),
                    .. ItemPlaces.ParentsOf(table),
                    .. columns.Select(column => (column.Column, CastOf(table, column.Column))),
                ]
            ) + " returning id",
            parameters
        );
    }

    /// <summary>An item that is said so far, with defaults; what must be said is.</summary>
    internal static ItemValues ValuesOf(ItemType type, IReadOnlyDictionary<Field, object?> said)
    {
        var values = new ItemValues(type);
        foreach (var (field, value) in said)
        {
            values[field] = value;
        }

        values.WithDefaults();
        foreach (var field in type.Fields)
        {
            if (!field.IsClearable && field.Type.IsNothing(values[field]))
            {
                throw new InvalidChangeException(field.Name, $"{field.Label} is missing. Fill it in.");
            }
        }

        return values;
    }

    /// <summary>All columns of the fields with their values, keys among them.</summary>
    internal static IEnumerable<(string Column, object? Value)> ColumnsOf(ItemType type, ItemValues values)
    {
        foreach (var field in type.Fields)
        {
            yield return (field.Column, values[field]);
            if (field.KeyColumn is { } key)
            {
                yield return (key, TextIdentity.Of((string)values[field]!));
            }
        }

        if (type.IsKnownByContent)
        {
            yield return ("content_key", type.ContentKeyOf(values));
        }
    }

    internal static string CastOf(ItemTable table, string column) =>
        table.FieldOf(column) is { } field
            ? $"@v_{column}::{StorageSql.CastOf(field.Type.Storage)}"
            : $"@v_{column}::text";

    private static string PlaceNoun(ItemType type) =>
        string.Join(" or ", type.Levels.Select(level => ItemTypes.HolderOf(level)?.Noun ?? "account"));

    private static async Task<string> NameAsync(StepContext context, ItemTable table, long id)
    {
        var name = await context.ScalarAsync<string?>(
            $"select {table.NameColumn} from {table.Name} i where i.id = @id and i.account_id = @account",
            new { id, account = context.Account.Id }
        );
        return name is { Length: > 80 } ? name[..80] + "…" : name ?? "";
    }
}
