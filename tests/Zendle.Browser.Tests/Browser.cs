using System.Text.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;

namespace Zendle.Browser.Tests;

/// <summary>
/// Debian's headless Chromium, with the few moves a researcher makes. Waits are for what is awaited, never for time
/// alone.
/// </summary>
public sealed class Browser : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);
    private static readonly TimeSpan LongestPause = TimeSpan.FromMilliseconds(200);
    private readonly ChromeDriver driver;
    private readonly Uri home;

    /// <summary>A browser nobody has used before, as far as its pages can tell.</summary>
    public Browser(Uri home)
    {
        this.home = home;
        Downloads = Directory.CreateTempSubdirectory("zendle-downloads-").FullName;
        driver = Chromiums.Take(Downloads);
        Size(1280, 800);
    }

    /// <summary>Where downloaded files land.</summary>
    public string Downloads { get; }

    public string Address => driver.Url;

    public string Title => driver.Title;

    public void Size(int width, int height) =>
        driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }!
        );

    public void Dark(bool dark) =>
        driver.ExecuteCdpCommand(
            "Emulation.setEmulatedMedia",
            new Dictionary<string, object?>
            {
                ["features"] = new object[]
                {
                    new Dictionary<string, object?>
                    {
                        ["name"] = "prefers-color-scheme",
                        ["value"] = dark ? "dark" : "light",
                    },
                },
            }!
        );

    /// <summary>Grants the page a permission, as a person would who is asked.</summary>
    public void Allow(string permission) =>
        driver.ExecuteCdpCommand(
            "Browser.grantPermissions",
            new Dictionary<string, object?>
            {
                ["permissions"] = new object[] { permission, "clipboardSanitizedWrite" },
            }!
        );

    public void Go(string path) => driver.Navigate().GoToUrl(new Uri(home, path));

    /// <summary>Carries a cookie from now on.</summary>
    public void Carry(System.Net.Cookie cookie) =>
        driver.ExecuteCdpCommand(
            "Network.setCookie",
            new Dictionary<string, object?>
            {
                ["name"] = cookie.Name,
                ["value"] = cookie.Value,
                ["url"] = home.ToString(),
                ["httpOnly"] = cookie.HttpOnly,
            }!
        );

    /// <summary>Signs in from the first page.</summary>
    public void SignIn(string name, string password)
    {
        Go("/");
        Fill("input[autocomplete=username]", name);
        Fill("input[autocomplete=current-password]", password);
        Type(Keys.Enter);
        SeesNot("Password");
    }

    /// <summary>A picture for whoever looks, when a folder is named for it in ZENDLE_LOOK.</summary>
    public void Look(string name)
    {
        if (Environment.GetEnvironmentVariable("ZENDLE_LOOK") is not { Length: > 0 } folder)
            return;
        Thread.Sleep(500);
        Picture(Path.Combine(folder, name + ".png"));
    }

    public void Back() => driver.Navigate().Back();

    public void Reload() => driver.Navigate().Refresh();

    /// <summary>A second tab; gives the handle of the first.</summary>
    public string NewTab(string path)
    {
        var first = driver.CurrentWindowHandle;
        driver.SwitchTo().NewWindow(WindowType.Tab);
        Size(1280, 800);
        Go(path);
        return first;
    }

    public string Tab => driver.CurrentWindowHandle;

    public IReadOnlyList<string> Tabs => driver.WindowHandles;

    public void SwitchTo(string tab) => driver.SwitchTo().Window(tab);

    /// <summary>Waits until <paramref name="holds"/>; tries again when the page changes under it.</summary>
    public void Until(Func<bool> holds, string what)
    {
        var end = DateTime.UtcNow + Patience;
        Exception? last = null;
        // Looking costs the page work, so what takes long is looked for less often.
        var pause = TimeSpan.FromMilliseconds(40);
        while (DateTime.UtcNow < end)
        {
            try
            {
                if (holds())
                    return;
            }
            catch (Exception e)
                when (e
                        is StaleElementReferenceException
                            or NoSuchElementException
                            or ElementNotInteractableException
                            or ElementClickInterceptedException
                            or InvalidOperationException
                )
            {
                last = e;
            }
            Thread.Sleep(pause);
            pause = pause * 1.4 < LongestPause ? pause * 1.4 : LongestPause;
        }
        throw new TimeoutException($"Waited in vain for: {what}. The page says: {Brief()}", last);
    }

    private string Brief() =>
        driver.FindElement(By.TagName("body")).Text is var t && t.Length > 1500
            ? t[..1500]
            : driver.FindElement(By.TagName("body")).Text;

    public IWebElement Find(string css)
    {
        IWebElement? found = null;
        Until(
            () => (found = driver.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.Displayed)) is not null,
            css
        );
        return found!;
    }

    /// <summary>Acts on the first visible element; once more when it is drawn anew just then.</summary>
    public void On(string css, Action<IWebElement> act) =>
        Until(
            () =>
            {
                act(Find(css));
                return true;
            },
            css
        );

    /// <summary>Clicks on something in a long list, where the list's head does not cover it.</summary>
    public void ClickInList(string css) =>
        On(
            css,
            e =>
            {
                driver.ExecuteScript("arguments[0].scrollIntoView({ block: 'center' })", e);
                e.Click();
            }
        );

    public IReadOnlyList<IWebElement> All(string css) => driver.FindElements(By.CssSelector(css));

    /// <summary>What the first visible element says.</summary>
    public string TextOf(string css)
    {
        var text = "";
        Until(
            () =>
            {
                text = Find(css).Text;
                return true;
            },
            css
        );
        return text;
    }

    /// <summary>
    /// A button, link, chip, menu entry or label by its words; an accessible name counts too. What says just that goes
    /// before what says it among other words. Looked for in the page, in one go.
    /// </summary>
    public IWebElement Control(string words)
    {
        IWebElement? found = null;
        Until(
            () => (found = driver.ExecuteScript(FindControl, words) as IWebElement) is not null,
            $"a control “{words}”"
        );
        return found!;
    }

    private const string FindControl = """
        const words = arguments[0];
        const names = [...document.querySelectorAll(
            "button,a,[role=menuitem],[role=menuitemradio],[role=option],label,summary")]
          .filter(e => e.getClientRects().length > 0
            && e.checkVisibility({ opacityProperty: true, visibilityProperty: true }))
          .map(e => [e, [e.innerText.trim().replace(/[ \u00a0]*\n+[ \u00a0]*/g, " "), e.getAttribute("aria-label") ?? ""]]);
        const says = test => (names.find(([, said]) => said.some(test)) ?? [null])[0];
        return says(s => s === words) ?? says(s => s.includes(words));
        """;

    public void Click(string words) =>
        Until(
            () =>
            {
                Control(words).Click();
                return true;
            },
            $"to click “{words}”"
        );

    public void Fill(string css, string text) =>
        Until(
            () =>
            {
                var field = Find(css);
                field.SendKeys(Keys.Control + "a");
                field.SendKeys(text.Length == 0 ? Keys.Delete : text);
                return field.GetDomProperty("value") == text;
            },
            $"to fill {css}"
        );

    /// <summary>Presses keys on the page, outside any field.</summary>
    public void Press(params string[] keys)
    {
        foreach (var key in keys)
            new Actions(driver).SendKeys(key).Perform();
    }

    /// <summary>
    /// Goes to the next work of the list, and waits until the pane tells of it: until then it shows the one before.
    /// </summary>
    public void NextWork()
    {
        var before = Named("work");
        Press("j");
        Until(
            () => Named("work") is { } now && now != before && All($"aside[data-shown='{now}'] h2").Count == 1,
            "the next work in the pane"
        );
    }

    /// <summary>The id that the address gives to "work" or "step"; null for none.</summary>
    public int? Named(string what) =>
        System.Web.HttpUtility.ParseQueryString(new Uri(Address).Query)[what] is { } id
            ? int.Parse(id, System.Globalization.CultureInfo.InvariantCulture)
            : null;

    public void Type(string keys) => new Actions(driver).SendKeys(keys).Perform();

    /// <summary>Drags from one point of the window to another.</summary>
    public void Drag((int X, int Y) from, (int X, int Y) to) =>
        new Actions(driver)
            .MoveToLocation(from.X, from.Y)
            .ClickAndHold()
            .MoveToLocation((from.X + to.X) / 2, (from.Y + to.Y) / 2)
            .MoveToLocation(to.X, to.Y)
            .Release()
            .Perform();

    /// <summary>Behaves like a screen that is touched.</summary>
    public void HasTouch()
    {
        driver.ExecuteCdpCommand(
            "Emulation.setTouchEmulationEnabled",
            new Dictionary<string, object?> { ["enabled"] = true, ["maxTouchPoints"] = 1 }
        );
        driver.ExecuteCdpCommand(
            "Emulation.setEmulatedMedia",
            new Dictionary<string, object?>
            {
                ["features"] = new object[]
                {
                    new Dictionary<string, object?> { ["name"] = "pointer", ["value"] = "coarse" },
                },
            }
        );
    }

    /// <summary>Draws a finger from one point of the window to another.</summary>
    public void Touch((int X, int Y) from, (int X, int Y) to)
    {
        void Send(string type, params (int X, int Y)[] at) =>
            driver.ExecuteCdpCommand(
                "Input.dispatchTouchEvent",
                new Dictionary<string, object?>
                {
                    ["type"] = type,
                    ["touchPoints"] = at.Select(p => new Dictionary<string, object?> { ["x"] = p.X, ["y"] = p.Y })
                        .ToArray<object>(),
                }
            );
        Send("touchStart", from);
        Send("touchMove", ((from.X + to.X) / 2, (from.Y + to.Y) / 2));
        Send("touchMove", to);
        Send("touchEnd");
    }

    /// <summary>The page as it is printed: a PDF.</summary>
    public byte[] Printed() =>
        Convert.FromBase64String(
            (string)
                (
                    (Dictionary<string, object>)
                        driver.ExecuteCdpCommand(
                            "Page.printToPDF",
                            new Dictionary<string, object?> { ["preferCSSPageSize"] = true }
                        )!
                )["data"]
        );

    /// <summary>Types letter by letter with a pause after each, as a person does.</summary>
    public void TypeSlowly(string text, TimeSpan between) =>
        text.Aggregate(new Actions(driver), (acts, letter) => acts.SendKeys(letter.ToString()).Pause(between))
            .Perform();

    /// <summary>Every answer from now on takes at least so long.</summary>
    public void Slow(TimeSpan latency)
    {
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new Dictionary<string, object?>
            {
                ["offline"] = false,
                ["latency"] = latency.TotalMilliseconds,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }!
        );
    }

    /// <summary>Runs a script in every page before the page's own.</summary>
    public void Before(string script) =>
        driver.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new Dictionary<string, object?> { ["source"] = script }!
        );

    public string Text => (string)(driver.ExecuteScript("return document.body?.innerText ?? ''") ?? "");

    public void Sees(string words) => Until(() => Text.Contains(words, StringComparison.Ordinal), $"“{words}”");

    public void SeesNot(string words) =>
        Until(() => !Text.Contains(words, StringComparison.Ordinal), $"“{words}” to go");

    public object? Script(string script, params object[] arguments) => driver.ExecuteScript(script, arguments);

    /// <summary>What the server says at an address, asked as the page asks.</summary>
    public JsonNode Api(string path) =>
        JsonNode.Parse((string)Script("return fetch(arguments[0]).then(r => r.text())", path)!)!;

    /// <summary>What the server answers to what is sent to an address, sent as the page sends.</summary>
    public JsonNode Api(string path, object body) =>
        JsonNode.Parse(
            (string)
                Script(
                    """
                    const [path, body] = arguments;
                    return fetch("/api/me").then(r => r.json()).then(me => fetch(path, {
                      method: "POST",
                      headers: { "Content-Type": "application/json", "X-Zendle-Token": me.requestToken },
                      body,
                    })).then(r => r.text());
                    """,
                    path,
                    JsonSerializer.Serialize(body)
                )!
        )!;

    /// <summary>What axe finds wrong, a line for each rule (WCAG 2.2 A and AA).</summary>
    /// <param name="onlyColours">Whether only contrast is looked at: another theme changes nothing else.</param>
    public string[] AxeFindings(bool onlyColours = false)
    {
        using var stream = typeof(Browser).Assembly.GetManifestResourceStream("axe.js")!;
        using var reader = new StreamReader(stream);
        if (driver.ExecuteScript("return window.axe === undefined") is true)
            driver.ExecuteScript(reader.ReadToEnd());
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(60);
        var json = (string)
            driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                const runOnly = arguments[0] ? ["color-contrast"] : ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];
                axe.run(document, { runOnly, resultTypes: ["violations"], preload: false })
                  .then(r => done(JSON.stringify(r.violations.map(v => ({
                    id: v.id,
                    nodes: v.nodes.map(n => n.target.join(" ") + " — " + n.failureSummary)
                  })))));
                """,
                onlyColours
            )!;
        return
        [
            .. JsonNode
                .Parse(json)!
                .AsArray()
                .Select(v => $"{v!["id"]}: {string.Join(" | ", v["nodes"]!.AsArray().Take(3))}"),
        ];
    }

    /// <summary>Warnings and errors that the page wrote to the console since last asked.</summary>
    public string[] Complaints() =>
        [
            .. driver
                .Manage()
                .Logs.GetLog(LogType.Browser)
                .Select(l => l.Message)
                .Where(m =>
                    !m.Contains("status of 40", StringComparison.Ordinal)
                    && !m.Contains("status of 42", StringComparison.Ordinal)
                ),
        ];

    public void Picture(string file) =>
        File.WriteAllBytes(
            file,
            Convert.FromBase64String(
                (string)
                    (
                        (Dictionary<string, object>)
                            driver.ExecuteCdpCommand(
                                "Page.captureScreenshot",
                                new Dictionary<string, object?> { ["format"] = "png" }!
                            )!
                    )["data"]
            )
        );

    public void Dispose()
    {
        Chromiums.GiveBack(driver);
        Directory.Delete(Downloads, recursive: true);
    }
}
