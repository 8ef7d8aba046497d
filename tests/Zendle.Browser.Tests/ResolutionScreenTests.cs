using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>References that match nothing find their works by a person's word, from the trail and from the work.</summary>
public sealed class ResolutionScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string Choices = "ul[aria-label='Works it may mean'] button";

    private static int Unmatched(Browser b) => Number(b.TextOf("[role=dialog] h2").Split(' ')[0]);

    [Fact]
    public void A_reference_is_resolved_looked_for_made_an_entry_and_undone()
    {
        using var b = world.SignedIn("/r/1/trails?step=0");
        b.Click("Follow the 62 works kept");
        b.Until(() => b.All("article[data-work]").Count > 0, "the trail");
        // Some work that the trail does not hold.
        b.Go("/r/1/search?sort=Newest");
        var title = b.TextOf("article[data-work] h3");
        b.Go("/r/1/trails");
        b.Click("unmatched");
        b.Sees("match no record");
        var before = Unmatched(b);
        b.Click("Find its work");
        b.Sees("It can be undone.");
        b.Fill("[role=dialog] form input", "A title that nobody ever printed zzz");
        b.Click("Look");
        b.Sees("No record resembles it.");
        b.Fill("[role=dialog] form input", title);
        b.Click("Look");
        b.Until(() => b.All($"{Choices} .font-serif").Any(e => e.Text == title), "the work of that title");
        Assert.Empty(b.AxeFindings());
        b.Until(
            () =>
            {
                b.All(Choices).First(e => e.Text.StartsWith(title, StringComparison.Ordinal)).SendKeys(Keys.Enter);
                return true;
            },
            "to choose it"
        );
        b.Sees("Matched. Trails count it from now on.");
        b.Until(() => Unmatched(b) == before - 1, "one less");
        b.Sees("Matched by people");
        Assert.Contains(title, b.TextOf("section[aria-label='Matched by people']"), StringComparison.Ordinal);
        Assert.Contains("matched by", b.TextOf("section[aria-label='Matched by people']"), StringComparison.Ordinal);
        b.Until(
            () =>
            {
                b.All("section[aria-label='Matched by people'] button").First(e => e.Text == "Undo").Click();
                return true;
            },
            "undo"
        );
        b.Until(() => Unmatched(b) == before, "as before");

        // What is not here becomes a custom entry.
        b.Click("Find its work");
        b.Click("Make it a custom entry");
        b.Sees("Add this entry");
        b.Click("Add this entry");
        b.Sees("Matched. Trails count it from now on.");
        b.Until(() => Unmatched(b) == before - 1, "the entry counts");
    }
}
