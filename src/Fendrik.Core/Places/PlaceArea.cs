using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Places;

/// <summary>A place with what lies around it.</summary>
/// <param name="Place">The place.</param>
/// <param name="Radius">Kilometres around a town; none for the place alone.</param>
public sealed record PlaceArea(KnownPlace Place, decimal? Radius)
{
    /// <summary>The area of an item; none where its place is not known any more.</summary>
    /// <param name="text">The place as the item has it.</param>
    /// <param name="radius">Its radius.</param>
    public static PlaceArea? Of(string text, decimal? radius) =>
        Gazetteer.Find(text) is [var place] ? new PlaceArea(place, radius) : null;

    /// <summary>True when a place lies in it: in the place itself, or no farther than the radius from it.</summary>
    public bool Holds(KnownPlace place) =>
        place.IsIn(Place)
        || Radius is { } kilometres
            && Place.Point is { } centre
            && place.Point is { } point
            && centre.KilometresTo(point) <= (double)kilometres;

    /// <summary>True when all of another area lies in it, as far as that can be told.</summary>
    public bool Holds(PlaceArea other)
    {
        if (Radius is { } mine && Place.Point is { } centre)
        {
            return other.Place.Point is { } point
                    && centre.KilometresTo(point) + (double)(other.Radius ?? 0) <= (double)mine
                || other.Radius is null && other.Place.IsIn(Place);
        }

        return other.Place.IsIn(Place)
            && (
                other.Radius is null
                // A circle may leave the region that its town is in: of the places that are known, all of them have to be within.
                || Gazetteer.All.Where(other.Holds).All(place => place.IsIn(Place))
            );
    }

    /// <summary>How much it takes in, for the narrowest of several to decide: towns before regions, and these before countries.</summary>
    public (int, decimal) Width =>
        (
            Place.Kind switch
            {
                PlaceKind.Town => 0,
                PlaceKind.Region => Place.Within!.Kind == PlaceKind.Region ? 1 : 2,
                PlaceKind.Country => 3,
            },
            Radius ?? 0
        );

    /// <summary>In words: <c>25 km around Leeds, Yorkshire</c>.</summary>
    public string InWords =>
        Radius is { } kilometres ? $"{DistanceValue.Words(kilometres)} around {Place.Name}" : Place.Name;
}
