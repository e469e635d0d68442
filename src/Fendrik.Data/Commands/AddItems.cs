using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands;

/// <summary>Adds the same items of one kind in each of several places; those that are there already are named and left out.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Items">What each says, as people type it.</param>
/// <param name="Places">Where they are to stand.</param>
public sealed record AddItems(
    ItemKind Kind,
    IReadOnlyList<IReadOnlyDictionary<string, FieldInput>> Items,
    ItemPlaces Places
) : IWorkingCopyChange
{
    /// <summary>Most items at once; longer lists are what intake is for.</summary>
    public const int MostItems = 200;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var table = ItemTable.Of(Kind);
        if (!table.Type.ComesAndGoes)
        {
            throw new InvalidChangeException(
                "kind",
                $"{FieldInputs.Article(table.Type.Noun)} {table.Type.Noun} cannot be added."
            );
        }

        if (Items.Count is 0 or > MostItems)
        {
            throw new InvalidChangeException(
                "items",
                Items.Count == 0
                    ? $"Write at least one {table.Type.Noun}."
                    : $"These are {Items.Count:N0}; {MostItems} at most. Bring longer lists in through Intake."
            );
        }

        Places.Check(table.Type);
        var added = 0;
        foreach (var (number, item) in Items.Index())
        {
            var values = Read(table.Type, item, number + 1, context);
            var made = await AddAsync(context, table, values);
            added += made;
            if (Places.Count - made is var left and > 0)
            {
                context.Refused.Add(
                    new RefusedItem(
                        Kind,
                        0,
                        NameOf(table.Type, values, context),
                        $"It is in {left:N0} of the places already, or these are gone."
                    ),
                    left
                );
            }
        }

        return added == 0 && context.Refused.Count == 0
            ? throw new InvalidChangeException("places", "The places are gone. Choose others.")
            : new StepOutcome($"Add {ItemTypes.Count(added, [Kind])}", added);
    }

    private static ItemValues Read(
        ItemType type,
        IReadOnlyDictionary<string, FieldInput> item,
        int number,
        StepContext context
    )
    {
        try
        {
            return PutItem.ValuesOf(type, FieldInputs.Read(type, item, context.Account.Ground));
        }
        catch (InvalidChangeException error)
        {
            throw new InvalidChangeException(error.Field, $"{type.Noun} {number}: {error.Message}".ToSentence());
        }
    }

    private static string NameOf(ItemType type, ItemValues values, StepContext context) =>
        type.NameField is { } name && values[name] is { } value
            ? name.Type.InWords(value, context.Account.Currency) ?? ""
            : "";

    private Task<int> AddAsync(StepContext context, ItemTable table, ItemValues values)
    {
        var columns = PutItem.ColumnsOf(table.Type, values).ToArray();
        var parameters = new DynamicParameters(Places.Parameters(context.Account.Id));
        foreach (var (column, value) in columns)
        {
            parameters.Add("v_" + column, StorageSql.ParameterOf(value));
        }

        var twin = string.Join(
            " and ",
            table.Type.IdentityColumns.Select(column =>
                $"t.{column} is not distinct from {PutItem.CastOf(table, column)}"
            )
        );
        var samePlace = table.SamePlace("t", "p").Replace("p.account_id", "@account", StringComparison.Ordinal);
        return context.ExecuteAsync(
            table.Insert(
                $"from {ItemPlaces.Rows} where not exists (select from {table.Name} t where {samePlace} and {twin} and not t.removed)",
                [
                    ("account_id", "@account"),
                    .. ItemPlaces.ParentsOf(table),
                    .. columns.Select(column => (column.Column, PutItem.CastOf(table, column.Column))),
                ]
            ),
            parameters
        );
    }
}

/// <summary>Messages that are put together.</summary>
internal static class Sentences
{
    /// <summary>With a capital letter at its beginning.</summary>
    public static string ToSentence(this string text) =>
        text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}
