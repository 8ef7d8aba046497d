using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>What the citations of a list show, and what a seed alone brings into a trail.</summary>
public sealed class OutlineScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    [Fact]
    public void The_main_line_becomes_a_list_and_two_tags_are_bridged()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        Search(b, "light AND moth*");
        Open(b);
        b.Until(() => b.All("section[aria-label='Main line'] li").Count > 2, "the main line");
        Assert.Empty(b.AxeFindings());
        var line = b.All("section[aria-label='Main line'] li").Count;
        b.Until(() => b.All("section[aria-label='Between two tags'] li").Count > 0, "works between two tags");
        b.Until(
            () =>
            {
                b.All("section[aria-label='Main line'] button").First(e => e.Text == "Show these as a list").Click();
                return true;
            },
            "to show the line"
        );
        b.Until(() => Steps(b)[^1] == "main line" && InView(b) == line, "the main line as a step");

        // One work of it, read where the list stands.
        Open(b);
        b.Until(() => b.All("section[aria-label='Main line'] li").Count == line, "the same line");
        var title = b.TextOf("section[aria-label='Main line'] li button");
        b.On("section[aria-label='Main line'] li button", e => e.SendKeys(Keys.Enter));
        b.Until(() => b.TextOf("aside h2") == title, "the work beside the list");
    }

    [Fact]
    public void What_a_seed_alone_brings_in_is_one_press_away()
    {
        using var b = world.SignedIn("/r/1/trails?step=0");
        b.Click("Follow the 62 works kept");
        b.Click("by what only they add");
        var alone = 0;
        b.Until(
            () =>
            {
                int[] each =
                [
                    .. b.All("section[aria-label=Seeds] ol button")
                        .Select(e => e.Text)
                        .Where(t => t.EndsWith("from it alone", StringComparison.Ordinal))
                        .Select(t => Number(t.Split(' ')[0])),
                ];
                // In the order asked for: before it came, another seed stands first.
                return each.Length > 1 && each.SequenceEqual(each.OrderDescending()) && (alone = each[0]) > each[^1];
            },
            "what the first seed alone brings"
        );
        b.Click("from it alone");
        b.Until(() => Steps(b)[^1].StartsWith("only from seed ", StringComparison.Ordinal), "the step");
        b.Until(
            () =>
                b.TextOf("section[aria-label=Path] [aria-current=step]")
                    .Contains($"{alone:N0}", StringComparison.Ordinal),
            "as many as were said"
        );
    }

    private static void Open(Browser b) => Choose(b, () => b.Control("Follow"), "What its citations show");
}
