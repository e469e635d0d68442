using Fendrik.Core.Places;

namespace Fendrik.Core.Checks;

/// <summary>Places of one campaign that contradict or repeat one another.</summary>
public static class PlaceContradictions
{
    /// <summary>A place that is in lies wholly in one that is out.</summary>
    public const string ShutOut = "place-shut-out";

    /// <summary>A place lies in another that says the same.</summary>
    public const string Within = "place-within";

    /// <summary>The checks of this kind.</summary>
    public static IReadOnlyList<string> Codes { get; } = [ShutOut, Within];

    /// <summary>The findings, on the place that decides nothing.</summary>
    /// <param name="places">The places of a campaign.</param>
    public static IEnumerable<Finding> Of(IEnumerable<PlacedPlace> places)
    {
        (PlacedPlace Item, PlaceArea Area)[] all =
        [
            .. places
                .Select(place => (Item: place, Area: PlaceArea.Of(place.Text, place.Radius)!))
                .Where(each => each.Area is not null),
        ];
        foreach (var each in all)
        {
            var around = all.Where(other => other.Item.Id != each.Item.Id && other.Area.Holds(each.Area)).ToArray();
            if (
                each.Item.Side == PlacementSide.In
                && around.FirstOrDefault(other => other.Item.Side == PlacementSide.Out) is { Area: { } outside }
            )
            {
                yield return new Finding(
                    Weight.Caution,
                    ShutOut,
                    ItemKind.Place,
                    each.Item.Id,
                    "side",
                    $"lies in {outside.InWords}, which is out",
                    $"All of {each.Area.InWords} lies in {outside.InWords}, and out wins: nobody there sees an ad. Remove one of the two."
                );
            }
            // The narrowest decides: one with a modifier of its own says something that the wider one does not.
            else if (
                around.FirstOrDefault(other =>
                    other.Item.Side == each.Item.Side
                    && (each.Item.Side == PlacementSide.Out || other.Item.Modifier == each.Item.Modifier)
                    && (!each.Area.Holds(other.Area) || other.Item.Id < each.Item.Id)
                ) is
                { Area: { } wider }
            )
            {
                yield return new Finding(
                    Weight.Hint,
                    Within,
                    ItemKind.Place,
                    each.Item.Id,
                    null,
                    $"lies in {wider.InWords} already",
                    $"{each.Area.InWords} lies in {wider.InWords}, which says the same. It decides nothing; remove it, or give it a modifier of its own."
                );
            }
        }
    }
}
