using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>The way of a researcher from a question over trails to gathered, readable, citable texts.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class TrailsToTextsTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    private static string[] Steps(Browser b) =>
        [
            .. b.All("section[aria-label=Path] li")
                .Where(l => l.Text.Contains('\n'))
                .Select(l => l.Text.Split('\n')[0].Trim()),
        ];

    private static int Count(string text) =>
        int.Parse(text.Replace(",", "", StringComparison.Ordinal), System.Globalization.CultureInfo.InvariantCulture);

    private static void Search(Browser b, string line)
    {
        b.Fill("[aria-label='Search the databases']", line);
        b.Type(Keys.Enter);
        b.Until(() => Steps(b) is [var one] && one == line, "the step");
    }

    [Fact]
    public async Task From_a_question_over_trails_to_texts_read_and_cited()
    {
        using var b = world.SignedIn("/r/2/search?step=0");
        Search(b, "light AND (moth* OR insect*)");
        b.Click("by relevance");
        b.Click("cited");
        b.Until(() => b.Address.Contains("sort=Cited", StringComparison.Ordinal), "the most cited first");
        b.Until(
            () =>
            {
                var c = b.All("article b[title^='cited by']").Take(4).Select(e => Count(e.Text)).ToArray();
                return c.Length == 4 && c.SequenceEqual(c.OrderDescending()) && c[0] > 5;
            },
            "the order"
        );

        // 1. The forward trail of a work, by key: as many works as the pane said, narrowed like any set.
        b.NextWork();
        var cited = Count(Regex.Match(b.TextOf("aside figure"), @"([\d,]+) cites? it").Groups[1].Value);
        b.Press("]");
        b.Until(
            () =>
                b.Address.Contains("/trails?step=", StringComparison.Ordinal)
                && Steps(b) is [var s]
                && s.StartsWith("what cites ", StringComparison.Ordinal),
            "the forward trail"
        );
        b.Until(
            () => b.TextOf("section[aria-label=Narrow]").Contains($"{cited:N0} works", StringComparison.Ordinal),
            "as many works as cite it"
        );
        b.Click("Type");
        b.Until(
            () =>
            {
                b.On("ul[aria-label=Type] input[type=checkbox]", e => e.Click());
                return true;
            },
            "a type"
        );
        b.Click("Narrow");
        b.Until(() => Steps(b).Length == 2, "the type as a step");
        b.Until(() => b.All("article[data-work]").Count > 0, "the narrowed list");
        b.Press("j", "p");
        b.Sees("Kept 1 work.");
        b.Click("by all databases");
        Assert.Matches(
            @"reported by\s+ties\s+works\s+only here[\s\S]*Farnet",
            b.TextOf("[aria-label='Databases whose references count']")
        );
        b.Type(Keys.Escape);

        // The trail bar: a stretch chosen by keyboard becomes the set in view.
        b.Go("/r/2/search?sort=Cited");
        b.Find("article[data-work]");
        b.NextWork();
        b.On(
            "[aria-label='First year of the range']",
            e => e.SendKeys(string.Concat(Enumerable.Repeat(Keys.ArrowRight, 6)))
        );
        var open = "";
        b.Until(
            () =>
                (
                    open =
                        b.All("aside figure button")
                            .Select(e => e.Text)
                            .FirstOrDefault(t => t.StartsWith("Open ", StringComparison.Ordinal))
                        ?? ""
                ) != "",
            "what the stretch holds"
        );
        b.Click(open);
        b.Until(
            () => Steps(b).Length == 2 && b.Address.Contains("/trails", StringComparison.Ordinal),
            "the trail and its years"
        );
        Assert.Matches(@"^from \d{4}$|^\d{4}–\d{4}$", Steps(b)[1]);

        // 2. Several seeds: past, seeds, future; ties.
        b.Go("/r/2/search?sort=Cited");
        b.Find("article[data-work]");
        b.Press("j", " ", "j", " ", "j", " ");
        b.Sees("3 works picked");
        b.Click("Follow trails");
        b.Until(() => b.All("section[aria-label=Seeds] ol li").Count == 3, "three seeds");
        b.Sees("What they cite");
        b.Sees("What cites them");
        b.Until(() => b.All("section[aria-label='What cites them'] article").Count > 0, "what cites them");
        Assert.NotNull(b.Find("section[aria-label='What cites them'] [aria-label^='tied to seed']"));
        var two = "";
        b.Until(
            () =>
            {
                var level = b.All("[aria-label='Tied to at least'] button")
                    .Last(e => e.Text.Contains("tied to 2 or more", StringComparison.Ordinal));
                two = level.Text.Split('\n', ' ')[0];
                level.Click();
                return true;
            },
            "two or more"
        );
        b.Until(() => Steps(b)[^1] == "tied to 2 or more", "the ties as a step");
        b.Until(
            () =>
                b.All("h2").Any(h => h.Text == "What cites them")
                && b.TextOf("main").Contains(two, StringComparison.Ordinal),
            "as many as the bar said"
        );
        b.Press(Keys.ArrowRight, "j");
        b.Until(() => b.All("aside h2").Count == 1, "a work of the future in the pane");
        b.Type(Keys.Escape);
        b.Until(() => b.All("section[aria-label=Seeds] ol li").Count == 3, "back to the seeds");

        // 3. Gathering: free, manuscript, preprint, waiting, dead then repository, wrong, truncated, nowhere.
        b.Go("/r/2/search?step=0");
        Search(b, "light OR lamp* OR lighting");
        b.Click("Keep the first …");
        b.Fill("#first-n", "90");
        b.Click("Keep 90 works");
        // Some of them may have been kept on the way here.
        b.Until(() => Regex.IsMatch(b.Text, @"Kept (90|8\d) works"), "ninety kept");
        var chosen = await Choose(b);
        b.Press("g", "g");
        b.Sees("not yet sought");
        b.Click("Gather the ");
        // The job itself tells that it ran: on a slow day its bar may come and go between two looks.
        b.Until(
            () =>
                b.Api("/api/reviews/2/gather")["job"]?["endedAt"] is not null && b.All("[role=progressbar]").Count == 0,
            "the job's end"
        );
        var gathered = b.Api("/api/reviews/2/gather");
        foreach (var (what, (work, _, chain)) in chosen)
        {
            var row = b.Find($"li[data-work='{work}']").Text.ReplaceLineEndings(" ");
            Assert.True(Regex.IsMatch(row, chain), $"{what}: {row}");
        }
        Assert.True(gathered["inHand"]!.GetValue<int>() > 20 && gathered["needYou"]!.GetValue<int>() > 5);
        b.Reload();
        b.Click("failed again");
        // The job itself tells that it ran: on a slow day its bar may come and go between two looks.
        b.Until(
            () =>
                b.Api("/api/reviews/2/gather")["job"]?["endedAt"] is not null && b.All("[role=progressbar]").Count == 0,
            "the failed ones tried again"
        );

        // 4. A doubtful document is settled by one key; a dropped PDF finds its work.
        var doubtful = chosen["doubtful"].Work;
        b.Go($"/r/2/gather?work={doubtful}");
        b.Sees("Is this the work?");
        b.Find("aside canvas");
        b.Press("v");
        b.Sees("In hand, as another version.");
        b.Until(
            () => b.Find($"li[data-work='{doubtful}']").Text.Contains("decided by hand", StringComparison.Ordinal),
            "it in hand"
        );
        var file = Path.Combine(b.Downloads, "unnamed.pdf");
        using (var http = new HttpClient())
        {
            var path = chosen["truncated"].Path;
            await world.Behind(path, "fine");
            await File.WriteAllBytesAsync(
                file,
                await http.GetByteArrayAsync(new Uri(world.Outside.Address, path + "/text.pdf"))
            );
        }
        b.All("input[aria-label='Files to identify']")[0].SendKeys(file);
        b.Sees("Recognised: ");
        b.Until(
            () => b.Find($"li[data-work='{chosen["truncated"].Work}']").Text.Contains("read", StringComparison.Ordinal),
            "the brought text in hand"
        );

        // 5. Reading: outline, find with count, page and zoom in the address, the record beside it.
        b.Until(
            () =>
            {
                b.Find($"li[data-work='{chosen["manuscript"].Work}'] a").Click();
                return true;
            },
            "to read"
        );
        b.Until(() => b.All(".textLayer span").Count > 10, "the text");
        // What is selected and found lies where it is seen.
        Assert.Equal(
            true,
            b.Script(
                "const r = s => document.querySelector('.pdfViewer .page ' + s).getBoundingClientRect(), c = "
                    + "r('canvas'), t = r('.textLayer'); return Math.abs(c.width - t.width) < 1.5 && Math.abs(c.height "
                    + "- t.height) < 1.5 && Math.abs(c.x - t.x) < 1.5;"
            )
        );
        Assert.Contains(
            "accepted manuscript",
            b.TextOf("section[aria-label=Text]"),
            StringComparison.OrdinalIgnoreCase
        );
        b.Fill("[aria-label='Find in the text']", "study");
        b.Until(
            () =>
                Regex.IsMatch(b.TextOf("section[aria-label=Text] [role=status]"), @"^1 of \d+$")
                || b.TextOf("section[aria-label=Text] [role=status]") == "not found",
            "how often it stands there"
        );
        b.Fill("[aria-label='Find in the text']", "sites");
        b.Until(
            () => Regex.IsMatch(b.TextOf("section[aria-label=Text] [role=status]"), @"^\d+ of ([2-9]|\d\d+)$"),
            "how often the word stands there"
        );
        b.Until(
            () =>
            {
                b.All("nav[aria-label=Outline] button")
                    .First(e => e.Text.Contains("References", StringComparison.Ordinal))
                    .Click();
                return true;
            },
            "the references in the outline"
        );
        b.Until(
            () =>
                !b.Address.Contains("page=1&", StringComparison.Ordinal)
                && b.Address.Contains("page=", StringComparison.Ordinal),
            "the page in the address"
        );
        var there = b.Find("#page").GetDomProperty("value");
        b.Reload();
        b.Until(
            () => b.Find("#page").GetDomProperty("value") == there && b.All(".textLayer span").Count > 5,
            "the same page again"
        );
        Assert.Contains("it cites", b.TextOf("aside"), StringComparison.Ordinal);
        Assert.NotEmpty(
            (string)
                b.Script(
                    "const r = document.createRange(); r.selectNodeContents(document.querySelector('.textLayer "
                        + "span')); getSelection().removeAllRanges(); getSelection().addRange(r); return "
                        + "getSelection().toString()"
                )!
        );

        // 6. Citing: a style found by name, copied; a set as a bibliography.
        b.Allow("clipboardReadWrite");
        b.Press("c");
        b.Find("ol[aria-label=References] .csl-entry");
        var own = b.TextOf("ol[aria-label=References]");
        b.Fill("#style", "journal ecol");
        b.Until(
            () => b.All("#styles li") is [var top, ..] && top.Text.Contains("Ecology", StringComparison.Ordinal),
            "styles of that name"
        );
        b.Until(
            () =>
            {
                b.All("#styles li")[0].Click();
                return true;
            },
            "the first"
        );
        b.Until(() => b.TextOf("ol[aria-label=References]") is { Length: > 20 } t && t != own, "the other style");
        b.Click("Copy it");
        b.Sees("The reference is copied.");
        var shown = b.TextOf("ol[aria-label=References] .references").Trim();
        Assert.Equal(Plain(shown), Plain((string)b.Script("return navigator.clipboard.readText()")!));

        // 7. The report counts what was sought, got, and not got by reason.
        b.Go("/r/2/report");
        b.Sees("Full texts");
        var account = b.Api("/api/reviews/2/report/texts");
        b.Until(
            () => b.TextOf("section[aria-label='Full texts']").Contains("a price is asked", StringComparison.Ordinal),
            "the reasons"
        );
        var numbers = b.TextOf("section[aria-label='Full texts']").ReplaceLineEndings(" ");
        Assert.Matches(
            $@"{account["sought"]} sought .*{account["got"]} retrieved .*{account["notGot"]} not retrieved",
            numbers
        );
        Assert.Empty(b.Complaints());
    }

    /// <summary>What gathering can meet, as the chain says it.</summary>
    private static readonly string[] Turns =
    [
        @"publisher: \d+ pages received",
        @"publisher: \d+ EUR asked -> repository: \d+ pages received",
        @"publisher: \d+ EUR asked -> preprint: \d+ pages received",
        @"publisher: asked to wait \d+ s, then \d+ pages received",
        @"publisher: dead link -> repository: \d+ pages received",
        "publisher: another work, refused",
        "publisher: cut off, refused",
        "publisher: is it this work",
        @"publisher: \d+ EUR asked",
    ];

    [Fact]
    public void Texts_in_hand_are_named_as_one_likes_and_fetched_as_one_archive()
    {
        using var b = world.SignedIn("/r/1/search");
        SearchScreen.Searched(b, "stage:kept");
        var kept = SearchScreen.InView(b);
        SearchScreen.Choose(b, () => b.Control("Export"), "Texts in hand");
        b.Sees("have no text in hand");
        var withText = SearchScreen.Number(Regex.Match(b.Text, @"texts? of ([\d,]+) works?,").Groups[1].Value);
        b.Sees($"{kept - withText} works of this set have no text in hand");
        b.Fill("[role=dialog] input", "{year} {persn}");
        b.Sees("“{persn}” is not a part of a file name");
        b.Fill("[role=dialog] input", "{year} {person}");
        b.Until(
            () =>
                b.All("[aria-label='How files are named'] li") is [var first, ..]
                && Regex.IsMatch(first.Text, @"^\d{4} \S.*\.pdf$"),
            "names by year and person"
        );
        Assert.Empty(b.AxeFindings());
        b.Click("Fetch the archive");
        var archive = "";
        b.Until(
            () => Directory.GetFiles(b.Downloads, "*.zip") is [var one] && (archive = one).Length > 0,
            "the archive"
        );
        using var zip = System.IO.Compression.ZipFile.OpenRead(archive);
        Assert.True(zip.Entries.Count > withText);
        Assert.Equal("manifest.csv", zip.Entries[^1].FullName);
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void In_the_demo_fourteen_texts_are_in_hand_three_are_stuck_and_the_rest_meets_every_turn()
    {
        using var b = world.SignedIn("/r/1/gather");
        b.Sees("not yet sought");
        var before = b.Api("/api/reviews/1/gather");
        Assert.Equal(
            (14, 3, 0),
            (
                before["inHand"]!.GetValue<int>(),
                before["needYou"]!.GetValue<int>(),
                before["onTheirWay"]!.GetValue<int>()
            )
        );
        b.Click("Gather the ");
        b.Until(
            () =>
                b.Api("/api/reviews/1/gather") is var g
                && g["notSought"]!.GetValue<int>() == 0
                && g["onTheirWay"]!.GetValue<int>() == 0,
            "all of them tried"
        );
        string[] chains =
        [
            .. b.Api("/api/reviews/1/gather")["works"]!
                .AsArray()
                .Select(w =>
                    string.Join(" -> ", w!["attempts"]!.AsArray().Select(a => $"{a!["route"]}: {a["brief"]}"))
                ),
        ];
        Assert.All(Turns, turn => Assert.Contains(chains, chain => Regex.IsMatch(chain, $"^{turn}")));
    }

    private static string Plain(string text) => Regex.Replace(text, @"\s+", " ").Trim();

    /// <summary>Chooses kept works by the copies they have, and sets what lies behind them.</summary>
    private async Task<Dictionary<string, (int Work, string Path, string Chain)>> Choose(Browser b)
    {
        var works = b.Api("/api/reviews/2/gather")["works"]!
            .AsArray()
            .Select(w => w!["workId"]!.GetValue<int>())
            .Select(id =>
                (
                    Id: id,
                    Copies: b.Api($"/api/reviews/2/works/{id}")["copies"]!
                        .AsArray()
                        .Select(c =>
                            (
                                Path: new Uri(c!["address"]!.GetValue<string>()).AbsolutePath,
                                Free: c["access"]!.GetValue<string>() == "free",
                                Version: (string?)c["version"]
                            )
                        )
                        .ToArray()
                )
            )
            // What is held back is tested by itself.
            .Where(w => w.Copies.All(c => !c.Path.StartsWith("/fallowmere/", StringComparison.Ordinal)))
            .ToList();
        var chosen = new Dictionary<string, (int, string, string)>();

        async Task Take(
            string what,
            string chain,
            Func<(string Path, bool Free, string? Version)[], bool> fits,
            params (string? Version, string Kind)[] kinds
        )
        {
            var found = works.First(w => fits(w.Copies));
            works.Remove(found);
            foreach (var (version, kind) in kinds)
                await world.Behind(found.Copies.First(c => c.Version == version).Path, kind);
            chosen[what] = (found.Id, found.Copies[0].Path, chain);
        }

        const string Record = "version of record",
            Manuscript = "accepted manuscript",
            Preprint = "submitted manuscript";
        bool Only((string Path, bool Free, string? Version)[] c, bool free, params string[] versions) =>
            c.Select(x => x.Version).Order().SequenceEqual(versions.Order())
            && c.First(x => x.Version == Record).Free == free;
        await Take(
            "dead",
            "publisher: dead link .*repository: \\d+ pages received",
            c => Only(c, true, Record, Manuscript),
            (Record, "dead"),
            (Manuscript, "fine")
        );
        await Take(
            "manuscript",
            @"publisher: \d+ EUR asked .*repository: \d+ pages received .*accepted manuscript",
            c => Only(c, false, Record, Manuscript),
            (Record, "fine"),
            (Manuscript, "fine")
        );
        await Take(
            "preprint",
            @"publisher: \d+ EUR asked .*preprint: \d+ pages received",
            c => Only(c, false, Record, Preprint),
            (Record, "fine"),
            (Preprint, "fine")
        );
        await Take(
            "free",
            @"publisher: \d+ pages received .*version of record .*all checks agree",
            c => Only(c, true, Record),
            (Record, "fine")
        );
        await Take(
            "wait",
            @"publisher: asked to wait \d+ s, then \d+ pages received",
            c => Only(c, true, Record),
            (Record, "wait")
        );
        await Take(
            "wrong",
            "publisher: another work, refused .*add the file yourself",
            c => Only(c, true, Record),
            (Record, "wrong")
        );
        await Take(
            "truncated",
            "publisher: cut off, refused .*add the file yourself",
            c => Only(c, true, Record),
            (Record, "truncated")
        );
        await Take(
            "doubtful",
            "publisher: is it this work.*look side by side",
            c => Only(c, true, Record),
            (Record, "other-title")
        );
        await Take(
            "nowhere",
            @"publisher: \d+ EUR asked .*no free copy found",
            c => Only(c, false, Record),
            (Record, "fine")
        );
        return chosen;
    }
}
