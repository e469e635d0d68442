using System.Text.Json;
using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>What a person saw is what is changed, also with two at work; and nothing happens that nobody asked for.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class TrustTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,headline 3,description,url
        Hire,20,Piano hire,0.90,piano hire leeds,exact,0.50,,,,,
        Tuning,25,Piano tuning,1.00,piano tuner leeds,phrase,1.20,,,,,
        Tuning,25,Piano tuning,1.00,piano tuning leeds,exact,,,,,,
        Tuning,25,Piano tuning,,,,,Piano Tuning,Book Today,Since 1974,We tune at home.,tarnandfell.example/tuning
        """;

    private async Task<int> AccountAsync(string view)
    {
        var account = await SignedInAsync();
        Bring(List);
        Open(account, view);
        return account;
    }

    private void Open(int account, string view)
    {
        Browser.Open($"/{account}/plan/structure?view={view}");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-place='0']")).FirstOrDefault(), "rows");
        Browser.Until(
            () => Browser.Focused.GetAttribute("role") is "grid" or "treegrid",
            "the sheet to have the keyboard"
        );
    }

    private async Task<JsonElement> ItemAsync(int account, string kind, string text) =>
        (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind, text })).GetProperty("rows")[0];

    private async Task ByColleagueAsync(int account, string keyword, string field, string value)
    {
        var item = await ItemAsync(account, "keyword", keyword);
        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = new[] { new { kind = "keyword", id = item.GetProperty("id").GetInt64() } },
                values = new Dictionary<string, string> { [field] = value },
            }
        );
    }

    [Fact]
    public async Task A_preview_that_a_colleague_overtook_is_refreshed_and_says_so()
    {
        var account = await AccountAsync("keyword");
        Browser.Chord(Keys.Control, "a");
        Browser.Sees("3 keywords");
        Browser.Click("Pause");
        Browser.Sees("3 items would change");
        await ByColleagueAsync(account, "tuner", "maxCpc", "1.75");

        Browser.Press(Keys.Enter);

        Browser.Sees("Changed by somebody else meanwhile: “piano tuner leeds”");
        (await ItemAsync(account, "keyword", "hire"))
            .GetProperty("values")
            .GetProperty("state")
            .GetString()
            .ShouldBe("running");
        Browser.Until(() => Browser.Focused.Text == "Change 3 items", "the focus to stay on the yes");
        Browser.Press(Keys.Enter);
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0,
            "the dialog to close"
        );
        var tuner = (await ItemAsync(account, "keyword", "tuner")).GetProperty("values");
        (tuner.GetProperty("state").GetString(), tuner.GetProperty("maxCpc").GetDecimal()).ShouldBe(("paused", 1.75m));
    }

    [Fact]
    public async Task An_edit_is_held_against_the_row_as_it_was_when_the_editor_was_opened()
    {
        var account = await AccountAsync("keyword");
        Row("piano tuner leeds").Click();
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, Keys.F2);
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Edit piano tuner leeds", "the editor");
        await ByColleagueAsync(account, "tuner", "maxCpc", "1.75");
        // The news of it comes onto the page while the editor is open.
        Browser.Sees("Set max CPC to £1.75");
        Browser.Press("1.90", Keys.Enter);

        Browser.Sees("Changed by someone else meanwhile");
        Browser.Sees("theirs £1.75");
        Browser.Press(Keys.Escape);
        (await ItemAsync(account, "keyword", "tuner"))
            .GetProperty("values")
            .GetProperty("maxCpc")
            .GetDecimal()
            .ShouldBe(1.75m);
    }

    [Fact]
    public async Task A_yes_before_the_answer_is_there_is_kept_and_carried_out()
    {
        await AccountAsync("keyword");
        Browser.Chord(Keys.Control, "a");
        Browser.Chord(Keys.Alt, "t");
        Browser.Until(() => Browser.Focused.TagName == "input", "the dialog");

        Browser.Press("leeds", Keys.Tab, "york", Keys.Enter);

        Browser.Sees("piano tuner york");
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0,
            "the dialog to close"
        );
    }

    [Fact]
    public async Task Keys_of_the_page_do_nothing_behind_an_open_dialog()
    {
        var account = await AccountAsync("keyword");
        await ByColleagueAsync(account, "hire", "maxCpc", "0.60");
        Browser.Press(" ", Keys.Delete);
        Browser.Sees("Remove 1 keyword");

        Browser.Chord(Keys.Control, "z");
        Browser.Chord(Keys.Alt, "t");
        Browser.Press("?");

        Thread.Sleep(300);
        Browser.Text.ShouldNotContain("Keys of this page");
        Browser.Text.ShouldNotContain("Change texts");
        Browser.Press(Keys.Escape);
        (await Visitor.ReadAsync($"/api/accounts/{account}/history"))[0]
            .GetProperty("label")
            .GetString()!
            .ShouldStartWith("Set max CPC");
    }

    [Fact]
    public async Task News_cover_no_totals_and_take_no_key()
    {
        await AccountAsync("keyword");
        Browser.Press(" ", Keys.Delete);
        Browser.Sees("Remove 1 keyword");
        Browser.Press(Keys.Enter);
        var news = Browser.Until(
            () =>
                Browser
                    .Driver.FindElements(By.CssSelector("[data-sonner-toast]"))
                    .FirstOrDefault(each => each.Displayed),
            "the news"
        );
        Thread.Sleep(600);

        news.Location.Y.ShouldBeLessThan(130);
        (news.Location.Y + news.Size.Height).ShouldBeLessThan(
            Browser.Driver.FindElement(By.CssSelector("[data-place='0']")).Location.Y
        );
        Browser.Press(" ");
        Browser.Chord(Keys.Alt, "t");
        Browser.Sees("Change texts");
    }

    private string? StateOf(int account, string keyword) =>
        ItemAsync(account, "keyword", keyword)
            .GetAwaiter()
            .GetResult()
            .GetProperty("values")
            .GetProperty("state")
            .GetString();

    [Fact]
    public async Task Undoing_just_one_step_names_what_cannot_go_back_and_Ctrl_Z_undoes_just_that()
    {
        var account = await AccountAsync("keyword");
        Browser.Chord(Keys.Control, "a");
        Browser.Click("Pause");
        Browser.Click("Change 3 items");
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0,
            "the dialog to close"
        );
        await ByColleagueAsync(account, "tuner", "state", "running");
        await ByColleagueAsync(account, "hire", "maxCpc", "0.70");
        Browser.Open($"/{account}/ship/history");
        Browser.Click("Pause 3 keywords");
        Browser.Click("Undo just this…");

        Browser.Sees("2 items would change");
        Browser.Sees("piano tuner leeds");
        Browser.Sees("changed it again since");
        Browser.Press(Keys.Enter);
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0,
            "the dialog to close"
        );
        StateOf(account, "hire").ShouldBe("running");
        Browser.Chord(Keys.Control, "z");
        Browser.Until(() => StateOf(account, "hire") == "paused", "the undone undo");
    }

    [Fact]
    public async Task Single_changes_are_held_back_taken_back_and_published_by_themselves()
    {
        var account = await AccountAsync("keyword");
        Browser.Click("Review changes");
        Browser.Sees("Publish 8 changes");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "group", "the list to have the keyboard");

        Browser.Field("Tick Hire").Click();
        Browser.Click("Hold back 1 change");
        // What is new in it is held along with it.
        Browser.Sees("3 held back");
        Browser.Field("Tick Hire").Click();
        Browser.Sees("Publish 5 changes");
        Browser.Field("Tick piano tuner leeds").Click();
        Browser.Click("Take back 1 change…");
        Browser.Sees("Take back the changes of 1 item");
        Browser.Press(Keys.Enter);
        Browser.Sees("Publish 4 changes");
        // The button stands there before the dialog has given the keyboard back.
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0,
            "the dialog to close"
        );
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "group", "the list to have the keyboard again");
        Browser.Chord(Keys.Control, Keys.Enter);
        Browser.Sees("4 of 4 accepted");
        Browser.Sees("3 items differ from the live copy, 3 held back");
        (await Visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(3);
    }

    [Fact]
    public async Task An_inherited_bid_is_raised_from_what_it_inherits_and_a_typed_one_goes_to_all_that_is_marked()
    {
        await AccountAsync("keyword");
        Row("piano tuning leeds").Click();
        Browser.Click("Raise max CPC by 10%");
        Browser.Sees("£1.10");
        Browser.Until(
            () => Browser.Focused.GetAttribute("aria-label") == "Raise max CPC by 10%",
            "the button to keep the focus"
        );
        Browser.Press(Keys.Escape);

        Browser.Chord(Keys.Control, "a");
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        Browser.Press("2");
        Browser.Press(".05", Keys.Enter);
        Browser.Sees("3 items would change");
        Browser.Press(Keys.Enter);
        Browser.Until(() => Browser.Text.Split("£2.05").Length > 3, "all three bids");
    }

    [Fact]
    public async Task A_bid_above_the_daily_budget_is_a_caution_where_it_is_typed()
    {
        await AccountAsync("keyword");
        Row("piano tuner leeds").Click();
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        Browser.Press("2");
        Browser.Press("60", Keys.Enter);

        Browser.Sees("above the campaign’s daily budget of £25.00");
    }

    [Fact]
    public async Task A_filter_survives_other_pages_Back_a_reload_and_a_link_to_a_colleague()
    {
        var account = await AccountAsync("keyword");
        Browser.Field("Filter by text").SendKeys("tun" + Keys.Enter);
        Browser.Sees("2 rows");
        Browser.Click("Max CPC");
        var address = Browser.Until(
            () => Browser.Driver.Url is var url && url.Contains("q=tun") && url.Contains("sort=-maxCpc") ? url : null,
            "the address"
        );

        Browser.Click("Negatives");
        Browser.Sees("Paste negatives");
        Browser.Click("Structure");
        Browser.Sees("2 rows");
        Browser.Click("Negatives");
        Browser.Sees("Paste negatives");
        Browser.Driver.Navigate().Back();
        Browser.Sees("2 rows");
        Browser.Driver.Navigate().Refresh();
        Browser.Sees("2 rows");
        Browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        Browser.Driver.Navigate().GoToUrl(address);
        Browser.Sees("2 rows");
        Browser.Driver.Close();
        Browser.Driver.SwitchTo().Window(Browser.Driver.WindowHandles[0]);
        Browser.Driver.Title.ShouldBe("Structure · Tarn & Fell Pianos · Fendrik");
        Open(account, "keyword");
    }

    [Fact]
    public async Task The_headlines_of_an_ad_are_cells_like_any_other()
    {
        var account = await AccountAsync("textAd");
        Browser.Sees("Headline 2");
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, Keys.F2);
        Browser.Until(() => Browser.Focused.GetAttribute("value") == "Book Today", "the editor of the second headline");
        Browser.Press("Call Now", Keys.Enter);
        Browser.Sees("Call Now");

        var ad = (await ItemAsync(account, "textAd", "piano")).GetProperty("values");
        ad.GetProperty("headlines")
            .EnumerateArray()
            .Select(line => line.GetString())
            .ShouldBe(["Piano Tuning", "Call Now", "Since 1974"]);
    }

    [Fact]
    public async Task Findings_are_ticked_and_mended_in_one_step()
    {
        var account = await SignedInAsync();
        Bring(
            "campaign,ad group,keyword,match type,max cpc\nTuning,Piano tuning,piano tuning,exact,1.10\nHire,Piano hire,piano hire,exact,1.10\n"
        );
        Browser.Open($"/{account}/ship/checks");
        Browser.Sees("daily budget missing");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "group", "the list to have the keyboard");

        Browser.Press(" ", Keys.ArrowDown, " ");
        Browser.Sees("2 items ticked");
        Browser.Field("Daily budget of all of them").SendKeys("25" + Keys.Enter);
        Browser.Sees("2 items would change");
        Browser.Press(Keys.Enter);

        Browser.Sees("nothing is in the way of publishing");
        (await Visitor.ReadAsync($"/api/accounts/{account}/history"))[0]
            .GetProperty("label")
            .GetString()
            .ShouldBe("Set daily budget to £25.00 on 2 campaigns");
    }

    [Fact]
    public async Task Negatives_say_before_they_go_in_which_own_keywords_they_would_block()
    {
        var account = await AccountAsync("keyword");
        Browser.Open($"/{account}/plan/negatives");
        Browser.Field("One on each line").SendKeys("tuner");
        Browser.Sees("+ tuners");
        Browser.Click("All of these");
        Browser.Click("Add 1 negative in");

        Browser.Sees("keeps one of your own keywords from showing: “piano tuner leeds”.");
        Browser.Sees("Worth a look first");
    }
}
