namespace Fendrik.Network.Simulation.Beside;

/// <summary>An extension beside the ads of an ad group on a day.</summary>
/// <param name="Day">The day.</param>
/// <param name="CampaignId">The campaign of the ads.</param>
/// <param name="AdGroupId">Their ad group.</param>
/// <param name="Kind">Kind of the extension.</param>
/// <param name="Id">The extension.</param>
public readonly record struct BesideKey(DateOnly Day, long CampaignId, long AdGroupId, ItemKind Kind, long Id);
