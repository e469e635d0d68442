using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Fendrik.Browser.Tests;

/// <summary>From a list in a spreadsheet to what each keyword cost and brought, as a person walks it.</summary>
public class PathTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        theme	search words	Campain	max bid £	typ	headline 1	headline 2	description	url
        Piano tuning	piano tuning york	Tuning · York	1.30	exact				
        Piano tuning	"piano tuner"	Tuning · York	1.10					
        Piano tuning	+tune +piano	Tuning · York						
        Piano tuning	-free	Tuning · York						
        Piano tuning	piano tuning york	Tuning · York	1.35	exact				
        Piano tuning	piano tuning	Tuning · York	1,2O	phrase				
        Piano tuning	piano tuning near me	Tuning · York	1.40	exact				
        Piano tuning		Tuning · York			Piano Tuning At Home	Ask For A Price	Same-week visits.	tarnandfell.example/tuning
        """;

    [Fact]
    public async Task Leads_with_the_mouse_from_a_pasted_list_to_results()
    {
        await SignedInAsync(byHand: true);
        var address = Browser.Driver.Url;
        Browser.Copy(List);
        Browser.Driver.Navigate().GoToUrl(address);
        Browser.Click("Plan");
        Browser.Sees("Paste your list here");
        Browser.Chord(Keys.Control, "v");

        Browser.Sees("What would come in");
        Browser.Sees("Row 6 piano tuning york: twice in this list, row 2 stays");
        Browser.Sees("Max CPC “1,2O” is not an amount in GBP");
        Fill("Daily budget, 1 campaign", "40");
        Fill("Max CPC, 1 ad group", "1.20");
        Browser.Sees("Filled in here");
        Browser.Click("Bring in 8 items");
        Browser.Click("Show what came in");
        Browser.Sees("tune piano");
        Browser.Sees("Only what one step touched");

        Browser.Click("Review changes");
        Browser.Click("Publish 8 changes");
        Browser.Sees("8 of 8 accepted");
        Browser.Sees("0 changes since the last publish");

        Browser.ChooseFrom("Ostrel Search", "One week on");
        Browser.Sees("Mon 23 Mar, 00:00 sim");
        Browser.Click("Learn");
        Browser.Field("Rows").SendKeys("Keyw");
        Browser.Sees("piano tuning near me");
        Browser.Sees("£");
        Figure("Clicks").ShouldBeGreaterThan(0);
        Figure("Impressions").ShouldBeGreaterThan(Figure("Clicks"));
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Leads_by_the_keyboard_alone_from_a_pasted_list_to_a_published_campaign()
    {
        await SignedInAsync(byHand: true);
        var address = Browser.Driver.Url;
        Browser.Copy(List);
        Browser.Driver.Navigate().GoToUrl(address);
        Browser.Sees("What needs attention");
        Browser.Chord(Keys.Control, "k");
        Browser.Until(() => Browser.Focused.TagName == "input", "the command field");
        Browser.Press("Intake", Keys.Enter);
        Browser.Sees("Paste your list here");
        Browser.Chord(Keys.Control, "v");
        Browser.Sees("What would come in");
        Browser.TabTo("Daily budget, 1 campaign");
        Browser.Press("40", Keys.Enter);
        Browser.Until(
            () => Browser.Field("Daily budget, 1 campaign").GetAttribute("value") == "40.00",
            "the budget to be kept"
        );
        Browser.TabTo("Max CPC, 1 ad group");
        Browser.Press("1.20", Keys.Enter);
        Browser.Sees("Filled in here");
        Browser.TabTo("Bring in 8 items");
        Browser.Press(Keys.Enter);
        Browser.Sees("Show what came in");
        Browser.TabTo("Show what came in");
        Browser.Press(Keys.Enter);
        Browser.Sees("tune piano");

        // In the sheet: down to the first keyword, across to its max CPC, a new one.
        Browser.TabTo("Items of the account");
        Browser.Press(Keys.ArrowDown, Keys.ArrowDown, Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        Browser.Press("2");
        Browser.Press(".05", Keys.Enter);
        Browser.Sees("£2.05");
        Browser.Chord(Keys.Control, "z");
        Browser.SeesNo("£2.05");

        Browser.Chord(Keys.Control, "k");
        Browser.Until(() => Browser.Focused.TagName == "input", "the command field");
        Browser.Press("Review changes", Keys.Enter);
        Browser.Sees("Publish 8 changes");
        Browser.TabTo("Publish 8 changes");
        Browser.Press(Keys.Enter);
        Browser.Sees("8 of 8 accepted");
    }

    [Fact]
    public async Task Goes_on_with_an_interrupted_publish_by_the_keyboard_after_the_page_was_loaded_again()
    {
        await SignedInAsync();
        Bring(
            "campaign,daily budget,ad group,keyword,match type,max cpc\nTuning,25,Piano tuning,piano tuning,exact,1.00\nTuning,25,Piano tuning,piano tuner,exact,2.00\n"
        );
        await Network.FaultAsync("fail", 4);
        Browser.Click("Review changes");
        Browser.Click("Publish 4 changes");
        Browser.Sees("The publish was interrupted");

        Browser.Driver.Navigate().Refresh();
        Browser.Sees("The network answered with an error (503).");
        Browser.Sees("0 of 4 are on the network; 4 are left");
        Browser.Sees("Publish interrupted");
        Browser.TabTo("Send the rest");
        Browser.Press(Keys.Enter);

        Browser.Sees("4 of 4 accepted");
        Browser.Until(
            () => Browser.Focused.Text.StartsWith("Publish to", StringComparison.Ordinal),
            "the focus to stay"
        );
        Browser.SeesNo("Publish interrupted");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Says_for_whom_an_edit_waits_and_gives_it_up()
    {
        var account = await SignedInAsync();
        Bring(
            "campaign,daily budget,ad group,keyword,match type,max cpc\nTuning,25,Piano tuning,piano tuning,exact,1.00\n"
        );
        Browser.Click("Show what came in");
        Row("piano tuning").Click();
        await using (var holder = await Browser.Host.HoldAsync(account, "Intake"))
        {
            Browser.Click("Pause");
            Browser.Sees("Waiting: Morag Kerr is bringing in a list.");
            Browser.Click("Give up");
            Browser.Sees("Given up. Nothing was changed.");
        }

        Browser.Click("Pause");
        Browser.SeesNo("Given up");
        (
            await Browser.Host.QueryAsync<int>(
                "select count(*) from step where account_id = @account and label like 'Pause%'",
                new { account }
            )
        ).ShouldBe(1);
    }

    [Fact]
    public async Task Leads_from_a_blocker_straight_to_its_field_and_clears_it()
    {
        await SignedInAsync();
        Bring("campaign,ad group,keyword,match type,max cpc\nTuning,Piano tuning,piano tuning,exact,1.10\n");
        Browser.Sees("1 blocker");
        Browser.Click("1 blocker");
        Browser.Click("Mend: Tuning, daily budget missing");
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Edit Tuning", "the field to be edited");
        Browser.Press("25", Keys.Enter);

        Browser.Sees("£25.00");
        Browser.SeesNo("1 blocker");
    }

    [Fact]
    public async Task Shows_before_it_raises_many_bids_and_takes_it_back()
    {
        await SignedInAsync();
        Bring(
            "campaign,daily budget,ad group,keyword,match type,max cpc\nTuning,25,Piano tuning,piano tuning,exact,1.00\nTuning,25,Piano tuning,piano tuner,exact,2.00\n"
        );
        Browser.Click("Show what came in");
        Browser.Sees("piano tuner");
        Row("piano tuner").Click();
        new Actions(Browser.Driver).KeyDown(Keys.Shift).Click(Row("piano tuning")).KeyUp(Keys.Shift).Perform();
        Browser.Sees("2 keywords");
        Browser.Click("+10%");
        Browser.Sees("Raise max CPC by 10% on 2 keywords");
        Browser.Sees("£2.20");
        Browser.Click("Change 2 items");

        Browser.Sees("£1.10");
        Browser.Click("Undo “Raise max CPC by 10%");
        Browser.Sees("£1.00");
    }

    [Fact]
    public async Task Says_at_sign_in_what_is_wrong()
    {
        await SignedInAsync();
        Browser.Driver.Manage().Cookies.DeleteAllCookies();
        Browser.Open("/");
        Browser.Field("E-mail address").SendKeys("nobody@tarnandfell.example");
        Browser.Field("Password").SendKeys("wrong");
        Browser.Click("Sign in");

        Browser.Sees("The e-mail address or the password is not right.");
    }

    /// <summary>axe-core with the rules of WCAG 2.2 A and AA, on every page with something on it.</summary>
    [Fact]
    public async Task Has_nothing_serious_for_axe_on_any_page()
    {
        var account = await SignedInAsync();
        Bring(
            "campaign,ad group,keyword,match type,max cpc\nTuning,Piano tuning,piano tuning,exact,1.10\nTuning,Piano tuning,piano tuner,phrase,\nTuning,,-free,,\n"
        );
        var axe = await AxeAsync();
        foreach (
            var (path, text) in new[]
            {
                ($"/{account}", "What needs attention"),
                ($"/{account}/plan/intake", "Paste your list here"),
                ($"/{account}/plan/structure", "piano tuner"),
                ($"/{account}/plan/structure?view=keyword", "piano tuner"),
                ($"/{account}/plan/negatives", "Paste negatives"),
                ($"/{account}/ship/checks", "daily budget missing"),
                ($"/{account}/ship/trace?text=free+piano+tuner", "Keywords match, but none may answer"),
                ($"/{account}/ship/changes", "differ from the live copy"),
                ($"/{account}/ship/history", "Bring in"),
                ($"/{account}/learn/results", "No results yet"),
                ($"/{account}/styles", "Style guide"),
            }
        )
        {
            Browser.Open(path);
            Browser.Sees(text);
            Serious(axe).ShouldBeEmpty(path);
        }
    }

    private void Fill(string label, string amount)
    {
        Browser.Field(label).SendKeys(amount + Keys.Enter);
        Browser.Until(() => Browser.Field(label).GetAttribute("value")!.Contains('.'), $"{label} to be kept");
    }

    private decimal Figure(string name) =>
        decimal.Parse(
            Browser
                .Until(
                    () => Browser.Driver.FindElements(By.XPath($"//tr[.//button[.='{name}']]/td[1]")).FirstOrDefault(),
                    name
                )
                .Text.Replace(",", "")
        );
}
