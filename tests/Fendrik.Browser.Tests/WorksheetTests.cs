using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>A list is a worksheet: guessed with a confidence, filtered by its counts, mended where it lies.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class WorksheetTests(Browser browser) : BrowserTest(browser)
{
    private static string FileOf(string list)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("fendrik-list-").FullName, "list.csv");
        File.WriteAllText(file, list);
        return file;
    }

    private async Task ReadAsync(string list)
    {
        await SignedInAsync();
        Choose(FileOf(list));
    }

    [Fact]
    public async Task Columns_are_guessed_by_header_and_content_and_what_is_unsure_says_so()
    {
        await ReadAsync(
            "Kampagne;Anzeigengruppe;Suchbegriff;Übereinstimmungstyp;Gebot;Notiz\nTuning;Zu Hause;piano tuning;oft;1,20;März\nTuning;Zu Hause;piano tuner;selten;1,10;\n"
        );

        Browser.Sees("Match type");
        Browser.Sees("% sure");
        Browser.Until(
            () =>
                Browser
                    .Driver.FindElements(By.XPath("//*[@data-brings-in][contains(., '1 filled cell unused')]"))
                    .FirstOrDefault(),
            "the cell that is not used"
        );
    }

    [Fact]
    public async Task A_row_that_is_left_out_is_mended_in_the_list_by_the_keyboard()
    {
        await ReadAsync(
            "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\nTuning,25,At home,1.00,piano tuning,exact,\"1,2O\"\nTuning,25,At home,1.00,piano tuner,exact,0.90\n"
        );
        Browser.Sees("1 left out");
        Browser.Click("Mend 1 row in the list");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "grid", "the list to have the keyboard");

        Browser.Press(Keys.End, Keys.Enter);
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Row 2, Max CPC", "the cell to be mended");
        Browser.Press("1.20", Keys.Enter);

        Browser.SeesNo("1 left out");
        Browser.Sees("Bring in 4 items");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "grid", "the list to keep the keyboard");
        Browser.Chord(Keys.Control, Keys.Enter);
        Browser.Sees("Brought in 4 items from list.csv");
        Browser.Chord(Keys.Control, "z");
        Browser.Sees("4 items from list.csv taken back");
    }

    [Fact]
    public async Task What_changes_shows_the_cell_of_before_and_rows_that_contradict_each_other_are_named()
    {
        var account = await SignedInAsync();
        Bring("campaign,daily budget,ad group,keyword,match type,max cpc\nTuning,25,At home,piano tuning,exact,1.10\n");
        Browser.Open($"/{account}/plan/intake");
        Browser.Sees("Paste your list here");
        Browser
            .Driver.FindElement(By.CssSelector("input[type=file]"))
            .SendKeys(
                FileOf(
                    "campaign,daily budget,ad group,keyword,match type,max cpc\nTuning,30,At home,piano tuning,exact,1.40\nTuning,40,At home,piano tuner,exact,1.40\n"
                )
            );

        Browser.Sees("1.10 → 1.40");
        Browser.Sees("daily budget £30.00 in row 2, £40.00 in row 3. Row 2 holds.");
        Browser.Click("1 changed");
        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("[data-cell='0']")).Count == 1,
            "the row that changes"
        );
    }

    [Fact]
    public async Task Bare_keywords_are_asked_about_once_and_two_lists_can_wait()
    {
        const string bare =
            "campaign,daily budget,ad group,ad group max cpc,keyword\nTuning,25,At home,1.00,piano tuning\nTuning,25,At home,1.00,piano tuner\n";
        await ReadAsync(bare);
        Browser.Click("First: what are 2 bare keywords?");
        Browser.Until(() => Browser.Focused.GetAttribute("type") == "radio", "the question to have the keyboard");
        Browser.Press(" ");
        Browser.Sees("Bring in 4 items");

        Browser.Driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(FileOf(bare.Replace("piano", "organ")));
        Browser.Sees("Two lists");
        Browser.Press(Keys.Enter);
        Browser.Sees("organ tuning");
        Browser.SeesNo("First: what are");
        Browser.Click("Fendrik");
        Browser.Until(() => Browser.Text.Split("“list.csv” waits").Length == 3, "both lists to wait");
    }
}
