using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>Connects a library, as a person does it.</summary>
internal static class Libraries
{
    public const string Foot = "section[aria-label='Your library']";

    public static void Connect(Browser b, string identifier, string town)
    {
        b.Go("/r/1/gather");
        b.Sees("in hand");
        b.On($"{Foot} > button", e => e.SendKeys(Keys.Enter));
        b.Sees("Find your library");
        // Another test of the class may have connected another one.
        b.Until(
            () =>
            {
                var used = b.All("[aria-label='Libraries you use'] button:last-of-type");
                if (used.Count > 0)
                    used[0].Click();
                return used.Count == 0;
            },
            "no library"
        );
        b.Fill("[role=dialog] input[type=search]", "quillmere");
        b.Until(() => b.All("[data-listed]").Count == 2, "two libraries of nearly one name");
        Assert.Contains(town, b.TextOf($"[data-listed='{identifier}']"), StringComparison.Ordinal);
        b.On($"[data-listed='{identifier}'] button", e => e.SendKeys(Keys.Enter));
        b.Until(
            () => b.TextOf($"[data-listed='{identifier}']").Contains("you use it", StringComparison.Ordinal),
            "its use"
        );
        b.Until(
            () => b.TextOf("[aria-label='Libraries you use']").Contains("holdings of", StringComparison.Ordinal),
            "holdings"
        );
    }
}
