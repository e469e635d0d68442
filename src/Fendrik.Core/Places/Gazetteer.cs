using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Items;

namespace Fendrik.Core.Places;

/// <summary>The places that the networks know: the countries of ISO 3166-1, regions, and towns.</summary>
/// <remarks>
/// <c>countries.json</c> is made from a package that carries the standard, and a test holds it to that package; <c>places.tsv</c> holds the towns of the
/// simulated world and more, and a test holds it to that world.
/// </remarks>
public static class Gazetteer
{
    private const int Columns = 6;

    private static readonly Dictionary<string, KnownPlace> ByKey = Load();

    private static readonly Dictionary<string, KnownPlace> ByFullName = ByKey.Values.ToDictionary(place =>
        TextIdentity.Of(place.FullName)
    );

    private static readonly ILookup<string, KnownPlace> ByName = ByKey
        .Values.SelectMany(place => NamesOf(place).Distinct().Select(name => (name, place)))
        .ToLookup(each => each.name, each => each.place);

    /// <summary>All places: countries, then regions, then towns, each by name.</summary>
    public static IReadOnlyList<KnownPlace> All { get; } =
    [.. ByKey.Values.OrderBy(place => place.Kind).ThenBy(place => place.FullName, StringComparer.Ordinal)];

    /// <summary>The place of a key; none where there is none.</summary>
    public static KnownPlace? OfKey(string key) => ByKey.GetValueOrDefault(key);

    /// <summary>
    /// The places that a text may mean: by full name, name, other name, or code, whatever the capitals; a name may be followed by any of the places that it
    /// lies in, so that <c>Perth, Scotland</c> is one of the two. Nothing where none is known.
    /// </summary>
    public static IReadOnlyList<KnownPlace> Find(string text)
    {
        // Some countries have a comma in their names.
        if (ByFullName.TryGetValue(TextIdentity.Of(text), out var whole) && ByName[TextIdentity.Of(text)].Count() <= 1)
        {
            return [whole];
        }

        var parts = text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        if (parts.Length == 0)
        {
            return [];
        }

        KnownPlace[] named = [.. ByName[TextIdentity.Of(parts[0])]];
        return
        [
            .. named
                .Where(place => parts.Skip(1).All(part => LiesInSomeCalled(place, TextIdentity.Of(part))))
                .OrderBy(place => place.Kind)
                .ThenBy(place => place.FullName, StringComparer.Ordinal),
        ];
    }

    private static bool LiesInSomeCalled(KnownPlace place, string name) =>
        place.Within is { } above && (NamesOf(above).Contains(name) || LiesInSomeCalled(above, name));

    private static IEnumerable<string> NamesOf(KnownPlace place) =>
        place
            .Others.Append(place.Name)
            .Append(place.Kind == PlaceKind.Town ? place.Name : place.Key)
            .Select(TextIdentity.Of);

    private static Dictionary<string, KnownPlace> Load()
    {
        var places = new Dictionary<string, KnownPlace>(StringComparer.Ordinal);
        using (var countries = Open("countries.json"))
        {
            foreach (var (code, name) in JsonSerializer.Deserialize<Dictionary<string, string>>(countries)!)
            {
                places.Add(code, new KnownPlace(code, name, PlaceKind.Country, null, null, []));
            }
        }

        using var reader = new StreamReader(Open("places.tsv"));
        var lines = reader
            .ReadToEnd()
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Where(line => line[0] != '#')
            .Skip(1);
        foreach (var line in lines)
        {
            var cells = line.TrimEnd('\r').Split('\t');
            if (cells.Length != Columns)
            {
                throw new InvalidDataException($"A place has {Columns} columns: {line}");
            }

            double Number(int at) => double.Parse(cells[at], CultureInfo.InvariantCulture);
            GeoPoint? point = cells[3].Length > 0 ? new GeoPoint(Number(3), Number(4)) : null;
            places.Add(
                cells[0],
                new KnownPlace(
                    cells[0],
                    cells[1],
                    point is null ? PlaceKind.Region : PlaceKind.Town,
                    places[cells[2]],
                    point,
                    cells[5].Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                )
            );
        }

        return places;
    }

    private static Stream Open(string file) =>
        typeof(Gazetteer).Assembly.GetManifestResourceStream($"Fendrik.Core.Places.{file}")!;
}
