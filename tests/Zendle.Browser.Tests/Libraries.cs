using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>What people do with libraries.</summary>
internal static class Libraries
{
    public const string Foot = "section[aria-label='Your library']";

    /// <summary>Connects one, as a person does it.</summary>
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

    /// <summary>The works of Gather in a state.</summary>
    public static JsonNode[] Rows(Browser b, string state) =>
        [
            .. b.Api("/api/reviews/1/gather")["works"]!
                .AsArray()
                .Where(w => w!["state"]!.GetValue<string>() == state)
                .Select(w => w!),
        ];

    /// <summary>Gathers all that was not sought, and waits for the end.</summary>
    public static void GatherAll(Browser b)
    {
        b.Until(
            () =>
            {
                var button = b.All("header button")
                    .FirstOrDefault(x => x.Text.StartsWith("Gather the", StringComparison.Ordinal));
                button?.Click();
                return button is not null;
            },
            "the way to gather"
        );
        b.Until(() => Rows(b, "NotSought").Length == 0 && Rows(b, "Waiting").Length == 0, "the end of gathering");
    }

    /// <summary>Asks the first desk for all that nothing gave.</summary>
    public static void AskOthers(Browser b)
    {
        b.Until(
            () =>
            {
                var button = b.All("header button")
                    .FirstOrDefault(x => x.Text.StartsWith("Ask other libraries for", StringComparison.Ordinal));
                button?.Click();
                return button is not null;
            },
            "the way to ask"
        );
        b.Until(() => b.All("[role=dialog] button.h-9").Any(x => x.Enabled), "requests that can go");
        b.On("[role=dialog] button.h-9", e => e.Click());
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet closed");
    }
}
