using System.Collections.Concurrent;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Zendle.Browser.Tests;

/// <summary>
/// Debian's headless Chromium, used by one test after another: starting it costs as much work as a short test. Between
/// two tests everything is cleared that a page could notice: tabs with what was emulated in them, cookies, storage,
/// permissions.
/// </summary>
internal static class Chromiums
{
    /// <summary>
    /// Chromium without the windows and menus around its pages, a package of its own: tests take a fifth less time in it.
    /// Pages are the same, so the whole Chromium is taken where it is not installed.
    /// </summary>
    private const string Shell = "/usr/lib/chromium/chromium-headless-shell";

    private static readonly ConcurrentBag<ChromeDriver> Idle = [];

    static Chromiums() =>
        AppDomain.CurrentDomain.ProcessExit += (_, _) =>
        {
            while (Idle.TryTake(out var driver))
                driver.Dispose();
        };

    /// <summary>One with a single empty tab.</summary>
    /// <param name="downloads">The folder where downloaded files land.</param>
    public static ChromeDriver Take(string downloads)
    {
        var driver = Idle.TryTake(out var idle) ? idle : Start();
        driver.ExecuteCdpCommand(
            "Browser.setDownloadBehavior",
            new() { ["behavior"] = "allow", ["downloadPath"] = downloads }
        );
        return driver;
    }

    /// <summary>Clears what a test left and keeps the browser for the next; one that does not answer is ended.</summary>
    public static void GiveBack(ChromeDriver driver)
    {
        try
        {
            var old = driver.WindowHandles;
            driver.SwitchTo().NewWindow(WindowType.Tab);
            var fresh = driver.CurrentWindowHandle;
            foreach (var tab in old)
            {
                driver.SwitchTo().Window(tab);
                // A page that would ask before it goes is left without a word.
                driver.ExecuteCdpCommand("Storage.clearDataForOrigin", Everything(driver.Url));
                driver.ExecuteCdpCommand("Page.navigate", new() { ["url"] = "about:blank" });
                driver.Close();
            }
            driver.SwitchTo().Window(fresh);
            driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
            driver.ExecuteCdpCommand("Browser.resetPermissions", []);
            driver.Manage().Logs.GetLog(LogType.Browser);
            Idle.Add(driver);
        }
        catch (WebDriverException)
        {
            driver.Dispose();
        }
    }

    private static Dictionary<string, object?> Everything(string page) =>
        new()
        {
            ["origin"] = Uri.TryCreate(page, UriKind.Absolute, out var uri)
                ? uri.GetLeftPart(UriPartial.Authority)
                : "*",
            ["storageTypes"] = "all",
        };

    private static ChromeDriver Start()
    {
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        var options = new ChromeOptions { BinaryLocation = File.Exists(Shell) ? Shell : "/usr/bin/chromium" };
        options.AddArguments(
            "--headless",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-dev-shm-usage"
        );
        options.SetLoggingPreference(LogType.Browser, LogLevel.Warning);
        return new(service, options);
    }
}
