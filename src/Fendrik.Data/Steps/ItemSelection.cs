using Fendrik.Core.Accounts;

namespace Fendrik.Data.Steps;

/// <summary>Items that a change is about, split by kind and held to the account.</summary>
internal sealed class ItemSelection
{
    private readonly Dictionary<ItemKind, long[]> _ids;

    public ItemSelection(IReadOnlyList<ItemReference> items)
    {
        if (items.Count == 0)
        {
            throw new InvalidChangeException("items", "Nothing is selected. Select the items to change first.");
        }

        _ids = items
            .GroupBy(item => item.Kind)
            .ToDictionary(group => group.Key, group => group.Select(item => item.Id).Distinct().ToArray());
    }

    public IEnumerable<ItemTable> Tables => ItemTable.All.Where(table => _ids.ContainsKey(table.Kind));

    public long[] IdsOf(ItemKind kind) => _ids.GetValueOrDefault(kind, []);

    public int Count => _ids.Values.Sum(ids => ids.Length);

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
            _ => "ad",
        };
}
