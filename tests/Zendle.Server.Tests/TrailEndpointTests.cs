using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class TrailEndpointTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<int> Follow(int review, string way, params int[] seeds) => Ann.Follow(review, way, seeds);

    private async Task<int> MostCited(int review) =>
        (await Ann.Works(review, await Ann.Search(review, "light OR lamp* OR moth*"), "sort=Cited&limit=1"))[0];

    private Task<HashSet<int>> All(int review, int step, string more = "") => Ann.AllWorks(review, step, more);

    [Fact]
    public async Task A_trail_is_what_the_pane_of_its_seed_counts_and_leads_back()
    {
        var review = await Ann.Review();
        var seed = await MostCited(review);
        var work = await Ann.Get($"/api/reviews/{review}/works/{seed}");
        var (back, forward) = (await Follow(review, "Backward", seed), await Follow(review, "Forward", seed));
        Assert.Equal(
            (work.Int("citesCount"), work.Int("citedCount")),
            (await Ann.Count(review, back), await Ann.Count(review, forward))
        );
        Assert.True(work.Int("citedCount") > 10);
        // Whoever cites the seed has it in its own backward trail.
        foreach (var citing in (await All(review, forward)).Take(5))
            Assert.Contains(seed, await All(review, await Follow(review, "Backward", citing)));
        Assert.Equal(
            work.List("ties").Sum(t => t.Int("citedBy")),
            (await Ann.Get($"/api/reviews/{review}/steps/{forward}/trail"))["future"]!["years"]!
                .AsArray()
                .Sum(y => y!.Int("inView"))
        );
    }

    [Fact]
    public async Task Several_seeds_make_sides_that_add_up_with_ties_to_narrow_by()
    {
        var review = await Ann.Review();
        var seeds = await Ann.Works(review, await Ann.Search(review, "light"), "sort=Cited&limit=4");
        var step = await Follow(review, "Both", seeds);
        var trail = await Ann.Get($"/api/reviews/{review}/steps/{step}/trail");
        var (past, future) = (await All(review, step, "&side=Backward"), await All(review, step, "&side=Forward"));
        Assert.Equal((past.Count, future.Count), (trail["past"]!.Int("inView"), trail["future"]!.Int("inView")));
        Assert.Equal(past.Union(future).Count(), await Ann.Count(review, step));
        Assert.Equal(seeds, trail.List("seeds").Select(s => s.Int("workId")));
        Assert.Equal([1, 2, 3, 4], trail.List("seeds").Select(s => s.Int("number")));

        var two = await Ann.Step(review, step, new { kind = "Ties", atLeast = 2 });
        var level = trail["future"]!["levels"]!.AsArray().Single(l => l!.Int("atLeast") == 2)!.Int("works");
        Assert.Equal(level, (await Ann.Get($"/api/reviews/{review}/steps/{two}/trail"))["future"]!.Int("inView"));
        var page = await Ann.Get($"/api/reviews/{review}/steps/{two}/works?side=Forward&sort=Ties&limit=200");
        var ties = page.List("works").Select(w => w["ties"]!.Int("future")).ToArray();
        Assert.All(ties, t => Assert.True(t >= 2));
        Assert.Equal(ties.OrderDescending(), ties);
        Assert.All(
            page.List("works"),
            w => Assert.Equal(w["ties"]!.Int("future"), w["ties"]!["futureSeeds"]!.AsArray().Count)
        );
    }

    [Fact]
    public async Task A_trail_narrows_sorts_keeps_exports_and_is_logged_like_a_search()
    {
        var review = await Ann.Review();
        var step = await Follow(review, "Forward", await MostCited(review));
        var whole = await All(review, step);
        var years = await Ann.Step(
            review,
            step,
            new
            {
                kind = "Years",
                from = 2005,
                to = 2015,
            }
        );
        var inside = await Ann.Step(review, years, new { kind = "Inside", words = new[] { "light OR lamp*" } });
        var narrowed = await All(review, inside);
        Assert.True(narrowed.Count < whole.Count && narrowed.IsSubsetOf(whole));
        var facet = await Ann.Get($"/api/reviews/{review}/steps/{inside}/facets/Type");
        // A work whose records disagree on its kind counts under each.
        Assert.InRange(facet.List("shown").Sum(v => v.Int("count")), narrowed.Count, narrowed.Count * 2);
        Assert.All(facet.List("shown"), v => Assert.InRange(v.Int("count"), 1, narrowed.Count));
        var kept = await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", stepId = inside });
        Assert.Equal(narrowed.Count, kept.Int("changed"));
        var export = await Ann.Http.GetStringAsync($"/api/reviews/{review}/export?stepId={inside}&format=ris");
        Assert.Equal(narrowed.Count, export.Split("ER  - ").Length - 1);
        var path = await Ann.Get($"/api/reviews/{review}/steps/{inside}/path");
        Assert.StartsWith("what cites ", path.List("steps").First().Text("label"), StringComparison.Ordinal);
        Assert.Equal(["2005–2015", "inside: light OR lamp*"], path.List("steps").Skip(1).Select(s => s.Text("label")));
        var run = JsonNode.Parse(await Ann.Http.GetStringAsync($"/api/reviews/{review}/log"))!["runs"]!.AsArray()[0]!;
        Assert.Equal(
            ("Forward", 1, narrowed.Count),
            (run["state"]!["trail"]!.Text("way"), run["state"]!["trail"]!.Int("seeds"), run.Int("count"))
        );
        var again = await Ann.Ok("POST", $"/api/reviews/{review}/log/{run.Int("id")}/again");
        Assert.Equal(narrowed, await All(review, again.Int("stepId")));
        Assert.Equal(inside, (await Ann.Get($"/api/reviews/{review}/steps/{inside}")).Int("stepId"));
        Assert.Equal(again.Int("stepId"), (await Ann.Get($"/api/reviews/{review}")).Int("trailStepId"));
    }

    [Fact]
    public async Task Each_database_says_what_it_reports_and_can_be_left_out()
    {
        var review = await Ann.Review();
        var step = await Follow(
            review,
            "Both",
            await Ann.Works(review, await Ann.Search(review, "light"), "sort=Cited&limit=5")
        );
        var ledger = (await Ann.Get($"/api/reviews/{review}/steps/{step}"))["ledger"]!;
        var lines = ledger.List("databases").ToArray();
        Assert.Equal(ledger.Int("works"), lines[0].Int("works") + lines[1].Int("onlyHere"));
        Assert.Equal(ledger.Int("records"), lines.Sum(l => l.Int("records")));
        var one = await Ann.Step(
            review,
            step,
            new { kind = "Databases", databases = new[] { lines[1].Int("databaseId") } }
        );
        Assert.Equal(lines[1].Int("works"), await Ann.Count(review, one));
    }

    [Fact]
    public async Task References_that_match_no_record_are_shown_as_printed_and_counted_nowhere()
    {
        var review = await Ann.Review();
        var seeds = await Ann.Works(review, await Ann.Search(review, "type:review"), "sort=Cited&limit=20");
        var step = await Follow(review, "Backward", seeds);
        var unmatched = await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched");
        Assert.True(unmatched.Int("total") > 0);
        var shown = unmatched.List("references").ToArray();
        Assert.Equal(unmatched.Int("total"), shown.Length);
        Assert.All(
            shown,
            r =>
                Assert.True(
                    r["reference"]!.Text("text").Length > 20
                        && r["seeds"]!.AsArray().All(n => n!.GetValue<int>() is >= 1 and <= 20)
                )
        );
        Assert.Equal(shown.Length, shown.Select(r => r["reference"]!.Text("text")).Distinct().Count());
        // None of them is a work of the corpus under its DOI.
        foreach (var doi in shown.Select(r => (string?)r["reference"]!["doi"]).OfType<string>().Take(4))
            Assert.Equal(0, await Ann.Count(review, await Ann.Search(review, $"doi:\"{doi}\"")));
        Assert.Equal(
            0,
            (await Ann.Get($"/api/reviews/{review}/steps/{await Follow(review, "Forward", seeds)}/unmatched")).Int(
                "total"
            )
        );
    }

    [Fact]
    public async Task All_kept_works_are_written_down_as_seeds_of_that_moment()
    {
        var review = await Ann.Review();
        Assert.Equal(
            (400, "A trail starts from at least one work; none is kept yet."),
            await Said(review, 0, new { kind = "Trail", way = "Both" })
        );
        var works = await Ann.Works(review, await Ann.Search(review, "moth*"), "limit=3");
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works });
        var step = await Ann.Step(review, 0, new { kind = "Trail", way = "Both" });
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new { act = "Keep", works = await Ann.Works(review, await Ann.Search(review, "lamp*"), "limit=9") }
        );
        Assert.Equal(3, (await Ann.Get($"/api/reviews/{review}/steps/{step}/trail")).Int("seedCount"));
        Assert.Equal(
            "both ways from 3 works",
            (await Ann.Get($"/api/reviews/{review}/steps/{step}/path")).List("steps").First().Text("label")
        );
        // The same trail again is the same step, not another one.
        Assert.Equal(await Follow(review, "Forward", works[0]), await Follow(review, "Forward", works[0]));
    }

    private async Task<(int, string)> Said(int review, int parent, object act)
    {
        var (status, body) = await Ann.Send("POST", $"/api/reviews/{review}/steps", new { parentId = parent, act });
        return (status, body!.Text("title"));
    }

    [Fact]
    public async Task What_is_no_trail_is_told_so()
    {
        var review = await Ann.Review();
        var search = await Ann.Search(review, "moth*");
        Assert.Equal(
            (400, "There is no trail here to narrow."),
            await Said(review, search, new { kind = "Ties", atLeast = 2 })
        );
        Assert.Equal(
            (400, "There is no trail here to narrow."),
            await Said(review, 0, new { kind = "Way", way = "Both" })
        );
        Assert.Equal(
            (400, "A trail starts from at most 5,000 works; these are 5,001."),
            await Said(
                review,
                0,
                new
                {
                    kind = "Trail",
                    way = "Both",
                    seeds = Enumerable.Range(1, 5_001),
                }
            )
        );
        Assert.Equal(
            (400, "One of the seeds is not a work."),
            await Said(
                review,
                0,
                new
                {
                    kind = "Trail",
                    way = "Both",
                    seeds = new[] { -1 },
                }
            )
        );
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/{search}/trail")).Status);
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/{search}/unmatched")).Status);
    }

    [Fact]
    public async Task Two_thousand_seeds_and_a_seed_without_ties_are_followed()
    {
        var review = await Ann.Review();
        var many = await Follow(review, "Both", [.. Enumerable.Range(1, 2_000)]);
        var view = await Ann.Get($"/api/reviews/{review}/steps/{many}/trail");
        Assert.Equal((2_000, 60), (view.Int("seedCount"), view.List("seeds").Count()));
        Assert.True(await Ann.Count(review, many) > 100);
        var none = await Follow(review, "Both", 2_000_000);
        Assert.Equal(0, await Ann.Count(review, none));
        Assert.Empty((await Ann.Get($"/api/reviews/{review}/steps/{none}/trail")).List("seeds"));
    }

    [Theory]
    [InlineData("Both", false)]
    [InlineData("Forward", true)]
    public async Task What_a_seed_alone_brings_in_is_what_taking_it_leaves(string way, bool narrowed)
    {
        var review = await Ann.Review();
        var seeds = await Ann.Works(review, await Ann.Search(review, "light OR moth*"), "sort=Cited&limit=6");
        var step = await Follow(review, way, seeds);
        if (narrowed)
            step = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Years",
                    from = 2000,
                    to = (int?)null,
                }
            );
        var told = await Ann.Get($"/api/reviews/{review}/steps/{step}/trail?seeds=Alone");
        var alone = told.List("seeds").Select(s => s.Int("alone")).ToArray();
        Assert.Equal(alone.OrderDescending(), alone);
        Assert.Contains(alone, a => a > 0);
        var sum = 0;
        foreach (var seed in told.List("seeds"))
        {
            Assert.Equal(seeds[seed.Int("number") - 1], seed.Int("workId"));
            var left = await Ann.AllWorks(
                review,
                await Ann.Step(
                    review,
                    step,
                    new
                    {
                        kind = "Compare",
                        other = new[]
                        {
                            new
                            {
                                kind = "Trail",
                                seeds = seeds.Where(s => s != seed.Int("workId")),
                                way,
                            },
                        },
                        apart = true,
                        said = "only from it",
                    }
                )
            );
            Assert.Equal(seed.Int("alone"), left.Count);
            sum += left.Count;
        }
        Assert.True(sum <= await Ann.Count(review, step));
    }

    [Fact]
    public async Task The_trail_bar_has_one_scale_and_counts_kept_works()
    {
        var review = await Ann.Review();
        var seed = await MostCited(review);
        int[] some = [.. (await All(review, await Follow(review, "Forward", seed))).Order().Take(3)];
        var before = await Ann.Get($"/api/reviews/{review}/works/{seed}");
        Assert.Equal(0, before.List("ties").Sum(t => t.Int("kept")));
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = some });
        var after = await Ann.Get($"/api/reviews/{review}/works/{seed}");
        var years = new List<int>();
        foreach (var work in some)
            years.Add((await Ann.Get($"/api/reviews/{review}/works/{work}")).Int("year"));
        Assert.Equal(
            years.GroupBy(y => y).OrderBy(g => g.Key).Select(g => (g.Key, g.Count())),
            after.List("ties").Where(t => t.Int("kept") > 0).Select(t => (t.Int("year"), t.Int("kept")))
        );
        var other = await Ann.Get($"/api/reviews/{review}/works/{some[0]}");
        Assert.Equal(after["scale"]!.ToJsonString(), other["scale"]!.ToJsonString());
    }
}
