using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>
/// Items that a change is about, as rows of the table <c>selected</c> that lasts as long as the transaction: held to the
/// account, without what is removed, or only what is.
/// </summary>
internal sealed class ItemSelection
{
    /// <summary>From here on the planner is told how many there are.</summary>
    private const int WorthAnalysing = 500;

    private readonly Dictionary<ItemKind, int> _counts;

    private ItemSelection(Dictionary<ItemKind, int> counts) => _counts = counts;

    /// <summary>The kinds of which something is selected.</summary>
    public IEnumerable<ItemTable> Tables => ItemTable.All.Where(table => CountOf(table.Kind) > 0);

    public int Count => _counts.Values.Sum();

    public int CountOf(ItemKind kind) => _counts.GetValueOrDefault(kind);

    /// <summary>Condition on row <c>i</c>: selected.</summary>
    public static string Holds(ItemKind kind) => $"i.id in (select s.id from selected s where s.kind = {(int)kind})";

    /// <summary>The items that a command is about; those that are not there are refused and named.</summary>
    /// <exception cref="InvalidChangeException">Nothing is selected.</exception>
    public static async Task<ItemSelection> TakeAsync(StepContext context, ItemSet items, bool removed = false)
    {
        var selection = await TakeAsync(context.Connection, context.Account.Id, items, context.Cancellation, removed);
        if (items.Where is null)
        {
            await RefuseMissingAsync(context, items.Items, selection, removed);
        }

        return selection;
    }

    private static async Task RefuseMissingAsync(
        StepContext context,
        IReadOnlyList<ItemReference> items,
        ItemSelection selection,
        bool removed
    )
    {
        foreach (var group in items.Distinct().GroupBy(item => item.Kind))
        {
            var named = group.Select(item => item.Id).ToArray();
            if (named.Length == selection.CountOf(group.Key))
            {
                continue;
            }

            var there = await context.QueryAsync<long>(
                "select id from selected where kind = @kind",
                new { kind = (short)group.Key }
            );
            foreach (var id in named.Except(there))
            {
                context.Refused.Add(
                    new RefusedItem(
                        group.Key,
                        id,
                        $"{ItemTypes.Of(group.Key).Noun} {id}",
                        removed ? "It is not removed, or is not there." : "It is not there any more."
                    )
                );
            }
        }
    }

    /// <exception cref="InvalidChangeException">Nothing is selected.</exception>
    public static async Task<ItemSelection> TakeAsync(
        NpgsqlConnection connection,
        int accountId,
        ItemSet items,
        CancellationToken cancellation,
        bool removed = false
    )
    {
        await BeginAsync(connection);
        var there = removed ? "i.removed" : "not i.removed";
        var counts = items.Where is { } filter
            ? await MatchingAsync(connection, accountId, filter, items.Items, there, cancellation)
            : await NamedAsync(connection, accountId, items.Items, there, cancellation);
        var selection = new ItemSelection(counts);
        if (selection.Count == 0)
        {
            throw new InvalidChangeException(
                "items",
                items.Where is null && items.Items.Count == 0 ? "Nothing is selected. Select the items to change first."
                    : removed ? "None of the selected items is removed any more."
                    : "None of the selected items is there any more."
            );
        }

        if (selection.Count > WorthAnalysing)
        {
            await connection.ExecuteAsync(new CommandDefinition("analyze selected", cancellationToken: cancellation));
        }

        return selection;
    }

    public static Task BeginAsync(NpgsqlConnection connection) =>
        connection.ExecuteAsync(
            "create temp table if not exists selected (kind smallint not null, id bigint not null) on commit drop; truncate selected"
        );

    private static async Task<Dictionary<ItemKind, int>> NamedAsync(
        NpgsqlConnection connection,
        int accountId,
        IReadOnlyList<ItemReference> items,
        string there,
        CancellationToken cancellation
    )
    {
        var counts = new Dictionary<ItemKind, int>();
        foreach (var group in items.GroupBy(item => item.Kind))
        {
            counts[group.Key] = await connection.ExecuteAsync(
                new CommandDefinition(
                    $"insert into selected select {(int)group.Key}, i.id from {ItemTable.Of(group.Key).Name} i where i.id = any(@ids) and i.account_id = @accountId and {there}",
                    new { ids = group.Select(item => item.Id).Distinct().ToArray(), accountId },
                    cancellationToken: cancellation
                )
            );
        }

        return counts;
    }

    private static async Task<Dictionary<ItemKind, int>> MatchingAsync(
        NpgsqlConnection connection,
        int accountId,
        SheetRequest filter,
        IReadOnlyList<ItemReference> but,
        string there,
        CancellationToken cancellation
    )
    {
        var ground = await SheetReader.GroundAsync(connection, accountId, filter);
        var parameters = SheetSql.Parameters(filter, ground);
        return await SearchLimit.RunAsync(
            connection,
            filter,
            async () =>
            {
                var counts = new Dictionary<ItemKind, int>();
                foreach (var table in SheetSql.TablesOf(filter))
                {
                    var left = but.Where(item => item.Kind == table.Kind).Select(item => item.Id).ToArray();
                    parameters.Add("but", left);
                    counts[table.Kind] = await connection.ExecuteAsync(
                        new CommandDefinition(
                            $"""
                            insert into selected select {table.Number}, i.id from {SheetSql.From(filter, table)}
                            where {SheetSql.Where(filter, table)} and {there} {(
                                left.Length > 0 ? "and i.id <> all(@but)" : ""
                            )}
                            """,
                            parameters,
                            commandTimeout: 600,
                            cancellationToken: cancellation
                        )
                    );
                }

                return counts;
            }
        );
    }
}
