using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Asking why an ad shows or does not, and going to what keeps it away.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class TraceTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match type,max cpc,headline 1,headline 2,description 1,landing page\n"
        + "Tuning,40,Piano tuning,piano tuning,phrase,1.10,,,,\n"
        + "Tuning,40,Piano tuning,,,,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/tuning\n"
        + "Tuning,40,,-app,,,,,,\n";

    [Fact]
    public async Task A_choice_keeps_the_keyboard_and_what_a_colleague_changes_shows_without_asking_again()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/ship/trace?text=piano+tuning");
        Browser.Sees("“piano tuning” answers");

        Browser.TabTo("Working copy");
        Browser.Press(Keys.ArrowRight);
        Browser.Sees("As the network would answer it");
        Browser.Sees("No keyword matches");
        Browser.Focused.Text.ShouldBe("Live copy");
        Browser.Press(Keys.ArrowLeft);
        Browser.Sees("“piano tuning” answers");

        var keyword = (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "keyword" }))
            .GetProperty("rows")[0]
            .GetProperty("id")
            .GetInt64();
        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = new[] { new { kind = "keyword", id = keyword } },
                values = new { state = "paused" },
            }
        );
        Browser.Sees("The keyword is paused.");
    }

    [Fact]
    public async Task A_search_is_traced_by_the_keyboard_and_the_negative_that_blocks_it_is_one_key_away()
    {
        await SignedInAsync();
        Bring(List);

        Browser.Chord(Keys.Control, "k");
        Browser.Until(() => Browser.Focused.TagName == "input", "the command field");
        Browser.Press("Trace", Keys.Enter);
        Browser.Sees("Why does this ad show");
        Browser.Until(() => Browser.Focused.GetAttribute("placeholder") == "piano tuner york", "the search");
        Browser.Press("piano tuning york", Keys.Enter);
        Browser.Sees("“piano tuning” answers");
        Browser.Sees("Piano Tuning · Same Week");
        Browser.Sees("There were no clicks on this keyword");

        var field = Browser.Field("Search");
        field.SendKeys(Keys.Control + "a");
        Browser.Press("piano tuning app", Keys.Enter);
        Browser.Sees("Blocked by a negative");
        Browser.Driver.Url.ShouldContain("text=piano+tuning+app");
        Browser.TabTo("on the campaign keeps it away.");
        Browser.Press(Keys.Enter);
        // The negative itself, chosen, with what can be done with it beside.
        Browser.Sees("in Tuning");
        Browser.Sees("Paste more negatives");
    }

    [Fact]
    public async Task A_search_that_is_saved_by_the_keyboard_is_a_caution_as_soon_as_the_account_fails_it()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/ship/trace?text=piano+tuning+york");
        Browser.Sees("“piano tuning” answers");

        Browser.TabTo("Should show from Piano tuning");
        Browser.Press(Keys.Enter);
        Browser.Sees("1 search saved.");
        Browser.Open($"/{account}/ship/trace?of=saved");
        Browser.Sees("The saved search does what it should");
        await Visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "negativeKeyword",
                values = new { text = "york", match = "phrase" },
                place = new
                {
                    campaignIds = new[]
                    {
                        (await Visitor.ReadAsync($"/api/accounts/{account}/campaigns"))[0].GetProperty("id").GetInt64(),
                    },
                },
            }
        );
        Browser.Sees("1 of 1 saved search fail");
        Browser.Sees("-\"york\" on the campaign keeps it away.");

        Browser.Open($"/{account}/ship/checks");
        Browser.Sees("“piano tuning york” should show from “Piano tuning”.");
        Browser.TabTo("Mend: a saved search fails");
        Browser.Press(Keys.Enter);
        Browser.Sees("1 of 1 saved search fail");
        Browser.TabTo("Remove “piano tuning york”");
        Browser.Press(Keys.Enter);
        Browser.Sees("1 saved search removed.");
        Browser.Sees("Searches that the account must pass");
    }

    [Fact]
    public async Task Many_searches_are_pasted_and_counted_and_their_file_says_what_came_of_each()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/ship/trace?of=list");

        Browser.Field("Searches, one a line").SendKeys("piano tuning york\npiano tuning app\nguitar\n");
        Browser.Click("Trace all of them");
        Browser.Sees("3 searches of the pasted list");
        Browser.Sees("1 show");
        Browser.Sees("1 match no keyword");
        Browser.Sees("1 blocked by a negative");

        Browser.Click("All of them as CSV");
        File.ReadAllLines(Browser.Downloaded("csv"))[1]
            .ShouldStartWith("piano tuning york,shows,Tuning,Piano tuning,piano tuning,phrase,1,");
    }
}
