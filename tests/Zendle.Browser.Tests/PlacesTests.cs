using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>Where things stand: the list high up, the pane never empty, one column where there is room for one.</summary>
public sealed class PlacesTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private static double Top(Browser b, string css) =>
        Convert.ToDouble(
            b.Script("return document.querySelector(arguments[0]).getBoundingClientRect().top", css),
            System.Globalization.CultureInfo.InvariantCulture
        );

    private static string[] Path(Browser b) =>
        [.. b.All("section[aria-label=Path] li button:first-child span:first-child").Select(e => e.Text)];

    /// <summary>A search of its own: where the review was left depends on the test before.</summary>
    private static void Searched(Browser b)
    {
        b.Go("/r/1/search?step=0");
        b.Fill("input[role=combobox]", "light");
        b.Type(Keys.Enter);
        b.Find("article[data-work]");
    }

    [Fact]
    public void The_first_row_stands_high_and_its_work_in_the_pane()
    {
        using var b = world.SignedIn();
        b.Size(1280, 800);
        Searched(b);
        Assert.InRange(Top(b, "article[data-work]"), 100, 260);
        b.Until(() => b.TextOf("aside h2") == b.TextOf("article[data-work] h3"), "the first work in the pane");
        Assert.DoesNotContain("work=", b.Address, StringComparison.Ordinal);
        b.Press("j");
        b.Until(() => b.TextOf("aside h2") == b.All("article[data-work] h3")[1].Text, "the second by key");
        b.Go("/r/1/trails");
        b.Until(
            () => b.All("article[data-work]").Count > 0 || b.Text.Contains("Trails start", StringComparison.Ordinal),
            "trails"
        );
        if (b.All("article[data-work]").Count == 0)
        {
            b.Click("Follow the ");
            b.Find("article[data-work]");
        }
        Assert.InRange(Top(b, "article[data-work]"), 100, 300);
    }

    [Fact]
    public void A_name_in_the_pane_narrows_the_list_or_starts_anew_as_it_says()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Fill("input[role=combobox]", "moth*");
        b.Type(Keys.Enter);
        b.Find("aside [data-field=people] button");
        b.Until(() => Path(b) is ["moth*", ..], "the search");
        var name = b.TextOf("aside [data-field=people] button");
        b.On("aside [data-field=people] button", e => e.Click());
        b.Click("Narrow this list to this person");
        // The person is told apart from others of the name: the step names who it is, and the field shows it.
        b.Until(() => Path(b) is ["moth*", _], "a step after the search");
        Assert.StartsWith(name, Path(b)[1], StringComparison.Ordinal);
        Assert.Equal("moth*", b.Find("input[role=combobox]").GetAttribute("value"));
        Assert.Contains("Person", b.TextOf("section[aria-label=Narrow]"), StringComparison.Ordinal);
        Assert.Equal("moth*", b.Find("input[role=combobox]").GetAttribute("value"));
        b.Until(() => b.TextOf("aside [data-field=people]").Contains(name, StringComparison.Ordinal), "their works");
        b.All("aside [data-field=people] button").First(p => p.Text == name).Click();
        b.Click("Start a new search");
        b.Until(() => Path(b) is [['p', ..]], "a path of its own");
        Assert.StartsWith(
            $"person:\"{name}",
            b.Find("input[role=combobox]").GetAttribute("value"),
            StringComparison.Ordinal
        );
        // Nothing under the line speaks of the line before.
        Assert.All(
            b.All("#line-reading"),
            reading => Assert.DoesNotContain("moth*", reading.Text, StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_slash_goes_to_the_line_and_never_into_it()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Find("input[role=combobox]");
        b.Until(
            () => b.Script("return document.activeElement.getAttribute('role')") is "combobox",
            "the line in focus"
        );
        b.Type("/");
        b.Type("/lamp*");
        Assert.Equal("lamp*", b.Find("input[role=combobox]").GetAttribute("value"));
    }

    [Fact]
    public void An_example_on_the_first_screen_fills_the_line()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Click("lamp* NEAR/5 moth*");
        b.Until(() => b.Find("input[role=combobox]").GetAttribute("value") == "lamp* NEAR/5 moth*", "the example");
        b.Type(Keys.Enter);
        b.Until(() => b.All("article[data-work]").Count > 0, "its works");
    }

    [Theory]
    [InlineData(390, 844)]
    [InlineData(700, 900)]
    public void On_a_narrow_screen_everything_is_one_column(int width, int height)
    {
        using var b = world.SignedIn();
        b.Size(width, height);
        void IsWhole(string where) =>
            Assert.True(
                b.Script(
                    "return document.documentElement.scrollWidth <= innerWidth && "
                        + "[...document.querySelectorAll('main article, main aside, main section[aria-label=Narrow] button')]"
                        + ".every(e => e.getBoundingClientRect().right <= innerWidth + 1)"
                )
                    is true,
                where
            );
        foreach (var page in new[] { "search", "search?step=0", "trails", "gather", "read", "report", "databases" })
        {
            b.Go($"/r/1/{page}");
            b.Until(() => b.All("main *").Count > 3, page);
            IsWhole(page);
        }
        Searched(b);
        Assert.DoesNotContain(b.All("aside h2"), e => e.Displayed);
        IsWhole("the list");
        b.On("article[data-work] h3 button", e => e.Click());
        b.Until(() => b.All("aside h2").Any(e => e.Displayed), "the card");
        Assert.DoesNotContain(b.All("article[data-work]"), e => e.Displayed);
        IsWhole("the card");
        b.Click("‹ Back to the list");
        b.Until(() => b.All("article[data-work]").Any(e => e.Displayed), "the list again");
        b.Click("Narrow …");
        b.Sees("Narrow the list");
        b.Click("Type");
        b.Until(() => b.All("ul[aria-label=Type] input").Count > 0, "the types");
        Assert.Empty(b.AxeFindings());
    }
}
