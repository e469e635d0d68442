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

    /// <summary>The clock of the account goes on by a day.</summary>
    private void NextDay(string day)
    {
        Browser.ChooseFrom("Ostrel Search", "One day on");
        Browser.Sees($"{day}, 00:00 sim");
    }

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

    [Fact]
    public async Task A_responsive_ad_is_written_by_the_keyboard_alone()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/write/ads");
        Browser.Sees("As people see it");
        Browser.Until(() => Browser.Focused.Text.StartsWith("Piano Tuning", StringComparison.Ordinal), "the list");
        Browser.Chord(Keys.Shift, Keys.Tab);
        Browser.Until(() => Browser.Focused.Text == "New ad", "the button before the list");
        Browser.Press(Keys.Enter);
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "menuitem", "the menu");
        // The menu moves its focus a moment after the key.
        Browser.Press(Keys.ArrowDown);
        Browser.Until(
            () => Browser.Focused.Text.StartsWith("Responsive ad", StringComparison.Ordinal),
            "the second entry"
        );
        Browser.Press(Keys.Enter);
        Browser.Sees("Add a responsive ad");
        Browser.Until(() => Browser.Focused.TagName == "input", "the first headline");
        Browser.Press("Tuned In Your Home", Keys.Tab, "Tuned At Home", Keys.Tab, "Ask For A Price");
        Browser.TabTo("Description 1");
        Browser.Press("Same-week visits.", Keys.Tab, "Pay after the last note.");
        Browser.TabTo("Landing page");
        Browser.Press("https://tarnandfell.example/tuning", Keys.Enter);
        Browser.Sees("Undo “Add responsive ad");
        Browser.SeesNo("Add a responsive ad");

        // It is found in the list, and its first headline gets a place of its own and another before it.
        Browser.TabTo("Piano Tuning · Same Week");
        Browser.Until(
            () =>
            {
                Browser.Press(Keys.ArrowDown);
                return Browser.Focused.Text.StartsWith("Tuned In Your Home", StringComparison.Ordinal);
            },
            "the responsive ad"
        );
        Browser.Sees("12 possible on a phone");
        Browser.Field("Headline 3").SendKeys(Keys.Alt + "1");
        Browser.Sees("place 1 only");
        Browser.Sees("4 possible on a phone");

        // What says a thing twice is doubtful; the first of them is struck out.
        Browser.Sees("4 doubtful");
        Browser.TabTo("Strike out “Ask For A Price · Tuned In Your Home · Tuned At Home");
        Browser.Press(Keys.Space);
        Browser.Sees("4 struck out");
        Browser.Sees("Undo “Set kept apart");

        // Words for each search, with a fallback.
        Browser.Field("Headline 4").SendKeys(Keys.Alt + "i");
        Browser.Sees("When it does not fit");
        Browser.Until(() => Browser.Focused.GetAttribute("placeholder") == "Piano Tuning", "the fallback");
        Browser.Press("Your Piano", Keys.Enter);
        Browser.Sees("searched words, else “Your Piano”");
        // The keyboard is back in the slot; the chip is changed from there, left by Esc, and the slot has the keyboard again.
        Browser.Until(
            () => Browser.Focused.GetAttribute("aria-label") == "Headline 4",
            "the slot to have the keyboard"
        );
        Browser.Press(Keys.Tab, Keys.Enter);
        Browser.Sees("Change inserted words");
        Browser.Press(Keys.Escape);
        Browser.Until(
            () => Browser.Focused.Text.StartsWith("searched words", StringComparison.Ordinal),
            "the chip to have the keyboard"
        );
        Browser.Sees("With real searches");
        Browser.Sees("Piano Tuning");
        var row = (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "responsiveAd" }))
            .GetProperty("rows")[0]
            .GetProperty("values");
        row.GetProperty("headlines")
            .EnumerateArray()
            .Select(line => line.GetString())
            .ShouldBe([
                "Tuned In Your Home",
                "Tuned At Home",
                "Ask For A Price [1]",
                "{{ keyword | each_word | default: \"Your Piano\" }}",
            ]);
        row.GetProperty("keptApart").GetString().ShouldBe("Tuned In Your Home | Tuned At Home");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_refused_ad_is_mended_at_its_slot_and_let_through()
    {
        var account = await SignedInAsync();
        Bring(List.Replace("Same Week", "One Number To Ring", StringComparison.Ordinal));
        Browser.Click("Review changes");
        Browser.Click("Publish ");
        Browser.Sees("5 of 5 accepted");
        // Reviewers come at eight and take three hours.
        NextDay("Tue 17 Mar");
        Browser.Open($"/{account}/write/ads");
        Browser.Sees("refused by the network");
        Browser.Click("Piano Tuning · One Number To Ring");
        Browser.Sees("◆ it reads like “number one”.");

        // The words are not the wording: another reader is asked.
        Browser.Click("Appeal…");
        Browser.Field("Why it should be let through").SendKeys("It says number after one.");
        Browser.Click("Send the appeal");
        Browser.SeesNo("it reads like");

        // What is refused by the wording is changed where it stands.
        Browser.Click("Tuned At Home");
        Browser.Click("Make it “CALL Today!”");
        Browser.Sees("Undo “Set headline to Tuned At Home | CALL Today!");
        Browser.Click("Review changes");
        Browser.Click("Publish ");
        Browser.Sees("1 of 1 accepted");
        NextDay("Wed 18 Mar");
        Browser.Open($"/{account}/write/ads");
        Browser.Sees("As people see it");
        Browser.SeesNo("refused by the network");
    }

    [Fact]
    public async Task A_phrase_is_kept_and_put_in_and_the_version_before_comes_back()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/write/ads");
        Browser.Click("Piano Tuning · Same Week");
        Browser.Click("Ideas…");
        Browser.Sees("1 ad as headline, in 1 ad group");
        Browser.Press("Tuned By Friday", Keys.Enter);
        Browser.Sees("not yet · kept");
        Browser.Click("+ headline: “Tuned By Friday”");
        Browser.Sees("Undo “Set headline to Piano Tuning | Same Week | Tuned By Friday");
        Browser.Press(Keys.Escape);

        Browser.Click("Side by side…");
        Browser.Sees("What the others say otherwise");
        Browser.Click("Earlier versions");
        Browser.Click("Put it back: version 1");
        Browser.Sees("Undo “Set headline to Piano Tuning | Same Week on 1 ad”");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_pattern_makes_an_ad_for_each_ad_group_that_has_none()
    {
        var account = await SignedInAsync();
        Bring(List + "Tuning,40,grand tuning,grand piano tuning,phrase,1.10,,,,\n");
        Browser.Open($"/{account}/write/ads");
        Browser.ChooseFrom("New ad", "From a pattern");
        Browser.Sees("there is no [page] for “grand tuning”");
        IWebElement Slot(string label) =>
            Browser.Driver.FindElement(
                By.XPath($"//*[@role='dialog']//label[normalize-space(.)='{label}']/following::textarea[1]")
            );
        Slot("Landing page").SendKeys("\nhttps://tarnandfell.example/");
        Slot("Description 1").SendKeys("We look after your [keyword].");
        Browser.Sees("1 ad, 1 shortened");
        Browser.Sees("Grand Tuning · Ask For A Price");
        Browser.Sees("We look after your grand piano tuning.");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Click("Add 1 ad");

        Browser.Sees("Undo “Add 1 ad from a pattern”");
        Browser.Sees("grand tuning, Tuning");
    }
}
