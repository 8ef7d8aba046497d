using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>
/// Every screen: nothing that axe finds, nothing the policy blocks, usable at 1024 wide and by keyboard alone.
/// </summary>
public sealed class ScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private static readonly (string Path, string Sees)[] Screens =
    [
        ("/r/1/search", "judged"),
        ("/r/2/search", "What does this review ask?"),
        ("/r/1/report", "Search log"),
        ("/r/1/databases", "Overlap: share of each row"),
        ("/reviews", "Begin a review"),
        ("/r/1/account", "Target size"),
        ("/r/1/trails?step=0", "Trails start from works"),
        ("/r/1/map", "Put a set on the map"),
        ("/r/1/gather", "not yet sought"),
        ("/r/1/read", "Texts in hand"),
        ("/r/1/read/1", "Outline"),
        ("/about", "About Zendle"),
        ("/r/1/search?words=add", "look alike"),
        ("/r/1/search?words=exclude", "set aside here"),
        ("/r/1/search?words=senses", "only these"),
        ("/r/1/search?words=used", "Terms by decade"),
    ];

    /// <summary>Each screen is opened once and looked at in all three ways: a page costs more than a look.</summary>
    [Fact]
    public void Axe_finds_nothing_in_either_theme_and_nothing_is_cut_off_at_1024()
    {
        using var b = new Browser(world.Address);
        b.Go("/");
        b.Sees("Look around");
        Finds(b, "the way in");
        b.Click("Look around as the demo researcher");
        b.Find("article[data-work]");
        // Other tests of this world leave a search behind of which nothing can be said here.
        SearchScreen.Searched(b, "light AND pollination");
        foreach (var (path, sees) in Screens)
        {
            b.Go(path);
            b.Sees(sees);
            b.Find("main");
            IsWhole(b, path);
            if (path == "/r/1/search")
            {
                b.Find("article[data-work]");
                b.Press("b", "j");
                b.Find("aside h2");
                IsWhole(b, "a work beside the list");
            }
            Finds(b, path);
        }
        b.Go("/r/1/search");
        b.Find("article[data-work]");
        b.Click("Type");
        b.Find("ul[aria-label=Type] li");
        Finds(b, "the pop-over");
        b.Press(Keys.Escape);
        b.Press("?");
        b.Sees("Single letters act");
        Finds(b, "the keys");
        Assert.Empty(b.Complaints());
    }

    /// <summary>Nothing that axe finds; of the dark theme its colours are looked at, which are all that it changes.</summary>
    private static void Finds(Browser b, string where)
    {
        foreach (var dark in new[] { false, true })
        {
            b.Dark(dark);
            b.Until(
                () => b.Script("return document.getAnimations().length === 0") is true,
                "the colours to stand still"
            );
            var findings = b.AxeFindings(onlyColours: dark);
            Assert.True(findings.Length == 0, $"{where}{(dark ? ", dark" : "")}: {string.Join("\n", findings)}");
        }
        b.Dark(false);
    }

    /// <summary>At 1024 wide nothing is cut off, and the acts of a work stand whole beside the list.</summary>
    private static void IsWhole(Browser b, string where)
    {
        b.Size(1024, 768);
        b.Until(() => b.Script("return innerWidth === 1024") is true, "the narrower window");
        Assert.True(
            b.Script("return document.documentElement.scrollWidth > innerWidth") is false,
            $"{where} is wider than 1024"
        );
        Assert.True(
            b.Script(
                "return [...document.querySelectorAll('aside button')].some(e => e.getBoundingClientRect().right > innerWidth - 6)"
            )
                is false,
            $"{where}: acts are cut off at 1024"
        );
        b.Size(1280, 800);
    }

    [Fact]
    public void The_log_counts_records_duplicates_and_works_before_and_within_limits()
    {
        using var b = world.SignedIn("/r/1/report");
        b.Sees("Search log");
        b.Find("main ol > li table");
        static int Number(string text) =>
            int.Parse(
                text.Replace(",", "", StringComparison.Ordinal).Replace('−', '-'),
                System.Globalization.CultureInfo.InvariantCulture
            );
        var runs = b.All("main ol > li");
        Assert.True(runs.Count >= 5);
        foreach (var run in runs)
        {
            var rows = run.FindElements(By.CssSelector("tbody tr"))
                .Select(r =>
                    (
                        Name: r.FindElement(By.TagName("th")).Text,
                        Count: Number(r.FindElements(By.TagName("td"))[0].Text)
                    )
                )
                .ToArray();
            Assert.Equal("duplicates joined", rows[^2].Name);
            Assert.Equal(rows[^1].Count, rows[..^1].Sum(r => r.Count));
            var isLimited = run.Text.Contains("within the limits", StringComparison.Ordinal);
            Assert.Equal(isLimited ? "works before limits" : "works", rows[^1].Name);
            Assert.Equal(isLimited, Number(run.FindElement(By.CssSelector("p > b.block")).Text) < rows[^1].Count);
        }
        Assert.Contains(runs, r => r.Text.Contains("within the limits", StringComparison.Ordinal));
    }

    [Fact]
    public void Texts_can_be_read_on_a_phone()
    {
        using var b = world.SignedIn();
        b.Size(390, 844);
        b.Go("/r/1/read");
        b.Sees("Texts in hand");
        bool IsWhole() =>
            b.Script(
                "return document.documentElement.scrollWidth <= innerWidth && "
                    + "[...document.querySelectorAll('main button, header button')].every(e => "
                    + "e.getBoundingClientRect().right <= innerWidth)"
            )
                is true;
        Assert.True(IsWhole());
        // The stages stand below, where a thumb reaches them.
        Assert.Equal(
            true,
            b.Script("return document.querySelector('nav[aria-label=Stages]').getBoundingClientRect().top > 700")
        );
        b.Go("/r/1/read/1");
        b.Find(".pdfViewer .page");
        Assert.True(IsWhole());
        b.Click("Record");
        b.Find("aside h2");
        Assert.True(IsWhole());
        Assert.Equal(true, b.Script("return document.querySelector('.pdfViewer').offsetParent === null"));
        b.Click("Record");
        b.Find(".pdfViewer .page");
    }

    [Fact]
    public void A_work_is_found_read_and_kept_by_keyboard_alone()
    {
        using var b = world.SignedIn();
        b.Press("/");
        b.Type("light AND bats AND hedge*" + Keys.Enter);
        b.Until(
            () => b.TextOf("[aria-current=step]").StartsWith("light AND bats", StringComparison.Ordinal),
            "the search"
        );
        b.Type(Keys.Escape);
        b.Press("j");
        b.Until(() => b.All("article[aria-current=true]").Count == 1, "a work");
        b.Press("p");
        b.Sees("Kept 1 work.");
        b.Press(Keys.Enter);
        b.Until(() => (string?)b.Script("return document.activeElement.tagName") == "ASIDE", "focus in the pane");
        new OpenQA.Selenium.Interactions.Actions(((IWrapsDriver)b.Find("aside")).WrappedDriver)
            .KeyDown(Keys.Control)
            .SendKeys("k")
            .KeyUp(Keys.Control)
            .Perform();
        b.Find("[role=combobox]");
        b.Type("report" + Keys.Enter);
        b.Sees("Search log");
    }

    [Fact]
    public void Letters_can_be_switched_off()
    {
        using var b = world.SignedIn();
        b.Press("?");
        b.Click("Single letters act");
        b.Type(Keys.Escape);
        b.Press("g", "r");
        b.Go("/r/1/search");
        // The first work stands in the pane by itself; the key goes to no other.
        b.Until(() => b.All("article[aria-current=true]").Count == 1, "the first work");
        b.Press("j");
        Thread.Sleep(300);
        Assert.DoesNotContain("work=", b.Address, StringComparison.Ordinal);
        b.Script("localStorage.removeItem('zendle.letterKeys')");
    }

    [Fact]
    public void A_name_leads_to_the_persons_behind_it_and_to_all_their_works()
    {
        using var b = world.SignedIn("/r/1/search");
        b.Find("article[data-work]");
        b.NextWork();
        b.Click("Show the relevance score");
        b.Until(() => b.All("table[data-field=score] tbody tr").Count > 0, "the score in parts");
        b.Script("arguments[0].scrollIntoView({ block: 'nearest' })", b.Find("table[data-field=score]"));
        b.Look("score");
        Assert.Empty(b.AxeFindings());
        // As a person types it: a name, of which the line tells who is behind it.
        var family = b.TextOf("aside [data-field=people] button").Split(',')[0];
        b.Click("new path");
        b.Fill("input[role=combobox]", $"author:\"{family}\"");
        b.Until(() => b.Text.Contains(" behind “", StringComparison.Ordinal), "the persons of that name");
        var way = b.All("#line-reading button")
            .First(w => w.Text.Contains(", ", StringComparison.Ordinal) && char.IsDigit(w.Text[^1]));
        var works = way.Text.Split(' ', '\n')[^1];
        b.Look("persons");
        Assert.Empty(b.AxeFindings());
        way.Click();
        b.Until(
            () =>
                b.Find("input[role=combobox]").GetAttribute("value")!.StartsWith("person:\"", StringComparison.Ordinal),
            "the person in the line"
        );
        b.Until(() => b.Text.Contains($"{works} work", StringComparison.Ordinal), $"{works} works");
        b.Look("person");
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }
}
