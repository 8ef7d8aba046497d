using System.Text;
using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>Texts that are no PDFs are read like any other; files are added by hand; addresses are given.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class GatherByHandTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    /// <summary>Kept works of the demo's review without a text that have a free copy at a publisher, with its path.</summary>
    private static IEnumerable<(int Work, string Path)> Free(Browser b)
    {
        foreach (var row in b.Api("/api/reviews/1/gather")["works"]!.AsArray().Select(w => w!))
        {
            if (row["state"]!.GetValue<string>() is not ("NotSought" or "NotFound"))
                continue;
            var work = row["workId"]!.GetValue<int>();
            var copy = b.Api($"/api/reviews/1/works/{work}?stepId=0")["copies"]!
                .AsArray()
                .Select(c => c!)
                .FirstOrDefault(c =>
                    c["access"]?.GetValue<string>() == "free"
                    && c["address"]!.GetValue<string>().Contains("/publisher/", StringComparison.Ordinal)
                );
            if (copy is not null)
                yield return (work, new Uri(copy["address"]!.GetValue<string>()).AbsolutePath);
        }
    }

    [Fact]
    public void An_address_opens_the_list_at_the_work_it_names()
    {
        using var b = world.SignedIn();
        var works = b.Api("/api/reviews/1/gather")["works"]!.AsArray();
        Assert.True(works.Count > 40, $"{works.Count} works");
        foreach (var at in new[] { works.Count - 1, works.Count / 2, 0 })
        {
            var work = works[at]!["workId"]!.GetValue<int>();
            b.Go($"/r/1/gather?work={work}");
            b.Until(
                () =>
                    b.Script(
                        $"const r = document.querySelector('li[data-work=\"{work}\"]')?.getBoundingClientRect();"
                            + "const l = document.querySelector('section[aria-label=Texts]')?.getBoundingClientRect();"
                            + "return r && l && r.height > 0 && r.top >= l.top && r.bottom <= l.bottom"
                    )
                        is true,
                $"row {at} in view"
            );
            Assert.Equal("true", b.Find($"li[data-work='{work}']").GetAttribute("aria-current"));
        }
    }

    [Fact]
    public async Task A_web_page_is_gathered_and_read_with_outline_figure_and_search()
    {
        using var b = world.SignedIn("/r/1/gather");
        b.Sees("in hand");
        var (work, path) = Free(b).First();
        await world.Behind(path, "page");
        b.Go($"/r/1/gather?work={work}");
        b.On(
            "aside[aria-label=Text]",
            e => e.FindElements(By.TagName("button")).First(x => x.Text is "Gather this one" or "Try again").Click()
        );
        b.Until(
            () => b.Find($"li[data-work='{work}']").Text.Contains("web page", StringComparison.Ordinal),
            "the page in hand"
        );
        b.ClickInList($"li[data-work='{work}'] a");
        b.Until(() => b.All(".article h2").Count > 4, "the article");
        Assert.Equal(
            ["Abstract", "Introduction", "Methods", "Results", "Discussion"],
            b.All("nav[aria-label=Outline] button").Take(5).Select(o => o.Text)
        );
        Assert.Empty(b.AxeFindings());
        b.Until(
            () =>
                b.Script(
                    "const i = document.querySelector('.article img'); i?.scrollIntoView(); return i?.naturalWidth > 100"
                )
                    is true,
            "the figure"
        );
        b.All("nav[aria-label=Outline] button").First(o => o.Text == "Results").Click();
        b.Until(
            () =>
                b.Script(
                    "const h = [...document.querySelectorAll('.article h2')].find(h => h.innerText == 'Results')"
                        + ".getBoundingClientRect(); return h.top > 0 && h.top < 200"
                )
                    is true,
            "the results in view"
        );
        b.Type("/");
        b.Fill("[aria-label='Find in the text']", "counts");
        b.Until(
            () => Regex.IsMatch(b.TextOf("[role=search] [role=status]"), @"^1 of \d+$"),
            "how often it stands there"
        );
        b.Type(Keys.Enter);
        b.Until(
            () => b.TextOf("[role=search] [role=status]").StartsWith("2 of", StringComparison.Ordinal),
            "the second"
        );
        // A citation leads to its entry.
        b.Script("document.querySelector('.article a[href^=\"#\"]').click()");
        b.Until(
            () =>
                b.Script(
                    "const h = [...document.querySelectorAll('.article h2')].find(h => h.innerText == 'References')"
                        + ".getBoundingClientRect(); return h.top < innerHeight"
                )
                    is true,
            "the entry in view"
        );
        Assert.Contains($"/read/", b.Address, StringComparison.Ordinal);
        // What was read goes to the end of the list, and what is cited by most kept works is next.
        b.Click("Mark as read");
        b.Until(
            () => b.All("section[aria-label=Text] button[aria-pressed=true]").Any(x => x.Text == "Read"),
            "it marked"
        );
        b.Go("/r/1/read");
        b.Until(() => b.All($"section[aria-label=Read] [data-reading='{work}']").Count == 1, "it among the read");
        var next = b.All("section[aria-label='To read next'] li")
            .Select(l => Regex.Match(l.Text, @"cited by (\d+) kept"))
            .Select(m =>
                m.Success ? int.Parse(m.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture) : 0
            )
            .ToArray();
        Assert.True(next.Length > 5);
        Assert.Equal(next.OrderDescending(), next);
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public async Task Many_files_are_brought_at_once_and_each_says_what_became_of_it()
    {
        using var b = world.SignedIn("/r/1/gather");
        b.Sees("in hand");
        var (work, path) = Free(b).Last();
        await world.Behind(path, "jats");
        using var http = new HttpClient();
        string File(string name, byte[] bytes)
        {
            var file = System.IO.Path.Combine(b.Downloads, name);
            System.IO.File.WriteAllBytes(file, bytes);
            return file;
        }
        var known = File("a.xml", await http.GetByteArrayAsync(new Uri(world.Outside.Address, path + "/text.xml")));
        var unknown = File(
            "owls.html",
            Encoding.UTF8.GetBytes(
                "<html><body><h1>Counting owls by lamplight in Quenby</h1><p>Una Quist</p><h2>Counts</h2><p>"
                    + string.Concat(Enumerable.Repeat("We counted owls by the light of a lamp. ", 40))
                    + "</p></body></html>"
            )
        );
        var broken = File("c.pdf", "%PDF-1.4 cut"u8.ToArray());
        b.All("input[aria-label='Files to identify']")[0].SendKeys($"{known}\n{unknown}\n{broken}");
        b.Until(() => b.All("[data-file=done]").Count == 2 && b.All("[data-file=refused]").Count == 1, "all three");
        Assert.Contains("Recognised: ", b.TextOf("[aria-label=Files]"), StringComparison.Ordinal);
        Assert.Contains("cut off or damaged", b.TextOf("[aria-label=Files]"), StringComparison.Ordinal);
        Assert.Empty(b.AxeFindings());
        b.Until(
            () => b.Find($"li[data-work='{work}']").Text.Contains("JATS XML", StringComparison.Ordinal),
            "the known one in hand"
        );
        // What no work fits becomes one, with what was read off the file.
        b.Click("Add its work …");
        b.Until(
            () => b.Find("[role=dialog] input").GetDomProperty("value") == "Counting owls by lamplight in Quenby",
            "its title"
        );
        b.Click("Add this entry");
        b.Until(
            () =>
                b.All("[data-file=done]").Count == 2
                && b.TextOf("[aria-label=Files]").Split("Recognised: ").Length
                    + b.TextOf("[aria-label=Files]").Split("Look at it: ").Length
                    >= 4,
            "it taken for its new work"
        );
        b.Click("Close");
        b.Until(() => b.All("[aria-label='Files you added']").Count == 0, "the list closed");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public async Task An_address_is_given_where_no_route_leads_and_references_are_gathered_in_one_act()
    {
        using var b = world.SignedIn("/r/1/gather");
        b.Sees("in hand");
        var (work, path) = Free(b).Skip(2).First();
        await world.Behind(path, "fine");
        b.Go($"/r/1/gather?work={work}");
        b.Fill("aside[aria-label=Text] input[inputmode=url]", "ftp://nowhere");
        b.Click("Try it");
        b.Sees("This is not the address of a page or a file.");
        b.Fill(
            "aside[aria-label=Text] input[inputmode=url]",
            new Uri(world.Outside.Address, path + "/text.html").AbsoluteUri
        );
        b.Click("Try it");
        b.Until(
            () => b.Find($"li[data-work='{work}']").Text.Contains("web page", StringComparison.Ordinal),
            "the page in hand"
        );
        b.Sees("address given");
        b.Click("Hosts");
        b.Until(() => b.All("[data-host]").Count > 0, "the hosts");
        Assert.Contains("no rules", b.TextOf("[data-host]"), StringComparison.Ordinal);
        Assert.Empty(b.AxeFindings());
        b.Type(Keys.Escape);
        b.Until(() => b.All("[data-host]").Count == 0, "the sheet closed");

        b.ClickInList($"li[data-work='{work}'] a");
        b.Until(() => b.All(".article h2").Count > 4, "the article");
        b.On("aside", e => e.FindElements(By.TagName("button")).First(x => x.Text == "References").Click());
        b.Until(() => b.All("[role=dialog] li").Count > 2, "its references");
        var gather = b.All("[role=dialog] button")
            .First(x => x.Text.StartsWith("Gather the texts of these", StringComparison.Ordinal));
        var works = int.Parse(
            Regex.Match(gather.Text, @"\d+").Value,
            System.Globalization.CultureInfo.InvariantCulture
        );
        var before = b.Api("/api/reviews/1/gather")["works"]!.AsArray().Count;
        gather.Click();
        b.Until(() => b.TextOf("body").Contains("Seeking the ", StringComparison.Ordinal), "them sought");
        Assert.InRange(b.Api("/api/reviews/1/gather")["works"]!.AsArray().Count, before, before + works);
        Assert.Empty(b.Complaints());
    }
}
