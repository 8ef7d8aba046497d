using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Rounds over HTTP: what they lead to, what is left of them, and whether that is enough.</summary>
public sealed class RoundTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> Rounds(int review) => Ann.Get($"/api/reviews/{review}/rounds");

    private Task<JsonNode> Decide(int review, string act, params int[] works) =>
        Ann.Decide(review, act, works, act == "SetAside" ? "off topic" : null);

    private async Task<int> Begin(int review, object? asked = null) =>
        (await Ann.Ok("POST", $"/api/reviews/{review}/rounds", asked ?? new { })).Int("stepId");

    private async Task<HashSet<int>> Trail(int review, params int[] seeds) =>
        await Ann.AllWorks(review, await Ann.Follow(review, "Both", seeds));

    private async Task<int[]> MostCited(int review, int most) =>
        await Ann.Works(review, await Ann.Search(review, "light OR lamp*"), $"sort=Cited&limit={most}");

    [Fact]
    public async Task A_round_is_what_trails_of_the_kept_lead_to_less_what_was_looked_at()
    {
        var review = await Ann.Review();
        Assert.Equal(400, (await Ann.Send("POST", $"/api/reviews/{review}/rounds", new { })).Status); // nothing kept
        var seeds = await MostCited(review, 4);
        await Decide(review, "Keep", seeds);
        Assert.Equal(4, (await Rounds(review)).Int("keptSince"));
        var tied = await Trail(review, seeds);
        var elsewhere = tied.Except(seeds).Order().Take(3).ToArray();
        await Decide(review, "SetAside", elsewhere[0]);
        await Ann.Ok("POST", $"/api/reviews/{review}/looked", new { works = elsewhere[1..] });

        var step = await Begin(review);
        var candidates = await Ann.AllWorks(review, step);
        Assert.Equal(tied.Except(seeds).Except(elsewhere).Order(), candidates.Order());
        var told = (await Rounds(review)).List("rounds").Single();
        Assert.Equal((1, 4, step), (told.Int("number"), told.Int("seeds"), told.Int("stepId")));
        var lead = tied.Except(seeds).Count();
        Assert.Equal((lead, lead - 3, lead - 3), (told.Int("found"), told.Int("new"), told.Int("left")));

        // What is kept of it starts the next; what was looked at stays out of it, whoever looks.
        var near = await Ann.Works(review, step, "sort=Likeness&limit=6");
        await Decide(review, "Keep", near[..2]);
        await Decide(review, "SetAside", near[2]);
        await Ann.Ok("POST", $"/api/reviews/{review}/looked", new { works = near[3..5] });
        told = (await Rounds(review)).List("rounds").Single();
        Assert.Equal((2, 1, lead - 3 - 5), (told.Int("kept"), told.Int("setAside"), told.Int("left")));
        Assert.Equal(2, (await Rounds(review)).Int("keptSince"));
        var looked = await Ann.Get($"/api/reviews/{review}/steps/{step}/looked");
        Assert.Equal(near[3..5].Order(), looked.AsArray().Select(w => (int)w!));
        var second = await Begin(review);
        var next = await Ann.AllWorks(review, second);
        var judged = seeds.Concat(elsewhere).Concat(near[..5]);
        Assert.Equal((await Trail(review, near[..2])).Except(judged).Order(), next.Order());
        Assert.Equal("round 2 from 2 works", (await Path(review, second))[0]);
        Assert.Equal(400, (await Ann.Send("POST", $"/api/reviews/{review}/rounds", new { })).Status); // none since
        // A work that is left in both is left once.
        var rounds = await Rounds(review);
        var left = candidates.Union(next).Except(judged).Count();
        Assert.Equal(left, rounds["enough"]!.Int("left"));
        Assert.True(left <= rounds.List("rounds").Sum(r => r.Int("left")));
        var third = await Begin(review, new { fromAllKept = true });
        Assert.Equal(6, (await Rounds(review)).List("rounds").Last().Int("seeds"));
        Assert.NotEqual(second, third);
    }

    private async Task<string[]> Path(int review, int step) =>
        [.. (await Ann.Get($"/api/reviews/{review}/steps/{step}/path")).List("steps").Select(s => s.Text("label"))];

    [Fact]
    public async Task Neighbours_join_the_candidates_where_they_are_asked_for_and_rows_say_every_reason()
    {
        var review = await Ann.Review();
        var seeds = await MostCited(review, 2);
        await Decide(review, "Keep", seeds);
        var step = await Begin(review, new { kinds = new[] { "SharedReferences" }, atLeast = 3 });
        var near = await Ann.Step(
            review,
            await Ann.Step(
                review,
                0,
                new
                {
                    kind = "Neighbours",
                    seeds,
                    kinds = new[] { "SharedReferences" },
                }
            ),
            new { kind = "Shared", atLeast = 3 }
        );
        var expected = await Trail(review, seeds);
        expected.UnionWith(await Ann.AllWorks(review, near));
        expected.ExceptWith(seeds);
        Assert.Equal(expected.Order(), (await Ann.AllWorks(review, step)).Order());
        var rows = (await Ann.Get($"/api/reviews/{review}/steps/{step}/works?sort=Likeness&limit=50")).List("works");
        Assert.All(
            rows,
            r =>
                Assert.True(
                    r["ties"]!.Int("past") + r["ties"]!.Int("future") > 0 || r["inCommon"]!.Int("references") >= 3
                )
        );
        // A side is asked of a trail; of a round it is all there is.
        Assert.Equal(expected.Count, (await Ann.AllWorks(review, step, "&side=Backward")).Count);
    }

    /// <summary>
    /// Counted by hand: the searches' kept works, those that another kept work is tied to by its trail, and both.
    /// </summary>
    [Fact]
    public async Task Enough_counts_kept_works_by_searches_and_by_ties_and_waits_for_the_candidates()
    {
        var review = await Ann.Review();
        var found = await Ann.AllWorks(review, await Ann.Search(review, "title:light"));
        var seed = (await MostCited(review, 1))[0];
        var kept = (await Trail(review, seed)).Order().Take(24).Append(seed).Distinct().ToArray();
        await Decide(review, "Keep", kept);
        var enough = (await Rounds(review))["enough"]!;
        var searched = await Ann.AllWorks(review, await Ann.Search(review, "light OR lamp*"));
        searched.UnionWith(found);
        var tied = kept.Where(w => w != seed).ToHashSet();
        tied.Add(seed);
        Assert.Equal(
            (kept.Count(searched.Contains), kept.Length, kept.Count(searched.Contains)),
            (enough.Int("bySearches"), enough.Int("byTies"), enough.Int("both"))
        );
        Assert.Equal(0, enough.Int("left"));
        // To look at the kept works is no search that found them.
        await Ann.Search(review, "stage:kept");
        Assert.Equal(kept.Count(searched.Contains), (await Rounds(review))["enough"]!.Int("bySearches"));
        // Of record only, once one is.
        var log = await Ann.Get($"/api/reviews/{review}/log");
        var run = log.List("runs").First(r => r["state"]!.Text("expression") == "title:light").Int("id");
        await Ann.Send("PATCH", $"/api/reviews/{review}/log/{run}", new { ofRecord = true });
        enough = (await Rounds(review))["enough"]!;
        Assert.Equal(kept.Count(found.Contains), enough.Int("bySearches"));
        Assert.True(enough["ofRecord"]!.GetValue<bool>());
        // And all of them again, once none is.
        await Ann.Send("PATCH", $"/api/reviews/{review}/log/{run}", new { ofRecord = false });
        Assert.Equal(kept.Count(searched.Contains), (await Rounds(review))["enough"]!.Int("bySearches"));

        var step = await Begin(review);
        enough = (await Rounds(review))["enough"]!;
        Assert.Equal(await Ann.Count(review, step), enough.Int("left"));
        Assert.Null(enough["estimate"]); // candidates stand to be looked at
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/looked",
            new { works = (await Ann.AllWorks(review, step)).Take(1_000).ToArray() }
        );
        Assert.Equal(Math.Max(0, await Ann.Count(review, step) - 1_000), (await Rounds(review))["enough"]!.Int("left"));
    }
}
