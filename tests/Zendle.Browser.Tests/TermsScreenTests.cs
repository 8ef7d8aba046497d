using System.Text.RegularExpressions;
using OpenQA.Selenium;
using Zendle.Tests.Shared;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Words for a search: offered terms are tried, taken, undone and refused; misspelt lines are mended.</summary>
public sealed class TermsScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string ByYears = "ol[aria-label$='by their years']";

    /// <summary>A search with the words that its set uses beside the list.</summary>
    private Browser UsedHere(string line)
    {
        var b = world.SignedIn();
        Searched(b, line);
        b.Type("w");
        b.Click("Used here");
        return b;
    }

    private static IReadOnlyList<IWebElement> Rows(Browser b, string list) => b.All($"ul[aria-label='{list}'] > li");

    private static string Term(IWebElement row) => row.FindElement(By.CssSelector("button[aria-expanded]")).Text;

    [Fact]
    public void A_term_of_the_kept_works_is_tried_judged_taken_and_taken_back()
    {
        using var b = world.SignedIn();
        Searched(b, "light AND moth* AND \"flower visit*\"");
        var before = InView(b);
        b.Type("w");
        b.Until(() => Rows(b, "Promising terms").Count > 1, "offered terms");
        var line = LineOf(b);
        var (term, adds) = (
            Term(Rows(b, "Promising terms")[0]),
            Number(Rows(b, "Promising terms")[0].FindElement(By.TagName("b")).Text.TrimStart('+'))
        );
        Assert.True(adds > 0);

        // The works it alone would bring can be judged where they stand.
        Rows(b, "Promising terms")[0].FindElement(By.CssSelector("button[aria-expanded]")).Click();
        b.Until(() => b.All("ul[aria-label^='Works of'] > li").Count == Math.Min(25, adds), "the works it brings");
        var kept = Kept(b);
        var found = b.All("ul[aria-label^='Works of'] > li")
            .First(w => w.FindElements(By.CssSelector("svg[aria-label=found]")).Count > 0);
        b.Script("arguments[0].focus()", found);
        found.SendKeys("p");
        b.Until(() => Kept(b) == kept + 1, "one kept more");
        b.Script("document.activeElement.blur()");
        b.Type("u");
        b.Until(() => Kept(b) == kept, "the decision taken back");

        // Taken, it stands in the line with its count; undone, the line is as it was.
        b.Until(
            () => Rows(b, "Promising terms").Count > 0 && Term(Rows(b, "Promising terms")[0]) == term,
            "the same offers"
        );
        Rows(b, "Promising terms")[0].FindElement(By.XPath(".//button[.='take']")).Click();
        b.Until(() => LineOf(b) != line && LineOf(b).Contains(term, StringComparison.Ordinal), "the term in the line");
        b.Until(() => ToCome(b) == before + adds, "what it said it brings");
        b.Click("Undo");
        b.Until(() => LineOf(b) == line, "the line as it was");
    }

    [Fact]
    public void A_vocabulary_is_fetched_again_and_offers_what_is_narrower()
    {
        using var b = world.SignedIn("/r/1/databases");
        b.Until(() => b.Text.Contains("vocabulary:", StringComparison.Ordinal), "the vocabulary of a database");
        b.Script(
            "[...document.querySelectorAll('main button')].find(x => x.textContent.startsWith('vocabulary:')).click()"
        );
        b.Sees("Controlled vocabulary of Lifeleaf Index");
        Assert.Empty(b.AxeFindings());
        b.Click("Fetch it again");
        b.Sees("terms were read.");
        b.Go("/r/1/search");
        b.Find("article[data-work]");
        Searched(b, "\"plant science\"");
        b.Type("w");
        b.Until(() => Rows(b, "From vocabularies").Count > 0, "terms of the vocabulary");
        var row = Rows(b, "From vocabularies")[0];
        Assert.Contains("narrower than “Plant science”", row.Text, StringComparison.Ordinal);
        var (before, adds) = (InView(b), Number(row.FindElement(By.TagName("b")).Text.TrimStart('+')));
        Assert.True(adds > 0);
        row.FindElement(By.XPath(".//button[.='take']")).Click();
        b.Until(() => ToCome(b) == before + adds, "what it said it brings");
        Assert.Empty(b.Complaints());
    }

    /// <summary>What an excluded term removes is counted from the works: those in view that have it.</summary>
    [Fact]
    public void A_term_that_marks_what_was_set_aside_is_excluded_and_removes_what_it_said()
    {
        using var b = world.SignedIn();
        Searched(b, "light* AND moth* AND trap*");
        var before = InView(b);
        var review = $"/api/reviews/{Regex.Match(b.Address, @"/r/(\d+)").Groups[1].Value}";
        // Works about one thing go aside, as a person does who sees what the line brings too much of.
        var street = b.Api(
            $"{review}/steps",
            new { parentId = 0, act = new { kind = "Search", expression = "light* AND moth* AND trap* AND street*" } }
        );
        var works = b.Api($"{review}/steps/{street["stepId"]}/works?limit=200")["works"]!.AsArray();
        int[] aside = [.. works.Where(w => (string?)w!["stage"] == "Found").Select(w => (int)w!["id"]!)];
        Assert.NotEmpty(aside);
        b.Api(
            $"{review}/decisions",
            new
            {
                act = "SetAside",
                works = aside,
                value = "not about it",
            }
        );
        try
        {
            b.Reload();
            Assert.Equal(before, InView(b));
            b.Type("w");
            b.Click("To exclude");
            b.Until(() => Rows(b, "Terms to exclude").Count > 0, "terms of what was set aside");
            b.Sees("set aside here, against the others in view");
            var row = Rows(b, "Terms to exclude")[0];
            var (term, removes) = (Term(row), Number(row.FindElement(By.TagName("b")).Text.TrimStart('−')));
            Assert.True(removes > 0);
            // Tried, it shows what it would remove.
            row.FindElement(By.CssSelector("button[aria-expanded]")).Click();
            b.Until(
                () => b.All("ul[aria-label^='Works of'] > li").Count == Math.Min(25, removes),
                "what it would remove"
            );
            row.FindElement(By.XPath(".//button[.='exclude']")).Click();
            b.Until(() => LineOf(b).Contains(" NOT ", StringComparison.Ordinal), "the term in the line");
            Assert.Contains(term.Split(' ')[0], LineOf(b), StringComparison.OrdinalIgnoreCase);
            b.Until(() => ToCome(b) == before - removes, "what it said it removes");
            b.Click("Undo");
            b.Until(() => LineOf(b) == "light* AND moth* AND trap*", "the line as it was");
        }
        finally
        {
            b.Api($"{review}/decisions", new { act = "Clear", works = aside });
        }
    }

    /// <summary>How many kept works a line misses is recounted: all kept less those that it finds.</summary>
    [Fact]
    public void Words_of_kept_works_that_the_search_misses_find_some_of_them()
    {
        const string Narrow = "light AND moth* AND \"flower visit*\"";
        using var b = world.SignedIn();
        Searched(b, Narrow);
        var review = $"/api/reviews/{Regex.Match(b.Address, @"/r/(\d+)").Groups[1].Value}";
        int Missed(string line)
        {
            var kept = b.Api(
                $"{review}/steps",
                new { parentId = 0, act = new { kind = "Search", expression = $"({line}) AND stage:kept" } }
            );
            return Kept(b) - (int)b.Api($"{review}/steps/{kept["stepId"]}")["count"]!;
        }
        var missed = Missed(Narrow);
        Assert.True(missed > 0);
        b.Type("w");
        b.Find("aside[aria-label=Words] select").SendKeys("kept works that");
        b.Sees($"{missed} works, against all others");
        var list = "aside[aria-label=Words] ul[aria-label$=' terms']";
        b.Until(() => b.All($"{list} > li").Count > 1, "the words they use instead");
        // Two taken together.
        foreach (var row in b.All($"{list} > li").Take(2))
            row.FindElement(By.CssSelector("input[type=checkbox]")).Click();
        b.Click("Take 2 terms");
        b.Until(() => LineOf(b) != Narrow, "both in the line");
        var wider = LineOf(b);
        Assert.True(Missed(wider) < missed, $"“{wider}” misses as many");
    }

    [Fact]
    public void A_refused_term_goes_and_can_be_had_back()
    {
        using var b = world.SignedIn();
        Searched(b, "light AND moth* AND \"seed set\"");
        b.Type("w");
        b.Until(() => Rows(b, "Promising terms").Count > 0, "offered terms");
        var term = Term(Rows(b, "Promising terms")[0]);
        Rows(b, "Promising terms")[0].FindElement(By.XPath(".//button[.='refuse']")).Click();
        b.Until(() => Rows(b, "Promising terms").All(r => Term(r) != term), "the term to go");
        b.Click("1 refused term");
        b.Click("offer again");
        b.Until(() => Rows(b, "Promising terms").Any(r => Term(r) == term), "the term back");
    }

    [Fact]
    public void Misspelt_words_are_mended_together_with_one_click()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "artifical light pollnation");
        b.Until(
            () => b.TextOf("#line-reading").Contains("artificial light pollination", StringComparison.Ordinal),
            "the mended line"
        );
        var way = b.All("#line-reading button")
            .First(e => e.Text.StartsWith("artificial light pollination", StringComparison.Ordinal));
        var works = Number(way.FindElement(By.TagName("b")).Text);
        way.Click();
        b.Until(() => LineOf(b) == "artificial light pollination" && InView(b) == works, "its works");

        // A word alone may still be being written; once it is searched for, it is mended too.
        b.Click("new path");
        b.Fill(Line, "pollnation");
        b.Type(Keys.Enter);
        b.Until(
            () => b.TextOf("#line-reading").Contains("No work has “pollnation”. Near words:", StringComparison.Ordinal),
            "its near words"
        );
        b.All("#line-reading button").First(e => e.Text.StartsWith("pollination", StringComparison.Ordinal)).Click();
        b.Until(() => LineOf(b) == "pollination" && InView(b) > 0, "its works");
    }

    [Fact]
    public void Senses_are_pointed_out_and_one_is_dropped_as_a_step()
    {
        using var b = world.SignedIn();
        Searched(b, "exposure");
        var before = InView(b);
        b.Click("see the groups");
        b.Until(() => Rows(b, "Senses").Count > 1, "groups");
        var largest = Number(Rows(b, "Senses")[0].FindElement(By.TagName("b")).Text);
        var name = Rows(b, "Senses")[0].FindElement(By.CssSelector("h3 span")).Text;
        b.Until(
            () => b.All("[title='The group it is in']").Any(e => e.Text == name),
            "rows that say which group they are in"
        );
        Rows(b, "Senses")[0].FindElement(By.XPath(".//button[.='drop these']")).Click();
        b.Until(() => InView(b) == before - largest, "the rest");
        Assert.StartsWith("without " + name, Steps(b)[^1], StringComparison.Ordinal);
    }

    [Fact]
    public void The_words_that_a_set_uses_narrow_it_and_go_to_the_board()
    {
        using var b = UsedHere("moth*");
        IReadOnlyList<IWebElement> Used(string section) => b.All($"section[aria-label='{section}'] li");
        b.Until(() => Used("Terms by decade").Count > 10, "the words of the set");
        Assert.Contains(
            Used("Terms by decade"),
            r =>
                r.FindElement(By.TagName("svg"))
                    .GetAttribute("aria-label")!
                    .Contains("2010s: ", StringComparison.Ordinal)
        );
        Assert.NotEmpty(Used("Methods"));
        var row = Used("Terms by decade")[1];
        var (term, works) = (row.FindElement(By.TagName("button")).Text, Number(row.FindElement(By.TagName("b")).Text));

        // To the board: a concept of its own in the line.
        row.FindElement(By.XPath(".//button[.='take']")).Click();
        b.Click("new concept");
        b.Until(() => LineOf(b).Contains(term, StringComparison.Ordinal), "the term in the line");
        b.Click("Undo");
        b.Until(() => LineOf(b) == "moth*", "the line as it was");

        // Into the set: a step with the count that the row told, whose words are counted anew.
        Used("Terms by decade")[1].FindElement(By.TagName("button")).Click();
        b.Until(() => Path(b) is [_, var two] && two.Count == works, "a step with its count");
        b.Until(
            () =>
                Used("Terms by decade").Count > 0
                && b.TextOf("aside[aria-label=Words]").Contains($"{works} works in view", StringComparison.Ordinal),
            "its own words"
        );
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Older_and_newer_words_stand_among_those_of_the_search_by_their_years()
    {
        using var b = world.SignedIn();
        Searched(b, "\"sky brightness\"");
        b.Type("w");
        b.Until(() => b.All("ul[aria-label='Promising terms'] li").Count > 0, "offers");
        static bool IsAged(string said) =>
            said.Contains("an older word", StringComparison.Ordinal)
            || said.Contains("a newer word", StringComparison.Ordinal);
        var offered = b.All("aside[aria-label=Words] ul > li").Where(row => IsAged(row.Text)).Select(Term).ToHashSet();
        Assert.NotEmpty(offered);
        b.On("[aria-label='Order of the terms'] option[value=age]", e => e.Click());
        b.Until(() => b.All(ByYears).Count > 0, "the words by their years");
        var all = new HashSet<string>();
        foreach (var concept in b.All(ByYears))
        {
            var rows = concept.FindElements(By.XPath("./li"));
            // Each with its years, the one used first foremost.
            var from = rows.Select(row => Regex.Match(row.Text, @"· (\d{4})–\d{4}"))
                .Where(years => years.Success)
                .Select(years => Number(years.Groups[1].Value))
                .ToArray();
            Assert.Equal(from.Order(), from);
            var had = rows.Where(row => row.Text.Contains("in the search", StringComparison.Ordinal)).ToArray();
            Assert.NotEmpty(had);
            all.UnionWith(rows.Except(had).Select(Term));
        }
        Assert.Equal(offered, all);
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Every_keyword_leads_to_its_works_also_where_some_are_asked_for_already()
    {
        using var b = UsedHere("moth*");
        IReadOnlyList<IWebElement> Keywords() => b.All("section[aria-label=Keywords] li button");
        (string Keyword, int Works) Told(Func<string, bool> fits)
        {
            var row = b.All("section[aria-label=Keywords] li")
                .First(r => fits(r.FindElement(By.TagName("button")).Text));
            return (row.FindElement(By.TagName("button")).Text, Number(row.FindElement(By.TagName("b")).Text));
        }
        b.Until(() => Keywords().Count > 3, "keywords");
        var two = Keywords().Take(2).Select(k => k.Text).ToArray();
        var both = new
        {
            kind = "Narrow",
            facet = "Keyword",
            values = two,
        };
        var step = b.Api("/api/reviews/1/steps", new { parentId = b.Named("step"), act = both }).Int("stepId");
        b.Go($"/r/1/search?step={step}&words=used");
        b.Until(() => Keywords().Count > 3 && Path(b).Length == 2, "the keywords of both");
        // One of several takes the place of all.
        var first = Told(two.Contains);
        Assert.True(first.Works < InView(b));
        b.ClickInList($"section[aria-label=Keywords] li button[title='Only {first.Keyword}']");
        b.Until(() => Path(b) is [_, _, var one] && one.Count == first.Works, "a step with its count");
        // Now all works have it; another is required beside it.
        b.Until(() => Keywords().Any(k => k.Text == first.Keyword && !k.Enabled), "nothing to narrow to by it");
        var beside = Told(k => k != first.Keyword);
        Assert.True(beside.Works < first.Works);
        b.ClickInList($"section[aria-label=Keywords] li button[title='Only {beside.Keyword}']");
        b.Until(() => Path(b) is [_, _, _, var with] && with.Count == beside.Works, "a step with its count");
        b.Sees($"{first.Keyword}; with {beside.Keyword}");
        // In the chip it can be taken back.
        b.On($"button[title='{first.Keyword}; with {beside.Keyword}']", chip => chip.Click());
        b.Sees("required with the others");
        Assert.Empty(b.AxeFindings());
        b.All("ul[aria-label=Keyword] label")
            .First(l => l.Text.Contains("required with the others", StringComparison.Ordinal))
            .Click();
        b.All("[aria-label='Narrow by keyword'] button")[^1].Click();
        b.Until(() => Path(b) is [_, _, _, _, var less] && less.Count == first.Works, "the step without it");
        Assert.Empty(b.Complaints());
    }
}
