using Fendrik.Core.Accounts;
using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation;

/// <summary>An account as the network serves it.</summary>
/// <param name="Served">How it answers searches.</param>
/// <param name="Campaigns">All its campaigns.</param>
/// <param name="Keywords">Its keywords, by id.</param>
/// <param name="ExtensionsOf">What shows beside the ads of an ad group.</param>
public sealed record LiveAccount(
    ServedAccount Served,
    IReadOnlyList<Campaign> Campaigns,
    IReadOnlyDictionary<long, ServedKeyword> Keywords,
    Func<AdGroup, Extensions> ExtensionsOf
);
