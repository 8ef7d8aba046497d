using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>What was done on a work is not lost when a later record joins it to another one.</summary>
public sealed class MergedWorkTests(Gathering world) : IClassFixture<Gathering>
{
    private Visitor Ann => world.Ann;

    /// <summary>A curator finds that two works are one: the younger goes into the older.</summary>
    private async Task Join(int older, int younger) =>
        await Ann.Ok("POST", "/api/works/join", new { works = new[] { older, younger } });

    [Fact]
    public async Task Texts_seeds_and_decisions_follow_a_work_into_the_one_it_is_merged_with()
    {
        var review = await Ann.Review();
        var (first, second) = ((await world.Work("fine")).Work, (await world.Work("fine")).Work);
        var (older, younger) = (Math.Min(first, second), Math.Max(first, second));
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { younger } });
        var gathered = (await world.Gather(review, [younger]))[younger];
        Assert.True(gathered.Text("state") == "InHand", gathered.ToJsonString());
        var trail = await Ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds = new[] { younger },
                way = "Both",
            }
        );
        var ties = await Ann.Count(review, trail);
        Assert.True(ties > 0);

        await Join(older, younger);

        var merged = await Ann.Get($"/api/reviews/{review}/works/{younger}");
        Assert.Equal(older, merged.Int("id")); // the old address leads on
        Assert.Equal("Kept", merged["judgement"]!.Text("stage"));
        Assert.Equal(
            merged["inHand"]!.ToJsonString(),
            (await Ann.Get($"/api/reviews/{review}/works/{older}"))["inHand"]!.ToJsonString()
        );
        var rows = (await Ann.Get($"/api/reviews/{review}/gather")).List("works").ToArray();
        var row = Assert.Single(rows, r => r["texts"]!.AsArray().Count > 0);
        Assert.Equal((older, "InHand"), (row.Int("workId"), row.Text("state")));
        Assert.NotEmpty(row["attempts"]!.AsArray());
        Assert.Equal(1, (await Ann.Get($"/api/reviews/{review}")).Int("withText"));
        Assert.Equal(1, (await Ann.Get($"/api/reviews/{review}/report/texts")).Int("got"));
        Assert.Equal(
            older,
            (await Ann.Get($"/api/reviews/{review}/texts/{row["texts"]!.AsArray()[0]!.Int("id")}")).Int("workId")
        );
        // The step of before means the same seeds: now the merged work, with the ties of both.
        Assert.Equal(
            older,
            (await Ann.Get($"/api/reviews/{review}/steps/{trail}/trail")).List("seeds").Single().Int("workId")
        );
        Assert.Equal(
            await Ann.Count(
                review,
                await Ann.Step(
                    review,
                    0,
                    new
                    {
                        kind = "Trail",
                        seeds = new[] { older },
                        way = "Both",
                    }
                )
            ),
            await Ann.Count(review, trail)
        );
        Assert.True(await Ann.Count(review, trail) >= ties);
    }

    [Fact]
    public async Task Of_two_merged_works_the_one_that_came_further_speaks_for_the_text()
    {
        var review = await Ann.Review();
        var ((good, _), (dead, deadPath)) = (await world.Work("fine"), await world.Work("dead"));
        Assert.NotEmpty(deadPath);
        var rows = await world.Gather(review, [good, dead]);
        Assert.Equal(("InHand", "NotFound"), (rows[good].Text("state"), rows[dead].Text("state")));
        await Join(Math.Min(good, dead), Math.Max(good, dead));
        var row = Assert.Single((await Ann.Get($"/api/reviews/{review}/gather")).List("works"));
        Assert.Equal((Math.Min(good, dead), "InHand"), (row.Int("workId"), row.Text("state")));
        var account = await Ann.Get($"/api/reviews/{review}/report/texts");
        Assert.Equal((1, 1, 0), (account.Int("sought"), account.Int("got"), account.Int("notGot")));
        // Seeking it again finds it in hand.
        Assert.Equal(
            0,
            (
                await Ann.Ok(
                    "POST",
                    $"/api/reviews/{review}/gather",
                    new { works = new[] { Math.Min(good, dead) }, again = false }
                )
            ).Int("sought")
        );
    }
}
