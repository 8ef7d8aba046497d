using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Core.Records;
using Zendle.Store.Corpus;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class SearchTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private async Task<JsonNode> Read(int review, string text, int step = 0) =>
        await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text, stepId = step });

    private async Task<(string Label, int Count, bool Ahead)[]> Path(int review, int step) =>
        [
            .. (await Ann.Get($"/api/reviews/{review}/steps/{step}/path"))
                .List("steps")
                .Select(s => (s.Text("label"), s.Int("countNow"), s["ahead"]!.GetValue<bool>())),
        ];

    [Fact]
    public async Task Values_that_are_required_are_each_on_every_work_and_one_of_the_others_too()
    {
        var review = await Ann.Review();
        var moths = await Ann.Search(review, "moth* OR light");
        var names = (await Ann.Get($"/api/reviews/{review}/steps/{moths}/facets/Keyword"))
            .List("shown")
            .Take(4)
            .Select(v => v.Text("value"))
            .ToArray();
        async Task<HashSet<int>> With(string[] values, string[] each, params string[] excluded) =>
            await Ann.AllWorks(
                review,
                await Ann.Step(
                    review,
                    moths,
                    new
                    {
                        kind = "Narrow",
                        facet = "Keyword",
                        values,
                        each,
                        excluded,
                    }
                )
            );
        var by = new List<HashSet<int>>();
        foreach (var name in names)
            by.Add(await With([name], []));
        Assert.Equal(by[0].Intersect(by[1]).Order(), (await With([names[0]], [names[1]])).Order());
        Assert.Equal(by[0].Intersect(by[1]).Order(), (await With([], [names[0], names[1]])).Order());
        Assert.Equal(
            by[0].Union(by[1]).Intersect(by[2]).Except(by[3]).Order(),
            (await With([names[0], names[1]], [names[2]], names[3])).Order()
        );
        // What is required is told as chosen, and the state and its run say it.
        var step = await Ann.Step(
            review,
            moths,
            new
            {
                kind = "Narrow",
                facet = "Keyword",
                values = names[..1],
                each = names[1..2],
            }
        );
        var chosen = (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/Keyword"))
            .List("shown")
            .Where(v => v["chosen"]!.GetValue<bool>())
            .Select(v => v.Text("value"));
        Assert.Equal(names[..2].Order(), chosen.Order());
        Assert.Equal($"{names[0]}; with {names[1]}", (await Path(review, step))[^1].Label);
    }

    [Fact]
    public async Task The_ledger_adds_up()
    {
        var review = await Ann.Review();
        var view = await Ann.Get($"/api/reviews/{review}/steps/{await Ann.Search(review, "moth*")}");
        var ledger = view["ledger"]!;
        var lines = ledger.List("databases").ToArray();
        Assert.Equal(["Farnet", "Meridian Citations"], lines.Select(l => l.Text("name")));
        Assert.Equal(ledger.Int("records"), lines.Sum(l => l.Int("records")));
        Assert.Equal(ledger.Int("duplicates"), ledger.Int("records") - ledger.Int("works"));
        // With two databases: all works = those of one + those only in the other.
        Assert.Equal(ledger.Int("works"), lines[0].Int("works") + lines[1].Int("onlyHere"));
        Assert.Equal(view.Int("count"), ledger.Int("works"));
        Assert.True(view.Int("count") > 50);
        Assert.Equal(view.Int("count"), view.List("years").Sum(y => y.Int("inView")));
    }

    [Fact]
    public async Task What_was_chosen_in_a_field_stays_to_be_taken_back_when_nothing_has_it_any_more()
    {
        var review = await Ann.Review();
        var all = await Ann.Search(review, "moth*");
        async Task<JsonNode[]> Shown(int step, string facet) =>
            [.. (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/{facet}")).List("shown")];
        var rare = (await Shown(all, "Type")).Last();
        var narrowed = await Ann.Step(
            review,
            all,
            new
            {
                kind = "Narrow",
                facet = "Type",
                values = new[] { rare.Text("value"), "no such type" },
            }
        );
        Assert.Equal(rare.Int("count"), await Ann.Count(review, narrowed));
        // The field is counted as if it were not narrowed itself; what was chosen stands first, though nothing has it.
        var shown = await Shown(narrowed, "Type");
        Assert.Equal(
            [(rare.Text("value"), rare.Int("count")), ("no such type", 0)],
            shown.Take(2).Select(v => (v.Text("value"), v.Int("count")))
        );
        Assert.All(shown.Take(2), v => Assert.True(v["chosen"]!.GetValue<bool>()));
        Assert.All(shown.Skip(2), v => Assert.True(v.Int("count") > 0));
        var nothing = await Ann.Step(
            review,
            narrowed,
            new
            {
                kind = "Years",
                from = 1700,
                to = 1701,
            }
        );
        Assert.Equal(0, await Ann.Count(review, nothing));
        Assert.Equal([0, 0], (await Shown(nothing, "Type")).Select(v => v.Int("count")));
    }

    [Fact]
    public async Task What_a_database_is_said_to_hold_is_what_its_records_have()
    {
        var listed = (await Ann.Get("/api/databases")).List("databases").ToArray();
        Assert.Equal(2, listed.Length);
        var reader = world.Host.Services.GetRequiredService<CorpusReader>();
        var stored = await reader.All(long.MaxValue, CancellationToken.None).ToArrayAsync();
        foreach (var database in listed)
        {
            var records = stored
                .Where(r => r.DatabaseId == database.Int("id"))
                .Select(r => (Record: r.Record(), HasReferences: r.ReferenceKeys.Length > 0))
                .ToArray();
            Assert.True(records.Length > 100);
            Assert.Equal(
                (
                    records.Length,
                    records.Count(r => r.Record.Abstract.Length > 0),
                    records.Count(r => r.Record.Keywords.Count > 0),
                    records.Count(r => r.HasReferences)
                ),
                (
                    database.Int("records"),
                    database.Int("withAbstract"),
                    database.Int("withKeywords"),
                    database.Int("withReferences")
                )
            );
            Assert.Equal(
                records.CountBy(r => DocumentTypes.Name(r.Record.Type)).OrderBy(t => t.Key, StringComparer.Ordinal),
                database
                    .List("types")
                    .Select(t => KeyValuePair.Create(t.Text("value"), t.Int("count")))
                    .OrderBy(t => t.Key, StringComparer.Ordinal)
            );
            Assert.Equal(
                records.Where(r => r.Record.Year is not null).CountBy(r => r.Record.Year!.Value).OrderBy(y => y.Key),
                database.List("years").Select(y => KeyValuePair.Create(y.Int("year"), y.Int("count")))
            );
        }
    }

    [Fact]
    public async Task Three_counts_stand_beside_loose_words_and_each_is_what_its_search_finds()
    {
        var review = await Ann.Review();
        var reading = await Read(review, "street lighting moths");
        var ways = reading.List("notices").Single(n => n.Text("kind") == "LooseWords")["ways"]!
            .AsArray()
            .Select(w => (Label: w!.Text("label"), Text: w!.Text("text"), Count: w!.Int("count")))
            .ToArray();
        Assert.Equal(["all words", "near", "phrase"], ways.Select(w => w.Label));
        Assert.True(ways[0].Count >= ways[1].Count && ways[1].Count >= ways[2].Count);
        foreach (var way in ways)
            Assert.Equal(way.Count, await Ann.Count(review, await Ann.Search(review, way.Text)));
    }

    [Fact]
    public async Task Other_spellings_are_offered_with_what_they_add_and_never_added_silently()
    {
        var review = await Ann.Review();
        var alone = await Ann.Count(review, await Ann.Search(review, "moth"));
        var offer = (await Read(review, "moth")).List("notices").Single(n => n.Text("kind") == "Variants")[
            "ways"
        ]!.AsArray()[0]!;
        Assert.Equal(("moths", "(moth OR moths)"), (offer.Text("label"), offer.Text("text")));
        Assert.Equal(await Ann.Count(review, await Ann.Search(review, offer.Text("text"))) - alone, offer.Int("count"));
    }

    [Fact]
    public async Task A_search_says_how_many_kept_works_it_misses()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        var moths = new HashSet<int>();
        for (var offset = 0; offset < await Ann.Count(review, step); offset += 200)
            moths.UnionWith(await Ann.Works(review, step, $"offset={offset}&limit=200"));
        var others = (await Ann.Works(review, await Ann.Search(review, "particles OR panels"), "limit=200"))
            .Where(w => !moths.Contains(w))
            .Take(3)
            .ToArray();
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = others });
        Assert.Equal(3, others.Length);
        Assert.Equal(3, (await Ann.Get($"/api/reviews/{review}/steps/{step}")).Int("keptMissed"));
    }

    [Fact]
    public async Task What_only_a_term_brings_in_is_what_is_lost_without_it()
    {
        var review = await Ann.Review();
        var reading = await Read(review, "moth* AND (pollinat* OR \"seed set\")");
        var whole = reading.Int("inView");
        var part = reading.List("parts").Single(p => p.Text("text") == "\"seed set\"");
        Assert.Equal("C", (await Read(review, "a AND b AND c")).List("parts").Last().Text("concept"));
        Assert.Equal(
            whole - await Ann.Count(review, await Ann.Search(review, "moth* AND pollinat*")),
            part.Int("onlyIt")
        );
    }

    [Fact]
    public async Task A_title_or_a_doi_offers_that_work_first()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        var id = (await Ann.Works(review, step))[0];
        var work = await Ann.Get($"/api/reviews/{review}/works/{id}?stepId={step}");
        var byTitle = (await Read(review, work["title"]!.Text("text").ToUpperInvariant() + "?"))
            .List("direct")
            .ToArray();
        Assert.Contains(byTitle, d => d.Int("workId") == id && d.Text("why") == "has this title");
        var withDoi = 0;
        foreach (var other in (await Ann.Works(review, step)).Take(20))
        {
            if ((await Ann.Get($"/api/reviews/{review}/works/{other}"))["doi"]?.GetValue<string>() is not { } doi)
                continue;
            withDoi++;
            Assert.Equal(
                [other],
                (await Read(review, "https://doi.org/" + doi.ToUpperInvariant()))
                    .List("direct")
                    .Select(d => d.Int("workId"))
            );
            Assert.Equal([other], await Ann.Works(review, await Ann.Search(review, doi)));
        }
        Assert.True(withDoi > 3);
    }

    [Fact]
    public async Task A_line_that_is_an_identifier_or_an_address_leads_to_its_works()
    {
        var review = await Ann.Review();
        var seen = new HashSet<string>();
        foreach (var id in await Ann.Works(review, await Ann.Search(review, "light OR moth* OR night")))
        {
            var work = await Ann.Get($"/api/reviews/{review}/works/{id}");
            var address = work.List("copies").FirstOrDefault()?.Text("address");
            foreach (
                var (kind, line) in new[]
                {
                    ("url", address),
                    ("isbn", work["isbn"]?.GetValue<string>()),
                    ("issn", work["issn"]?.GetValue<string>()),
                }
            )
            {
                if (line is null || !seen.Add(kind))
                    continue;
                var found = await Ann.Works(review, await Ann.Search(review, line));
                Assert.Contains(id, found);
                var reading = await Read(review, line);
                Assert.Equal(found.Length, Math.Min(200, reading.Int("inView")));
                if (kind == "issn")
                {
                    var way = reading.List("notices").Single().List("ways").Single();
                    Assert.Equal(await Ann.Count(review, await Ann.Search(review, way.Text("text"))), way.Int("count"));
                }
                else
                    Assert.Contains(id, reading.List("direct").Select(d => d.Int("workId")));
            }
        }
        Assert.Superset(new HashSet<string> { "url", "issn" }, seen);
        foreach (
            var (line, sentence) in new[]
            {
                ("10.5555/nobody.has.this", "This is a DOI. No work here has it."),
                ("978-0-306-40615-7", "This is an ISBN. No work here has it."),
                ("https://nowhere.example/item/1", "This is a web address. No work here has it."),
                (
                    "https://orcid.org/0000-0001-2345-6789",
                    "This is the ORCID iD of a person. Works are found by the person’s name."
                ),
            }
        )
        {
            var notice = (await Read(review, line)).List("notices").Single();
            Assert.Equal(("Identifier", sentence), (notice.Text("kind"), notice.Text("sentence")));
            Assert.Empty(notice.List("ways"));
        }
        // Pasted, an address is found too.
        var one = (
            await Ann.Get(
                $"/api/reviews/{review}/works/{(await Ann.Works(review, await Ann.Search(review, "moth*")))[0]}"
            )
        );
        if (one.List("copies").FirstOrDefault() is { } copy)
        {
            var pasted = await Ann.Ok(
                "POST",
                $"/api/reviews/{review}/pasted",
                new { lines = new[] { copy.Text("address") } }
            );
            Assert.Contains(
                one.Int("id"),
                pasted.List("references").Single().List("candidates").Select(c => c.Int("workId"))
            );
        }
    }

    [Fact]
    public async Task Each_act_is_a_step_and_a_step_in_the_middle_can_be_taken_out()
    {
        var review = await Ann.Review();
        var light = await Ann.Search(review, "light");
        var moth = await Ann.Step(review, light, new { kind = "Search", expression = "light AND moth*" });
        var years = await Ann.Step(
            review,
            moth,
            new
            {
                kind = "Years",
                from = 2005,
                to = 2026,
            }
        );
        var type = await Ann.Step(
            review,
            years,
            new
            {
                kind = "Narrow",
                facet = "Type",
                values = new[] { "article" },
            }
        );
        var path = await Path(review, type);
        Assert.Equal(["light", "+ moth*", "2005–2026", "article"], path.Select(s => s.Label));
        Assert.True(path.Zip(path.Skip(1)).All(p => p.First.Count >= p.Second.Count));

        var next = (await Ann.Ok("DELETE", $"/api/reviews/{review}/steps/{moth}")).Int("stepId");
        Assert.Equal(years, next);
        var after = await Path(review, next);
        Assert.Equal(["light", "2005–2026", "article"], after.Select(s => s.Label));
        Assert.Equal([false, false, true], after.Select(s => s.Ahead));
        var direct = await Ann.Step(
            review,
            await Ann.Step(
                review,
                await Ann.Search(review, "light"),
                new
                {
                    kind = "Years",
                    from = 2005,
                    to = 2026,
                }
            ),
            new
            {
                kind = "Narrow",
                facet = "Type",
                values = new[] { "article" },
            }
        );
        Assert.Equal(await Ann.Count(review, direct), after[^1].Count);
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/{moth}")).Status);
    }

    [Fact]
    public async Task Going_back_and_trying_another_way_makes_a_branch()
    {
        var review = await Ann.Review();
        var moth = await Ann.Search(review, "moth*");
        var old = await Ann.Step(review, moth, new { kind = "Years", to = 2000 });
        var young = await Ann.Step(review, moth, new { kind = "Years", from = 2001 });
        var steps = (await Ann.Get($"/api/reviews/{review}/steps/{young}/path")).List("steps").ToArray();
        Assert.Equal(["moth*", "from 2001"], steps.Select(s => s.Text("label")));
        Assert.Equal([("until 2000", old)], steps[1].List("branches").Select(b => (b.Text("label"), b.Int("id"))));
        Assert.Equal(young, await Ann.Step(review, moth, new { kind = "Years", from = 2001 })); // the same act leads to the same step
        await Ann.Ok("PATCH", $"/api/reviews/{review}/steps/{young}", new { name = "the young ones" });
        Assert.Equal("the young ones", (await Path(review, moth))[1].Label);
        Assert.Equal(young, (await Ann.Get($"/api/reviews/{review}")).Int("stepId")); // the place is remembered
    }

    [Fact]
    public async Task Counts_of_a_field_are_what_the_click_gives()
    {
        var review = await Ann.Review();
        var step = await Ann.Step(
            review,
            await Ann.Search(review, "light"),
            new
            {
                kind = "Narrow",
                facet = "Type",
                values = new[] { "article" },
            }
        );
        foreach (var facet in new[] { "Type", "Language", "Subject", "Venue", "Person", "Database", "Text" })
        {
            var shown = (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/{facet}")).List("shown").ToArray();
            Assert.NotEmpty(shown);
            foreach (var value in shown.Where(v => !v["chosen"]!.GetValue<bool>()).Take(3))
                Assert.Equal(
                    value.Int("count"),
                    await Ann.Count(
                        review,
                        await Ann.Step(
                            review,
                            step,
                            new
                            {
                                kind = "Narrow",
                                facet,
                                values = new[] { value.Text("value") },
                            }
                        )
                    )
                );
        }
        var all = await Ann.Count(review, await Ann.Search(review, "light"));
        var without = await Ann.Count(
            review,
            await Ann.Step(
                review,
                await Ann.Search(review, "light"),
                new
                {
                    kind = "Narrow",
                    facet = "Type",
                    excluded = new[] { "article" },
                }
            )
        );
        Assert.Equal(all, without + (await Ann.Get($"/api/reviews/{review}/steps/{step}")).Int("count"));
    }

    [Fact]
    public async Task Words_inside_and_databases_narrow_like_any_act()
    {
        var review = await Ann.Review();
        var moth = await Ann.Search(review, "moth*");
        var inside = await Ann.Count(
            review,
            await Ann.Step(review, moth, new { kind = "Inside", words = new[] { "field*" } })
        );
        // Words inside may stand in another record of the work than the search did; with AND they stand in the same.
        Assert.InRange(
            inside,
            await Ann.Count(review, await Ann.Search(review, "moth* AND field*")),
            await Ann.Count(review, moth) - 1
        );
        var meridian = (await Ann.Get("/api/databases"))
            .List("databases")
            .Single(d => d.Text("name") == "Meridian Citations")
            .Int("id");
        var one = await Ann.Get(
            $"/api/reviews/{review}/steps/{await Ann.Step(review, moth, new { kind = "Databases", databases = new[] { meridian } })}"
        );
        Assert.Equal(
            one["ledger"]!.List("databases").Single(d => d["chosen"]!.GetValue<bool>()).Int("works"),
            one.Int("count")
        );
        Assert.Equal(0, one["ledger"]!.Int("duplicates"));
    }

    [Fact]
    public async Task The_list_is_whole_in_every_order_and_pages_do_not_overlap()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light");
        var total = await Ann.Count(review, step);
        foreach (
            var order in new[] { "Relevance", "Newest", "Oldest", "Cited", "CitedPerYear", "Title", "Person", "Venue" }
        )
        {
            var ids = new List<int>();
            for (var offset = 0; offset < total; offset += 90)
                ids.AddRange(await Ann.Works(review, step, $"sort={order}&offset={offset}&limit=90"));
            Assert.Equal(total, ids.Distinct().Count());
            Assert.Equal(total, ids.Count);
        }
        var years = (await Ann.Get($"/api/reviews/{review}/steps/{step}/works?sort=Newest&limit=50"))
            .List("works")
            .Select(w => w.Int("year"))
            .ToArray();
        Assert.Equal(years.OrderDescending(), years);
        var cited = (await Ann.Get($"/api/reviews/{review}/steps/{step}/works?sort=Cited&limit=50"))
            .List("works")
            .Select(w => w.Int("cited"))
            .ToArray();
        Assert.Equal(cited.OrderDescending(), cited);
    }

    [Fact]
    public async Task A_row_marks_the_words_and_counts_them_by_field()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth* AND light");
        foreach (var row in (await Ann.Get($"/api/reviews/{review}/steps/{step}/works?limit=40")).List("works"))
        {
            var title = row["title"]!;
            foreach (var mark in title.List("marks"))
            {
                var word = title.Text("text").Substring(mark.Int("start"), mark.Int("length")).ToLowerInvariant();
                Assert.True(
                    mark.Text("concept") == "A" ? word.StartsWith("moth", StringComparison.Ordinal) : word == "light",
                    word
                );
            }
            var hits = row["hits"]!;
            Assert.True(hits.Int("title") + hits.Int("keywords") + hits.Int("abstract") >= 2);
        }
    }

    [Fact]
    public async Task A_work_shows_its_records_and_each_databases_count()
    {
        var review = await Ann.Review();
        var step = await Ann.Step(
            review,
            await Ann.Search(review, "moth*"),
            new
            {
                kind = "Narrow",
                facet = "Database",
                values = new[] { "Meridian Citations" },
            }
        );
        var ids = await Ann.Works(review, step, "sort=Cited&limit=30");
        var joined = 0;
        foreach (var id in ids)
        {
            var work = await Ann.Get($"/api/reviews/{review}/works/{id}?stepId={step}");
            Assert.InRange(work.List("evidence").Count(), work.List("records").Count() - 1, 99);
            Assert.Contains(work.List("citedByDatabase"), d => d.Text("database") == "Meridian Citations");
            Assert.Equal(work.Int("citedCount"), work.List("ties").Sum(t => t.Int("citedBy")));
            if (work.List("records").Select(r => r.Text("database")).Distinct().Count() == 2)
                joined++;
        }
        Assert.True(joined > 10, $"only {joined} of {ids.Length} works have records of both databases");
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/works/999999")).Status);
    }

    [Theory]
    [InlineData("(moth*", "opens at 1 and never closes")]
    [InlineData("moth* AND", "has nothing after it")]
    [InlineData("AND", "nothing before it")]
    [InlineData("🌙🌙", "no letter or digit")]
    [InlineData("titel:moth", "The nearest is title")]
    [InlineData("*", "would find everything")]
    public async Task An_unsound_line_is_refused_with_its_sentence_and_the_list_stays(string line, string says)
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        var (status, problem) = await Ann.Send(
            "POST",
            $"/api/reviews/{review}/steps",
            new { parentId = step, act = new { kind = "Search", expression = line } }
        );
        Assert.Equal(400, status);
        Assert.Contains(says, problem!.Text("title"), StringComparison.Ordinal);
        var reading = await Read(review, line, step);
        Assert.Contains(says, reading.List("problems").First().Text("sentence"), StringComparison.Ordinal);
        Assert.Single((await Ann.Get($"/api/reviews/{review}/log"))["runs"]!.AsArray());
    }

    [Fact]
    public async Task Ten_thousand_characters_and_right_to_left_text_are_answered()
    {
        var review = await Ann.Review();
        Assert.Contains(
            "10,000 characters",
            (await Read(review, new string('a', 10_000))).List("problems").First().Text("sentence"),
            StringComparison.Ordinal
        );
        var many = await Read(review, string.Join(" OR ", Enumerable.Repeat("moth*", 1_000)));
        Assert.Equal(await Ann.Count(review, await Ann.Search(review, "moth*")), many.Int("inView"));
        Assert.Equal(0, (await Read(review, "אור AND עש")).Int("inView"));
    }

    [Fact]
    public async Task A_step_of_another_review_is_not_found()
    {
        var (mine, other) = (await Ann.Review(), await Ann.Review());
        var step = await Ann.Search(other, "moth*");
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{mine}/steps/{step}")).Status);
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{mine}/export?stepId={step}&format=ris")).Status);
        Assert.Equal(
            404,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{mine}/steps",
                    new { parentId = step, act = new { kind = "Years", from = 2000 } }
                )
            ).Status
        );
    }

    [Fact]
    public async Task What_is_remembered_is_told_and_stays_within_its_bounds()
    {
        var review = await Ann.Review();
        for (var i = 0; i < 30; i++)
            await Ann.Count(review, await Ann.Search(review, $"light OR moth{i} OR year:{1990 + i}"));
        var remembered = (await Ann.Get("/health"))["remembered"]!;
        foreach (var of in new[] { "sets", "answers" })
            Assert.InRange(remembered[of]!.GetValue<long>(), 1, remembered[of + "Most"]!.GetValue<long>());
        // The words by their ends are there when somebody has asked for an end, once, and not once more.
        async Task<long> ByEnd() => (await Ann.Get("/health"))["remembered"]!["wordsByEnd"]!.GetValue<long>();
        await Ann.Count(review, await Ann.Search(review, "*light"));
        var once = await ByEnd();
        Assert.True(once > 1_000, $"{once} bytes");
        await Ann.Count(review, await Ann.Search(review, "*flies"));
        Assert.Equal(once, await ByEnd());
    }
}
