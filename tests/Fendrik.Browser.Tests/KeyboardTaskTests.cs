using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>
/// The tasks of the guide with the keyboard alone. A key counts once, with whatever is held down along with it; a word or a number
/// that has to be typed anyway counts once as well. The guide says the same numbers.
/// </summary>
public class KeyboardTaskTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,description,url
        Hire,20,Piano hire,0.90,piano hire leeds,exact,0.50,,,,
        Hire,20,Piano hire,,,,,Piano Hire,Book Today,Pianos for the stage.,tarnandfell.example/hire
        Sales,15,Pianos,0.80,used piano,exact,0.32,,,,
        Tuning,25,Piano tuning,1.00,piano tuning leeds,exact,1.10,,,,
        Tuning,25,Piano tuning,,,,,Piano Tuning,Book Today,We tune at home.,tarnandfell.example/tuning
        """;

    private int _keys;

    private void Key(string key)
    {
        _keys++;
        Browser.Press(key);
    }

    private void Chord(string modifier, string key)
    {
        _keys++;
        Browser.Chord(modifier, key);
    }

    /// <summary>Something that is typed in any case; where the focus is not in a field yet, that is waited for.</summary>
    private void Word(string word)
    {
        _keys++;
        Browser.Until(() => Browser.Focused.TagName is "input" or "textarea", "a field to type into");
        Browser.Press(word);
    }

    private async Task<int> AccountAsync()
    {
        var account = await SignedInAsync();
        Bring(List);
        return account;
    }

    private void InTheSheet(string path)
    {
        Browser.Open(path);
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector("[data-place='0']")).FirstOrDefault(), "rows");
        Browser.Until(() => OnSheet(), "the sheet to have the keyboard");
        _keys = 0;
    }

    private bool OnSheet() => Browser.Focused.GetAttribute("role") is "grid" or "treegrid";

    [Fact]
    public async Task A_list_is_pasted_completed_and_kept_with_at_most_8_keys()
    {
        await SignedInAsync();
        var address = Browser.Driver.Url;
        Browser.Copy(
            "Kampagne\tAnzeigengruppe\tSuchbegriff\nTuning\tAt home\t[piano tuning]\nTuning\tAt home\t[piano tuner]\n"
        );
        Browser.Driver.Navigate().GoToUrl(address);
        Browser.Sees("What needs attention");
        _keys = 0;

        Chord(Keys.Alt, "i");
        Browser.Sees("Paste your list here");
        Chord(Keys.Control, "v");
        Browser.Sees("Daily budget, 1 campaign");
        Key(Keys.F6);
        Word("40");
        Key(Keys.Tab);
        Word("1.20");
        Key(Keys.Enter);
        Browser.Sees("Filled in here");
        Chord(Keys.Control, Keys.Enter);

        Browser.Sees("Brought in 4 items");
        _keys.ShouldBeLessThanOrEqualTo(8);
    }

    [Fact]
    public async Task All_ads_of_a_campaign_are_copied_for_phones_with_at_most_6_keys()
    {
        var account = await AccountAsync();
        var page = await Visitor.PostAsync(
            $"/api/accounts/{account}/sheet",
            new { kind = "campaign", text = "tuning" }
        );
        var campaign = page.GetProperty("rows")[0].GetProperty("id").GetInt64();
        InTheSheet($"/{account}/plan/structure?campaign={campaign}");

        Chord(Keys.Control, "k");
        Word("all ads");
        Key(Keys.Enter);
        Browser.Sees("1 row");
        Browser.Until(() => OnSheet(), "the sheet to have the keyboard");
        Chord(Keys.Control, "a");
        Chord(Keys.Alt, "c");
        Browser.Until(() => Browser.Focused.TagName == "input", "the dialog");
        Key(Keys.Enter);

        Browser.Sees("2 rows");
        Browser.Sees("phone");
        _keys.ShouldBeLessThanOrEqualTo(6);
    }

    [Fact]
    public async Task Bids_are_lowered_by_a_fifth_with_a_floor_with_at_most_8_keys()
    {
        var account = await AccountAsync();
        InTheSheet($"/{account}/plan/structure?view=keyword");

        Chord(Keys.Control, "a");
        Browser.Sees("3 keywords");
        Chord(Keys.Alt, "b");
        Word("-20%");
        Key(Keys.Tab);
        Word("0.30");
        Key(Keys.Enter);
        Browser.Sees("3 items would change");
        Key(Keys.Enter);

        Browser.Sees("£0.88");
        Browser.Sees("£0.40");
        Browser.Sees("£0.30");
        _keys.ShouldBeLessThanOrEqualTo(8);
    }

    [Fact]
    public async Task Negatives_go_onto_three_campaigns_with_at_most_8_keys()
    {
        var account = await AccountAsync();
        Browser.Copy("free\njobs\n");
        InTheSheet($"/{account}/plan/structure?view=campaign");

        Key(" ");
        Key(Keys.ArrowDown);
        Key(" ");
        Key(Keys.ArrowDown);
        Key(" ");
        Browser.Sees("3 campaigns");
        Chord(Keys.Alt, "m");
        Browser.Until(() => Browser.Focused.TagName == "textarea", "the dialog");
        Chord(Keys.Control, "v");
        Chord(Keys.Control, Keys.Enter);

        Browser.Sees("17 changes since the last publish");
        (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "negativeKeyword" }))
            .GetProperty("rows")
            .GetArrayLength()
            .ShouldBe(6);
        _keys.ShouldBeLessThanOrEqualTo(8);
    }

    [Fact]
    public async Task A_blocker_is_mended_from_the_checks_with_at_most_4_keys()
    {
        await SignedInAsync();
        Bring("campaign,ad group,keyword,match type,max cpc\nTuning,Piano tuning,piano tuning,exact,1.10\n");
        Browser.Click("1 blocker");
        Browser.Sees("daily budget missing");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "group", "the list to have the keyboard");
        _keys = 0;

        Key(Keys.Enter);
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Edit Tuning", "the field to be edited");
        Word("25");
        Key(Keys.Enter);

        Browser.Sees("£25.00");
        Browser.SeesNo("1 blocker");
        _keys.ShouldBeLessThanOrEqualTo(4);
    }

    [Fact]
    public async Task What_is_changed_is_published_with_at_most_4_keys()
    {
        var account = await AccountAsync();
        InTheSheet($"/{account}/plan/structure");

        Chord(Keys.Control, "k");
        Word("review changes");
        Key(Keys.Enter);
        Browser.Sees("Publish 11 changes");
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "group", "the list to have the keyboard");
        Chord(Keys.Control, Keys.Enter);

        Browser.Sees("11 of 11 accepted");
        _keys.ShouldBeLessThanOrEqualTo(4);
    }

    [Fact]
    public async Task The_clock_moves_a_week_on_with_at_most_3_keys()
    {
        var account = await AccountAsync();
        InTheSheet($"/{account}/plan/structure");

        Chord(Keys.Control, "k");
        Word("one week on");
        Key(Keys.Enter);

        Browser.Sees("Mon 23 Mar, 00:00 sim");
        _keys.ShouldBeLessThanOrEqualTo(3);
    }
}
