using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Audiences and placements, added by hand in the structure of an account.</summary>
[Collection(nameof(SecondBrowserCollection))]
public class TargetingTests(Browser browser) : BrowserTest(browser)
{
    private const string List =
        "campaign,daily budget,networks,ad group,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page\n"
        + "Hire,40,search,Event hire,1.10,piano hire,phrase,,,,\n"
        + "Hire,,,Event hire,,,,Piano Hire,For A Day,We bring it.,https://tarnandfell.example/hire\n";

    [Fact]
    public async Task An_audience_with_its_modifier_comes_by_keyboard_and_a_placement_where_nothing_shows_is_told()
    {
        var account = await SignedInAsync();
        Bring(List);
        Browser.Open($"/{account}/plan/structure");
        Browser.Sees("Hire");

        Browser.ChooseFrom("Add…", "Audience");
        Browser.Sees("Add an audience");
        // The keyboard begins at what the network knows.
        Browser.Press(Keys.Enter);
        Browser.Sees("parents");
        Browser.Press("p");
        Browser.Press(Keys.Enter);
        Browser.TabTo("Bid modifier");
        Browser.Press("+50", Keys.Enter);
        Browser.Sees("Undo “Add audience “parents””");

        Browser.ChooseFrom("Add…", "Placement");
        Browser.Sees("Add a placement");
        Browser.Press("bigdays.example/venues", Keys.Enter);
        Browser.Sees("Undo “Add placement “bigdays.example/venues””");

        Browser.Open($"/{account}/ship/checks");
        Browser.Sees("no content sites");
    }
}
