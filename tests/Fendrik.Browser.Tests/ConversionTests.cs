using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>What counts as success: findings are mended, goals are read against the past, calls lead to the hours.</summary>
[Collection(nameof(BrowserCollection))]
public class ConversionTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page,conversion action,counts,where,heard by,goal of the account,goals
        campaign,Tuning,,40,,,,,,,,,,,,,Tuning page
        ad group,Tuning,Tuners,,1.10,,,,,,,,,,,,
        keyword,Tuning,Tuners,,,piano tuning,broad,,,,,,,,,,
        text ad,Tuning,Tuners,,,,,Piano Tuning,Same Week,We come to you.,https://tarnandfell.example/tuning,,,,,,
        conversion action,,,,,,,,,,,Booking elsewhere,booking,openbench.example,tag,yes,
        conversion action,,,,,,,,,,,Ask for a price,form,tarnandfell.example,,yes,
        conversion action,,,,,,,,,,,Tuning page,page reached,tarnandfell.example/tuning,,no,
        """;

    [Fact]
    public async Task The_audits_findings_are_mended_by_the_keyboard()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/learn/conversions");
        Browser.Sees("Booking elsewhere: nothing of it can be heard");
        Browser.Sees("Tuning: a mere page view counts as success");
        Serious(await AxeAsync()).ShouldBeEmpty();

        Browser.TabTo("Carry the id over in the link");
        Browser.Press(Keys.Enter);
        Browser.SeesNo("nothing of it can be heard");
        Browser.TabTo("Use the goals of the account");
        Browser.Press(Keys.Enter);
        Browser.SeesNo("a mere page view counts as success");
        Browser.Sees("Undo “Clear goals of 1 campaign”");
    }

    [Fact]
    public async Task Goals_are_read_against_the_past_before_they_hold()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/learn/conversions");

        Browser.Sees("Goals of each campaign");
        Browser.TabTo("Ask for a price counts in Tuning");
        Browser.Press(Keys.Space);
        Browser.Sees("Now Tuning page; then Ask for a price, Tuning page.");
        Browser.TabTo("Use these goals");
        Browser.Press(Keys.Enter);
        Browser.Sees("Undo “Set goals of 1 campaign to Ask for a price; Tuning page”");
        Browser.SeesNo("Tuning: a mere page view counts as success");
    }

    [Fact]
    public async Task A_test_visit_shows_where_the_click_is_lost()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Click("Review changes");
        Browser.Click("Publish 7 changes");
        Browser.Sees("accepted");
        Browser.Open($"/{account}/learn/conversions");
        Browser.Sees("Booking elsewhere");
        Browser.Driver.FindElement(By.XPath("//button[.='Booking elsewhere']")).Click();

        Browser.Click("Follow a test visit");
        Browser.Sees("it knows nothing of the click");
        Browser.Sees("The form of the booking site cannot be sent on this device");
        Browser.Driver.FindElement(By.XPath("//button[.='Ask for a price']")).Click();
        Browser.Click("Follow a test visit");
        Browser.Sees("counted as “Ask for a price”");
        Browser.Sees("It counts.");
    }

    [Fact]
    public async Task Calls_in_vain_are_found_and_lead_to_the_hours()
    {
        var account = await SignedInAsync();
        Bring(List + "\nconversion action,,,,,,,,,,,Call from the site,call from the site,,,yes,\n");
        Browser.Click("Review changes");
        Browser.Click("Publish 8 changes");
        Browser.Sees("accepted");
        await Network.AdvanceAsync(13 * 24 - 1);
        Browser.ChooseFrom("Ostrel Search", "One hour on");
        Browser.Sees("Sun 29 Mar, 00:00 sim");

        Browser.Open($"/{account}/learn/calls");
        Browser.Sees("When it rings, and who answers");
        Browser.Sees("in vain");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Click("By hour");
        Browser.Sees("Cost / counted");
        Browser.Driver.FindElement(By.XPath("//section[@aria-label='Calls in vain']//button")).Click();
        Browser.Until(() => Browser.Driver.Url.Contains("/price/hours", StringComparison.Ordinal), "the hours");
    }
}
