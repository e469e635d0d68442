using System.Text.Json;

namespace Fendrik.Core.Accounts;

/// <summary>
/// The limits of one search network, as data: used by the editor, by the checks and by the network itself, so that all
/// three say the same. Lengths are in characters as people count them (grapheme clusters).
/// </summary>
public sealed record NetworkProfile
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    private static readonly Lazy<IReadOnlyDictionary<string, NetworkProfile>> Shipped = new(Load);

    /// <summary>Short name in addresses, for example <c>ostrel</c>.</summary>
    public required string Id { get; init; }

    /// <summary>Name shown to people.</summary>
    public required string Name { get; init; }

    /// <summary>Fewest headlines of a text ad.</summary>
    public required int HeadlinesMin { get; init; }

    /// <summary>Most headlines of a text ad.</summary>
    public required int HeadlinesMax { get; init; }

    /// <summary>Longest headline.</summary>
    public required int HeadlineLength { get; init; }

    /// <summary>Fewest descriptions.</summary>
    public required int DescriptionsMin { get; init; }

    /// <summary>Most descriptions.</summary>
    public required int DescriptionsMax { get; init; }

    /// <summary>Longest description.</summary>
    public required int DescriptionLength { get; init; }

    /// <summary>Parts of a display path.</summary>
    public required int PathParts { get; init; }

    /// <summary>Longest part of a display path.</summary>
    public required int PathLength { get; init; }

    /// <summary>Longest keyword or negative keyword.</summary>
    public required int KeywordLength { get; init; }

    /// <summary>Most words in a keyword.</summary>
    public required int KeywordWords { get; init; }

    /// <summary>Most words in a negative keyword.</summary>
    public required int NegativeWords { get; init; }

    /// <summary>Longest name of a campaign or ad group.</summary>
    public required int NameLength { get; init; }

    /// <summary>Longest final URL.</summary>
    public required int UrlLength { get; init; }

    /// <summary>Lowest max CPC, in the account's currency. The floor of the auction as well.</summary>
    public required decimal MinimumCpc { get; init; }

    /// <summary>Lowest daily budget, in the account's currency.</summary>
    public required decimal MinimumDailyBudget { get; init; }

    /// <summary>Places for ads on one page of results.</summary>
    public required int Places { get; init; }

    /// <summary>First hour of the reviewers' working day.</summary>
    public required int ReviewFromHour { get; init; }

    /// <summary>Hour at which the reviewers go home.</summary>
    public required int ReviewToHour { get; init; }

    /// <summary>Working hours that a review takes.</summary>
    public required int ReviewHours { get; init; }

    /// <summary>Wordings that reviewers refuse, as normalised text.</summary>
    public required IReadOnlyList<string> RefusedWordings { get; init; }

    /// <summary>All networks that Fendrik knows, by id.</summary>
    public static IReadOnlyDictionary<string, NetworkProfile> All => Shipped.Value;

    /// <summary>The profile of a network.</summary>
    /// <exception cref="ArgumentException">No network has this id.</exception>
    public static NetworkProfile Of(string id) =>
        All.TryGetValue(id, out var profile)
            ? profile
            : throw new ArgumentException($"There is no network “{id}”.", nameof(id));

    /// <summary>The first refused wording that a text contains as whole words, or none.</summary>
    public string? RefusedWordingIn(string text)
    {
        var padded = " " + string.Join(' ', Matching.Words.Of(text)) + " ";
        return RefusedWordings.FirstOrDefault(wording =>
            padded.Contains(" " + wording + " ", StringComparison.Ordinal)
        );
    }

    private static IReadOnlyDictionary<string, NetworkProfile> Load()
    {
        using var stream = typeof(NetworkProfile).Assembly.GetManifestResourceStream(
            "Fendrik.Core.Accounts.network-profiles.json"
        )!;
        return JsonSerializer
            .Deserialize<List<NetworkProfile>>(stream, Json)!
            .ToDictionary(profile => profile.Id, StringComparer.Ordinal);
    }
}
