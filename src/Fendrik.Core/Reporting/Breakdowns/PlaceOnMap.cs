namespace Fendrik.Core.Reporting.Breakdowns;

/// <summary>Where a place lies.</summary>
/// <param name="Latitude">Degrees north.</param>
/// <param name="Longitude">Degrees east.</param>
/// <param name="IsInterest">True where people elsewhere meant it, false where they were there.</param>
public sealed record PlaceOnMap(double Latitude, double Longitude, bool IsInterest);
