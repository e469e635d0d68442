using OpenQA.Selenium.Chrome;

namespace Fendrik.Tests.Shared;

/// <summary>A headless Chromium with a profile of its own, in the size that the screens are made for.</summary>
public static class Chromium
{
    private static readonly string[] Flags =
    [
        "--headless",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--window-size=1280,939",
    ];

    public static ChromeDriver Start(string profile, string? downloads = null)
    {
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(Flags);
        options.AddArgument($"--user-data-dir={profile}");
        if (downloads is not null)
        {
            options.AddUserProfilePreference("download.default_directory", downloads);
        }

        return new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin/chromedriver"), options);
    }
}
