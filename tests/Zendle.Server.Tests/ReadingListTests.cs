using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>The texts in hand in the order in which each person reads on.</summary>
public sealed class ReadingListTests(Gathering world) : IClassFixture<Gathering>
{
    private Visitor Ann => world.Ann;

    private static async Task<(int Work, string State)[]> List(Visitor who, int review) =>
        [
            .. (await who.Get($"/api/reviews/{review}/reading"))
                .AsArray()
                .Select(r => (r!.Int("workId"), r!.Text("state"))),
        ];

    [Fact]
    public async Task What_was_begun_is_on_top_then_what_most_kept_works_cite_then_what_was_read()
    {
        var review = await Ann.Review();
        var (a, b, c) = (
            (await world.Work("fine")).Work,
            (await world.Work("page")).Work,
            (await world.Work("jats")).Work
        );
        await world.Gather(review, [a, b, c]);
        // Whoever is cited by most kept works comes first; none is kept yet, so the newest does.
        var citing = await Ann.AllWorks(review, await Ann.Follow(review, "Forward", c));
        await Ann.Decide(review, "Keep", [.. citing.Take(20)]);
        var rows = (await Ann.Get($"/api/reviews/{review}/reading")).AsArray().Select(r => r!).ToArray();
        foreach (var row in rows)
        {
            var cites = await Ann.AllWorks(review, await Ann.Follow(review, "Forward", row.Int("workId")));
            Assert.Equal(cites.Intersect(citing.Take(20)).Count(), row.Int("citedByKept"));
            Assert.Equal(("Unread", null), (row.Text("state"), row["at"]?.ToString()));
        }
        Assert.Equal(rows.Select(r => r.Int("citedByKept")).OrderDescending(), rows.Select(r => r.Int("citedByKept")));
        int Text(int work) => rows.Single(r => r.Int("workId") == work).Int("textId");
        Task Note(Visitor who, int work, bool? isRead) =>
            who.Ok("PUT", $"/api/reviews/{review}/texts/{Text(work)}/reading", new { isRead });

        await Note(Ann, a, null);
        await Note(Ann, b, null);
        await Note(Ann, b, true);
        Assert.Equal([(a, "Begun"), (c, "Unread"), (b, "Read")], await List(Ann, review));
        // Opening it again leaves what was said; it can be taken back.
        await Note(Ann, b, null);
        Assert.Equal((b, "Read"), (await List(Ann, review))[^1]);
        await Note(Ann, b, false);
        Assert.Equal([(b, "Begun"), (a, "Begun"), (c, "Unread")], await List(Ann, review));

        // It is each person's own, a reader's too.
        var other = await world.Host.Another(Ann, "reading");
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "reading", role = "Reader" });
        Assert.All(await List(other, review), r => Assert.Equal("Unread", r.State));
        await Note(other, c, true);
        Assert.Equal((c, "Read"), (await List(other, review))[^1]);
        Assert.Equal((c, "Unread"), (await List(Ann, review))[^1]);
        var second = await Ann.Review("Another");
        Assert.Empty(await List(Ann, second));
        Assert.Equal(
            404,
            (await Ann.Send("PUT", $"/api/reviews/{second}/texts/{Text(a)}/reading", new { isRead = true })).Status
        );
    }
}
