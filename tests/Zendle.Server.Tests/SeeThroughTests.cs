using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Core.Reviews;
using Zendle.Server.Features.Search;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// What a search lets one see through: the words behind a truncation, gaps in phrases, ways on, kept works missed, sets
/// behind numbers, branches, named searches.
/// </summary>
public sealed class SeeThroughTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> Reading(int review, string text) =>
        Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text, stepId = 0 });

    private Task<JsonNode> Words(int review, string text, params string[] notMeant) =>
        Ann.Ok(
            "POST",
            $"/api/reviews/{review}/reading/words",
            new
            {
                text,
                scope = "about",
                stepId = 0,
                notMeant,
            }
        );

    private async Task<int> Found(int review, string expression) =>
        await Ann.Count(review, await Ann.Search(review, expression));

    private async Task<HashSet<int>> All(int review, int step)
    {
        var works = new HashSet<int>();
        for (var offset = 0; offset < await Ann.Count(review, step); offset += 200)
            works.UnionWith(await Ann.Works(review, step, $"offset={offset}&limit=200"));
        return works;
    }

    private async Task<HashSet<int>> Works(int review, string expression) =>
        await All(review, await Ann.Search(review, expression));

    [Fact]
    public async Task The_words_of_a_truncation_each_have_the_count_of_their_search_and_can_be_left_out()
    {
        var review = await Ann.Review();
        var words = await Words(review, "mot*");
        var list = words.List("words").ToDictionary(w => w.Text("word"), w => w.Int("works"));
        Assert.True(list.Count >= 3 && list.ContainsKey("moths") && list.ContainsKey("moth"));
        Assert.All(list.Keys, w => Assert.StartsWith("mot", w, StringComparison.Ordinal));
        foreach (var (word, works) in list.Take(4))
            Assert.Equal(await Found(review, word), works);
        Assert.Equal(
            (await Found(review, "mot*"), words.Int("works"), "mot*"),
            (words.Int("works"), words.Int("worksWithout"), words.Text("without"))
        );
        var others = list.Keys.Where(w => !w.StartsWith("moth", StringComparison.Ordinal)).ToArray();
        Assert.NotEmpty(others);
        var less = await Words(review, "mot*", others);
        Assert.Equal(await Found(review, less.Text("without")), less.Int("worksWithout"));
        Assert.Equal(await Works(review, "moth*"), await Works(review, less.Text("without")));
        Assert.Equal(
            "",
            (await Words(review, "mot*", [.. list.Keys, .. await Unseen(review, list.Keys)])).Text("without")
        );
        Assert.Contains(
            "mot* stands for",
            (await Reading(review, "mot* AND light"))
                .List("notices")
                .Single(n => n.Text("kind") == "Wide")
                .Text("sentence"),
            StringComparison.Ordinal
        );
        Assert.DoesNotContain((await Reading(review, "moth*")).List("notices"), n => n.Text("kind") == "Wide");
    }

    /// <summary>
    /// Words that stand only in records that are gone are counted nowhere; they are left out one by one.
    /// </summary>
    private async Task<string[]> Unseen(int review, IEnumerable<string> seen)
    {
        var left = (await Words(review, "mot*", [.. seen])).Text("without");
        return left.Length == 0 ? [] : left.Split(" OR ");
    }

    [Fact]
    public async Task A_phrase_with_a_truncated_word_shows_its_words_too_and_a_plain_term_none()
    {
        var review = await Ann.Review();
        var words = await Words(review, "\"street light*\"");
        Assert.Equal("light*", words.Text("slot"));
        foreach (var w in words.List("words").Take(3))
            Assert.Equal(await Found(review, $"\"street {w.Text("word")}\""), w.Int("works"));
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/reading/words",
                    new
                    {
                        text = "moths",
                        scope = "about",
                        stepId = 0,
                        notMeant = Array.Empty<string>(),
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_phrase_says_what_it_misses_between_its_words_with_examples()
    {
        var review = await Ann.Review();
        var gap = (await Reading(review, "\"street moths\" OR \"light moths\""))
            .List("notices")
            .Where(n => n.Text("kind") == "Gap")
            .ToArray();
        Assert.NotEmpty(gap);
        var way = gap[0].List("ways").Single();
        var phrase = gap[0].Text("sentence").Split('“', '”')[1];
        var near = string.Join(" NEAR/2 ", phrase.Split(' '));
        Assert.Equal(near, way.Text("label"));
        Assert.Equal(
            (await Works(review, near)).Except(await Works(review, $"\"{phrase}\"")).Count(),
            way.Int("count")
        );
        Assert.NotEmpty(gap[0].List("examples"));
        foreach (var example in gap[0].List("examples"))
        {
            var mark = example.List("marks").Single();
            var marked = example.Text("text").Substring(mark.Int("start"), mark.Int("length")).ToLowerInvariant();
            Assert.All(phrase.Split(' '), word => Assert.Contains(word, marked, StringComparison.Ordinal));
            Assert.DoesNotContain(phrase, marked, StringComparison.Ordinal);
        }
    }

    [Theory]
    [InlineData("light AND mot", "word", "moths", "light AND moths")]
    [InlineData("ti", "field", "title:", "title:")]
    [InlineData("type:art", "value", "article", "type:article")]
    [InlineData("database:far", "value", "Farnet", "database:Farnet")]
    [InlineData("stage:ke", "value", "kept", "stage:kept")]
    public async Task A_line_goes_on_as_words_fields_and_values(string text, string kind, string label, string then)
    {
        var review = await Ann.Review();
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act = "Keep",
                works = (await Ann.Works(review, await Ann.Search(review, "moths"), "limit=2")).ToArray(),
            }
        );
        var ways = (
            await Ann.Ok(
                "POST",
                $"/api/reviews/{review}/reading/complete",
                new
                {
                    text,
                    caret = text.Length,
                    stepId = 0,
                }
            )
        ).AsArray();
        var way = ways.Single(w => w!.Text("kind") == kind && w!.Text("label") == label)!;
        Assert.Equal((then, then.Length), (way.Text("text"), way.Int("caret")));
        if (kind != "field")
            Assert.Equal(await Found(review, then.Split(" AND ")[^1]), way.Int("works"));
        Assert.DoesNotContain(ways, w => w!["works"]?.GetValue<int>() == 0);
    }

    [Fact]
    public async Task A_line_goes_on_as_people_venues_and_keywords_and_nothing_is_offered_for_nothing()
    {
        var review = await Ann.Review();
        var work = await Ann.Get(
            $"/api/reviews/{review}/works/{(await Ann.Works(review, await Ann.Search(review, "moths AND light"), "limit=1"))[0]}?step=0"
        );
        var family = work["people"]!.AsArray()[0]!.Text("family");
        async Task<JsonNode[]> On(string text) => [.. (
                    await Ann.Ok(
                        "POST",
                        $"/api/reviews/{review}/reading/complete",
                        new
                        {
                            text,
                            caret = text.Length,
                            stepId = 0,
                        }
                    )
                ).AsArray().Select(w => w!)];
        var person = (await On(family[..4])).FirstOrDefault(w =>
            w.Text("kind") == "person" && w.Text("text").StartsWith("author:", StringComparison.Ordinal)
        );
        Assert.NotNull(person);
        Assert.Equal(await Found(review, person.Text("text")), person.Int("works"));
        Assert.All(
            (await On("author:" + family[..3])).Select(w => w.Text("text")),
            t => Assert.StartsWith("author:", t, StringComparison.Ordinal)
        );
        Assert.Contains(
            (await On("venue:jour")).Select(w => w.Text("text")),
            t => t.StartsWith("venue:\"", StringComparison.Ordinal)
        );
        Assert.Empty(await On("moth* "));
        Assert.Empty(await On("zzqqx"));
    }

    [Fact]
    public async Task Kept_works_that_are_missed_are_told_with_the_part_they_do_not_pass()
    {
        var review = await Ann.Review();
        var (moths, light, both) = (
            await Works(review, "moth*"),
            await Works(review, "light"),
            await Works(review, "moth* AND light")
        );
        var (noLight, noMoth) = (moths.Except(light).Take(2).ToArray(), light.Except(moths).Take(3).ToArray());
        var neither = (await Works(review, "crop*")).Except(moths).Except(light).First();
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new { act = "Keep", works = (int[])[.. noLight, .. noMoth, neither, both.First()] }
        );
        var missed = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/reading/missed",
            new { text = "moth* AND light", stepId = 0 }
        );
        Assert.Equal(6, missed.Int("total"));
        Assert.Equal(
            [("A", "moth*", 4, 3), ("B", "light", 3, 2)],
            missed.List("by").Select(b => (b.Text("letter"), b.Text("text"), b.Int("works"), b.Int("onlyIt")))
        );
        var by = missed
            .List("works")
            .ToDictionary(w => w.Int("workId"), w => string.Join(',', w.List("by").Select(i => i.GetValue<int>())));
        Assert.All(noLight, w => Assert.Equal("1", by[w]));
        Assert.All(noMoth, w => Assert.Equal("0", by[w]));
        Assert.Equal("0,1", by[neither]);
        Assert.Equal(
            0,
            (await Ann.Ok("POST", $"/api/reviews/{review}/reading/missed", new { text = "(moth*", stepId = 0 }))[
                "works"
            ]!
                .AsArray()
                .Count(w => moths.Contains(w!.Int("workId")))
        );
    }

    [Fact]
    public async Task What_only_one_database_finds_opens_as_a_set_of_that_size()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth* AND light");
        var ledger = (await Ann.Get($"/api/reviews/{review}/steps/{step}"))["ledger"]!
            .List("databases")
            .ToDictionary(
                d => d.Text("name"),
                d => (Id: d.Int("databaseId"), Works: d.Int("works"), Only: d.Int("onlyHere"))
            );
        foreach (var (name, d) in ledger)
        {
            var others = ledger.Values.Where(o => o.Id != d.Id).Select(o => o.Id).ToArray();
            var only = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Compare",
                    apart = true,
                    said = $"only in {name}",
                    other = new object[]
                    {
                        new { kind = "Search", expression = "moth* AND light" },
                        new { kind = "Databases", databases = others },
                    },
                }
            );
            Assert.Equal(d.Only, await Ann.Count(review, only));
            Assert.Equal(
                d.Works,
                await Ann.Count(
                    review,
                    await Ann.Step(review, step, new { kind = "Databases", databases = new[] { d.Id } })
                )
            );
            Assert.Equal(
                $"only in {name}",
                (await Ann.Get($"/api/reviews/{review}/steps/{only}/path")).List("steps").Last().Text("label")
            );
        }
    }

    [Fact]
    public async Task Two_branches_are_held_against_each_other_and_each_part_opens()
    {
        var review = await Ann.Review();
        var from = await Ann.Search(review, "light");
        var (here, there) = (
            await Ann.Step(review, from, new { kind = "Add", expression = "moth*" }),
            await Ann.Step(
                review,
                from,
                new
                {
                    kind = "Years",
                    from = 2005,
                    to = 2026,
                }
            )
        );
        var (a, b) = (await All(review, here), await All(review, there));
        var against = await Ann.Get($"/api/reviews/{review}/steps/{here}/against/{there}");
        Assert.Equal(
            (a.Count, b.Count, a.Intersect(b).Count(), a.Except(b).Count(), b.Except(a).Count()),
            (
                against.Int("hereCount"),
                against.Int("thereCount"),
                against.Int("both"),
                against.Int("onlyHere"),
                against.Int("onlyThere")
            )
        );
        async Task<HashSet<int>> Part(int step, int other, bool apart) =>
            await All(
                review,
                (
                    await Ann.Ok(
                        "POST",
                        $"/api/reviews/{review}/steps",
                        new
                        {
                            parentId = step,
                            act = new { kind = "Compare", apart },
                            otherStepId = other,
                        }
                    )
                ).Int("stepId")
            );
        Assert.Equal([.. a.Except(b)], await Part(here, there, true));
        Assert.Equal([.. a.Intersect(b)], await Part(here, there, false));
        Assert.Equal([.. b.Except(a)], await Part(there, here, true));
        // What was written down stays, though the other path is changed.
        var apart = (
            await Ann.Ok(
                "POST",
                $"/api/reviews/{review}/steps",
                new
                {
                    parentId = here,
                    act = new
                    {
                        kind = "Compare",
                        apart = true,
                        said = "before 2005",
                    },
                    otherStepId = there,
                }
            )
        ).Int("stepId");
        await Ann.Ok("DELETE", $"/api/reviews/{review}/steps/{there}");
        Assert.Equal(a.Except(b).Count(), await Ann.Count(review, apart));
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/{here}/against/999999")).Status);
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/steps",
                    new { parentId = here, act = new { kind = "Compare", apart = true } }
                )
            ).Status
        );
    }

    [Fact]
    public async Task Searches_held_against_searches_end_somewhere()
    {
        object act = new { kind = "Search", expression = "light" };
        for (var i = 0; i < 6; i++)
            act = new
            {
                kind = "Compare",
                apart = true,
                other = new[] { act },
            };
        var review = await Ann.Review();
        Assert.Equal(400, (await Ann.Send("POST", $"/api/reviews/{review}/steps", new { parentId = 0, act })).Status);
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/steps",
                    new
                    {
                        parentId = 0,
                        act = new
                        {
                            kind = "Compare",
                            other = new[] { new { kind = "Search", expression = "(light" } },
                        },
                    }
                )
            ).Status
        );
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/steps",
                    new { parentId = 0, act = new { kind = "Among", works = Array.Empty<int>() } }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_step_in_the_middle_is_changed_and_what_follows_is_counted_again()
    {
        var review = await Ann.Review();
        var first = await Ann.Search(review, "light");
        var years = await Ann.Step(
            review,
            first,
            new
            {
                kind = "Years",
                from = 2000,
                to = 2010,
            }
        );
        var last = await Ann.Step(review, years, new { kind = "Add", expression = "moth*" });
        await Ann.Ok(
            "PUT",
            $"/api/reviews/{review}/steps/{years}",
            new
            {
                act = new
                {
                    kind = "Years",
                    from = 1990,
                    to = 2026,
                },
            }
        );
        var path = (await Ann.Get($"/api/reviews/{review}/steps/{last}/path")).List("steps").ToArray();
        Assert.Equal(["light", "1990–2026", "+ moth*"], path.Select(s => s.Text("label")));
        Assert.Equal((await Works(review, "light AND moth* AND year:1990-2026")).Count, path[2].Int("count"));
        Assert.Equal(path.Select(s => s.Int("countNow")), path.Select(s => s.Int("count")));
        await Ann.Ok(
            "PUT",
            $"/api/reviews/{review}/steps/{first}",
            new { act = new { kind = "Search", expression = "lamp*" } }
        );
        Assert.Equal((await Works(review, "lamp* AND moth* AND year:1990-2026")).Count, await Ann.Count(review, last));
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "PUT",
                    $"/api/reviews/{review}/steps/{years}",
                    new { act = new { kind = "Search", expression = "x" } }
                )
            ).Status
        );
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "PUT",
                    $"/api/reviews/{review}/steps/{years}",
                    new
                    {
                        act = new
                        {
                            kind = "Years",
                            from = 2010,
                            to = 2000,
                        },
                    }
                )
            ).Status
        );
        Assert.Equal(
            5,
            (await Ann.Get($"/api/reviews/{review}/log"))
                .List("runs")
                .Count(r => (int)r["stepId"]! == first || (int)r["stepId"]! == years || (int)r["stepId"]! == last)
        );
    }

    [Fact]
    public async Task The_further_fields_count_exactly_and_narrow()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth* OR light");
        foreach (var facet in new[] { "Affiliation", "Funder", "Keyword", "OpenAccess", "Quartile" })
        {
            var top = (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/{facet}")).List("shown").First();
            Assert.True(top.Int("count") > 0, facet);
            var narrowed = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Narrow",
                    facet,
                    values = new[] { top.Text("value") },
                }
            );
            Assert.Equal(top.Int("count"), await Ann.Count(review, narrowed));
            var out_ = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Narrow",
                    facet,
                    excluded = new[] { top.Text("value") },
                }
            );
            Assert.Equal(await Ann.Count(review, step) - top.Int("count"), await Ann.Count(review, out_));
        }
        // Each work has one word for open access; together they are all works.
        Assert.Equal(
            await Ann.Count(review, step),
            (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/OpenAccess"))
                .List("shown")
                .Sum(v => v.Int("count"))
        );
    }

    [Fact]
    public async Task A_reading_that_nobody_waits_for_is_given_up()
    {
        var review = await Ann.Review();
        var reading = world.Host.Services.GetRequiredService<ReadingService>();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() =>
            reading.Read(review, "moth* AND light", SearchState.Everything, new CancellationToken(canceled: true))
        );
        Assert.True(
            (await reading.Read(review, "moth* AND light", SearchState.Everything, CancellationToken.None)).InView > 0
        );
    }
}
