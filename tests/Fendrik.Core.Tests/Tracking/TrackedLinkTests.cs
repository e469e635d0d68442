using Fendrik.Core.Checks;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Tests.Tracking;

public class TrackedLinkTests
{
    private static TrackedClick Click(string page) =>
        new(
            page,
            new Campaign(5, "Tuning · North", ItemState.Running, 20, null, null, SiteKinds.Search),
            new AdGroup(2, 5, "Piano tuner", ItemState.Running, 1),
            new Keyword(31, 2, "piano tuner york", MatchType.AllWords, ItemState.Running, null, null),
            14,
            Device.Phone,
            "ostrel",
            SiteKinds.Partners,
            2,
            "3f9a"
        );

    private static TrackedLink Of(string? template, string page = "https://tarnandfell.example/tuning") =>
        TrackedLink.Of(template, Click(page));

    [Fact]
    public void Without_a_template_a_click_leads_to_the_landing_page() =>
        Of(null).Address.ShouldBe("https://tarnandfell.example/tuning");

    [Fact]
    public void Says_all_that_is_known_of_a_click() =>
        Of(
            "{+page}?c={campaign}{&campaign_id,ad_group,ad_group_id,keyword,keyword_id,match,ad_id,device,network,site,place,click_id}"
        )
            .Address.ShouldBe(
                "https://tarnandfell.example/tuning?c=Tuning%20%C2%B7%20North&campaign_id=5&ad_group=Piano%20tuner&ad_group_id=2"
                    + "&keyword=piano%20tuner%20york&keyword_id=31&match=all%20words&ad_id=14&device=phone&network=ostrel&site=partners&place=2&click_id=3f9a"
            );

    [Theory]
    [InlineData("a.example/x", "{+page}{?device}", "https://a.example/x?device=phone")]
    [InlineData("https://a.example/x?ref=1", "{+page}{?device}", "https://a.example/x?ref=1&device=phone")]
    [InlineData("https://a.example/x?", "{+page}?d={device}", "https://a.example/x?d=phone")]
    [InlineData("https://a.example/x", "{+page}{&device}", "https://a.example/x?device=phone")]
    [InlineData("https://a.example/x#prices", "{+page}{?device}", "https://a.example/x?device=phone#prices")]
    [InlineData("https://a.example/x?a=1#p", "{+page}{?device}", "https://a.example/x?a=1&device=phone#p")]
    [InlineData(
        "https://a.example/x?a=1",
        "https://count.example/to?url={page}{&match}",
        "https://count.example/to?url=https%3A%2F%2Fa.example%2Fx%3Fa%3D1&match=all%20words"
    )]
    public void Parameters_are_added_to_those_that_the_page_has(string page, string template, string address)
    {
        var link = Of(template, page);

        (link.Address, link.Problems.Count).ShouldBe((address, 0));
    }

    [Theory]
    [InlineData("{+page}{?devise}", "unknown-variable")]
    [InlineData("https://count.example/?to=tuning", "page-lost")]
    [InlineData("{page}?a=1", "no-address")]
    [InlineData("{+page", "unreadable")]
    public void What_would_lose_a_click_stops_it(string template, string code) =>
        Of(template).Problems.ShouldContain(problem => problem.Code == code && problem.Weight == Weight.Blocker);

    [Theory]
    [InlineData("https://a.example/?device=any", "{+page}{?device}")]
    [InlineData("https://a.example/", "{+page}?device=x{&device}")]
    public void A_parameter_that_comes_twice_is_told(string page, string template) =>
        Of(template, page).Problems.ShouldHaveSingleItem().Code.ShouldBe("doubled-parameter");

    [Fact]
    public void Every_variable_has_a_value_for_a_click_that_was_made() =>
        TrackingVariable.All.ShouldAllBe(variable => Click("a.example")[variable.Name] != null);
}
