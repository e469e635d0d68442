using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>The sheet always has the keyboard, and its keys are those of a spreadsheet.</summary>
public class SheetKeyboardTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,description,url
        Hire,20,Piano hire,0.90,piano hire leeds,exact,0.50,,,,
        Tuning,25,Piano tuning,1.00,piano tuner leeds,phrase,1.20,,,,
        Tuning,25,Piano tuning,1.00,piano tuning leeds,exact,1.10,,,,
        Tuning,25,Piano tuning,,,,,Piano Tuning,Book Today,We tune at home.,tarnandfell.example/tuning
        Tuning,25,,,-free,,,,,,
        """;

    private async Task<int> AccountAsync(string view)
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/plan/structure?view={view}");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-place='0']")).FirstOrDefault(), "rows");
        HasTheKeyboard("opening the page");
        return account;
    }

    private void HasTheKeyboard(string after) =>
        Browser.Until(
            () => Browser.Focused.GetAttribute("role") is "grid" or "treegrid",
            $"the sheet to have the keyboard after {after}"
        );

    private string Cell =>
        (string)
            Browser.Driver.ExecuteScript(
                "const sheet = document.activeElement; const cell = document.getElementById(sheet.getAttribute('aria-activedescendant')); return cell ? cell.textContent : ''"
            )!;

    private int Marked => Browser.Driver.FindElements(By.CssSelector("[aria-selected='true']")).Count;

    private void OpenViews()
    {
        Browser.Click("Views…");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "menu", "the menu to have the keyboard");
    }

    [Fact]
    public async Task Has_the_keyboard_after_all_that_is_opened_and_closed_above_it()
    {
        var account = await AccountAsync("keyword");

        OpenViews();
        Browser.Press(Keys.Escape);
        HasTheKeyboard("a menu that is left");
        OpenViews();
        Browser.Press(Keys.ArrowDown);
        Browser.Until(() => Browser.Focused.Text.StartsWith("Save what", StringComparison.Ordinal), "the first entry");
        Browser.Press(Keys.ArrowDown);
        Browser.Until(() => Browser.Focused.Text.StartsWith("Columns", StringComparison.Ordinal), "the second entry");
        Browser.Press(Keys.Enter);
        Browser.Sees("The item itself always stands first");
        Browser.Press(Keys.Escape);
        HasTheKeyboard("a dialog that a menu opened");
        Browser.Field("State").Click();
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "option", "the choices to have the keyboard");
        Browser.Press(Keys.ArrowDown);
        Browser.Until(() => Browser.Focused.Text == "running", "the second choice");
        Browser.Press(Keys.Enter);
        HasTheKeyboard("a choice of the filter");
        Browser.Click("Show all");
        HasTheKeyboard("the filter was dropped");
        Browser.Press("/");
        Browser.Press("tun", Keys.ArrowDown);
        HasTheKeyboard("↓ from the filter");
        Browser.Sees("2 rows");
        Browser.Press(Keys.F2, "x", Keys.Escape);
        HasTheKeyboard("an edit that is left");
        Browser.Press(" ");
        Browser.Press(Keys.Delete);
        Browser.Sees("Remove 1 keyword");
        Browser.Press(Keys.Enter);
        Browser.Sees("1 row");
        HasTheKeyboard("a removal");
        Browser.Chord(Keys.Control, "z");
        Browser.Sees("2 rows");
        HasTheKeyboard("undo");
        Browser.Press(Keys.F6);
        Browser.Until(
            () => Browser.Focused.TagName is "input" or "button" or "aside",
            "the side panel to have the keyboard"
        );
        Browser.Press(Keys.F6);
        HasTheKeyboard("the way back from the side panel");
        Browser.Chord(Keys.Control, "k");
        Browser.Until(() => Browser.Focused.TagName == "input", "the command field");
        Browser.Press("Hire", Keys.Enter);
        Browser.Sees("piano hire leeds");
        HasTheKeyboard("going to a place");
        Browser.Open($"/{account}/plan/negatives");
        HasTheKeyboard("opening another page with a sheet");
    }

    [Fact]
    public async Task Marks_single_rows_by_Space_while_the_arrows_leave_the_marks_alone()
    {
        await AccountAsync("keyword");

        Browser.Press(" ", Keys.ArrowDown, Keys.ArrowDown, " ");
        Browser.Until(() => Marked == 2, "two marks");
        Browser.Press(Keys.ArrowUp);
        Thread.Sleep(200);
        Marked.ShouldBe(2);
        Browser.Press(Keys.ArrowDown, " ");
        Browser.Until(() => Marked == 1, "one mark");
        Browser.Press(Keys.Escape, Keys.ArrowUp);
        Browser.Until(() => Marked == 1, "the row under the cursor");
    }

    [Fact]
    public async Task Moves_as_a_spreadsheet_does_and_down_after_an_edit()
    {
        await AccountAsync("keyword");

        Browser.Chord(Keys.Control, Keys.End);
        Browser.Until(() => Cell.Contains("piano tuning leeds"), "the last row");
        Browser.Chord(Keys.Control, Keys.Home);
        Browser.Until(() => Cell.Contains("piano hire leeds"), "the first row");
        Browser.Press(Keys.End);
        Browser.Until(() => Cell.Length == 0, "the last column, which is empty");
        Browser.Press(Keys.Home, Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight);
        Browser.Press("0");
        Browser.Press(".75", Keys.Enter);
        Browser.Sees("£0.75");
        Browser.Until(() => Cell == "£1.20", "the cell below the one that was edited");
        Browser.Press("0");
        Browser.Press(".85", Keys.Tab);
        Browser.Sees("£0.85");
        Browser.Until(() => Cell != "£0.85", "the cell beside the one that was edited");
    }

    [Fact]
    public async Task Leaps_from_campaign_to_ad_group_in_the_outline_and_folds_what_stands_beside_them()
    {
        await AccountAsync("outline");

        Browser.Chord(Keys.Control, Keys.ArrowDown);
        Browser.Until(() => Cell.Contains("Piano hire"), "the first ad group");
        Browser.Chord(Keys.Control, Keys.ArrowDown);
        Browser.Until(() => Cell.Contains("Tuning"), "the next campaign");
        Browser.Chord(Keys.Control, Keys.ArrowDown);
        Browser.Chord(Keys.Control, Keys.ArrowDown);
        Browser.Until(() => Cell.Contains("Negatives"), "what the campaign holds besides ad groups");
        Browser.Press(Keys.Enter);
        Browser.Until(
            () => Browser.Driver.FindElements(By.XPath("//*[@role='row'][.//*[@title='free']]")).Count == 0,
            "the negatives to be folded"
        );
    }

    [Fact]
    public async Task Sorts_a_figure_with_the_largest_first()
    {
        await AccountAsync("keyword");

        Browser.Click("Max CPC");
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[aria-sort='descending']")).FirstOrDefault(),
            "the order"
        );
        Browser.Until(
            () => Browser.Driver.FindElement(By.CssSelector("[data-place='0']")).Text.Contains("£1.20"),
            "the largest first"
        );
    }

    [Fact]
    public async Task Shows_the_whole_text_of_a_cell_that_has_no_room_for_it()
    {
        var account = await SignedInAsync();
        var name = "a keyword with so many words that it cannot stand in its column";
        Bring($"campaign,daily budget,ad group,ad group max cpc,keyword,match type\nTuning,25,Tuning,1,{name},exact\n");
        Browser.Open($"/{account}/plan/structure?view=keyword");
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[data-whole]")).Any(each => each.Text == name),
            "the whole text"
        );
    }

    [Fact]
    public async Task A_column_is_as_wide_as_it_was_made()
    {
        await AccountAsync("keyword");
        var width = Width();

        Browser.Press(Keys.ArrowRight);
        new OpenQA.Selenium.Interactions.Actions(Browser.Driver)
            .KeyDown(Keys.Alt)
            .KeyDown(Keys.Shift)
            .SendKeys(Keys.ArrowRight)
            .SendKeys(Keys.ArrowRight)
            .KeyUp(Keys.Shift)
            .KeyUp(Keys.Alt)
            .Perform();
        Browser.Until(() => Width() > width + 20, "the column to be wider");
        Browser.Driver.Navigate().Refresh();
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-place='0']")).FirstOrDefault(), "rows");
        Width().ShouldBeGreaterThan(width + 20);
        Browser.Driver.ExecuteScript("localStorage.clear()");
    }

    private double Width() =>
        Convert.ToDouble(
            Browser.Driver.ExecuteScript(
                "return document.querySelector('[role=columnheader][aria-colindex=\"3\"]').getBoundingClientRect().width"
            ),
            System.Globalization.CultureInfo.InvariantCulture
        );
}
