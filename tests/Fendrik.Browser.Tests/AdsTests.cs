using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Writing ads: slots, lengths, what reviewers would say, and the ad as people see it.</summary>
public class AdsTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match type,max cpc,headline 1,headline 2,description 1,landing page\n"
        + "Tuning,40,Piano tuning,piano tuning,phrase,1.10,,,,\n"
        + "Tuning,40,Piano tuning,,,,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/tuning\n"
        + "Tuning,40,Piano tuning,,,,Tuned At Home,CALL TODAY!!,We come to you.,https://tarnandfell.example/tuning\n";

    private string Slot(int number) => Browser.Field($"Headline {number}").GetAttribute("value")!;

    [Fact]
    public async Task An_ad_is_written_moved_and_mended_by_the_keyboard_and_each_slot_is_kept_as_it_is_left()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Chord(Keys.Control, "k");
        Browser.Until(() => Browser.Focused.TagName == "input", "the command field");
        Browser.Press("Ads", Keys.Enter);
        Browser.Sees("As people see it");
        Browser.Sees("What its keywords ask for");

        // The first ad: a slot more, with its length told while it is typed.
        Browser.Field("Headline 3").SendKeys("Book Your Tuner In Yorkshire Today");
        Browser.Sees("34 / 32");
        Browser.Field("Headline 3").SendKeys(string.Concat(Enumerable.Repeat(Keys.Backspace, 9)) + Keys.Enter);
        Browser.Sees("Undo “Set headline");
        Browser.Sees("Piano Tuning · Same Week · Book Your Tuner In Yorksh");

        // Up by one place, and back by undo.
        Browser.Field("Headline 3").SendKeys(Keys.Alt + Keys.ArrowUp);
        Browser.Until(() => Slot(2) == "Book Your Tuner In Yorksh", "the headline to move up");
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Headline 2", "the focus to go along");
        Browser.Sees("Piano Tuning · Book Your Tuner In Yorksh · Same Week");

        // Down twice without waiting: the second is an edit of what the first leaves, and nobody else's.
        Browser.Field("Headline 1").SendKeys(Keys.Alt + Keys.ArrowDown);
        Browser.Field("Headline 2").SendKeys(Keys.Alt + Keys.ArrowDown);
        Browser.Sees("Undo “Set headline to Book Your Tuner In Yorksh | Same Week | Piano Tuning");
        Browser.SeesNo("Changed by someone else");

        // In a slot Ctrl Z takes the last step back, as anywhere, and what is only typed is left by Esc.
        Browser.Field("Headline 1").SendKeys(Keys.Control + "z");
        Browser.Sees("Book Your Tuner In Yorksh · Piano Tuning · Same Week");
        Browser.Field("Headline 1").SendKeys(Keys.Control + Keys.Shift + "z");
        Browser.Sees("Book Your Tuner In Yorksh · Same Week · Piano Tuning");
        Browser.Field("Headline 1").SendKeys("!!!" + Keys.Escape);
        Browser.Until(() => Slot(1) == "Book Your Tuner In Yorksh", "what was typed to go");

        // Enter goes from the last headline to the first description.
        Browser.Field("Headline 3").SendKeys(Keys.Enter);
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Description 1", "the focus to go on");

        // The second ad says what reviewers refuse, and how to say it.
        Browser.Click("Tuned At Home");
        Browser.Sees("Words of more than 4 letters in capitals alone are not allowed.");
        Browser.TabTo("Make it “CALL Today!”");
        Browser.Press(Keys.Enter);
        Browser.Until(() => Slot(2) == "CALL Today!", "the repair");
        Browser.Sees("Undo “Set headline to Tuned At Home | CALL Today!");
        var rows = (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "textAd" })).GetProperty(
            "rows"
        );
        rows.EnumerateArray()
            .Select(row => string.Join('|', row.GetProperty("values").GetProperty("headlines").EnumerateArray()))
            .Order(StringComparer.Ordinal)
            .ShouldBe(["Book Your Tuner In Yorksh|Same Week|Piano Tuning", "Tuned At Home|CALL Today!"]);
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Alternatives_are_combined_into_ads_and_what_says_a_thing_twice_is_struck_out()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/write/ads");
        Browser.Click("Combine…");
        Browser.Sees("1 ad in all, 0 are struck out.");

        // Three second headlines and two descriptions are six ads; a third of them says tuning twice, and one is there already.
        var headline = Browser.Driver.FindElement(By.XPath("//label[.='Headline 2']/following::textarea[1]"));
        headline.SendKeys(Keys.Control + Keys.End);
        headline.SendKeys("\nTuned This Week\nYour Piano Tuning");
        var description = Browser.Driver.FindElement(By.XPath("//label[.='Description 1']/following::textarea[1]"));
        description.SendKeys(Keys.Control + Keys.End);
        description.SendKeys("\nWe come to you.");
        Browser.Sees("6 ads in all, 2 are struck out.");
        Browser.Sees("“Piano Tuning” and “Your Piano Tuning” say the same.");
        Browser.Click("Add 4 ads");

        Browser.Sees("Undo “Add 3 ads”");
        (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "textAd" }))
            .GetProperty("rows")
            .GetArrayLength()
            .ShouldBe(5);
    }
}
