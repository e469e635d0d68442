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
    private const double RadiusOfEarth = 6371;

    /// <summary>Great-circle distance in kilometres, by the haversine formula.</summary>
    public double KilometresTo(Place other)
    {
        static double Radians(double degrees) => degrees * Math.PI / 180;
        var (one, two) = (Radians(Latitude), Radians(other.Latitude));
        var across = Math.Sin((two - one) / 2);
        var along = Math.Sin(Radians(other.Longitude - Longitude) / 2);
        return 2
            * RadiusOfEarth
            * Math.Asin(Math.Sqrt(across * across + Math.Cos(one) * Math.Cos(two) * along * along));
    }
}
