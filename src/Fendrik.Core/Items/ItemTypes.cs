using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items;

/// <summary>All kinds of item.</summary>
public static class ItemTypes
{
    private static IReadOnlyList<ItemType> _all = Ordered(Enum.GetValues<ItemKind>().Select(Shipped));
    private static Dictionary<ItemKind, ItemType> _byKind = _all.ToDictionary(type => type.Kind);

    /// <summary>The kinds, what holds others before what it holds: the order in which items are made and published.</summary>
    public static IReadOnlyList<ItemType> All => _all;

    /// <summary>The kinds that stand beside ads.</summary>
    public static IReadOnlyList<ExtensionType> Extensions => [.. _all.OfType<ExtensionType>()];

    /// <summary>The kinds of ad.</summary>
    public static IReadOnlyList<AdType> Ads => [.. _all.OfType<AdType>()];

    /// <summary>The description of a kind.</summary>
    /// <exception cref="KeyNotFoundException">There is no such kind.</exception>
    public static ItemType Of(ItemKind kind) => _byKind[kind];

    /// <summary>The kind that holds what stands at a level; none for the account itself.</summary>
    public static ItemType? HolderOf(Level level) => _all.FirstOrDefault(type => type.Holds == level);

    /// <summary>The kind that a word means, in the singular or plural; none when there is no such kind.</summary>
    public static ItemType? Named(string word)
    {
        var text = TextIdentity.Of(word).Replace('_', ' ');
        return _all.FirstOrDefault(type =>
            text == type.FileWord || text == type.Noun || text == type.Plural || type.OtherWords.Contains(text)
        );
    }

    /// <summary>So many of these kinds in words: 3 keywords, 1 ad group, 12 items.</summary>
    public static string Count(long count, IEnumerable<ItemKind> kinds)
    {
        var distinct = kinds.Distinct().ToArray();
        var (one, many) = distinct.Length == 1 ? (Of(distinct[0]).Noun, Of(distinct[0]).Plural) : ("item", "items");
        return count == 1 ? $"1 {one}" : $"{count:N0} {many}";
    }

    /// <summary>Adds a kind to those that are shipped. For tests, at the start of a process.</summary>
    internal static void Add(ItemType type)
    {
        _all = Ordered(_all.Append(type));
        _byKind = _all.ToDictionary(each => each.Kind);
    }

    private static ItemType Shipped(ItemKind kind) =>
        kind switch
        {
            ItemKind.Account => new AccountType(),
            ItemKind.Campaign => new CampaignType(),
            ItemKind.AdGroup => new AdGroupType(),
            ItemKind.NegativeList => new NegativeListType(),
            ItemKind.Keyword => new KeywordType(),
            ItemKind.NegativeKeyword => new NegativeKeywordType(),
            ItemKind.TextAd => new TextAdType(),
            ItemKind.Callout => new CalloutType(),
            ItemKind.Sitelink => new SitelinkType(),
            ItemKind.RelatedWords => new RelatedWordsType(),
            ItemKind.CallExtension => new CallExtensionType(),
            ItemKind.ResponsiveAd => new ResponsiveAdType(),
            ItemKind.CallAd => new CallAdType(),
            ItemKind.Placement => new PlacementType(),
            ItemKind.Audience => new AudienceType(),
            ItemKind.Place => new PlaceType(),
            ItemKind.ConversionAction => new ConversionActionType(),
        };

    /// <summary>An item that has a name has it in words: lists, history and searches show and order by it.</summary>
    private static ItemType Checked(ItemType type) =>
        type.NameField is null or { Type.Storage: Storage.Text or Storage.Texts }
            ? type
            : throw new ArgumentException($"The name of {type.Plural} is no text.", nameof(type));

    private static IReadOnlyList<ItemType> Ordered(IEnumerable<ItemType> types)
    {
        var all = types.Select(Checked).ToArray();
        int DepthOf(ItemType type) =>
            type.Levels.Max(level =>
                all.FirstOrDefault(each => each.Holds == level) is { } holder ? DepthOf(holder) + 1 : 0
            ) + (type.Fields.Any(field => field.Type is ReferencesValue) ? 1 : 0);

        return [.. all.OrderBy(DepthOf).ThenBy(type => type.ComesAndGoes).ThenBy(type => type.Kind)];
    }
}
