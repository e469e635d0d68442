using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Serving;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Network.Simulation;

/// <summary>Extensions of one kind that stand on an ad group, its campaign or the account, and that reviewers let through.</summary>
/// <param name="Type">The kind.</param>
/// <param name="Extensions">The extensions.</param>
public sealed record PlacedExtensions(ExtensionType Type, IReadOnlyList<PlacedExtension> Extensions);

/// <summary>An account as the network serves it.</summary>
/// <param name="Served">How it answers searches.</param>
/// <param name="Campaigns">All its campaigns.</param>
/// <param name="Keywords">Its keywords, by id.</param>
/// <param name="ExtensionsOf">What could show beside the ads of an ad group, kind by kind.</param>
/// <param name="Goals">What counts in its campaigns.</param>
public sealed record LiveAccount(
    ServedAccount Served,
    IReadOnlyList<Campaign> Campaigns,
    IReadOnlyDictionary<long, ServedKeyword> Keywords,
    Func<AdGroup, IReadOnlyList<PlacedExtensions>> ExtensionsOf,
    ConversionGoals Goals
);
