using Fendrik.Core.Places;
using Fendrik.Data.Accounts;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A place that may be chosen.</summary>
/// <param name="FullName">Its full name, by which it is chosen.</param>
/// <param name="Name">Its name alone.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Latitude">Degrees north; none for what is no point.</param>
/// <param name="Longitude">Degrees east.</param>
/// <param name="Others">Other names for it.</param>
public sealed record GazetteerPlace(
    string FullName,
    string Name,
    PlaceKind Kind,
    double? Latitude,
    double? Longitude,
    IReadOnlyList<string> Others
);

/// <summary>Names of places as somebody pastes them.</summary>
/// <param name="Lines">One on each.</param>
public sealed record PlaceLines(IReadOnlyList<string> Lines);

/// <summary>What a name may mean.</summary>
/// <param name="Text">The name as it was pasted.</param>
/// <param name="Places">The full names of the places that it may mean: none, one, or several to choose from.</param>
public sealed record PlaceReading(string Text, IReadOnlyList<string> Places);

/// <summary>The places that networks know.</summary>
internal static class PlaceEndpoints
{
    private const int MostLines = 1_000;
    private const int LongestLine = 400;

    public static void MapPlaces(this RouteGroupBuilder account)
    {
        account.MapGet("/places", All).WithName("readPlaces");
        account.MapPost("/places/read", Read).WithName("readPlaceNames").Needs(AccountRight.Look);
    }

    private static Ok<IReadOnlyList<GazetteerPlace>> All(int accountId) =>
        TypedResults.Ok<IReadOnlyList<GazetteerPlace>>([
            .. Gazetteer.All.Select(place => new GazetteerPlace(
                place.FullName,
                place.Name,
                place.Kind,
                place.Point?.Latitude,
                place.Point?.Longitude,
                place.Others
            )),
        ]);

    private static Ok<IReadOnlyList<PlaceReading>> Read(int accountId, PlaceLines request)
    {
        if (request.Lines.Count > MostLines)
        {
            throw new InvalidChangeException(
                "lines",
                $"These are {request.Lines.Count:N0} names; {MostLines:N0} at most. Bring longer lists in through Intake."
            );
        }

        if (request.Lines.FirstOrDefault(line => line.Length > LongestLine) is { } longest)
        {
            throw new InvalidChangeException("lines", $"“{longest[..60]}…” is too long for a place.");
        }

        return TypedResults.Ok<IReadOnlyList<PlaceReading>>([
            .. request
                .Lines.Select(line => line.Trim())
                .Where(line => line.Length > 0)
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Select(line => new PlaceReading(line, [.. Gazetteer.Find(line).Select(place => place.FullName)])),
        ]);
    }
}
