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

    /// <summary>
    /// The list brought in, published, and reported for so many days. They go by on the network itself, which may take longer than its answers are waited
    /// for; the reports are read after the last hour.
    /// </summary>
    private async Task<int> RunningAsync(int days, string clock)
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Click("Review changes");
        Browser.Click("Publish 4 changes");
        Browser.Sees("4 of 4 accepted");
        await Network.AdvanceAsync(days * 24 - 1);
        Browser.ChooseFrom("Ostrel Search", "One hour on");
        Browser.Sees(clock);
        return account;
    }

    [Fact]
    public async Task Terms_are_gone_through_by_the_keyboard_and_a_filter_that_cannot_be_is_mended()
    {
        var account = await RunningAsync(days: 7, "Mon 23 Mar, 00:00 sim");
        Browser.Open($"/{account}/learn/terms");
        Browser.Sees("Came through");
        var first = Browser.Driver.FindElement(By.CssSelector("#term-0 th")).Text;

        // The step is led to as soon as it can be taken, however fast the keys come; what was pressed is what is taken.
        Browser.Press("l", Keys.Escape, Keys.ArrowDown, "k");
        Browser.Until(
            () => Browser.Focused.Text.StartsWith("Add 1 keyword", StringComparison.Ordinal),
            "the step of the keyword in focus"
        );
        Browser.Press(Keys.Escape);
        Browser.Focused.GetAttribute("aria-label").ShouldBe("Search terms");
        Browser.Press(Keys.ArrowUp, "l");
        Browser.Until(() => Browser.Focused.Text == "Leave 1 term", "the step of leaving in focus");
        Browser.Press(Keys.Enter);
        Browser.Sees("Undo “Leave 1 search term”");
        Browser.Until(
            () => Browser.Driver.FindElement(By.CssSelector("#term-0 th")).Text != first,
            "the term to be gone"
        );
        Browser.Focused.GetAttribute("aria-label").ShouldBe("Search terms");

        // From the words and back.
        Browser.Press("w", Keys.ArrowDown);
        Browser.Focused.GetAttribute("data-word").ShouldBe("1");
        Browser.Press(Keys.Escape);
        Browser.Focused.GetAttribute("aria-label").ShouldBe("Search terms");

        Browser.Click("Condition…");
        Browser.Field("Value").SendKeys("many" + Keys.Enter);
        Browser.Sees("Below stands what was there before.");
        Browser.Driver.FindElement(By.CssSelector("[aria-label^='Drop the condition']")).Click();
        Browser.SeesNo("Below stands what was there before.");
        Browser.Sees("Came through");
    }

    [Fact]
    public async Task The_wasteful_word_is_found_and_negated_by_the_keyboard()
    {
        var account = await RunningAsync(days: 7, "Mon 23 Mar, 00:00 sim");
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
        // Summer time begins in the second week.
        var account = await RunningAsync(days: 14, "Mon 30 Mar, 01:00 sim");
        Browser.Open($"/{account}/learn/results?period=last7");

        Browser.Sees("What moved it");
        Browser.Field("What is taken apart").SendKeys("con");
        Browser.Sees("Conversion rate");
        Browser.Sees("Together");
        Browser.Sees("By chance a difference as large comes");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Results_are_broken_down_by_the_keyboard_and_the_desk_leads_to_them()
    {
        var account = await RunningAsync(days: 14, "Mon 30 Mar, 01:00 sim");
        Browser.Open($"/{account}/learn/results?period=last14&grain=week");
        Browser.Sees("What it does");
        Browser.TabTo("Broken down by");
        ChooseByKeys("broken down by dev", "Broken down by device");

        Browser.Sees("desktop");
        Browser.Sees("phone");
        static int Number(string text) => int.Parse(text.Replace(",", "", StringComparison.Ordinal));
        var total = Number(
            Browser.Driver.FindElement(By.XPath("//section[@aria-label='Results in detail']//tfoot/tr/td[3]")).Text
        );
        total.ShouldBeGreaterThan(0);
        Browser
            .Driver.FindElements(
                By.XPath(
                    "//section[@aria-label='Results in detail']//tbody/tr[th[contains(@class, 'font-normal')]]/td[3]"
                )
            )
            .Sum(cell => Number(cell.Text))
            .ShouldBe(total);
        Serious(await AxeAsync()).ShouldBeEmpty();

        Browser.Open($"/{account}");
        Browser.Sees("Last 7 days, beside the 7 before");
        Browser.Sees("Cost per conversion, moved by");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.TabTo("See it in Results");
        Browser.Press(Keys.Enter);
        Browser.Sees("What moved it");
    }

    private void FromViews(string entry, string typed)
    {
        Browser.TabTo("Views…");
        ChooseByKeys(typed, entry, "menuitem");
    }

    /// <summary>Opens what is in focus, and chooses by the first letters.</summary>
    private void ChooseByKeys(string typed, string choice, string role = "option")
    {
        Browser.Press(Keys.Enter);
        // The first letters reach it once it has the keyboard, and find what is there by then.
        Browser.Until(
            () =>
                Browser.Focused.GetAttribute("role") == role
                && Browser.Driver.FindElements(By.XPath($"//*[@role='{role}']")).Any(each => each.Text == choice),
            $"what {choice} is chosen from"
        );
        Browser.Press(typed);
        Browser.Until(() => Browser.Focused.Text == choice, $"{choice} in focus");
        Browser.Press(Keys.Enter);
    }

    [Fact]
    public async Task A_measure_of_ones_own_and_an_alert_by_it_are_made_by_the_keyboard_and_reach_the_desk()
    {
        var account = await RunningAsync(days: 7, "Mon 23 Mar, 00:00 sim");
        Browser.Open($"/{account}/learn/results?period=last7");
        Browser.Sees("What it does");

        FromViews("Measures of your own…", "mea");
        Browser.Until(() => Browser.Focused.TagName == "input", "the name in focus");
        Browser.Press("Price of a thousand" + Keys.Tab + "cost + clicks");
        Browser.Sees("only what is counted in the same can be added");
        Browser.Field("Formula").SendKeys(Keys.Control + "a");
        Browser.Field("Formula").SendKeys("cost / impressions * 1000");
        Browser.Sees("In money per impression.");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Press(Keys.Enter);
        Browser.Sees("“Price of a thousand” stands among the columns.");

        FromViews("Alerts…", "ale");
        Browser.Sees("Looked for every night");
        ChooseByKeys("price of", "Price of a thousand");
        Browser.Field("GBP").SendKeys("0.01" + Keys.Enter);
        Browser.Sees("Price of a thousand above £0.01 on each of 3 days");
        Serious(await AxeAsync()).ShouldBeEmpty();

        Browser.Open($"/{account}");
        Browser.Sees("Price of a thousand above £0.01 on each of 3 days");
        Browser.TabTo("Look at the days: Price of a thousand above £0.01 on each of 3 days");
        Browser.Press(Keys.Enter);
        Browser.Sees("What moved it");
    }

    [Fact]
    public async Task Each_picture_of_a_figure_is_reached_by_the_keyboard_and_says_itself_in_words()
    {
        var account = await RunningAsync(days: 7, "Mon 23 Mar, 00:00 sim");
        Browser.Open($"/{account}/learn/results?period=last7&figure=clicks");
        Browser.Sees("Clicks, by day");
        foreach (
            var (typed, picture, title) in new[]
            {
                ("wee", "Week by hours", "Clicks by hour of the week"),
                ("cos", "Cost and conversions", "Cost and conversions of campaigns"),
                ("map", "Map", "Clicks by place"),
            }
        )
        {
            Browser.TabTo("Picture");
            ChooseByKeys(typed, picture);
            Browser.Sees(title);
            Browser.Until(
                () =>
                    Browser.Driver.FindElement(By.CssSelector("figure figcaption")).GetAttribute("textContent")!.Length
                    > 20,
                $"{title} in words"
            );
            Serious(await AxeAsync()).ShouldBeEmpty();
        }
    }

    [Fact]
    public async Task Whoever_goes_into_a_row_leaves_the_view_behind_and_a_view_that_is_gone_is_left()
    {
        var account = await RunningAsync(days: 7, "Mon 23 Mar, 00:00 sim");
        Browser.Open($"/{account}/learn/results?level=campaign&view=Gone");
        Browser.Sees("You have no view “Gone” at this account.");
        Browser.TabTo("All items, not only those of Gone");
        Browser.Press(Keys.Enter);
        Browser.Sees("What it does");

        FromViews("Save what is shown…", "sav");
        Browser.Until(() => Browser.Focused.TagName == "input", "the name in focus");
        Browser.Press("Mine" + Keys.Enter);
        Browser.Sees("Saved as “Mine”.");
        FromViews("Mine", "min");
        Browser.Sees("What it does");
        var row = Browser.Driver.FindElement(By.XPath("//section[@aria-label='Results in detail']//tbody//button"));
        row.SendKeys(Keys.Enter);

        Browser.Until(
            () =>
                Browser
                    .Driver.FindElements(
                        By.XPath(
                            "//section[@aria-label='Results in detail']//th//button[normalize-space(.)='Ad group']"
                        )
                    )
                    .Count > 0,
            "the ad groups of the campaign"
        );
    }
}
