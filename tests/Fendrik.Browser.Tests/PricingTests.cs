using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Hours of campaigns and modifiers of devices, set by hand and met by a search.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class PricingTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type,headline 1,headline 2,description 1,landing page\n"
        + "Tuning,40,Piano tuning,1.10,piano tuning,phrase,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/tuning\n"
        + "Hire,20,Piano hire,1.10,piano hire,phrase,Piano Hire,From One Month,Delivered and tuned.,https://tarnandfell.example/hire\n"
        + "Sales,20,Used pianos,1.10,used pianos,phrase,Used Pianos,All Tuned,Come and play them.,https://tarnandfell.example/sales\n";

    private string?[] Hours(int account) =>
        [
            .. Visitor
                .PostAsync($"/api/accounts/{account}/sheet", new { kind = "campaign" })
                .GetAwaiter()
                .GetResult()
                .GetProperty("rows")
                .EnumerateArray()
                .Select(row =>
                    row.GetProperty("values").TryGetProperty("hours", out var hours) ? hours.GetString() : null
                ),
        ];

    [Fact]
    public async Task Hours_of_three_campaigns_are_set_by_the_keyboard_alone()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/hours");
        Browser.Sees("168 h, 100.0% of the week");
        Browser.Sees("Mon 09:00–10:00");

        // The weekend is taken out: from Saturday at midnight to Sunday's end.
        var home = () => Browser.Driver.FindElement(By.CssSelector("[data-home]"));
        home().SendKeys(Keys.Home);
        for (var day = 0; day < 5; day++)
        {
            home().SendKeys(Keys.ArrowDown);
        }

        home().SendKeys(Keys.Shift + Keys.End);
        home().SendKeys(Keys.Shift + Keys.ArrowDown);
        Browser.Sees("Sat–Sun 00:00–24:00");
        home().SendKeys(Keys.Space);
        Browser.Sees("Undo “Set hours of 3 campaigns”");
        Browser.Sees("120 h, 71.4% of the week");

        // A modifier for one hour of Monday, then the day is copied to Tuesday.
        home().SendKeys(Keys.Home);
        for (var day = 0; day < 6; day++)
        {
            home().SendKeys(Keys.ArrowUp);
        }

        Browser.Sees("Mon 00:00–01:00");
        home().SendKeys("-");
        Browser.Press("20", Keys.Enter);
        Browser.Sees("monday 0: shows, bid −20%");
        Hours(account)
            .Distinct()
            .ShouldHaveSingleItem()
            .ShouldBe("Mon 00:00-01:00 -20%, 01:00-24:00; Tue-Fri 00:00-24:00");
        home().SendKeys(Keys.Control + "d");
        Browser.Sees("tuesday 0: shows, bid −20%");
        // The keyboard goes along with the copy.
        Browser.Focused.GetAttribute("data-hour").ShouldBe("1 0");
        Hours(account)
            .Distinct()
            .ShouldHaveSingleItem()
            .ShouldBe("Mon-Tue 00:00-01:00 -20%, 01:00-24:00; Wed-Fri 00:00-24:00");

        Browser.Click("Answering hours…");
        Browser.Press("Mon-Fri 9-17", Keys.Enter);
        Browser.Sees("Calls are taken Mon-Fri 09:00-17:00.");
        Browser.Sees("Shows 80 h a week outside the answering hours");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_device_at_minus_100_percent_keeps_a_search_away_and_the_trace_says_so()
    {
        var account = await SignedInAsync();
        Bring(List);
        var campaign = (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "campaign" }))
            .GetProperty("rows")
            .EnumerateArray()
            .First(row => row.GetProperty("name").GetString() == "Hire")
            .GetProperty("id")
            .GetInt64();
        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "changeModifiers",
                items = new[] { new { kind = "campaign", id = campaign } },
                week = Array.Empty<object>(),
                values = new { phoneModifier = "-100%" },
            }
        );

        Browser.Open($"/{account}/ship/trace?text=piano+hire&device=phone");
        Browser.Sees("The modifier of −100% for phones on the campaign means never.");

        Browser.Open($"/{account}/price/bids");
        Browser.Sees("phone −100%");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Click("Hire");
        Browser.Sees("Nothing was reported yet");
    }

    private decimal[] Budgets(int account) =>
        [
            .. Visitor
                .PostAsync($"/api/accounts/{account}/sheet", new { kind = "campaign" })
                .GetAwaiter()
                .GetResult()
                .GetProperty("rows")
                .EnumerateArray()
                .OrderBy(row => row.GetProperty("name").GetString())
                .Select(row => row.GetProperty("values").GetProperty("dailyBudget").GetDecimal()),
        ];

    [Fact]
    public async Task Money_is_moved_between_budgets_by_the_keyboard_alone_and_the_sum_stays()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/budgets");
        Browser.Sees("£80.00");
        Browser.Until(() => Browser.Focused.GetAttribute("data-campaign") is not null, "the keyboard in the list");

        // Hire, Sales, Tuning: the last gets more, and the others give it.
        Browser.Press(Keys.End, Keys.Enter);
        Browser.Until(
            () => Browser.Focused.GetAttribute("id")?.StartsWith("budget-", StringComparison.Ordinal) == true,
            "the keyboard in its budget"
        );
        Browser.Press("50", Keys.Enter);
        Browser.Sees("Change 3 budgets");
        Browser.TabTo("Change 3 budgets");
        Browser.Press(Keys.Enter);

        Browser.Sees("Undo “Move £10.00 a day among 3 campaigns”");
        Budgets(account).ShouldBe([15, 15, 50]);
        Serious(await AxeAsync()).ShouldBeEmpty();

        // Too much is refused before anything is done.
        Browser.Until(() => Browser.Focused.GetAttribute("data-campaign") is not null, "the keyboard in the list");
        Browser.Press(Keys.Enter);
        Browser.Press("90", Keys.Enter);
        Browser.Sees("The others cannot give as much.");
        Budgets(account).ShouldBe([15, 15, 50]);
    }

    [Fact]
    public async Task A_month_has_a_budget_that_is_kept_where_it_is_typed()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/budgets");
        Browser.Field("To spend in a month").SendKeys("3300" + Keys.Enter);

        Browser.Sees("of £3,300.00 spent");
        Browser.Sees("£3,300.00 is left");
    }

    [Fact]
    public async Task A_strategy_is_chosen_by_the_keyboard_and_refused_where_nothing_is_counted()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/bids?part=strategy");
        Browser.Click("Tuning");
        Browser.Sees("People set its bids: max CPC and modifiers.");

        var home = Browser.Driver.FindElement(By.CssSelector("[data-home]"));
        home.SendKeys(Keys.ArrowDown);
        home = Browser.Driver.SwitchTo().ActiveElement();
        home.SendKeys(Keys.ArrowDown);
        Browser.Driver.SwitchTo().ActiveElement().SendKeys(Keys.ArrowDown);
        Browser.Sees("The account counted no conversion in the last 28 days");
        Serious(await AxeAsync()).ShouldBeEmpty();
        // Enter in a setting leads to the step that it is for.
        Browser.Field("Highest bid").SendKeys("2.50" + Keys.Enter);
        Browser.Until(() => Browser.Focused.Text == "Bid by maximise conversions" ? "led" : null, "the step in focus");
        Browser.Click("Bid by maximise conversions");
        Browser.Sees("Undo “Set strategy");
        Browser.Open($"/{account}/ship/checks");
        Browser.Sees("nothing counted to go by");
    }

    [Fact]
    public async Task Bids_of_chosen_keywords_are_raised_and_brought_to_starting_bids_by_the_keyboard()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/bids?part=own");
        Browser.Click("Tuning");
        Browser.Sees("piano tuning");
        var table = Browser.Driver.FindElement(By.CssSelector("[data-home]"));
        table.SendKeys(Keys.Space);
        Browser.Sees("1 keyword chosen");
        Browser.Field("Raise, lower or set").SendKeys("+10%" + Keys.Enter);
        Browser.Sees("£1.21");
        Serious(await AxeAsync()).ShouldBeEmpty();

        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.Enter);
        Browser.Press("0.95", Keys.Enter);
        Browser.Sees("£0.95");

        // What cannot be is told and stays as it was typed; Esc takes it back.
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.Enter);
        Browser.Press("1.3x", Keys.Enter);
        Browser.Sees("“1.3x”");
        var own = Browser.Driver.FindElement(By.CssSelector("[id^=own-]"));
        own.GetAttribute("value").ShouldBe("1.3x");
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys(Keys.Enter);
        Browser.Press(Keys.Escape);
        Browser.Driver.FindElement(By.CssSelector("[id^=own-]")).GetAttribute("value").ShouldBe("0.95");

        // The base of the ad group, likewise.
        Browser.Driver.FindElement(By.CssSelector("[data-home]")).SendKeys("b");
        Browser.Press("1.50", Keys.Enter);
        Browser.Sees("Undo “Set max CPC");
        Browser.Driver.FindElement(By.CssSelector("[id^=base-]")).GetAttribute("value").ShouldBe("1.50");
    }

    [Fact]
    public async Task Estimates_say_why_there_are_none_and_planned_keywords_are_asked_about()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/price/bids?part=estimates");
        Browser.Click("Tuning");
        Browser.Sees("It has no history, and the network was not asked.");
        Browser.Sees("not asked yet");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Click("Keywords that are planned…");
        Browser
            .Field("Keywords, one in each line; [exact], “phrase” and +all +words as usual")
            .SendKeys("harpsichord plectrum voicing");
        Browser.Click("Estimate them");
        Browser.Sees("Too few people search for it to tell.");
    }
}
