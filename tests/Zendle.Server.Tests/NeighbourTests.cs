using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Neighbours over HTTP, counted again from trails and searches, which know nothing of neighbours.</summary>
public sealed class NeighbourTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<int> Neighbours(int review, int[] seeds, params string[] kinds) =>
        Ann.Step(
            review,
            0,
            new
            {
                kind = "Neighbours",
                seeds,
                kinds,
            }
        );

    private async Task<HashSet<int>> Trail(int review, string way, params int[] seeds) =>
        await Ann.AllWorks(review, await Ann.Follow(review, way, seeds));

    private async Task<int[]> MostCited(int review, int most) =>
        await Ann.Works(review, await Ann.Search(review, "light OR lamp* OR moth*"), $"sort=Cited&limit={most}");

    private Task<JsonNode> Get(int review, int step, string more = "") =>
        Ann.Get($"/api/reviews/{review}/steps/{step}/neighbours{more}");

    private async Task<int> Put(int review, int references, int together, int terms, int people) =>
        (
            await Ann.Send(
                "PUT",
                $"/api/reviews/{review}/neighbour-weights",
                new
                {
                    sharedReferences = references,
                    citedTogether = together,
                    sharedTerms = terms,
                    sharedPeople = people,
                    tied = 5,
                }
            )
        ).Status;

    private async Task<int> Taken(int review, int parentId, object act) =>
        (await Ann.Send("POST", $"/api/reviews/{review}/steps", new { parentId, act })).Status;

    [Theory]
    [InlineData("SharedReferences", "Backward", "Forward", "references")]
    [InlineData("CitedTogether", "Forward", "Backward", "together")]
    public async Task Works_with_ties_in_common_are_those_that_trails_lead_to_and_back(
        string kind,
        string there,
        string back,
        string said
    )
    {
        var review = await Ann.Review();
        var seed = (await MostCited(review, 5))[^1];
        var step = await Neighbours(review, [seed], kind);
        var things = await Trail(review, there, seed);
        var expected = await Trail(review, back, [.. things]);
        expected.Remove(seed);
        Assert.Equal(expected.Order(), (await Ann.AllWorks(review, step)).Order());
        var page = await Ann.Get($"/api/reviews/{review}/steps/{step}/works?sort=Likeness&limit=200");
        foreach (var row in page.List("works").Take(8))
        {
            var common = await Trail(review, there, row.Int("id"));
            common.IntersectWith(things);
            Assert.Equal(common.Count, row["inCommon"]!.Int(said));
            var evidence = (await Get(review, step, $"/{row.Int("id")}"))[said]!;
            Assert.Equal(common.Count, evidence.Int("total"));
            Assert.Equal(common.Order().Take(100), evidence.List("works").Select(w => w.Int("workId")).Order());
            Assert.All(evidence.List("works"), w => Assert.Equal([1], w["seeds"]!.AsArray().Select(n => (int)n!)));
        }
    }

    [Fact]
    public async Task Shared_terms_are_what_searching_for_them_finds_and_shared_people_what_their_names_find()
    {
        var review = await Ann.Review();
        var seeds = await MostCited(review, 3);
        var step = await Neighbours(review, seeds, "SharedTerms");
        var near = await Ann.Works(review, step, "sort=Likeness&limit=5");
        foreach (var work in near)
        {
            var terms = (await Get(review, step, $"/{work}")).List("terms").ToArray();
            Assert.InRange(terms.Length, 3, 20);
            foreach (var term in terms)
            {
                var found = await Ann.AllWorks(review, await Ann.Search(review, term.Text("expression")));
                Assert.Contains(work, found);
                Assert.Equal(found.Count, term.Int("works"));
            }
        }
        var people = await Neighbours(review, seeds, "SharedPeople");
        foreach (var work in await Ann.Works(review, people, "sort=Likeness&limit=5"))
        {
            var shared = (await Get(review, people, $"/{work}")).List("people").ToArray();
            Assert.NotEmpty(shared);
            var person = shared[0].Text("person");
            var his = await Ann.Step(
                review,
                0,
                new
                {
                    kind = "Narrow",
                    facet = "Person",
                    values = new[] { person },
                }
            );
            var works = await Ann.AllWorks(review, his);
            Assert.Contains(work, works);
            Assert.Contains(seeds[shared[0]["seeds"]!.AsArray().Select(n => (int)n!).First() - 1], works);
        }
    }

    [Fact]
    public async Task Counts_by_kind_and_by_how_much_are_what_taking_them_brings()
    {
        var review = await Ann.Review();
        var seeds = await MostCited(review, 3);
        var trail = await Ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds,
                way = "Both",
            }
        );
        foreach (var kind in (await Get(review, trail)).List("counts"))
            Assert.Equal(
                kind.Int("works"),
                await Ann.Count(review, await Neighbours(review, seeds, kind.Text("kind")))
            );

        var all = await Neighbours(review, seeds);
        var narrowed = await Ann.Step(review, all, new { kind = "Years", from = 2000 });
        var told = await Get(review, narrowed);
        Assert.Equal(seeds, told.List("seeds").Select(s => s.Int("workId")));
        Assert.Equal(await Ann.Count(review, narrowed), told["asked"]!.Int("inView"));
        Assert.Equal(await Ann.Count(review, all), told["asked"]!.Int("whole"));
        foreach (var kind in told.List("counts"))
        {
            var kinds = new[] { kind.Text("kind") };
            var alone = await Ann.Step(review, narrowed, new { kind = "Kinds", kinds });
            Assert.Equal(kind.Int("works"), await Ann.Count(review, alone));
        }
        var levels = told["asked"]!.List("levels").ToArray();
        Assert.True(levels.Length > 2);
        foreach (var level in levels)
        {
            var some = await Ann.Step(review, narrowed, new { kind = "Shared", atLeast = level.Int("atLeast") });
            Assert.Equal(level.Int("works"), await Ann.Count(review, some));
        }
    }

    [Fact]
    public async Task Weights_of_the_joined_order_stay_with_the_review_and_decide_it()
    {
        var review = await Ann.Review();
        var step = await Neighbours(review, await MostCited(review, 2));
        var usual = await Ann.Works(review, step, "sort=Likeness&limit=50");
        async Task<int[]> Weighed(int references, int together, int terms, int people)
        {
            Assert.Equal(204, await Put(review, references, together, terms, people));
            return await Ann.Works(review, step, "sort=Likeness&limit=50");
        }
        var references = await Weighed(10, 0, 0, 0);
        Assert.NotEqual(usual, references);
        var alone = await Neighbours(review, await MostCited(review, 2), "SharedReferences");
        Assert.Equal((await Ann.Works(review, alone, "sort=Likeness&limit=20")), references.Take(20));
        Assert.Equal(10, (await Get(review, step))["weights"]!.Int("sharedReferences"));
        // Another review has its own.
        var other = await Ann.Review();
        Assert.Equal(
            usual,
            await Ann.Works(other, await Neighbours(other, await MostCited(other, 2)), "sort=Likeness&limit=50")
        );
        Assert.Equal(400, await Put(review, 0, 0, 0, 0));
        Assert.Equal(400, await Put(review, 1, 11, 0, 0));
    }

    [Fact]
    public async Task Neighbours_are_a_set_like_any_other()
    {
        var review = await Ann.Review();
        var step = await Neighbours(review, await MostCited(review, 1));
        var inside = await Ann.Step(review, step, new { kind = "Inside", words = new[] { "light" } });
        var found = await Ann.AllWorks(review, inside);
        Assert.InRange(found.Count, 1, await Ann.Count(review, step) - 1);
        var kept = await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", stepId = inside });
        Assert.Equal(found.Count, kept.Int("changed"));
        var export = await Ann.Http.GetStringAsync($"/api/reviews/{review}/export?stepId={inside}&format=ris");
        Assert.Equal(found.Count, export.Split("ER  - ").Length - 1);
        var path = await Ann.Get($"/api/reviews/{review}/steps/{inside}/path");
        Assert.StartsWith("neighbours of ", path.List("steps").First().Text("label"), StringComparison.Ordinal);
        Assert.Equal(inside, (await Ann.Get($"/api/reviews/{review}")).Int("trailStepId"));
        var ledger = (await Ann.Get($"/api/reviews/{review}/steps/{step}"))["ledger"]!;
        var database = ledger.List("databases").First();
        var one = await Ann.Step(
            review,
            step,
            new { kind = "Databases", databases = new[] { database.Int("databaseId") } }
        );
        Assert.Equal(database.Int("works"), await Ann.Count(review, one));
        // Every work of a list as a seed, of a tag's for instance.
        var ofList = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/steps",
            new
            {
                parentId = 0,
                act = new { kind = "Trail", way = "Forward" },
                otherStepId = inside,
            }
        );
        var trail = await Ann.Get($"/api/reviews/{review}/steps/{ofList.Int("stepId")}/trail");
        Assert.Equal(found.Order(), trail["seedIds"]!.AsArray().Select(s => (int)s!));
        // All kept, of that moment.
        var ofKept = await Ann.Step(review, 0, new { kind = "Neighbours" });
        Assert.Equal(found.Count, (await Get(review, ofKept)).Int("seedCount"));
        Assert.Empty((await Ann.AllWorks(review, ofKept)).Intersect(found));
    }

    [Fact]
    public async Task Steps_without_seeds_have_no_neighbours_to_narrow()
    {
        var review = await Ann.Review();
        Assert.Equal(400, await Taken(review, 0, new { kind = "Neighbours" })); // nothing is kept
        var search = await Ann.Search(review, "light");
        Assert.Equal(400, await Taken(review, search, new { kind = "Shared", atLeast = 2 }));
        Assert.Equal(400, await Taken(review, 0, new { kind = "Kinds", kinds = new[] { "SharedTerms" } }));
        Assert.Equal(
            404,
            (int)(await Ann.Http.GetAsync($"/api/reviews/{review}/steps/{search}/neighbours")).StatusCode
        );
        // Works that are not there, and such as cite nothing, have no neighbours, and say so.
        var none = await Neighbours(review, [999_999]);
        Assert.Equal(0, await Ann.Count(review, none));
        Assert.All((await Get(review, none)).List("counts"), c => Assert.Equal(0, c.Int("works")));
    }
}
