using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>What people typed: the wasteful word is found and negated, by the keyboard.</summary>
[Collection(nameof(BrowserCollection))]
public class TermTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page
        campaign,Tuning,,40,,,,,,,
        ad group,Tuning,Tuners,,1.10,,,,,,
        keyword,Tuning,Tuners,,,piano tuning,broad,,,,
        text ad,Tuning,Tuners,,,,,Piano Tuning,Same Week,We come to you.,https://tarnandfell.example/tuning
        """;

    [Fact]
    public async Task The_wasteful_word_is_found_and_negated_by_the_keyboard()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Click("Review changes");
        Browser.Click("Publish 4 changes");
        Browser.Sees("4 of 4 accepted");
        // The week goes by on the network itself, which may take longer than its answers are waited for; its reports are read after one hour more.
        await Network.AdvanceAsync(7 * 24 - 1);
        Browser.ChooseFrom("Ostrel Search", "One hour on");
        Browser.Sees("Mon 23 Mar, 00:00 sim");
        Browser.Open($"/{account}/learn/terms");
        Browser.Sees("Words in all of them");
        Browser.Sees("Came through");
        Serious(await AxeAsync()).ShouldBeEmpty();

        // The word leads to its terms; all of them are chosen, and what is proposed is the word.
        Browser
            .Driver.FindElement(By.XPath("//label[normalize-space(.)='Never brought a conversion']/input"))
            .SendKeys(Keys.Space);
        var word = Browser.Until(
            () =>
                Browser
                    .Driver.FindElements(By.XPath("//aside//tr[td[last()][.='0']]//button[@aria-pressed='false']"))
                    .FirstOrDefault(),
            "a word that never brought a conversion"
        );
        var wasteful = word.Text;
        word.SendKeys(Keys.Enter);
        Browser.Sees($"with “{wasteful}”");
        var table = Browser.Driver.FindElement(By.CssSelector("[data-home]"));
        table.SendKeys(Keys.Control + "a");
        Browser.Sees("What never to answer");
        table.SendKeys("n");
        Browser.Until(() => Browser.Focused.Text.StartsWith("Add ", StringComparison.Ordinal), "the step in focus");
        Browser.Sees("Terms it would have stopped");
        Browser.Press(Keys.Enter);

        Browser.Sees("Undo “Add ");
        Browser.Sees("Nothing is left to decide here.");
        Browser.Open($"/{account}/plan/negatives");
        Browser.Sees(wasteful);
    }

    [Fact]
    public async Task Two_weeks_are_compared_and_the_cause_is_read()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Click("Review changes");
        Browser.Click("Publish 4 changes");
        Browser.Sees("4 of 4 accepted");
        // Summer time begins in the second week.
        await Network.AdvanceAsync(14 * 24 - 1);
        Browser.ChooseFrom("Ostrel Search", "One hour on");
        Browser.Sees("Mon 30 Mar, 01:00 sim");
        Browser.Open($"/{account}/learn/results?period=last7");

        Browser.Sees("What moved it");
        Browser.Field("What is taken apart").SendKeys("con");
        Browser.Sees("Conversion rate");
        Browser.Sees("Together");
        Browser.Sees("By chance a difference as large comes");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }
}
