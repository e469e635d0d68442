using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>What stands beside ads: where it comes from, what would show, and adding to many places at once.</summary>
public class ExtensionsTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match type,max cpc,headline 1,headline 2,description 1,landing page\n"
        + "Tuning,40,Piano tuning,,,,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/tuning\n"
        + "Hire,20,Piano hire,,,,Piano Hire,From One Month,Delivered and tuned.,https://tarnandfell.example/hire\n";

    private int Callouts(int account) =>
        Visitor
            .PostAsync($"/api/accounts/{account}/sheet", new { kind = "callout" })
            .GetAwaiter()
            .GetResult()
            .GetProperty("rows")
            .GetArrayLength();

    [Fact]
    public async Task Callouts_come_to_every_campaign_in_four_moves_and_show_beside_the_ad()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/write/extensions");
        Browser.Sees("2 ad groups with fewer than 2 callouts in reach");

        Browser.Click("Callouts");
        Browser.Field("Callout 1").SendKeys("28 years tuning");
        Browser.Field("Callout 2").SendKeys("Open Saturdays");
        Browser.Click("Add 2 callouts to 2 places");

        Browser.Sees("Undo “Add 4 callouts”");
        Callouts(account).ShouldBe(4);
        Browser.SeesNo("fewer than 2 callouts in reach");

        // By the keyboard: down to the first campaign, and what would show beside its ad.
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.ArrowDown);
        Browser.Sees("28 years tuning · Open Saturdays");
        // Another callout on the account alone: the chosen cell says where it goes.
        Browser.Press(Keys.ArrowUp);
        Browser.Click("Callouts");
        Browser.SeesNo("Add to 2 cells");
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.Space);
        Browser.Sees("Add to 1 cell");
        Browser.TabTo("Callout 1");
        Browser.Press("Pay after the last note", Keys.Enter);
        Browser.Sees("Undo “Add 1 callout”");
        Callouts(account).ShouldBe(5);

        // A range of cells: the one that it begins at belongs to it.
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.Space);
        Browser.SeesNo("Add to 1 cell");
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.Shift + Keys.ArrowDown);
        Browser.Sees("Add to 2 cells");
        Serious(await AxeAsync()).ShouldBeEmpty();

        // One text, changed in both campaigns at once.
        Browser.Click("Figures");
        Browser.Click("28 years tuning");
        Browser.Sees("Change “28 years tuning” everywhere");
        Browser.Press(Keys.Home, Keys.Delete, Keys.Delete, "30");
        Browser.Sees("2 items would change");
        Browser.Press(Keys.Enter);
        Browser.Sees("Undo “Set callout to 30 years tuning on 2 callouts”");
    }
}
