using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Tracking templates, and whether the links arrive.</summary>
public class LinksTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match type,max cpc,headline 1,headline 2,description 1,landing page\n"
        + "Tuning,40,Piano tuning,piano tuning,phrase,1.10,,,,\n"
        + "Tuning,40,Piano tuning,,,,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/pianos-for-sale\n";

    [Fact]
    public async Task A_template_is_set_for_the_account_by_the_keyboard_and_seen_in_a_trace()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/write/links");
        Browser.Sees("https://tarnandfell.example/pianos-for-sale");
        Browser.Until(() => Browser.Focused.GetAttribute("id") == "template", "the keyboard in the template");

        Browser.Press("{+page}{?devise}");
        Browser.Sees("Nothing is known of a click by the name “devise”.");
        Browser.Press(string.Concat(Enumerable.Repeat(Keys.Backspace, 3)) + "ce,keyword}");
        Browser.Sees("https://tarnandfell.example/pianos-for-sale?device=phone&keyword=piano%20tuning");
        Browser.Press(Keys.Enter);
        Browser.Sees("Undo “Set tracking template to {+page}{?device,keyword}");

        // What a colleague does to it while it is typed is told, not overwritten.
        Browser.Driver.FindElement(By.Id("template")).SendKeys("#a");
        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = new[] { new { kind = "account", id = account } },
                values = new { trackingTemplate = "{+page}{?device,keyword}&by=colleague" },
            }
        );
        Browser.Sees("by=colleague");
        Browser.Press(Keys.Enter);
        Browser.Sees("Changed by someone else");
        Browser.Press(Keys.Escape);
        Browser.Until(
            () =>
                Browser.Driver.FindElement(By.Id("template")).GetAttribute("value") is { } text
                && text.EndsWith("colleague", StringComparison.Ordinal),
            "the colleague's template"
        );

        // The page has moved, and whoever moved it forgot the parameters.
        Browser.TabTo("Follow all links");
        Browser.Press(Keys.Enter);
        Browser.Sees("1 of 1 links need a look.");
        Browser.Sees("redirect drops parameters");
        Serious(await AxeAsync()).ShouldBeEmpty();

        Browser.Open($"/{account}/ship/trace?text=piano+tuning");
        Browser.Sees("A click leads to, by the template of the account");
        Browser.Sees("https://tarnandfell.example/pianos-for-sale?device=phone&keyword=piano%20tuning&by=colleague");
    }
}
