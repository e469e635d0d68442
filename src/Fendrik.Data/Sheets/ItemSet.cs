using System.Collections;
using System.Runtime.CompilerServices;
using Fendrik.Data.Items;

namespace Fendrik.Data.Sheets;

/// <summary>
/// The items that a change is about: those named, or all that a sheet's filter lets through but those named. So two
/// hundred thousand rows are chosen without any of them being sent.
/// </summary>
/// <param name="Items">The items; with a filter, those that are left out.</param>
/// <param name="Where">The filter, or none.</param>
[CollectionBuilder(typeof(ItemSet), nameof(Of))]
public sealed record ItemSet(IReadOnlyList<ItemReference> Items, SheetRequest? Where = null)
    : IEnumerable<ItemReference>
{
    /// <summary>These items.</summary>
    public static ItemSet Of(ReadOnlySpan<ItemReference> items) => new(items.ToArray(), null);

    /// <summary>All that the filter lets through.</summary>
    public static ItemSet Matching(SheetRequest filter) => new([], filter);

    public static implicit operator ItemSet(ItemReference[] items) => new(items, null);

    public static implicit operator ItemSet(List<ItemReference> items) => new(items, null);

    public IEnumerator<ItemReference> GetEnumerator() => Items.GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
