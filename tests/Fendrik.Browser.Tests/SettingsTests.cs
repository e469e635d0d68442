using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Settings of campaigns side by side, and their places.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class SettingsTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,networks\nTuning,40,search\nHire,20,search + content\nSales,20,search\n";

    [Fact]
    public async Task A_setting_is_given_to_the_other_campaigns_by_the_keyboard_alone()
    {
        await SignedInAsync();
        Bring(List);
        Browser.Chord(Keys.Control, "k");
        Browser.Until(() => Browser.Focused.TagName == "input", "the command field");
        Browser.Press("Settings", Keys.Enter);
        Browser.Sees("3 campaigns of 3 side by side");
        Browser.Until(() => Browser.Focused.GetAttribute("data-cell") is not null, "the keyboard in the table");

        while (!Browser.Focused.GetAttribute("data-cell")!.StartsWith("networks ", StringComparison.Ordinal))
        {
            Browser.Press(Keys.ArrowDown);
        }

        Browser.Sees("Give 2 other campaigns “search + content”");
        Browser.TabTo("Give 2 other campaigns");
        Browser.Press(Keys.Enter);
        Browser.Sees("Undo “Set networks");
        Browser.Until(() => Browser.Focused.GetAttribute("data-cell") is not null, "the keyboard back in the table");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Places_are_found_by_name_and_asked_where_a_name_means_several()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/settings");
        Browser.Sees("the whole world");
        Browser.Sees("None: it shows in the whole world.");

        Browser.Field("Radius").SendKeys("20");
        Browser.Field("Country, region or town").SendKeys("leeds" + Keys.Enter);
        Browser.Sees("Leeds + 20 km");

        Browser.Click("Paste names…");
        Browser.Field("Names").SendKeys("Scotland\nPerth\nAtlantis" + Keys.Control + Keys.Enter);
        Browser.Sees("“Perth” may be");
        Browser.Sees("Not known, and left out: “Atlantis”.");
        Browser.Click("Which Perth");
        Browser
            .Until(
                () =>
                    Browser
                        .Driver.FindElements(By.XPath("//*[@role='option'][contains(., 'Western Australia')]"))
                        .FirstOrDefault(),
                "both of the name"
            )
            .Click();
        Browser.Click("Add 2 places");
        Browser.Sees("Leeds + 20 km; Perth; Scotland");

        Browser.Click("Give these places to 2 other campaigns too");
        Browser.Sees("Undo “Copy 3 places");
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[data-cell^=places][title^=Leeds]")).Count == 3,
            "the places in all three"
        );
        Serious(await AxeAsync()).ShouldBeEmpty();
    }
}
