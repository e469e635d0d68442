using System.Text.Json;

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

/// <summary>One reason to search, with its searches and the rivals who bid on them.</summary>
public sealed record Theme(
    string Name,
    double SearchesPerDay,
    double ConversionRate,
    decimal Value,
    double ClickRate,
    IReadOnlyList<SearchPattern> Searches,
    IReadOnlyList<Rival> Rivals
);

/// <summary>A search as typed, with a place to be filled in, how common it is, and how earnest (1 is usual).</summary>
public sealed record SearchPattern(string Text, double Weight, double Intent = 1);

/// <summary>Someone else who bids.</summary>
public sealed record Rival(string Name, decimal Bid, decimal Quality, double Active);
