namespace Fendrik.Core.Places;

/// <summary>What a place is.</summary>
public enum PlaceKind
{
    /// <summary>A country of ISO 3166-1.</summary>
    Country = 1,

    /// <summary>A part of a country, or of another part.</summary>
    Region = 2,

    /// <summary>A town.</summary>
    Town = 3,
}

/// <summary>A point on the earth.</summary>
/// <param name="Latitude">Degrees north.</param>
/// <param name="Longitude">Degrees east.</param>
public readonly record struct GeoPoint(double Latitude, double Longitude)
{
    /// <summary>The mean radius of the earth in kilometres.</summary>
    public const double RadiusOfEarth = 6371;

    /// <summary>
    /// Great-circle distance in kilometres, by the haversine formula (Sinnott, “Virtues of the haversine”, Sky and Telescope 68, 1984; quoted from memory).
    /// </summary>
    public double KilometresTo(GeoPoint other)
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

/// <summary>A place to which ads can be kept.</summary>
/// <param name="Key">Its code by ISO 3166, or how searches name it.</param>
/// <param name="Name">Its name.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Within">The place that it lies in; none for a country.</param>
/// <param name="Point">Where it is; none for what is no point.</param>
/// <param name="Others">Other names for it.</param>
public sealed record KnownPlace(
    string Key,
    string Name,
    PlaceKind Kind,
    KnownPlace? Within,
    GeoPoint? Point,
    IReadOnlyList<string> Others
)
{
    /// <summary>The name with the places that it lies in, the way to tell it from others of the name: <c>Leeds, Yorkshire, England, United Kingdom</c>.</summary>
    public string FullName => Within is null ? Name : $"{Name}, {Within.FullName}";

    /// <summary>The country that it is or lies in.</summary>
    public KnownPlace Country => Within?.Country ?? this;

    /// <summary>True when it is a place or lies in it.</summary>
    public bool IsIn(KnownPlace area) => Key == area.Key || Within?.IsIn(area) == true;

    /// <inheritdoc/>
    public override string ToString() => FullName;
}
