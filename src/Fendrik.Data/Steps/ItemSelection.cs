using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Sheets;

namespace Fendrik.Data.Steps;

/// <summary>
/// Items that a change is about, as rows of the table <c>selected</c> that lasts as long as the transaction: held to the
/// account, without what is removed.
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

    /// <exception cref="InvalidChangeException">Nothing is selected.</exception>
    public static async Task<ItemSelection> TakeAsync(StepContext context, ItemSet items)
    {
        await BeginAsync(context);
        var counts = items.Where is { } filter
            ? await MatchingAsync(context, filter, items.Items)
            : await NamedAsync(context, items.Items);
        var selection = new ItemSelection(counts);
        if (selection.Count == 0)
        {
            throw new InvalidChangeException(
                "items",
                items.Where is null && items.Items.Count == 0
                    ? "Nothing is selected. Select the items to change first."
                    : "None of the selected items is there any more."
            );
        }

        if (selection.Count > WorthAnalysing)
        {
            await context.ExecuteAsync("analyze selected");
        }

        return selection;
    }

    /// <summary>Begins with nothing selected.</summary>
    public static Task BeginAsync(StepContext context) =>
        context.ExecuteAsync(
            "create temp table if not exists selected (kind smallint not null, id bigint not null) on commit drop; truncate selected"
        );

    private static async Task<Dictionary<ItemKind, int>> NamedAsync(
        StepContext context,
        IReadOnlyList<ItemReference> items
    )
    {
        var counts = new Dictionary<ItemKind, int>();
        foreach (var group in items.GroupBy(item => item.Kind))
        {
            counts[group.Key] = await context.ExecuteAsync(
                $"insert into selected select {(int)group.Key}, i.id from {ItemTable.Of(group.Key).Name} i where i.id = any(@ids) and i.account_id = @account and not i.removed",
                new { ids = group.Select(item => item.Id).Distinct().ToArray(), account = context.Account.Id }
            );
        }

        return counts;
    }

    private static async Task<Dictionary<ItemKind, int>> MatchingAsync(
        StepContext context,
        SheetRequest filter,
        IReadOnlyList<ItemReference> but
    )
    {
        var ground = await SheetReader.GroundAsync(context.Connection, context.Account.Id, filter);
        var parameters = SheetSql.Parameters(filter, context.Account.Id, ground.Figures);
        var kinds =
            filter.View == SheetView.Outline
                ? ItemTable.All.Where(table =>
                    table.Kind != ItemKind.NegativeList
                    && (
                        filter.Kinds.Count == 0
                        || filter.Kinds.Contains(table.Kind)
                        || table.Kind is ItemKind.Campaign or ItemKind.AdGroup
                    )
                )
                : [ItemTable.Of((ItemKind)filter.View)];
        return await SearchLimit.RunAsync(
            context.Connection,
            filter,
            async () =>
            {
                var counts = new Dictionary<ItemKind, int>();
                foreach (var table in kinds)
                {
                    var left = but.Where(item => item.Kind == table.Kind).Select(item => item.Id).ToArray();
                    parameters.Add("but", left);
                    counts[table.Kind] = await context.Connection.ExecuteAsync(
                        $"""
                        insert into selected select {(int)table.Kind}, i.id from {SheetSql.From(filter, table.Kind)}
                        where {SheetSql.Where(filter, table.Kind)} and not i.removed {(
                            left.Length > 0 ? "and i.id <> all(@but)" : ""
                        )}
                        """,
                        parameters,
                        commandTimeout: 600
                    );
                }

                return counts;
            }
        );
    }

    /// <summary>“3 keywords”, “1 ad group”, “12 items”.</summary>
    public static string Describe(int count, IEnumerable<ItemKind> kinds)
    {
        var distinct = kinds.Distinct().ToArray();
        var noun = distinct.Length == 1 ? Noun(distinct[0]) : "item";
        return count == 1 ? $"1 {noun}" : $"{count:N0} {noun}s";
    }

    public static string Noun(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign => "campaign",
            ItemKind.AdGroup => "ad group",
            ItemKind.Keyword => "keyword",
            ItemKind.NegativeKeyword => "negative",
            ItemKind.NegativeList => "negative list",
            _ => "ad",
        };
}
