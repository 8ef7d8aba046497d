using System.Text.RegularExpressions;
using OpenQA.Selenium;
using Zendle.Tests.Shared;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>The line: what it says while one writes, what it offers, how it goes on.</summary>
public sealed class SearchLineTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    [Fact]
    public void A_slip_in_the_line_is_told_and_mended_and_the_last_good_list_stays()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        Search(b, "moth*");
        var before = InView(b);
        b.Fill("[aria-label='Search the databases']", "moth* AND (light");
        b.Sees("A parenthesis opens at 11 and never closes.");
        b.Type(Keys.Enter);
        b.Until(() => b.TextOf("[role=status]").Contains("never closes", StringComparison.Ordinal), "the refusal");
        Assert.Equal(before, InView(b));
        b.Click("close it at the end");
        b.Until(
            () => b.Find("[aria-label='Search the databases']").GetDomProperty("value") == "moth* AND (light)",
            "the repair"
        );
        b.Fill("[aria-label='Search the databases']", "titel:moth");
        b.Sees("The nearest is title");
        Search(b, "nosuchword*");
        b.Sees("No work matches all of this.");
        b.Click("Back to the previous step");
        b.Until(() => InView(b) == before, "the list as it was");
    }

    [Fact]
    public void A_line_that_finds_nothing_says_why_and_leads_on()
    {
        const string Line = "[aria-label='Search the databases']";
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "light AND xylomorphic AND moth*");
        b.Sees("“xylomorphic” is in no title, abstract or keyword.");
        b.Look("nothing");
        Assert.Empty(b.AxeFindings());
        var way = b.Control("without xylomorphic");
        var brings = Number(Regex.Match(way.Text, @"[\d,]+$").Value);
        Assert.True(brings > 0);
        way.Click();
        b.Until(() => InView(b) == brings, "as many works as the offer said");
        // Ways of writing from elsewhere are taken, and said.
        b.Fill(Line, "light -bird lamp(s) type:reviews");
        b.Sees("The minus at 7 is read as NOT.");
        b.Sees("“lamp(s)” at 13 is read as lamp or lamps.");
        b.Look("dialect");
        b.Fill(Line, "kw:moth");
        b.Sees("The nearest is keywords.");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_pasted_list_of_references_becomes_a_set()
    {
        using var b = world.SignedIn();
        // Two works of the list, one of them with a slip; and one that is nowhere. The path that others left may hold one.
        Searched(b, "light AND pollination");
        b.Until(() => b.All("article[data-work] h3").Count > 1, "two works");
        var titles = b.All("article[data-work] h3").Take(2).Select(h => h.Text).ToArray();
        b.Click("new path");
        b.Find(Line);
        b.Script(
            """
            const pasted = new DataTransfer();
            pasted.setData("text", arguments[0]);
            document.querySelector("[aria-label='Search the databases']")
              .dispatchEvent(new ClipboardEvent("paste", { clipboardData: pasted, bubbles: true, cancelable: true }));
            """,
            $"[1] {titles[0]}.\n[2] Nobody, X. (1871). {titles[1]}. Some Journal, 4, 10–20.\n"
                + "[3] Nobody, X. (1871). The migration of brass ornaments in provincial theatres. Curtains, 4, 10–20.\n"
        );
        b.Sees("no record resembles them");
        b.Look("pasted");
        Assert.Empty(b.AxeFindings());
        foreach (var title in titles)
            b.Script(
                """
                const entry = [...document.querySelectorAll("[role=dialog] label")].find(l => l.textContent.includes(arguments[0]));
                const box = entry.querySelector("input");
                if (!box.checked) box.click();
                """,
                title
            );
        b.Click("Show these 2 works");
        b.Until(() => Steps(b) is ["2 pasted references"], "the set");
        Assert.Equal(2, InView(b));
        Assert.Equal(titles.Order(), b.All("article[data-work] h3").Select(h => h.Text).Order());
        // One reference in the line is known for what it is.
        b.Click("new path");
        b.Fill(Line, $"Nobody, X. (1871). {titles[0]}. Some Journal, 4, 10–20.");
        b.Click("Find its work");
        b.Sees("choose the work each one means");
        b.Press(Keys.Escape);
        b.Sees("Paste a list");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_file_of_references_becomes_a_set_and_fills_the_entry_of_what_no_database_has()
    {
        using var b = world.SignedIn();
        b.NextWork();
        var title = b.TextOf("aside h2");
        var file = System.IO.Path.Combine(System.IO.Path.GetTempPath(), $"references-{Guid.NewGuid():N}.bib");
        // As a program of twenty years ago writes it: not in UTF-8.
        File.WriteAllBytes(
            file,
            System.Text.Encoding.Latin1.GetBytes(
                $"@misc{{a, title = {{{title}}}}}\n@techreport{{b, author = {{Nobody, Zoë}}, year = 1871,\n"
                    + "  title = {The migration of brass ornaments}, abstract = {Where they went, and why.}}\n"
            )
        );
        b.Click("new path");
        b.Click("Paste a list");
        b.On("[aria-label='File of references']", e => e.SendKeys(file));
        b.Sees("Nobody, Zoë (1871). The migration of brass ornaments.");
        Assert.Empty(b.AxeFindings());
        b.Click("Add it as a custom entry");
        b.Until(
            () => b.All("[role=dialog] textarea").Any(t => t.GetDomProperty("value") == "Where they went, and why."),
            "the abstract in the form"
        );
        b.Press(Keys.Escape);
        b.Until(() => b.All("[role=dialog]").Count == 1, "the form to close");
        b.On(
            "[role=dialog] section[aria-label='Found'] input, [role=dialog] section[aria-label='To confirm'] input",
            box =>
            {
                if (!box.Selected)
                    box.Click();
            }
        );
        b.Click("Show this work");
        b.Until(() => Steps(b) is ["1 pasted reference"], "the set");
        Assert.Equal(title, b.TextOf("article[data-work] h3"));
        Assert.Empty(b.Complaints());
        File.Delete(file);
    }

    [Fact]
    public void A_long_file_on_one_line_is_read_whole()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        var file = System.IO.Path.Combine(System.IO.Path.GetTempPath(), $"references-{Guid.NewGuid():N}.json");
        var items = Enumerable
            .Range(0, 300)
            .Select(i => $"{{\"title\":\"Brass ornaments, act {i}\",\"abstract\":\"{new string('a', 400)}\"}}");
        File.WriteAllText(file, $"[{string.Join(',', items)}]");
        b.Click("Paste a list");
        b.On("[aria-label='File of references']", e => e.SendKeys(file));
        b.Sees("Add all 300 as entries");
        Assert.Empty(b.Complaints());
        File.Delete(file);
    }

    [Fact]
    public void A_pasted_title_offers_its_work()
    {
        using var b = world.SignedIn();
        b.NextWork();
        var title = b.TextOf("aside h2");
        b.Click("new path");
        b.Fill("[aria-label='Search the databases']", title);
        b.Sees("One work has this title:");
    }

    [Fact]
    public void A_long_line_written_fast_keeps_every_letter()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        var line = string.Join(' ', Enumerable.Repeat("moths and the light of verges", 8));
        var field = b.Find("[aria-label='Search the databases']");
        field.SendKeys(line);
        Assert.Equal(line, field.GetDomProperty("value"));
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_line_goes_on_by_key_and_a_wide_truncation_shows_its_words()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "light AND mot");
        b.Until(
            () => b.All("#line-goes-on [role=option]").Any(o => o.Text.StartsWith("moths", StringComparison.Ordinal)),
            "ways on"
        );
        b.Type(Keys.ArrowDown);
        b.Until(() => b.All("#line-goes-on [aria-selected=true]").Count == 1, "the first way");
        var first = b.TextOf("#line-goes-on [aria-selected=true]").Split(' ', '\n')[0];
        b.Type(Keys.Enter);
        b.Until(() => LineOf(b) == $"light AND {first}", "the word in the line");
        Assert.Empty(Path(b)); // nothing was searched

        b.Fill(Line, "mot* AND light");
        b.Sees("mot* stands for");
        b.Click("see them all");
        b.Until(() => b.All("ul[aria-label=Words] label").Count >= 3, "the words");
        var out_ = b.All("ul[aria-label=Words] label").First(l => !l.Text.StartsWith("moth", StringComparison.Ordinal));
        out_.Click();
        b.Until(
            () => b.TextOf("[role=dialog] [role=status]").Contains("in place of", StringComparison.Ordinal),
            "the term written anew"
        );
        var without = b.TextOf("[role=dialog] [role=status] span");
        b.Click("Apply");
        b.Until(
            () => Path(b) is [var one] && one.Label.Contains(without, StringComparison.Ordinal),
            "the step with the term written anew"
        );
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Typing_never_waits_and_newer_words_give_up_what_older_ones_asked()
    {
        using var b = world.SignedIn();
        b.Before(
            """
            window.asked = [];
            const real = window.fetch;
            window.fetch = (request, more) => {
              if (request.url?.includes("/reading")) {
                const one = { givenUp: false };
                window.asked.push(one);
                request.signal?.addEventListener("abort", () => (one.givenUp = true));
              }
              return real(request, more);
            };
            """
        );
        b.Go("/r/1/search?step=0");
        b.On(Line, e => e.Click());
        b.Slow(TimeSpan.FromSeconds(1));
        const string Words = "moth* AND lamp*";
        b.TypeSlowly(Words, TimeSpan.FromMilliseconds(200));
        Assert.Equal(Words, LineOf(b)); // all letters stand there though no answer to the last ones can have come
        b.Until(
            () => b.TextOf("section[aria-label='Search line']").Contains(" work", StringComparison.Ordinal),
            "what the line would find"
        );
        Assert.True(
            (long)b.Script("return window.asked.filter(a => a.givenUp).length")! > 3,
            "older questions are given up"
        );
        var found = b.Api("/api/reviews/1/reading", new { text = Words, stepId = 0 }).Int("inView");
        b.Until(
            () =>
                b.Find("section[aria-label='Search line']")
                    .Text.Replace(",", "", StringComparison.Ordinal)
                    .Contains($"{found} work", StringComparison.Ordinal),
            $"{found} to come"
        );
    }

    [Fact]
    public void A_line_that_only_a_database_that_is_off_finds_is_one_click_from_it()
    {
        using var b = world.SignedIn();
        Searched(b, "moth*");
        if (b.All("section[aria-label=Board]").Count == 0)
            b.Type("b");
        IReadOnlyList<IWebElement> On() =>
            [.. b.All("section[aria-label=Board] table input[type=checkbox]").Where(c => c.Selected)];
        b.Until(() => On().Count > 1, "the databases");
        while (On() is [_, .., var last] on)
        {
            last.Click();
            b.Until(() => On().Count == on.Count - 1, "one database fewer");
        }
        Search(b, "moth* AND database:farnet");
        b.Until(() => InView(b) == 0, "nothing there");
        IWebElement Way() => b.All("button").First(w => w.Text.StartsWith("with Farnet", StringComparison.Ordinal));
        b.Until(() => Way().Displayed, "the database that has it");
        Assert.Contains("in the databases that are searched", b.Text, StringComparison.Ordinal);
        var works = Number(Way().Text.Split(' ')[^1]);
        Assert.True(works > 0);
        Way().Click();
        b.Until(() => InView(b) == works, "what it said it brings");
        Assert.Empty(b.Complaints());
    }
}
