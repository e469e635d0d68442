using System.Text.Json;
using Fendrik.Core.Matching;

namespace Fendrik.Network.Simulation;

/// <summary>Who searches for what, when and where, and who else bids: the world that the stand-in plays, as data.</summary>
public sealed record Market
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    private static readonly Lazy<Market> Shipped = new(Load);

    public static Market Default => Shipped.Value;

    public required IReadOnlyList<Place> Places { get; init; }

    /// <summary>Weight of each hour of the day.</summary>
    public required IReadOnlyList<decimal> Hours { get; init; }

    /// <summary>Factor for each day of the week, Monday first.</summary>
    public required IReadOnlyList<decimal> Weekdays { get; init; }
    public required DeviceShares Devices { get; init; }
    public required SiteShares Sites { get; init; }
    public required IReadOnlyList<LandingPage> Pages { get; init; }
    public required IReadOnlyList<Theme> Themes { get; init; }

    /// <summary>What somebody who types these words most likely wants: the searches that share most words with them, or none.</summary>
    public Theme? ThemeOf(IReadOnlyList<string> words)
    {
        var best = Themes
            .Select(theme => (theme, Shared: theme.Searches.Max(pattern => pattern.Shared(words))))
            .MaxBy(each => each.Shared);
        return best.Shared >= 0.5 ? best.theme : null;
    }

    private static Market Load()
    {
        using var stream = typeof(Market).Assembly.GetManifestResourceStream("Fendrik.Network.World.market.json")!;
        return JsonSerializer.Deserialize<Market>(stream, Json)!;
    }
}

public sealed record Place(string Name, double Weight);

public sealed record DeviceShares(double Phone, double Desktop, double Tablet);

public sealed record SiteShares(double Search, double Partners, double Content);

/// <summary>A landing page and what it is about.</summary>
public sealed record LandingPage(string Path, string Words)
{
    private IReadOnlyList<string>? _list;
    public IReadOnlyList<string> List => _list ??= Core.Matching.Words.Of(Words);
}

/// <summary>What a place asks for at least: bids of a quality score of 5.</summary>
/// <param name="Top">Above the results.</param>
/// <param name="Bottom">Below them.</param>
public sealed record Reserve(decimal Top, decimal Bottom);

/// <summary>One reason to search, with its searches and the rivals who bid on them.</summary>
public sealed record Theme(
    string Name,
    Reserve Reserve,
    double SearchesPerDay,
    double ConversionRate,
    decimal Value,
    double ClickRate,
    IReadOnlyList<SearchPattern> Searches,
    IReadOnlyList<Rival> Rivals
);

/// <summary>A search as typed, with a place to be filled in, how common it is, and how earnest (1 is usual).</summary>
public sealed record SearchPattern(string Text, double Weight, double Intent = 1)
{
    /// <summary>Share of these words that a search of this pattern may have too, a place left out.</summary>
    public double Shared(IReadOnlyList<string> words)
    {
        var own = Words.Of(Text.Replace("{place}", "", StringComparison.Ordinal)).Select(Plurals.Singular).ToHashSet();
        var shared = words.Count(word => own.Contains(Plurals.Singular(word)));
        return shared / (double)Math.Max(own.Count, words.Count);
    }
}

/// <summary>Someone else who bids.</summary>
public sealed record Rival(string Name, decimal Bid, decimal Quality, double Active);
