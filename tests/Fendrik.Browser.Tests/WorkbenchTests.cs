using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;
using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Where a specialist spends the day: many rows at once, by mouse and by keyboard.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class WorkbenchTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,description,url
        Tuning,25,Piano tuning,1.00,piano tuning leeds,exact,1.10,,,,
        Tuning,25,Piano tuning,1.00,piano tuner leeds,phrase,1.20,,,,
        Tuning,25,Piano tuning,,,,,Piano Tuning,Book Today,We tune at home.,tarnandfell.example/tuning
        Hire,20,Piano hire,0.90,piano hire leeds,exact,,,,,
        Hire,20,Piano hire,,,,,Piano Hire,Book Today,Pianos for the stage.,tarnandfell.example/hire
        """;

    private async Task<int> AccountAsync(string view)
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/plan/structure?view={view}");
        Browser.Sees("Structure");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-place='1']")).FirstOrDefault(), "rows");
        return account;
    }

    [Fact]
    public async Task Goes_far_down_a_long_list_by_the_scroll_bar_and_by_a_key_and_stays_there()
    {
        var account = await SignedInAsync();
        Bring(
            "campaign,daily budget,ad group,ad group max cpc,keyword,match type\n"
                + string.Concat(
                    Enumerable.Range(1, 2_000).Select(number => $"Tuning,25,Tuning,1,piano {number:0000},exact\n")
                )
        );
        Browser.Open($"/{account}/plan/structure?view=keyword");
        Browser.Sees("2,000 rows");
        Browser.Sees("piano 0001");

        Browser.Driver.ExecuteScript(
            "const body = document.querySelector('[role=grid] [role=presentation]'); const bar = body.parentElement.parentElement; bar.scrollTop = bar.scrollHeight / 2"
        );
        Browser.Sees("piano 1001");
        Thread.Sleep(500);
        Browser.Sees("piano 1001");
        OnTheSheet();
        Browser.Chord(Keys.Control, Keys.End);
        Browser.Sees("piano 2000");
        Thread.Sleep(500);
        Browser.Text.ShouldContain("piano 2000");
        Browser.Sees("2,000 rows");
    }

    private void OnTheSheet()
    {
        Browser.Driver.ExecuteScript("document.querySelector('[role=grid],[role=treegrid]').focus()");
    }

    [Fact]
    public async Task Copies_all_ads_for_phones_with_another_call_to_action_in_three_interactions()
    {
        await AccountAsync("textAd");
        OnTheSheet();

        Browser.Chord(Keys.Control, "a");
        Browser.Chord(Keys.Alt, "c");
        Browser.Sees("Copy with changes");
        Browser.Until(() => Browser.Focused.TagName == "input", "the field for what is replaced");
        Browser.Press("Book Today", Keys.Tab, "Call Now");
        // New ads are shown as ads.
        Browser.Sees("Piano Tuning · Call Now\nWe tune at home.");
        // What the copies have otherwise than their originals is marked; the rest is not told again.
        Browser.Driver.FindElements(By.TagName("mark")).Select(mark => mark.Text).Distinct().ShouldBe(["Call Now"]);
        Browser.Sees("Device preference: phone (was none)");
        Browser.Until(() => Browser.Text.Contains("2 items would change"), "the preview");
        Browser.Press(Keys.Enter);

        // The copies, and only they, are selected: the next change hits just them, and the sheet shows what it showed before.
        Browser.Sees("4 rows");
        Browser.Sees("2 ads");
        Browser.Sees("phone");
        Browser.Click("Pause");
        Browser.Sees("Pause 2 ads");
        Browser.Click("Change 2 items");
        Browser.Click("Show what was touched");
        Browser.Sees("Only what one step touched");
        Browser.Sees("2 rows");
        Browser.Click("Show all");
        Browser.Sees("4 rows");
    }

    [Fact]
    public async Task Replaces_words_in_all_that_a_condition_lets_through_and_takes_it_back()
    {
        await AccountAsync("keyword");
        Browser.Click("Condition…");
        Browser.Field("Value").SendKeys("tun" + Keys.Enter);
        Browser.Sees("Name or words has in it tun");
        Browser.Sees("2 rows");
        OnTheSheet();
        Browser.Chord(Keys.Control, "a");
        Browser.Click("Texts…");
        Browser.Field("Find").SendKeys("leeds");
        Browser.Field("Put in place").SendKeys("york");
        Browser.Sees("piano tuner york");
        Browser.Click("Change 2 items");

        // The filter stays as it is.
        Browser.Sees("piano tuning york");
        Browser.Sees("Name or words has in it tun");
        Browser.Click("Undo “Replace “leeds” by “york”");
        Browser.Sees("piano tuning leeds");
        Browser.Sees("2 rows");
    }

    [Fact]
    public async Task Pastes_a_block_of_cells_from_a_spreadsheet_and_fills_down()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Copy("1.55\n1.65\n1.75\n");
        Browser.Open($"/{account}/plan/structure?view=keyword");
        Browser.Sees("piano hire leeds");
        Row("piano hire leeds").Click();
        OnTheSheet();
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        Browser.Chord(Keys.Control, "v");
        Browser.Sees("Paste into 3 keywords");
        Browser.Click("Change 3 items");

        Browser.Sees("£1.75");
        Row("piano hire leeds").Click();
        OnTheSheet();
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        Browser.Chord(Keys.Shift, Keys.ArrowDown);
        Browser.Sees("2 keywords");
        Browser.Chord(Keys.Control, "d");
        Browser.Sees("Set max CPC to £1.55 on 1 keyword");
        Browser.Click("Change 1 item");
        Browser.SeesNo("£1.65");
    }

    [Fact]
    public async Task Says_that_a_block_does_not_fit_the_selection_and_pastes_nothing()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Copy("1.55\n1.65\n");
        Browser.Open($"/{account}/plan/structure?view=keyword");
        Browser.Sees("piano hire leeds");
        OnTheSheet();
        Browser.Chord(Keys.Control, "a");
        Browser.Sees("3 keywords");
        Browser.Chord(Keys.Control, "v");

        Browser.Sees("The clipboard has 2 rows and 3 are selected.");
    }

    [Fact]
    public async Task Shows_what_another_person_does_and_both_versions_of_a_row_edited_by_both()
    {
        var account = await AccountAsync("keyword");
        Row("piano tuner leeds").Click();
        OnTheSheet();
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, Keys.F2);
        Browser.Until(
            () => Browser.Focused.GetAttribute("aria-label") == "Edit piano tuner leeds",
            "the cell's editor"
        );

        var page = await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "keyword", text = "tuner" });
        var row = page.GetProperty("rows")[0];
        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = new[] { new { kind = "keyword", id = row.GetProperty("id").GetInt64() } },
                values = new { maxCpc = "1.40" },
            }
        );
        Browser.Press(Keys.Backspace, "1.90", Keys.Enter);

        Browser.Sees("Changed by someone else meanwhile");
        Browser.Sees("you saw £1.20");
        Browser.Sees("theirs £1.40");
        Browser.Click("Use mine");
        Browser.Sees("£1.90");
    }

    [Fact]
    public async Task Brings_a_change_of_another_person_onto_the_screen_by_itself()
    {
        var account = await AccountAsync("campaign");
        Browser.SeesNo("Restoration");

        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "Restoration", dailyBudget = 5 },
                place = new { },
            }
        );

        Browser.Sees("Restoration");
    }

    [Fact]
    public async Task Goes_back_to_an_earlier_step_after_a_look()
    {
        var account = await AccountAsync("campaign");
        OnTheSheet();
        Browser.Chord(Keys.Control, "a");
        Browser.Click("Pause");
        Browser.Click("Change 2 items");
        Browser.Sees("paused");
        Browser.Open($"/{account}/ship/history");
        Browser.Click("Bring in ");
        Browser.Click("Go back to here…");
        Browser.Sees("2 items would change");
        Browser.Click("Bring all back");

        Browser.Sees("Go back to “Bring in");
        Browser.Open($"/{account}/plan/structure?view=campaign");
        Browser.Sees("£25.00");
        Browser.SeesNo("paused");
    }

    [Fact]
    public async Task Adds_a_shared_list_and_says_which_own_keyword_it_blocks()
    {
        var account = await AccountAsync("keyword");
        Browser.Open($"/{account}/plan/negatives");
        Browser.Click("New…");
        Browser.Field("Name").SendKeys("Not looking for us");
        Browser.Field("Negatives, one on each line").SendKeys("jobs\nhire");
        Browser.Driver.FindElement(By.XPath("//*[@role='dialog']//button[.='All of these']")).Click();
        Browser.Click("Add the list");
        Browser.Sees("shared by 2 campaigns");
        Browser
            .Until(
                () =>
                    Browser.Driver.FindElements(By.XPath("//*[@role='tab'][contains(., 'Blocking')]")).FirstOrDefault(),
                "the tab"
            )
            .Click();

        Browser.Sees("1 keyword: piano hire leeds");
        Browser.Sees("list Not looking for us");
    }

    [Fact]
    public async Task Decides_whose_version_holds_after_the_network_changed_something()
    {
        var account = await AccountAsync("campaign");
        Browser.Click("Review changes");
        Browser.Click("Publish ");
        Browser.Sees("accepted");
        var page = await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "campaign", text = "hire" });
        var id = page.GetProperty("rows")[0].GetProperty("id").GetInt64();
        await Network.EditFromOutsideAsync(
            NetworkVisitor.Put(new Campaign(id, "Hire", ItemState.Running, 33m, null, null, SiteKinds.Search))
        );

        Browser.Click("Read the live copy");
        Browser.Sees("£33.00");
        Browser.Click("Take theirs for all");
        Browser.SeesNo("Changed on the network itself");
        Browser.Open($"/{account}/plan/structure?view=campaign");
        Browser.Sees("£33.00");
    }
}
