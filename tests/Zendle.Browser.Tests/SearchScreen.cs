using System.Globalization;
using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>The search screen as a test reads it and acts on it.</summary>
internal static partial class SearchScreen
{
    /// <summary>Where a search is written.</summary>
    public const string Line = "[aria-label='Search the databases']";

    /// <summary>What stands in the line.</summary>
    public static string LineOf(Browser b) => b.Find(Line).GetDomProperty("value") ?? "";

    /// <summary>Puts a line as it stands and waits for its step.</summary>
    public static void Search(Browser b, string line)
    {
        b.Fill("[aria-label='Search the databases']", line);
        b.Type(Keys.Enter);
        b.Until(
            () =>
                b.Find("[aria-label='Search the databases']").GetDomProperty("value") is { Length: > 0 }
                && b.All("section[aria-label=Path] [aria-current=step]").Count == 1,
            "the step"
        );
    }

    /// <summary>Opens a menu by keyboard, however often what it hangs on is drawn anew, and takes a part of it.</summary>
    public static void Choose(Browser b, Func<IWebElement> menu, string part)
    {
        b.Until(
            () =>
            {
                if (b.All("[role=menuitem]").Count == 0)
                    menu().SendKeys(Keys.Enter);
                return b.All("[role=menuitem]").Count > 0;
            },
            $"the menu with “{part}”"
        );
        b.Click(part);
    }

    /// <summary>Begins a new path with a line.</summary>
    public static void Searched(Browser b, string line)
    {
        b.Click("new path");
        b.Fill(Line, line);
        b.Type(Keys.Enter);
        b.Until(() => Path(b) is [var one] && one.Label == line, "the step");
    }

    /// <summary>The count that the line promises.</summary>
    public static int ToCome(Browser b)
    {
        var count = 0;
        b.Until(
            () =>
                b.All("section[aria-label='Search line'] form .opacity-50").Count == 0
                && b.All("section[aria-label='Search line'] form b") is [var n, ..]
                && n.FindElement(By.XPath("..")).Text.Contains("work", StringComparison.Ordinal)
                && (count = Number(n.Text)) >= 0,
            "the count to come"
        );
        return count;
    }

    /// <summary>Steps of the path with their counts.</summary>
    public static (string Label, int Count)[] Path(Browser b) =>
        [
            .. b.All("section[aria-label=Path] li")
                .Where(l => l.Text.Contains('\n'))
                .Select(l => l.Text.Split('\n'))
                .Select(l => (l[0].Trim(), Number(l[1].Trim()))),
        ];

    /// <summary>Labels of the steps of the path.</summary>
    public static string[] Steps(Browser b) =>
        [
            .. b.All("section[aria-label=Path] li")
                .Where(l => l.Text.Contains('\n'))
                .Select(l => l.Text.Split('\n')[0].Trim()),
        ];

    /// <summary>Chooses an act from the menu of a step.</summary>
    public static void OnStep(Browser b, string label, string act)
    {
        b.Until(
            () =>
            {
                b.Control($"More about the step {label}").Click();
                return b.All("[role=menu]").Count > 0;
            },
            "the step's menu"
        );
        b.Click(act);
    }

    /// <summary>How many works are in view.</summary>
    public static int InView(Browser b)
    {
        var n = 0;
        b.Until(
            () =>
            {
                var m = WorksCount().Match(b.TextOf("section[aria-label=Narrow]"));
                n = m.Success ? Number(m.Groups[1].Value) : -1;
                return m.Success;
            },
            "the count"
        );
        return n;
    }

    /// <summary>How many works are kept.</summary>
    public static int Kept(Browser b) => Number(Regex.Match(b.TextOf("header"), @"([\d,]+) kept").Groups[1].Value);

    /// <summary>Title of the work that the list stands on.</summary>
    public static string Current(Browser b) => b.Find("[aria-current='true']").FindElement(By.TagName("h3")).Text;

    /// <summary>A number as it stands on the screen.</summary>
    public static int Number(string text) =>
        int.Parse(text.Replace(",", "", StringComparison.Ordinal), CultureInfo.InvariantCulture);

    [GeneratedRegex(@"([\d,]+)\s+works?\b")]
    private static partial Regex WorksCount();
}
