using System.Text.Json;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.AdText;

/// <summary>The lines of an ad in parts, with what is new in them.</summary>
/// <param name="Headlines">Headlines.</param>
/// <param name="Descriptions">Descriptions.</param>
/// <param name="DisplayPath">What shows behind the domain.</param>
public sealed record SeenChange(
    IReadOnlyList<IReadOnlyList<TextPart>> Headlines,
    IReadOnlyList<IReadOnlyList<TextPart>> Descriptions,
    IReadOnlyList<IReadOnlyList<TextPart>> DisplayPath
);

/// <summary>An ad of any kind about as people see it: to be shown as an ad, not as its fields.</summary>
/// <param name="Headlines">Headlines, as many as show.</param>
/// <param name="Descriptions">Descriptions, likewise.</param>
/// <param name="DisplayPath">What shows behind the domain.</param>
/// <param name="LandingPage">Where it leads; none where nobody said.</param>
/// <param name="Business">Who is called; none for an ad that leads to a page.</param>
/// <param name="Calls">The number that a tap calls, as people of its country write it.</param>
public sealed record SeenAd(
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string? LandingPage,
    string? Business,
    string? Calls
)
{
    /// <summary>What is new in it against the ad that it is a copy of; none for what is no copy.</summary>
    public SeenChange? Change { get; private init; }

    /// <summary>The same ad with what is new in it.</summary>
    /// <param name="original">The ad that it is a copy of.</param>
    public SeenAd After(SeenAd original) =>
        this with
        {
            Change = new SeenChange(
                TextChange.Parts(original.Headlines, Headlines),
                TextChange.Parts(original.Descriptions, Descriptions),
                TextChange.Parts(original.DisplayPath, DisplayPath)
            ),
        };

    /// <summary>True for a field of ads that is seen whole.</summary>
    public static bool Shows(Field field) => field.Type is LinesValue || field.Name is "businessName" or "callNumber";

    /// <summary>An item as people see it; none for what is no ad.</summary>
    /// <param name="type">Its kind.</param>
    /// <param name="item">The item as it is kept.</param>
    /// <param name="network">The network, which says how many lines show.</param>
    /// <exception cref="JsonException">A value has another form than its field.</exception>
    public static SeenAd? Of(ItemType type, JsonElement item, NetworkProfile network)
    {
        if (type is not AdType)
        {
            return null;
        }

        var values = ItemValues.ReadStored(type, item);
        IReadOnlyList<string> Lines(string name) =>
            type.Find(name) is { Type: LinesValue lines } field
                ? [.. values.Lines(name).Select(lines.SeenOf).Take(PlacesOf(field, network))]
                : [];
        string? Text(string name) => type.Find(name) is null ? null : values[name] as string;
        return new SeenAd(
            Lines("headlines"),
            Lines("descriptions"),
            Lines("displayPath"),
            Text("landingPage"),
            Text("businessName"),
            Text("callNumber") is { } number ? PhoneValue.National(number) : null
        );
    }

    private static int PlacesOf(Field field, NetworkProfile network) =>
        field.Type.Places is null ? int.MaxValue : network.Responsive.PlacesOf(field.Name) ?? int.MaxValue;
}
