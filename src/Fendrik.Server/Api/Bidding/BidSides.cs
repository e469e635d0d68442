using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Results;

namespace Fendrik.Server.Api.Bidding;

/// <summary>The lowest and the highest that a search can be bid by the modifiers of a campaign.</summary>
/// <param name="campaign">The campaign.</param>
/// <param name="targets">Its places and audiences.</param>
/// <param name="currency">The account's currency.</param>
internal sealed class BidSides(PricedCampaign campaign, IReadOnlyList<TargetedDay> targets, Currency currency)
{
    /// <summary>One of the two.</summary>
    /// <param name="name">What the base is.</param>
    /// <param name="bid">The base.</param>
    /// <param name="highest">True for the highest.</param>
    /// <param name="ofGroup">The ad group's modifier of a device, which comes before the campaign's; none for the campaign's alone.</param>
    public BidStack Of(string name, decimal bid, bool highest, Func<Device, decimal?>? ofGroup = null) =>
        BidStack.Of(
            [(name, bid)],
            BidRange.Extremes(
                Enum.GetValues<Device>()
                    .Select(device =>
                        (
                            Choices.NameOf(Choices.Device, (int)device),
                            ofGroup?.Invoke(device) ?? campaign.ModifierOf(device) ?? 0
                        )
                    ),
                campaign.Plan,
                targets
                    .Where(each => each is { Kind: ItemKind.Place, Side: PlacementSide.In })
                    .Select(each => ($"place {each.Text.Split(',')[0]}", each.Modifier ?? 0)),
                targets
                    .Where(each => each.Kind == ItemKind.Audience)
                    .Select(each => ($"audience {each.Text}", each.Modifier ?? 0)),
                highest
            ),
            currency
        )!;
}
