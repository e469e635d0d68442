using Fendrik.Tests.Shared;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;

namespace Fendrik.Browser.Tests;

/// <summary>A headless browser before the application as it ships. It sees and does what a person sees and does.</summary>
public sealed class Browser : IAsyncLifetime
{
    private readonly string _profile = Directory.CreateTempSubdirectory("fendrik-browser-").FullName;

    private readonly string _downloads = Directory.CreateTempSubdirectory("fendrik-downloads-").FullName;

    public ServerHost Host { get; private set; } = null!;
    public ChromeDriver Driver { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Host = await ServerHost.StartAsync(Repository.PathTo("src", "Fendrik.Server", "wwwroot"));
        Driver = Chromium.Start(_profile, _downloads);
    }

    public async ValueTask DisposeAsync()
    {
        Driver.Dispose();
        await Host.DisposeAsync();
        Directory.Delete(_profile, recursive: true);
        Directory.Delete(_downloads, recursive: true);
    }

    public void Open(string path) => Driver.Navigate().GoToUrl(Host.Address + path);

    /// <summary>Waits until something is so; a person would wait as well.</summary>
    public T Until<T>(Func<T?> look, string what)
    {
        var until = DateTime.UtcNow.AddSeconds(40);
        while (true)
        {
            try
            {
                if (look() is { } seen and not false)
                {
                    return seen;
                }
            }
            catch (Exception error)
                when (error
                        is NoSuchElementException
                            or StaleElementReferenceException
                            or ElementNotInteractableException
                )
            {
                // Not yet.
            }

            if (DateTime.UtcNow > until)
            {
                throw new TimeoutException($"Waited for {what}. The page says: {Text}");
            }

            Thread.Sleep(100);
        }
    }

    /// <summary>Waits for a download to be whole, and takes it out of the folder.</summary>
    public string Downloaded(string ending)
    {
        var file = Until(
            () => Directory.GetFiles(_downloads, "*." + ending).FirstOrDefault(path => new FileInfo(path).Length > 0),
            $"a download that ends in {ending}"
        );
        var taken = Path.Combine(Directory.CreateTempSubdirectory("fendrik-taken-").FullName, Path.GetFileName(file));
        File.Move(file, taken);
        return taken;
    }

    /// <summary>What the page shows, as the browser itself has it: asking the driver for it walks through every element.</summary>
    public string Text =>
        ((string)Driver.ExecuteScript("return document.body ? document.body.innerText : ''")!).Replace('\t', ' ');

    public void Sees(string text) => Until(() => Text.Contains(text, StringComparison.Ordinal), $"“{text}”");

    public void SeesNo(string text) => Until(() => !Text.Contains(text, StringComparison.Ordinal), $"“{text}” to go");

    public IWebElement Button(string name) =>
        Until(
            () =>
                Driver
                    .FindElements(
                        By.XPath(
                            $"//button[contains(normalize-space(.), '{name}') or @aria-label='{name}'] | //a[contains(normalize-space(.), '{name}')]"
                        )
                    )
                    .FirstOrDefault(each => each.Displayed && each.Enabled),
            $"the button {name}"
        );

    public void Click(string button) => Until(() => Clicked(Button(button)), $"{button} to be clicked");

    private static bool Clicked(IWebElement element)
    {
        try
        {
            element.Click();
            return true;
        }
        catch (ElementClickInterceptedException)
        {
            return false; // something is still sliding over it
        }
    }

    /// <summary>Opens a menu and chooses an entry of it. A menu is put in its place after it is there: nobody clicks what still moves.</summary>
    public void ChooseFrom(string menu, string entry)
    {
        Click(menu);
        System.Drawing.Point? before = null;
        Until(
            () =>
            {
                var item = Driver.FindElement(By.XPath($"//*[@role='menuitem'][contains(., '{entry}')]"));
                var rests = item.Location == before;
                before = item.Location;
                return rests && Clicked(item);
            },
            $"the entry {entry} of the menu {menu}"
        );
        Until(() => Driver.FindElements(By.XPath("//*[@role='menu']")).Count == 0, $"the menu {menu} to close");
    }

    public IWebElement Field(string label) =>
        Until(
            () =>
                Driver
                    .FindElements(
                        By.XPath($"//*[@id=(//label[normalize-space(.)='{label}']/@for)] | //*[@aria-label='{label}']")
                    )
                    .FirstOrDefault(each => each.Displayed),
            $"the field {label}"
        );

    public void Press(params string[] keys)
    {
        var action = new Actions(Driver);
        foreach (var key in keys)
        {
            action.SendKeys(key);
        }

        action.Perform();
    }

    public void Chord(string modifier, string key) =>
        new Actions(Driver).KeyDown(modifier).SendKeys(key).KeyUp(modifier).Perform();

    /// <summary>Puts text on the clipboard as a spreadsheet would, by copying it from a page of its own.</summary>
    public void Copy(string text)
    {
        Driver.Navigate().GoToUrl("data:text/html,<textarea></textarea>");
        var area = Driver.FindElement(By.TagName("textarea"));
        Driver.ExecuteScript("arguments[0].value = arguments[1]", area, text);
        area.Click();
        Chord(Keys.Control, "a");
        Chord(Keys.Control, "c");
    }

    public IWebElement Focused => Driver.SwitchTo().ActiveElement();

    /// <summary>Tabs on until the focus is on something of this name; fails when the page has nothing such.</summary>
    public void TabTo(string name)
    {
        for (var press = 0; press < 80; press++)
        {
            // In one question: what is in focus may be drawn anew between two.
            var (label, text, field) = NamesOfFocused();
            if (
                label.Contains(name, StringComparison.Ordinal)
                || text.Contains(name, StringComparison.Ordinal)
                || field == name
            )
            {
                return;
            }

            Press(Keys.Tab);
        }

        throw new TimeoutException($"No Tab leads to {name}.");
    }

    private (string Label, string Text, string Field) NamesOfFocused()
    {
        var names = (System.Collections.ObjectModel.ReadOnlyCollection<object>)
            Driver.ExecuteScript(
                """
                const focused = document.activeElement;
                return [focused.getAttribute('aria-label') || '', ['BUTTON', 'A'].includes(focused.tagName) ? focused.innerText : '',
                  focused.labels && focused.labels[0] ? focused.labels[0].innerText : ''];
                """
            )!;
        return ((string)names[0], (string)names[1], (string)names[2]);
    }
}
