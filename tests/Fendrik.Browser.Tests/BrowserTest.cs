using Fendrik.Tests.Shared;
using OpenQA.Selenium;

namespace Fendrik.Browser.Tests;

/// <summary>
/// What every walk through the real interface begins with. Two browsers, each before a server of its own, serve about half of the walks
/// each, one after the other: a browser waits most of its time.
/// </summary>
[Collection(nameof(BrowserCollection))]
public abstract class BrowserTest(Browser browser)
{
    protected Browser Browser { get; } = browser;

    /// <summary>The person who is signed in, as a second window on the same account.</summary>
    protected Visitor Visitor { get; private set; } = null!;

    /// <summary>The network behind the account.</summary>
    protected NetworkVisitor Network { get; private set; } = null!;

    /// <summary>Somebody with an account of their own, at the start page.</summary>
    /// <param name="byHand">The way there is walked as well; else they signed in before.</param>
    protected async Task<int> SignedInAsync(bool byHand = false)
    {
        (var account, var visitor, Network) = await Browser.Host.NewAccountAsync();
        Visitor = visitor;
        Become(byHand ? null : visitor);
        Browser.Open("/");
        if (byHand)
        {
            SignIn(visitor.Email);
        }

        Browser.Sees("What needs attention");
        return account;
    }

    /// <summary>From now on somebody else sits here; nobody who is signed in where none is named.</summary>
    protected void Become(Visitor? visitor)
    {
        // Away from the application, so that no late answer to the page before sets a cookie of the one before.
        Browser.Driver.Navigate().GoToUrl("about:blank");
        Browser.Driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
        foreach (var cookie in visitor?.Cookies ?? [])
        {
            Browser.Driver.ExecuteCdpCommand(
                "Network.setCookie",
                new Dictionary<string, object?>
                {
                    ["name"] = cookie.Name,
                    ["value"] = cookie.Value,
                    ["url"] = Browser.Host.Address,
                    ["httpOnly"] = cookie.HttpOnly,
                }
            );
        }
    }

    /// <summary>Signs in by hand, on the page that asks for it.</summary>
    protected void SignIn(string email)
    {
        Browser.Field("E-mail address").SendKeys(email);
        Browser.Field("Password").SendKeys(ServerHost.Password);
        Browser.Click("Sign in");
    }

    protected static Task<string> AxeAsync() =>
        File.ReadAllTextAsync(Repository.PathTo("src", "web", "node_modules", "axe-core", "axe.min.js"));

    /// <summary>What axe finds on the page as it stands, serious and critical.</summary>
    protected IReadOnlyCollection<object> Serious(string axe)
    {
        Browser.Driver.ExecuteScript(axe);
        return (IReadOnlyCollection<object>)
            Browser.Driver.ExecuteAsyncScript(
                """
                const done = arguments[0];
                // What is on its way in or out is half to be seen for a moment: it is looked at where it arrives, as with reduced motion.
                const still = document.createElement('style');
                still.textContent = '*, *::before, *::after { transition: none !important; animation: none !important; }';
                document.head.append(still);
                // What is well need not be told of node by node: that takes as long as finding it.
                axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'], preload: false }).then((result) => {
                  still.remove();
                  done(result.violations.filter((each) => ['serious', 'critical'].includes(each.impact))
                    .map((each) => each.id + ': ' + each.nodes.map((node) => node.html.slice(0, 160)).slice(0, 3).join(' | ')));
                });
                """
            )!;
    }

    /// <summary>Brings in a list by choosing a file.</summary>
    protected void Bring(string list)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("fendrik-list-").FullName, "list.csv");
        File.WriteAllText(file, list);
        Choose(file);
        Browser.Click("Bring in ");
        Browser.Sees("It is one step");
    }

    /// <summary>Chooses a file on the Intake page and waits for what would come of it.</summary>
    protected void Choose(string file)
    {
        Browser.Click("Plan");
        Browser.Sees("Paste your list here");
        Browser.Driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(file);
        Browser.Sees("What would come in");
    }

    protected IWebElement Row(string name) =>
        Browser.Until(
            () =>
                Browser
                    .Driver.FindElements(By.XPath($"//*[@role='row'][.//*[@title='{name}']]//*[@data-column='1']"))
                    .FirstOrDefault(),
            $"the row {name}"
        );
}

[CollectionDefinition(nameof(BrowserCollection))]
public sealed class BrowserCollection : ICollectionFixture<Browser>;

[CollectionDefinition(nameof(SecondBrowserCollection))]
public sealed class SecondBrowserCollection : ICollectionFixture<Browser>;
