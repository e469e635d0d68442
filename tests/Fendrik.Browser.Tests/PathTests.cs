using Fendrik.Tests.Shared;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Fendrik.Browser.Tests;

/// <summary>From a list in a spreadsheet to what each keyword cost and brought, as a person walks it.</summary>
public class PathTests(Browser browser) : IClassFixture<Browser>
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

    private async Task<int> SignedInAsync()
    {
        var (account, visitor, _) = await browser.Host.NewAccountAsync();
        visitor.Dispose();
        browser.Open("/");
        browser.Driver.Manage().Cookies.DeleteAllCookies();
        browser.Open("/");
        browser.Field("E-mail address").SendKeys(visitor.Email);
        browser.Field("Password").SendKeys(ServerHost.Password);
        browser.Click("Sign in");
        browser.Sees("What needs attention");
        return account;
    }

    [Fact]
    public async Task Leads_with_the_mouse_from_a_pasted_list_to_results()
    {
        await SignedInAsync();
        var address = browser.Driver.Url;
        browser.Copy(List);
        browser.Driver.Navigate().GoToUrl(address);
        browser.Click("Plan");
        browser.Sees("Paste your list here");
        browser.Chord(Keys.Control, "v");

        browser.Sees("What would come in");
        browser.Sees("Row 6 piano tuning york: twice in this list, row 2 stays");
        browser.Sees("Max CPC “1,2O” is not an amount in GBP");
        Fill("Daily budget, 1 campaign", "40");
        Fill("Max CPC, 1 ad group", "1.20");
        browser.Sees("Filled in here");
        browser.Click("Bring in 8 items");
        browser.Click("Show what came in");
        browser.Sees("tune piano");
        browser.Sees("Only what one step touched");

        browser.Click("Review changes");
        browser.Click("Publish 8 changes");
        browser.Sees("8 of 8 accepted");
        browser.Sees("0 changes since the last publish");

        browser.Click("Ostrel Search");
        browser
            .Until(
                () =>
                    browser
                        .Driver.FindElements(By.XPath("//*[@role='menuitem'][contains(., 'week')]"))
                        .FirstOrDefault(),
                "the menu of the clock"
            )
            .Click();
        browser.Sees("Mon 23 Mar, 00:00 sim");
        browser.Click("Learn");
        browser
            .Until(
                () => browser.Driver.FindElements(By.XPath("//*[@role='tab'][.='Keywords']")).FirstOrDefault(),
                "the tab Keywords"
            )
            .Click();
        browser.Sees("piano tuning near me");
        browser.Sees("£");
        Figure("Clicks").ShouldBeGreaterThan(0);
        Figure("Impressions").ShouldBeGreaterThan(Figure("Clicks"));
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Leads_by_the_keyboard_alone_from_a_pasted_list_to_a_published_campaign()
    {
        await SignedInAsync();
        var address = browser.Driver.Url;
        browser.Copy(List);
        browser.Driver.Navigate().GoToUrl(address);
        browser.Sees("What needs attention");
        browser.Chord(Keys.Control, "k");
        browser.Until(() => browser.Focused.TagName == "input", "the command field");
        browser.Press("Intake", Keys.Enter);
        browser.Sees("Paste your list here");
        browser.Chord(Keys.Control, "v");
        browser.Sees("What would come in");
        browser.TabTo("Daily budget, 1 campaign");
        browser.Press("40", Keys.Enter);
        browser.Until(
            () => browser.Field("Daily budget, 1 campaign").GetAttribute("value") == "40.00",
            "the budget to be kept"
        );
        browser.TabTo("Max CPC, 1 ad group");
        browser.Press("1.20", Keys.Enter);
        browser.Sees("Filled in here");
        browser.TabTo("Bring in 8 items");
        browser.Press(Keys.Enter);
        browser.Sees("Show what came in");
        browser.TabTo("Show what came in");
        browser.Press(Keys.Enter);
        browser.Sees("tune piano");

        // In the sheet: down to the first keyword, across to its max CPC, a new one.
        browser.TabTo("Items of the account");
        browser.Press(Keys.ArrowDown, Keys.ArrowDown, Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        browser.Press("2");
        browser.Press(".05", Keys.Enter);
        browser.Sees("£2.05");
        browser.Chord(Keys.Control, "z");
        browser.SeesNo("£2.05");

        browser.Chord(Keys.Control, "k");
        browser.Until(() => browser.Focused.TagName == "input", "the command field");
        browser.Press("Review changes", Keys.Enter);
        browser.Sees("Publish 8 changes");
        browser.TabTo("Publish 8 changes");
        browser.Press(Keys.Enter);
        browser.Sees("8 of 8 accepted");
    }

    [Fact]
    public async Task Leads_from_a_blocker_straight_to_its_field_and_clears_it()
    {
        await SignedInAsync();
        Bring("campaign,ad group,keyword,match type,max cpc\nTuning,Piano tuning,piano tuning,exact,1.10\n");
        browser.Sees("1 blocker");
        browser.Click("1 blocker");
        browser.Click("Mend: Tuning, daily budget missing");
        browser.Until(() => browser.Focused.GetAttribute("aria-label") == "Edit Tuning", "the field to be edited");
        browser.Press("25", Keys.Enter);

        browser.Sees("£25.00");
        browser.SeesNo("1 blocker");
    }

    [Fact]
    public async Task Shows_before_it_raises_many_bids_and_takes_it_back()
    {
        await SignedInAsync();
        Bring(
            "campaign,daily budget,ad group,keyword,match type,max cpc\nTuning,25,Piano tuning,piano tuning,exact,1.00\nTuning,25,Piano tuning,piano tuner,exact,2.00\n"
        );
        browser.Click("Show what came in");
        browser.Sees("piano tuner");
        Row("piano tuner").Click();
        new Actions(browser.Driver).KeyDown(Keys.Shift).Click(Row("piano tuning")).KeyUp(Keys.Shift).Perform();
        browser.Sees("2 keywords");
        browser.Click("+10%");
        browser.Sees("Raise max CPC by 10% on 2 keywords");
        browser.Sees("£2.20");
        browser.Click("Change 2 items");

        browser.Sees("£1.10");
        browser.Click("Undo “Raise max CPC by 10%");
        browser.Sees("£1.00");
    }

    [Fact]
    public async Task Says_at_sign_in_what_is_wrong()
    {
        await SignedInAsync();
        browser.Driver.Manage().Cookies.DeleteAllCookies();
        browser.Open("/");
        browser.Field("E-mail address").SendKeys("nobody@tarnandfell.example");
        browser.Field("Password").SendKeys("wrong");
        browser.Click("Sign in");

        browser.Sees("The e-mail address or the password is not right.");
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
                ($"/{account}/plan/structure?view=keywords", "piano tuner"),
                ($"/{account}/ship/checks", "daily budget missing"),
                ($"/{account}/ship/changes", "differ from the live copy"),
                ($"/{account}/ship/history", "Bring in"),
                ($"/{account}/learn/results", "No results yet"),
                ($"/{account}/styles", "Style guide"),
            }
        )
        {
            browser.Open(path);
            browser.Sees(text);
            Serious(axe).ShouldBeEmpty(path);
        }
    }

    private static Task<string> AxeAsync() =>
        File.ReadAllTextAsync(Path.Combine(Browser.Root(), "src", "web", "node_modules", "axe-core", "axe.min.js"));

    /// <summary>What axe finds on the page as it stands, serious and critical.</summary>
    private IReadOnlyCollection<object> Serious(string axe)
    {
        browser.Driver.ExecuteScript(axe);
        return (IReadOnlyCollection<object>)
            browser.Driver.ExecuteAsyncScript(
                """
                const done = arguments[0];
                axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then((result) =>
                  done(result.violations.filter((each) => ['serious', 'critical'].includes(each.impact))
                    .map((each) => each.id + ': ' + each.nodes.map((node) => node.html.slice(0, 160)).slice(0, 3).join(' | '))));
                """
            )!;
    }

    /// <summary>Brings in a list by choosing a file.</summary>
    private void Bring(string list)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("fendrik-list-").FullName, "list.csv");
        File.WriteAllText(file, list);
        browser.Click("Plan");
        browser.Sees("Paste your list here");
        browser.Driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(file);
        browser.Sees("What would come in");
        browser.Click("Bring in ");
        browser.Sees("Show what came in");
    }

    private IWebElement Row(string name) =>
        browser.Until(
            () =>
                browser
                    .Driver.FindElements(By.XPath($"//*[@role='row'][.//*[@title='{name}']]//*[@data-column='1']"))
                    .FirstOrDefault(),
            $"the row {name}"
        );

    private void Fill(string label, string amount)
    {
        browser.Field(label).SendKeys(amount + Keys.Enter);
        browser.Until(() => browser.Field(label).GetAttribute("value")!.Contains('.'), $"{label} to be kept");
    }

    private decimal Figure(string name) =>
        decimal.Parse(
            browser
                .Until(
                    () => browser.Driver.FindElements(By.XPath($"//tr[.//button[.='{name}']]/td[1]")).FirstOrDefault(),
                    name
                )
                .Text.Replace(",", "")
        );
}
