using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;
using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>A campaign that is shown: what a colleague proposes in the sheet, and what its owner makes of it.</summary>
public class ShownCampaignTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type\nNorth,20,Tuning,1.10,piano tuning,phrase\n";

    [Fact]
    public async Task A_colleague_proposes_by_the_keyboard_alone_and_the_owner_takes_it_over()
    {
        var account = await SignedInAsync();
        Bring(List);
        using var reader = await Browser.Host.AddPersonAsync(AccountRole.Reader, account, "Isla Reid");
        Browser.Open($"/{account}/ship/changes");
        Browser.TabTo("Show a campaign…");
        Browser.Press(Keys.Enter);
        Browser.Until(() => Browser.Focused.TagName == "textarea", "the note to have the keyboard");
        Browser.Press("Is it too dear?");
        Browser.Chord(Keys.Control, Keys.Enter);
        Browser.Sees("shown by you");

        Become(reader);
        Browser.Open("/");
        Browser.Click("Morag Kerr shows North");
        Browser.Sees("Is it too dear?");
        SheetHasTheCampaign();
        Browser.Press(Keys.ArrowDown, Keys.ArrowDown);
        Browser.Sees("in North / Tuning");
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, "0.85", Keys.Enter);
        Browser.Sees("Proposed: Set max CPC to £0.85 on 1 keyword");
        Browser.Sees("Proposed 1");
        Serious(await AxeAsync()).ShouldBeEmpty();
        Browser.Chord(Keys.Control, "z");
        Browser.Sees("What is proposed is taken back in the list beside the sheet.");
        Browser.Chord(Keys.Control, "k");
        Browser.Press("What is said", Keys.Enter);
        Browser.TabTo("About keyword “piano tuning”");
        Browser.Press("It brought one call.");
        Browser.Chord(Keys.Control, Keys.Enter);
        Browser.Sees("Said 1");

        Become(Visitor);
        Browser.Open("/");
        Browser.Click("1 proposal for North");
        Browser.Sees("Isla Reid");
        Browser.TabTo("Take over piano tuning");
        Browser.Press(Keys.Enter);
        Browser.Sees("Take over 1 keyword as proposed");
        Browser.Sees("taken over by Morag Kerr");

        var row = (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "keyword" })).GetProperty(
            "rows"
        )[0];
        row.GetProperty("values").GetProperty("maxCpc").GetDecimal().ShouldBe(0.85m);
    }

    /// <summary>The sheet begins at the campaign, with its settings beside it.</summary>
    private void SheetHasTheCampaign()
    {
        Browser.Until(() => Browser.Focused.GetAttribute("role") == "treegrid", "the sheet to have the keyboard");
        Browser.Sees("Start date");
    }

    /// <summary>What would go is hatched in the sheet, and nothing of it has gone.</summary>
    [Fact]
    public async Task What_is_to_go_stands_struck_out_and_is_left_as_it_is()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/ship/changes");
        Browser.Click("Show a campaign");
        Browser.Click("Show it");
        Browser.Sees("shown by you");
        SheetHasTheCampaign();
        // Enter keeps the budget and goes down to the ad group.
        Browser.Press(Keys.ArrowRight, Keys.ArrowRight, Keys.ArrowRight, "25", Keys.Enter);
        Browser.Sees("Proposed 1");
        Browser.Sees("in North");
        Browser.Press(Keys.Delete);
        Browser.Click("Propose 2 items");
        Browser.Sees("Proposed: Remove 1 ad group and 1 in them");
        Browser.Click("Proposed 2");
        Browser.Sees("is to go");
        Browser.Sees("£25.00");
        Browser.Click("Leave Tuning as it is");
        Browser.Sees("left as it was by Morag Kerr");
        // The keyboard goes on at what is left.
        Browser.Until(() => Browser.Focused.GetAttribute("aria-label") == "Take over North", "the next to be decided");

        (await Visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "keyword" }))
            .GetProperty("rows")
            .GetArrayLength()
            .ShouldBe(1);
    }
}
