using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>Twice the size and narrow windows: dialogs fit, what confirms can be reached, and the page does not scroll sideways.</summary>
public class ReflowTests(Browser browser) : BrowserTest(browser)
{
    private static readonly (string Path, string Text)[] Pages =
    [
        ("", "What needs attention"),
        ("/plan/intake", "Paste your list here"),
        ("/plan/structure", "piano tuner"),
        ("/plan/negatives", "Paste negatives"),
        ("/ship/checks", "no ads"),
        ("/ship/changes", "differ from the live copy"),
        ("/ship/history", "Bring in"),
        ("/learn/results", "Results"),
    ];

    private async Task<int> AccountAsync()
    {
        var account = await SignedInAsync();
        Bring(
            "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\nTuning,25,At home,1.00,piano tuning,exact,1.10\nTuning,25,At home,1.00,piano tuner,exact,0.90\n"
        );
        return account;
    }

    /// <summary>What a window of this size shows, and then the usual one again.</summary>
    private void Within(int width, int height, Action see)
    {
        var before = Browser.Driver.Manage().Window.Size;
        // 1280 × 800 at 200 % has room for as much as 640 × 400 does.
        Browser.Driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );
        try
        {
            see();
        }
        finally
        {
            Browser.Driver.ExecuteCdpCommand("Emulation.clearDeviceMetricsOverride", []);
            Browser.Driver.Manage().Window.Size = before;
        }
    }

    private long Overflow =>
        Convert.ToInt64(
            Browser.Driver.ExecuteScript(
                "return Math.max(document.documentElement.scrollWidth, document.body.scrollWidth) - window.innerWidth"
            ),
            System.Globalization.CultureInfo.InvariantCulture
        );

    [Theory]
    [InlineData(900, 800)]
    [InlineData(640, 400)]
    public async Task No_page_scrolls_sideways(int width, int height)
    {
        var account = await AccountAsync();
        Within(
            width,
            height,
            () =>
            {
                foreach (var (path, text) in Pages)
                {
                    Browser.Open($"/{account}{path}");
                    Browser.Sees(text);
                    Overflow.ShouldBeLessThanOrEqualTo(0, path);
                }
            }
        );
    }

    [Theory]
    [InlineData(900, 800)]
    [InlineData(640, 400)]
    public async Task The_button_that_confirms_is_within_reach(int width, int height)
    {
        var account = await AccountAsync();
        Within(
            width,
            height,
            () =>
            {
                Browser.Open($"/{account}/plan/structure?view=keyword");
                Browser.Sees("piano tuner");
                Browser.Until(() => Browser.Focused.GetAttribute("role") is "grid", "the sheet to have the keyboard");
                Browser.Chord(Keys.Control, "a");
                Browser.Press(Keys.Delete);
                Browser.Sees("Change 2 items");
                var rectangle =
                    (IReadOnlyDictionary<string, object>)
                        Browser.Driver.ExecuteScript(
                            "const box = document.querySelector('[data-confirms]').getBoundingClientRect(); return { right: Math.ceil(box.right), bottom: Math.ceil(box.bottom) }"
                        )!;
                Convert
                    .ToInt64(rectangle["right"], System.Globalization.CultureInfo.InvariantCulture)
                    .ShouldBeLessThanOrEqualTo(width);
                Convert
                    .ToInt64(rectangle["bottom"], System.Globalization.CultureInfo.InvariantCulture)
                    .ShouldBeLessThanOrEqualTo(height);
                Browser.Press(Keys.Enter);
                Browser.Sees("Nothing");
            }
        );
    }

    [Fact]
    public async Task Every_page_has_one_first_heading_a_title_of_its_own_and_no_dead_phase_on_the_way()
    {
        var account = await AccountAsync();
        var titles = new HashSet<string>();
        foreach (var (path, text) in Pages)
        {
            Browser.Open($"/{account}{path}");
            Browser.Sees(text);
            Browser.Until(() => Browser.Driver.FindElements(By.TagName("h1")).Count == 1, $"one h1 on {path}");
            titles.Add(Browser.Driver.Title).ShouldBeTrue(path);
            Browser.Driver.FindElements(By.CssSelector("nav[aria-label=Phases] span[tabindex]")).ShouldBeEmpty();
        }
    }
}
