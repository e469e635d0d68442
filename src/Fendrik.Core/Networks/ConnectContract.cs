namespace Fendrik.Core.Networks;

/// <summary>Somebody else who writes to an account on the network.</summary>
/// <param name="Name">Who, as the network calls them.</param>
/// <param name="LastAt">When they last changed something there.</param>
public sealed record OtherWriter(string Name, DateTimeOffset LastAt);

/// <summary>An account that exists on a network, as it is told to whoever may open it.</summary>
/// <param name="Id">Its name on the network.</param>
/// <param name="Name">What its owner calls it.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="TimeZone">IANA time zone.</param>
/// <param name="Payer">Who pays it; none for nobody.</param>
/// <param name="Campaigns">How many campaigns are in it.</param>
/// <param name="AdGroups">How many ad groups.</param>
/// <param name="Keywords">How many keywords.</param>
/// <param name="Writers">Who else writes to it.</param>
public sealed record NetworkAccountOffer(
    string Id,
    string Name,
    string Currency,
    string TimeZone,
    string? Payer,
    int Campaigns,
    int AdGroups,
    int Keywords,
    IReadOnlyList<OtherWriter> Writers
);

/// <summary>Opens accounts that exist on a network.</summary>
/// <param name="Network">The network's identity.</param>
/// <param name="Code">The access code that the network gave to the owner of the accounts.</param>
public sealed record AccountOpening(string Network, string Code);

/// <summary>A tool's own name for an account that exists.</summary>
/// <param name="Network">The network's identity.</param>
/// <param name="Code">The access code that opens it.</param>
/// <param name="Account">Its name on the network.</param>
public sealed record AccountLink(string Network, string Code, string Account);
