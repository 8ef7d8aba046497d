using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Who cites a name: its variants ticked, the set of all that cite them, self-citations apart.</summary>
public sealed class CitersScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string Strip = "section[aria-label='Who cites a name']";

    private static int Offered(Browser b)
    {
        var n = 0;
        b.Until(
            () =>
                b.All("[role=dialog] button")
                    .Select(e => e.Text)
                    .FirstOrDefault(t => t.StartsWith("Show the ", StringComparison.Ordinal))
                    is { } text
                && (n = Number(text.Split(' ')[2])) > 0,
            "how many cite them"
        );
        return n;
    }

    [Fact]
    public void What_cites_a_name_is_shown_by_keyboard_and_narrowed_by_self_citations()
    {
        using var b = world.SignedIn("/r/1/search?sort=Cited");
        // A person of a much cited work, from its menu.
        b.Until(() => b.All("article[data-work]").Count > 0, "the works");
        b.NextWork();
        b.Until(() => b.All("aside [data-field=people] button").Count > 0, "its people");
        Choose(b, () => b.Find("aside [data-field=people] button"), "See who cites this name");
        b.Until(() => b.All("[role=dialog] section[aria-label=People] li").Count > 0, "the people of the name");
        Assert.Empty(b.AxeFindings());
        var all = Offered(b);
        b.Until(
            () =>
            {
                b.All("[role=dialog] section[aria-label=People] button").First(e => e.Text == "none").Click();
                return true;
            },
            "no person ticked"
        );
        b.Until(() => !b.Text.Contains($"Show the {all:N0} works", StringComparison.Ordinal), "fewer");
        b.Until(
            () =>
            {
                b.All("[role=dialog] section[aria-label=People] button").First(e => e.Text == "all").Click();
                return true;
            },
            "all ticked"
        );
        b.Until(() => Offered(b) >= all, "as many as before, or more");
        all = Offered(b);
        b.Click("Show the ");
        b.Until(() => b.All(Strip).Count == 1, "the works that cite the name");
        b.Until(() => InView(b) == all, "as many as were offered");
        Assert.StartsWith("what cites ", Steps(b)[^1], StringComparison.Ordinal);
        var without = 0;
        b.Until(
            () =>
                b.All($"{Strip} [aria-label=Self-citations] button").Select(e => e.Text).ToArray() is [_, var two, _]
                && two[0] != '…'
                && (without = Number(two.Split(' ', '\n')[0])) > 0,
            "how many without"
        );
        b.Click("without self-citations");
        b.Until(() => Steps(b)[^1] == "without self-citations" && InView(b) == without, "without them");
        Assert.Empty(b.AxeFindings());

        // The variants as they were ticked.
        b.Click("of the name …");
        b.Until(() => Offered(b) == all, "the same variants");
        b.Type(Keys.Escape);

        // From anywhere.
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet closed");
        b.On("header button[aria-haspopup=dialog]", e => e.Click());
        b.Fill("[aria-label='Go to, or do'][role=combobox]", "Zzyzx");
        b.Click("Who cites “Zzyzx”");
        b.Sees("No person in these databases has a name like this");
    }
}
