using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Networks;

/// <summary>Which levels' extensions an ad may show.</summary>
public enum ExtensionLevels
{
    /// <summary>Those of the account, the campaign and the ad group together.</summary>
    Pooled = 1,

    /// <summary>Those of the nearest level that has any: they replace the farther ones.</summary>
    Nearest = 2,
}

/// <summary>How a network chooses what shows beside an ad: the same for the network itself, its coverage and whoever explains it.</summary>
public sealed record ExtensionRules
{
    /// <summary>Which levels take part.</summary>
    public required ExtensionLevels Levels { get; init; }

    /// <summary>Callouts that must fit for any to show.</summary>
    public required int FewestCallouts { get; init; }

    /// <summary>Most callouts that show.</summary>
    public required int MostCallouts { get; init; }

    /// <summary>Characters of the line that callouts stand in, with what stands between them.</summary>
    public required OnScreens CalloutLine { get; init; }

    /// <summary>What a wide character counts there.</summary>
    public int WideCounts { get; init; } = 1;

    /// <summary>Most sitelinks that show.</summary>
    public required OnScreens Sitelinks { get; init; }

    /// <summary>Percentage of searches in which those that showed least go first: without it, whoever had bad luck once would never show again.</summary>
    public required int TriedOut { get; init; }

    /// <summary>Countries with numbers whose calls the network counts, by ISO 3166.</summary>
    public required IReadOnlyList<string> CountriesMeasured { get; init; }

    /// <summary>True when calls to a number can be counted.</summary>
    /// <param name="number">The number by E.164.</param>
    public bool Measures(string number) =>
        PhoneValue.CountryOf(number) is { } country && CountriesMeasured.Contains(country);
}
