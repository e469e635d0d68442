using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Checks;

/// <summary>What mends a risky setting of a campaign in one step.</summary>
/// <param name="Label">What it does, in a few words.</param>
/// <param name="Field">The field that is set.</param>
/// <param name="Text">To what, as it is typed.</param>
public sealed record CampaignRepair(string Label, string Field, string Text)
{
    /// <summary>What mends a finding.</summary>
    /// <param name="code">Name of the check.</param>
    /// <param name="sites">Where the campaign shows.</param>
    /// <param name="answering">When somebody takes calls; none where nobody said.</param>
    /// <param name="ground">What values are written by.</param>
    /// <returns>None where only a person can say what is right.</returns>
    public static CampaignRepair? Of(string code, SiteKinds sites, WeekHours? answering, ReadingGround ground) =>
        code switch
        {
            CampaignRisks.Interested => new CampaignRepair(
                "Keep to people in the places",
                "people",
                Choices.NameOf(Choices.Reach, (int)PlaceReach.Present)
            ),
            CampaignRisks.MixedSites => Without(SiteKinds.Content, "Leave out content sites", sites, ground),
            CampaignRisks.PartnerCalls => Without(SiteKinds.Partners, "Leave out partner sites", sites, ground),
            CampaignRisks.AnyHourCalls when answering is not null => new CampaignRepair(
                "Show in the answering hours",
                "hours",
                answering.ToString()
            ),
            StrategyChecks.Uncounted => new CampaignRepair(
                "Set bids by hand",
                "strategy",
                Choices.NameOf(Choices.Strategy, (int)BidStrategy.ManualCpc)
            ),
            _ => null,
        };

    private static CampaignRepair? Without(SiteKinds site, string label, SiteKinds sites, ReadingGround ground) =>
        (sites & ~site) is var rest && rest == 0
            ? null
            : new CampaignRepair(
                label,
                "networks",
                ItemTypes.Of(ItemKind.Campaign)["networks"].Type.Write((short)rest, ground)
            );
}
