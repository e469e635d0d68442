using Fendrik.Tests.Shared;
using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Colleagues: asked by a link, checking for one another; accounts that are taken over; a code beside the password.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class PeopleTests(Browser browser) : BrowserTest(browser)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type
        Hire,20,Piano hire,0.90,piano hire leeds,exact
        """;

    [Fact]
    public async Task A_colleague_is_asked_joins_and_asks_for_a_second_look_that_comes_back_with_words()
    {
        var axe = await AxeAsync();
        var account = await SignedInAsync();
        Bring(List);
        Browser.ChooseFrom("MK", "People of this account");
        Browser.Sees("Morag Kerr · you");
        Browser.Until(() => Browser.Focused.TagName == "input", "the address to have the keyboard");
        var email = $"{Guid.NewGuid():N}@tarnandfell.example";
        Browser.Press(email, Keys.Enter);
        var link = Browser.Field("Link to join").GetAttribute("value")!;
        Serious(axe).ShouldBeEmpty();

        Become(null);
        Browser.Driver.Navigate().GoToUrl(link);
        Browser.Sees("Morag Kerr asks you");
        Serious(axe).ShouldBeEmpty();
        Browser.Until(() => Browser.Focused.TagName == "input", "the name to have the keyboard");
        Browser.Press("Isla Reid", Keys.Tab, ServerHost.Password, Keys.Enter);
        Browser.Sees("You may change, and not publish");

        Browser.Open($"/{account}/ship/changes");
        Browser.Until(
            () =>
                Browser.Focused.GetAttribute("aria-label")?.StartsWith("Changes; Space", StringComparison.Ordinal)
                == true,
            "the list to have the keyboard"
        );
        Browser.Press(Keys.Space);
        Browser.Sees("A publisher or an owner of this account publishes.");
        Browser.Click("Ask for a second look");
        Browser.Field("What to look at").SendKeys("Is 20 enough?");
        Browser.Chord(Keys.Control, Keys.Enter);
        Browser.Sees("waits for a publisher");

        Become(Visitor);
        Browser.Open($"/{account}");
        Browser.Click("Isla Reid asks for a second look at 1 change");
        Browser.Sees("Is 20 enough?");
        Serious(axe).ShouldBeEmpty();
        Browser.Field("Your words").SendKeys("Rather 30.");
        Browser.TabTo("Return with it");
        Browser.Press(Keys.Enter);
        Browser.Sees("returned by Morag Kerr");

        Become(null);
        Browser.Open("/");
        SignIn(email);
        Browser.Click("Your second look came back from Morag Kerr");
        Browser.Sees("Rather 30.");
        Browser.Sees("Ask once more");
    }

    [Fact]
    public async Task Whoever_signs_in_already_joins_by_the_link_they_were_sent()
    {
        await SignedInAsync();
        var (other, owner, _) = await Browser.Host.NewAccountAsync("Fell Piano Hire");
        var invitation = await owner.PostAsync(
            $"/api/accounts/{other}/invitations",
            new { email = Visitor.Email, role = "reader" }
        );
        var key = invitation.GetProperty("key").GetString();
        Become(null);
        Browser.Open($"/join/{key}");
        Browser.Sees("asks " + Visitor.Email + " to join Fell Piano Hire as reader");
        SignIn(Visitor.Email);
        Browser.Sees("You may look at everything, take it out, and say what you think of it");
        Browser.TabTo("Join");
        Browser.Press(Keys.Enter);

        Browser.Sees("You may look, and not change");
        owner.Dispose();
    }

    /// <summary>The page publishes by the same keys that a dialog above it says yes by.</summary>
    [Fact]
    public async Task Whoever_asks_for_a_second_look_by_keyboard_publishes_nothing_by_it()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/ship/changes");
        Browser.Until(
            () =>
                Browser.Focused.GetAttribute("aria-label")?.StartsWith("Changes; Space", StringComparison.Ordinal)
                == true,
            "the list to have the keyboard"
        );
        Browser.Press(Keys.Space);
        Browser.Click("Ask for a second look");
        Browser.Field("What to look at").SendKeys("Is 20 enough?");
        Browser.Chord(Keys.Control, Keys.Enter);
        Browser.Sees("waits for a publisher");

        (await Visitor.ReadAsync($"/api/accounts/{account}/publishes")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task An_account_that_runs_on_a_network_is_taken_over_by_keyboard()
    {
        var axe = await AxeAsync();
        var account = await SignedInAsync();
        Browser.Chord(Keys.Alt, "a");
        Browser.Until(() => Browser.Focused.TagName == "input", "the list of accounts to have the keyboard");
        Browser.TabTo("All accounts in one table");
        Browser.Press(Keys.Enter);
        Browser.Sees("the last seven days that are reported");
        Serious(axe).ShouldBeEmpty();
        Browser.TabTo("Connect one");
        Browser.Press(Keys.Enter);
        Browser.Until(
            () =>
                Browser.Focused.FindElements(By.XPath("ancestor::*[@role='dialog']")).Count > 0
                    ? Browser.Focused
                    : null,
            "the dialog to have the keyboard"
        );
        Browser.Press("HEDGE-4417", Keys.Enter);
        Browser.Sees("Wharfe Agency writes to it too");
        Serious(axe).ShouldBeEmpty();
        // The button that opens, and then that of the first account.
        Browser.Press(Keys.Tab, Keys.Tab, Keys.Enter);
        Browser.Sees("items are here as the network has them");
        Browser.Until(() => Browser.Focused.Text == "Open it", "the way on to have the keyboard");
        Browser.Press(Keys.Enter);

        Browser.Sees("0 changes since the last publish");
        Browser.Driver.Url.ShouldNotContain($"/{account}/");
    }

    [Fact]
    public async Task A_note_stands_in_history_at_its_day()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/ship/history");
        Browser.Sees("Bring in");
        Browser.Click("Write a note");
        Browser.Field("What was agreed").SendKeys("No ads on Sundays.");
        Browser.Chord(Keys.Control, Keys.Enter);

        Browser.Sees("Agreed");
        Browser.Driver.FindElement(By.CssSelector("aside li")).Text.ShouldContain("No ads on Sundays.");
        Serious(await AxeAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_second_factor_is_turned_on_with_a_picture_for_the_device()
    {
        await SignedInAsync();
        Browser.ChooseFrom("MK", "Sign-ins and password");
        Browser.Click("Turn it on");
        Browser.Field("Your password").SendKeys(ServerHost.Password + Keys.Enter);

        Browser.Until(
            () => Browser.Driver.FindElements(By.CssSelector("img[alt^='The secret as a picture']")).FirstOrDefault(),
            "the picture"
        );
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Field("Code of the device").SendKeys("000000" + Keys.Enter);
        Browser.Sees("That is not what the device should show now");
    }
}
