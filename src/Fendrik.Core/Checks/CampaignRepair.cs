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
        ByCode.TryGetValue(code, out var repair) ? repair(sites, answering, ground) : null;

    /// <summary>The checks that have decided whether anything mends them: all of settings.</summary>
    internal static IEnumerable<string> Decided => ByCode.Keys;

    private static readonly Dictionary<string, Func<SiteKinds, WeekHours?, ReadingGround, CampaignRepair?>> ByCode =
        new(StringComparer.Ordinal)
        {
            [CampaignRisks.Everywhere] = OnlyAPerson,
            [CampaignRisks.Interested] = (_, _, _) =>
                new CampaignRepair(
                    "Keep to people in the places",
                    "people",
                    Choices.NameOf(Choices.Reach, (int)PlaceReach.Present)
                ),
            [CampaignRisks.MixedSites] = (sites, _, ground) =>
                Without(SiteKinds.Content, "Leave out content sites", sites, ground),
            [CampaignRisks.PartnerCalls] = (sites, _, ground) =>
                Without(SiteKinds.Partners, "Leave out partner sites", sites, ground),
            [CampaignRisks.AnyHourCalls] = (_, answering, _) =>
                answering is null
                    ? null
                    : new CampaignRepair("Show in the answering hours", "hours", answering.ToString()),
            [StrategyChecks.Uncounted] = (_, _, _) =>
                new CampaignRepair(
                    "Set bids by hand",
                    "strategy",
                    Choices.NameOf(Choices.Strategy, (int)BidStrategy.ManualCpc)
                ),
            [StrategyChecks.AgainstObjective] = OnlyAPerson,
            [StrategyChecks.IdleModifiers] = OnlyAPerson,
            [GoalChecks.Unknown] = GoalsOfAccount,
            [GoalChecks.PageCounts] = GoalsOfAccount,
            [GoalChecks.NothingSteers] = OnlyAPerson,
            [GoalChecks.AgainstObjective] = OnlyAPerson,
        };

    /// <summary>Which places are served, what a campaign is for: nobody else knows.</summary>
    private static CampaignRepair? OnlyAPerson(SiteKinds sites, WeekHours? answering, ReadingGround ground) => null;

    private static CampaignRepair? GoalsOfAccount(SiteKinds sites, WeekHours? answering, ReadingGround ground) =>
        new("Use the goals of the account", "goals", "");

    private static CampaignRepair? Without(SiteKinds site, string label, SiteKinds sites, ReadingGround ground) =>
        (sites & ~site) is var rest && rest == 0
            ? null
            : new CampaignRepair(
                label,
                "networks",
                ItemTypes.Of(ItemKind.Campaign)["networks"].Type.Write((short)rest, ground)
            );
}
