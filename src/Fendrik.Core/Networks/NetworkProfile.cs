using System.Collections.Concurrent;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Networks;

/// <summary>
/// The limits of one search network, as data: used by the editor, by the checks and by the network itself, so that all
/// three say the same. Lengths are in characters as people count them (grapheme clusters).
/// </summary>
public sealed record NetworkProfile
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    private static readonly Lazy<IReadOnlyDictionary<string, NetworkProfile>> Shipped = new(Load);

    private WordReach? _reach;

    // What is looked up for every field of every item that is checked; a profile with other limits begins anew.
    private ConcurrentDictionary<ItemType, FieldLimits[]> _limitsByType = [];

    /// <summary>Short name in addresses, for example <c>ostrel</c>.</summary>
    public required string Id { get; init; }

    /// <summary>Name shown to people.</summary>
    public required string Name { get; init; }

    /// <summary>Limits by the kind of item and the name of the field.</summary>
    public required IReadOnlyDictionary<string, IReadOnlyDictionary<string, FieldLimits>> Limits
    {
        get;
        init => (field, _limitsByType) = (value, []);
    }

    /// <summary>Limits of fields of the same name on whatever kind, where the kind has none of its own.</summary>
    public required IReadOnlyDictionary<string, FieldLimits> LimitsOnAny
    {
        get;
        init => (field, _limitsByType) = (value, []);
    }

    /// <summary>What a wide character (UAX #11) counts in lengths: 1 as any other, or 2.</summary>
    public required int WideCounts { get; init; }

    /// <summary>How words are read and matched.</summary>
    public required MatchingRules Matching { get; init; }

    /// <summary>Which word reaches which here, by the words that ship.</summary>
    [JsonIgnore]
    public WordReach Reach => _reach ??= new WordReach(Matching, RelatedWords.Shipped);

    /// <summary>Which word reaches which here, by the words that ship and those of an account.</summary>
    public WordReach ReachWith(IReadOnlyCollection<RelatedWord> words) =>
        words.Count == 0 ? Reach : new WordReach(Matching, RelatedWords.Shipped.With(words));

    /// <summary>Most ads above the results of a page.</summary>
    public required int TopPlaces { get; init; }

    /// <summary>Most ads below them.</summary>
    public required int BottomPlaces { get; init; }

    /// <summary>The audience of those who clicked on an ad of the account before, within three weeks; none where the network does not know them.</summary>
    public string? PastVisitors { get; init; }

    /// <summary>Most keywords for which it estimates at once.</summary>
    public required int EstimatesAtOnce { get; init; }

    /// <summary>When its reviewers work and what they refuse.</summary>
    public required ReviewRules Reviewing { get; init; }

    /// <summary>How it puts responsive ads together.</summary>
    public required ResponsiveRules Responsive { get; init; }

    /// <summary>How it chooses what shows beside an ad.</summary>
    public required ExtensionRules Extensions { get; init; }

    /// <summary>The networks that ship with Fendrik, by their short names.</summary>
    public static IReadOnlyDictionary<string, NetworkProfile> All => Shipped.Value;

    /// <summary>The network with this short name.</summary>
    /// <exception cref="ArgumentException">There is no such network.</exception>
    public static NetworkProfile Of(string id) =>
        All.TryGetValue(id, out var profile)
            ? profile
            : throw new ArgumentException($"There is no network “{id}”.", nameof(id));

    /// <summary>What the network takes in a field.</summary>
    public FieldLimits LimitsOf(ItemType type, Field field) => LimitsOf(type)[field.Ordinal];

    /// <summary>What the network takes in each field of a kind, in their order.</summary>
    internal FieldLimits[] LimitsOf(ItemType type) =>
        _limitsByType.GetOrAdd(
            type,
            static (type, profile) =>
                [
                    .. type.Fields.Select(field =>
                        profile.Limits.GetValueOrDefault(type.Key)?.GetValueOrDefault(field.Name)
                        ?? profile.LimitsOnAny.GetValueOrDefault(field.Name)
                        ?? FieldLimits.None
                    ),
                ],
            this
        );

    /// <summary>What the network takes in a field of a kind.</summary>
    public FieldLimits LimitsOf(ItemKind kind, string field)
    {
        var type = ItemTypes.Of(kind);
        return LimitsOf(type, type[field]);
    }

    /// <summary>The lowest max CPC in a currency; the floor of the auction as well.</summary>
    public decimal MinimumCpc(Currency currency) => LimitsOf(ItemKind.Keyword, "maxCpc").LeastIn(currency) ?? 0;

    /// <summary>The name of a kind in the data of profiles and in JSON: adGroup.</summary>
    public static string KeyOf(ItemKind kind) =>
        Keys.GetOrAdd(kind, static each => JsonNamingPolicy.CamelCase.ConvertName(each.ToString()));

    private static readonly ConcurrentDictionary<ItemKind, string> Keys = new();

    private static IReadOnlyDictionary<string, NetworkProfile> Load()
    {
        using var stream = typeof(NetworkProfile).Assembly.GetManifestResourceStream(
            "Fendrik.Core.Networks.network-profiles.json"
        )!;
        return JsonSerializer
            .Deserialize<List<NetworkProfile>>(stream, Json)!
            .Select(Measured)
            .ToDictionary(profile => profile.Id, StringComparer.Ordinal);
    }

    /// <summary>All limits of a network count characters as it does.</summary>
    private static NetworkProfile Measured(NetworkProfile profile)
    {
        Dictionary<string, FieldLimits> Counted(IReadOnlyDictionary<string, FieldLimits> limits) =>
            limits.ToDictionary(each => each.Key, each => each.Value with { WideCounts = profile.WideCounts });
        return profile with
        {
            Limits = profile.Limits.ToDictionary(
                each => each.Key,
                each => (IReadOnlyDictionary<string, FieldLimits>)Counted(each.Value)
            ),
            LimitsOnAny = Counted(profile.LimitsOnAny),
            Extensions = profile.Extensions with { WideCounts = profile.WideCounts },
        };
    }
}
