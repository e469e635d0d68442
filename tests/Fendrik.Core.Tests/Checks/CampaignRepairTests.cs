using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tests.Checks;

public class CampaignRepairTests
{
    private static readonly ReadingGround Ground = new(Currency.Of("GBP"), AccountLanguage.Of("en-GB"));

    private static CampaignRepair? Of(string code, SiteKinds sites = SiteKinds.Search, string? answering = null) =>
        CampaignRepair.Of(code, sites, answering is null ? null : WeekHours.Of(answering), Ground);

    [Theory]
    [InlineData(CampaignRisks.MixedSites, SiteKinds.Search | SiteKinds.Content, "search")]
    [InlineData(CampaignRisks.PartnerCalls, SiteKinds.Search | SiteKinds.Partners, "search")]
    [InlineData(
        CampaignRisks.PartnerCalls,
        SiteKinds.Search | SiteKinds.Partners | SiteKinds.Content,
        "search + content"
    )]
    public void Sites_that_cost_money_are_left_out_and_the_rest_stays(string code, SiteKinds sites, string rest) =>
        Of(code, sites)!.Text.ShouldBe(rest);

    [Fact]
    public void The_only_kind_of_site_is_never_left_out() =>
        Of(CampaignRisks.PartnerCalls, SiteKinds.Partners).ShouldBeNull();

    [Fact]
    public void Calls_are_kept_to_the_answering_hours_where_these_are_known()
    {
        Of(CampaignRisks.AnyHourCalls).ShouldBeNull();
        Of(CampaignRisks.AnyHourCalls, answering: "Mon-Fri 08:00-17:30")!.Text.ShouldBe("Mon-Fri 08:00-17:30");
    }

    [Fact]
    public void Which_places_are_served_only_a_person_knows() => Of(CampaignRisks.Everywhere).ShouldBeNull();

    [Fact]
    public void Every_repair_is_read_by_its_field_and_what_it_mends_is_gone()
    {
        foreach (var code in CampaignRisks.Codes.Concat(StrategyChecks.Codes))
        {
            if (Of(code, SiteKinds.Search | SiteKinds.Partners | SiteKinds.Content, "Mon-Fri 9-17") is { } repair)
            {
                ItemTypes.Of(ItemKind.Campaign)[repair.Field].Read(repair.Text, Ground).Problem.ShouldBeNull(code);
            }
        }
    }

    [Fact]
    public void Every_check_of_settings_has_decided_whether_something_mends_it() =>
        CampaignRepair
            .Decided.Order()
            .ShouldBe(CampaignRisks.Codes.Concat(StrategyChecks.Codes).Concat(GoalChecks.Codes).Order());
}
