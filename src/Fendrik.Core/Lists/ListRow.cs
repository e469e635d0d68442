namespace Fendrik.Core.Lists;

/// <summary>What holds for rows of a list that do not say so themselves.</summary>
/// <param name="Campaign">Campaign of rows without one.</param>
/// <param name="AdGroup">Ad group of rows that need one and have none.</param>
/// <param name="BareMatch">Match type of keywords without notation.</param>
/// <param name="NegativeMatch">Match type of negatives without notation.</param>
/// <param name="Intent">What rows without an action ask for.</param>
/// <param name="EmptyClears">True when an empty cell takes an optional value away.</param>
public sealed record ListDefaults(
    string? Campaign = null,
    string? AdGroup = null,
    MatchType BareMatch = MatchType.Broad,
    MatchType NegativeMatch = MatchType.Phrase,
    RowIntent Intent = RowIntent.AddAndChange,
    bool EmptyClears = false
);

/// <summary>One row of a list, read: an item with where it stands, and what the row says of what holds it.</summary>
public sealed class ListRow
{
    private ItemValues? _values;
    private ItemKind _kind = ItemKind.Campaign;

    /// <summary>Number of the row in the list, from 1, headers counted.</summary>
    public required int RowNumber { get; init; }

    /// <summary>Kind of the item. Setting it forgets the values of another kind.</summary>
    public ItemKind Kind
    {
        get => _kind;
        set
        {
            if (_kind != value)
            {
                (_kind, _values) = (value, null);
            }
        }
    }

    /// <summary>What the row asks for.</summary>
    public RowIntent Intent { get; set; } = RowIntent.AddAndChange;

    /// <summary>The negative list: the item itself, or what it is in; empty for none.</summary>
    public string NegativeList { get; set; } = "";

    /// <summary>The campaign: the item itself, or what it is in; empty for none.</summary>
    public string Campaign { get; set; } = "";

    /// <summary>The ad group: the item itself, or what it is in; empty for none.</summary>
    public string AdGroup { get; set; } = "";

    /// <summary>The item's own reference, or none.</summary>
    public long? Reference { get; set; }

    /// <summary>What the row says of the item. The name of one that holds others is in its place.</summary>
    public ItemValues Values => _values ??= new ItemValues(ItemTypes.Of(Kind));

    /// <summary>What the row says of the campaign that the item is in, or is.</summary>
    public ItemValues? OfCampaign { get; set; }

    /// <summary>What the row says of the ad group that the item is in, or is.</summary>
    public ItemValues? OfAdGroup { get; set; }

    /// <summary>The item's fields that an empty cell takes away.</summary>
    public List<Field> Cleared { get; } = [];

    /// <summary>True for a keyword whose match type neither its notation nor a column says.</summary>
    public bool IsBare { get; set; }

    /// <summary>Why the row cannot come in, or none.</summary>
    public string? Problem { get; set; }

    /// <summary>Name of the column that the problem is in.</summary>
    public string? ProblemColumn { get; set; }

    /// <summary>The name that stands at a level.</summary>
    public string NameAt(Level level) =>
        level switch
        {
            Level.Account => "",
            Level.Campaign => Campaign,
            Level.AdGroup => AdGroup,
            Level.List => NegativeList,
        };

    /// <summary>What the row says of what stands at a level, made when there is nothing yet.</summary>
    public ItemValues? Said(Level level) =>
        level switch
        {
            Level.Campaign => OfCampaign ??= new ItemValues(ItemTypes.HolderOf(level)!),
            Level.AdGroup => OfAdGroup ??= new ItemValues(ItemTypes.HolderOf(level)!),
            Level.Account or Level.List => null,
        };

    /// <summary>The normalised text, or hash, by which the item is told from its siblings; empty for what goes by its place.</summary>
    public string ItemKey
    {
        get
        {
            var type = ItemTypes.Of(Kind);
            return type.IsKnownByContent ? type.ContentKeyOf(Values)
                : type.Fields.FirstOrDefault(each => each is { IsIdentity: true, KeyColumn: not null }) is { } key
                && Values[key] is string text
                    ? TextIdentity.Of(text)
                : "";
        }
    }
}
