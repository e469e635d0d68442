namespace Fendrik.Data.Items;

/// <summary>An item by its kind and identity.</summary>
public sealed record ItemReference(ItemKind Kind, long Id);
