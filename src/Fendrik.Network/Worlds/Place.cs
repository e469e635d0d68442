using Fendrik.Core.Places;

namespace Fendrik.Network.Worlds;

/// <summary>Where people live.</summary>
/// <param name="Number">Its number in reports, from 1.</param>
/// <param name="Name">Its name as people type it.</param>
/// <param name="Region">The part of the country.</param>
/// <param name="Country">ISO 3166-1 code.</param>
/// <param name="Latitude">Degrees north.</param>
/// <param name="Longitude">Degrees east.</param>
/// <param name="Population">People.</param>
/// <param name="Others">Other names for it.</param>
public sealed record Place(
    int Number,
    string Name,
    string Region,
    string Country,
    double Latitude,
    double Longitude,
    int Population,
    IReadOnlyList<string> Others
)
{
    /// <summary>Great-circle distance in kilometres.</summary>
    public double KilometresTo(Place other) =>
        new GeoPoint(Latitude, Longitude).KilometresTo(new GeoPoint(other.Latitude, other.Longitude));
}
