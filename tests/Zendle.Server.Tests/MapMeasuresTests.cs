using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Store.Made;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>What runs along a map, what sizes and tags say, and a paper that is held against a set.</summary>
public sealed class MapMeasuresTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> Map(int review, int step, string asked = "") =>
        Ann.Get($"/api/reviews/{review}/steps/{step}/map?{asked}");

    [Fact]
    public async Task Works_stand_at_the_day_on_which_a_run_first_had_them()
    {
        var review = await Ann.Review();
        var first = await Ann.AllWorks(review, await Ann.Search(review, "moth*"));
        var contexts = world.Host.Services.GetRequiredService<IDbContextFactory<ZendleContext>>();
        var earlier = DateTimeOffset.Now.AddDays(-12);
        await using (var context = await contexts.CreateDbContextAsync())
            await context
                .Runs.Where(r => r.ReviewId == review)
                .ExecuteUpdateAsync(r => r.SetProperty(x => x.At, earlier));
        var map = await Map(review, await Ann.Search(review, "moth* OR light"), "along=Found");
        var (today, then) = (
            DateOnly.FromDateTime(DateTime.Now).DayNumber,
            DateOnly.FromDateTime(earlier.Date).DayNumber
        );
        var columns = map.List("columns").ToArray();
        Assert.Contains(map.List("works"), w => !first.Contains(w.Int("id")));
        Assert.All(
            map.List("works"),
            w =>
            {
                var column = columns[w.Int("column")];
                Assert.InRange(first.Contains(w.Int("id")) ? then : today, column.Int("from"), column.Int("to"));
            }
        );
        Assert.NotEqual(columns[0].Int("from"), columns[^1].Int("from"));
    }

    [Fact]
    public async Task Pages_are_those_from_the_first_to_the_last()
    {
        var review = await Ann.Review();
        var map = await Map(review, await Ann.Search(review, "moth*"), "size=Pages");
        var told = 0;
        foreach (var work in map.List("works").Take(25))
        {
            var pages = (await Ann.Get($"/api/reviews/{review}/works/{work.Int("id")}?stepId=0"))["pages"];
            var ends = pages?.GetValue<string>().Split('–') ?? [];
            // One page is printed as an article number is: it is one or none.
            if (ends is [_])
            {
                Assert.InRange(work.Int("size"), 0, 1);
                continue;
            }
            var expected =
                ends is [var a, var b] && int.TryParse(a, out var from) && int.TryParse(b, out var to)
                    ? to - from + 1
                    : 0;
            Assert.Equal(expected, work.Int("size"));
            told += expected > 0 ? 1 : 0;
        }
        Assert.True(told > 5, $"{told}");
    }

    [Fact]
    public async Task Works_stand_in_the_lane_of_a_method_that_they_name()
    {
        var review = await Ann.Review();
        var map = await Map(review, await Ann.Search(review, "moth* OR light"), "lanes=Method");
        var lanes = map.List("lanes").ToArray();
        Assert.True(lanes.Count(l => l.Text("kind") == "Value") > 1);
        foreach (var (at, lane) in lanes.Index().Where(l => l.Item.Text("kind") == "Value"))
        foreach (var work in map.List("works").Where(w => w.Int("lane") == at).Take(3))
        {
            var told = await Ann.Get($"/api/reviews/{review}/works/{work.Int("id")}?stepId=0");
            var words = string.Join(
                ' ',
                told["title"]!.Text("text"),
                told["abstract"]!.Text("text"),
                string.Join(
                    "; ",
                    told.List("keywords").Concat(told.List("controlledTerms")).Select(k => k.Text("text"))
                )
            );
            Assert.Contains(
                lane.Text("label").TrimEnd('s'),
                words.Replace('-', ' '),
                StringComparison.OrdinalIgnoreCase
            );
        }
    }

    [Fact]
    public async Task Tags_stand_at_works_and_the_closest_cited_work_is_one_it_cites()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        int[] works = [.. await Ann.Works(review, step, "limit=6")];
        await Ann.Decide(review, "Tag", works[..4], "wings");
        await Ann.Decide(review, "Tag", works[3..], "dust");
        var map = await Map(review, step);
        Assert.Equal(["dust 3", "wings 4"], map.List("tags").Select(t => $"{t.Text("name")} {t.Int("works")}"));
        var both = map.List("works").Single(w => w.Int("id") == works[3]);
        Assert.Equal([0, 1], both.List("tags").Select(t => t.GetValue<int>()));
        foreach (var work in map.List("works"))
        {
            int[] cites = [.. work.List("cites").Select(c => c.GetValue<int>())];
            Assert.Equal(cites.Length == 0, work["strongest"] is null);
            if (cites.Length > 0)
                Assert.Contains(work.Int("strongest"), cites);
        }
    }

    [Fact]
    public async Task A_planned_paper_says_what_it_cites_here_and_what_it_leaves_out()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth* OR light");
        var before = await Map(review, step, "lanes=Type");
        Assert.Null(before["plan"]);
        var works = before.List("works").ToArray();
        // It is to cite the three newest articles, by the references that they are cited by.
        int[] cited =
        [
            .. works
                .Where(w => before.List("lanes").ElementAt(w.Int("lane")).Text("label") == "article")
                .OrderByDescending(w => w["year"]?.GetValue<int>() ?? 0)
                .Take(3)
                .Select(w => w.Int("id")),
        ];
        var references = await Ann.Ok("POST", $"/api/reviews/{review}/cite", new { works = cited });
        var added = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/entries",
            new
            {
                entries = new[]
                {
                    EntryTests.Fields(
                        "What the verge remembers of lamps",
                        ("type", "manuscript"),
                        ("year", "2026"),
                        ("references", string.Join('\n', references.List("references").Select(r => r.Text("text"))))
                    ),
                },
            }
        );
        var paper = added.List("works").Single().GetValue<int>();
        var listed = (await Ann.Get($"/api/reviews/{review}/entries"))
            .AsArray()
            .Single(e => e!.Int("workId") == paper)!;
        Assert.Equal(("What the verge remembers of lamps", "manuscript"), (listed.Text("title"), listed.Text("type")));
        // The paper's own title has a word of the question: the step before it stays what it was.
        var map = await Map(review, step, $"lanes=Type&plan={paper}");
        var all = map.List("works").ToArray();
        var plan = map["plan"]!;
        Assert.Equal(paper, plan["work"]!.Int("id"));
        Assert.Equal(cited.Order(), plan["work"]!.List("cites").Select(c => all[c.GetValue<int>()].Int("id")).Order());
        var lanes = map.List("lanes").ToArray();
        Assert.Equal(
            lanes
                .Index()
                .Where(l => l.Item.Text("kind") == "Value" && l.Item.Text("label") != "article")
                .Select(l => l.Index),
            plan.List("lanesLeftOut").Select(l => l.GetValue<int>())
        );
        // Counted again from the links: the most cited here that it does not cite, but for its own citations.
        var counts = all.Where(w => w.Int("id") != paper)
            .SelectMany(w => w.List("cites").Select(c => c.GetValue<int>()))
            .CountBy(c => c)
            .ToDictionary();
        var left = plan.List("muchCited").Select(c => c.GetValue<int>()).ToArray();
        Assert.InRange(left.Length, 1, 8);
        Assert.Equal(
            counts
                .Where(c => c.Value >= 2 && !cited.Contains(all[c.Key].Int("id")) && all[c.Key].Int("id") != paper)
                .Select(c => c.Value)
                .OrderDescending()
                .Take(8),
            left.Select(l => counts[l])
        );
        // Any work can be held against the set: what cites it here is told as its trail tells it.
        var older = cited[0];
        var held = (await Map(review, step, $"plan={older}"))["plan"]!;
        var citing = await Ann.AllWorks(review, await Ann.Follow(review, "Forward", older));
        Assert.Contains(paper, citing);
        Assert.Equal(
            citing.Intersect(all.Select(w => w.Int("id"))).Order(),
            held.List("citedBy").Select(c => all[c.GetValue<int>()].Int("id")).Order()
        );
        // A number that no work has is no paper.
        Assert.Null((await Map(review, step, "plan=99999999"))["plan"]);
    }
}
