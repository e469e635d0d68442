namespace Fendrik.Core.Networks;

/// <summary>How a network puts responsive ads together.</summary>
public sealed record ResponsiveRules
{
    /// <summary>Headlines that show at a time.</summary>
    public required OnScreens Headlines { get; init; }

    /// <summary>Descriptions that show at a time.</summary>
    public required OnScreens Descriptions { get; init; }

    /// <summary>Places that lines of a field of responsive ads stand at; none for a field without.</summary>
    public int? PlacesOf(string field) =>
        field == "headlines" ? Headlines.Most
        : field == "descriptions" ? Descriptions.Most
        : null;

    /// <summary>Percentage of searches in which lines are put together by chance, so that those with little behind them are tried as well.</summary>
    public required int TriedOut { get; init; }
}
