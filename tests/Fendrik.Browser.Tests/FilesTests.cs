using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>An account out into a file, changed there, and back in.</summary>
public class FilesTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc
        Tuning,25,Piano tuning,1.00,piano tuning leeds,exact,1.10
        Tuning,25,Piano tuning,1.00,piano tuner leeds,phrase,1.20
        Hire,20,Piano hire,0.90,piano hire leeds,exact,
        """;

    [Fact]
    public async Task Takes_the_account_out_by_keyboard_and_brings_it_back_with_a_bid_changed()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/plan/structure");
        Browser.Sees("piano hire leeds");
        Browser.TabTo("Items of the account");

        Browser.Chord(Keys.Alt, "o");
        Browser.Sees("Into a file that Intake takes back in");

        // Whoever leaves a dialog is back in the sheet and goes on there.
        Browser.Press(Keys.Escape);
        Browser.SeesNo("Into a file that Intake takes back in");
        Browser.Chord(Keys.Alt, "o");
        Browser.Sees("Into a file that Intake takes back in");
        Browser.TabTo("Workbook, XLSX · amounts are numbers, days are dates");
        Browser.Press(Keys.ArrowDown, Keys.Enter);

        var file = Browser.Downloaded("csv");
        var text = await File.ReadAllTextAsync(file);
        var lines = text.Split('\n');
        var at = Array.FindIndex(lines[0].Split(','), header => header.StartsWith("Max CPC", StringComparison.Ordinal));
        var row = Array.FindIndex(lines, line => line.Contains("piano tuning leeds,exact", StringComparison.Ordinal));
        var cells = lines[row].Split(',');
        cells[at].ShouldBe("1.10");
        cells[at] = "1.45";
        lines[row] = string.Join(',', cells);
        await File.WriteAllTextAsync(file, string.Join('\n', lines));
        Choose(file);
        Browser.Sees("Bring in 1 item");
        Browser.Click("Bring in 1 item");
        Browser.Click("Show what came in");
        Browser.Sees("£1.45");
    }

    [Fact]
    public async Task Takes_out_what_is_shown_and_removes_it_by_its_own_file()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/plan/structure?view=keyword");
        Browser.Sees("piano hire leeds");
        Browser.Field("Filter by text").SendKeys("tun");
        Browser.Sees("2 rows");
        Browser.Click("Take out…");
        Browser.Sees("What is shown, 2 rows");
        Browser.Driver.FindElement(By.XPath("//label[contains(., 'JSON')]")).Click();
        Browser.Driver.FindElement(By.XPath("//div[@role='dialog']//button[.='Take out']")).Click();

        Choose(Browser.Downloaded("json"));
        Browser.Sees("Bring in 0 items");
        Browser.Field("What the rows do").Click();
        Browser.Driver.FindElement(By.XPath("//*[@role='option'][.='remove']")).Click();
        Browser.Click("Remove 2 items");
        Browser.Sees("It is one step");
        Browser.Open($"/{account}/plan/structure?view=keyword");
        Browser.Sees("1 row");
        Browser.Sees("piano hire leeds");
    }

    [Fact]
    public async Task Gives_a_workbook_to_fill_in_and_shows_the_last_list_alone()
    {
        await SignedInAsync();
        Bring(List);
        Browser.Click("Bring in another list");
        Browser.Sees("list.csv came in last");

        Browser.Click("Download");
        new FileInfo(Browser.Downloaded("xlsx")).Length.ShouldBeGreaterThan(1_000);
        Browser.Click("Show what came in");
        Browser.Sees("Only what one step touched");
    }

    [Fact]
    public async Task Can_be_used_by_all_where_files_go_in_and_out()
    {
        var axe = await AxeAsync();
        await SignedInAsync();
        Bring(List);
        Browser.Click("Bring in another list");
        Browser.Sees("came in last");
        Serious(axe).ShouldBeEmpty();
        Browser.Click("Take out…");
        Browser.Sees("Into a file that Intake takes back in");
        Serious(axe).ShouldBeEmpty();
    }
}
