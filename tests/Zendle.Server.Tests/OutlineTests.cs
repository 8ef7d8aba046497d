using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Main line, late citations, retracted works and bridges of a list, recounted from trails over HTTP.</summary>
public sealed class OutlineTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private async Task<HashSet<int>> Tied(int review, int work, string way) =>
        await Ann.AllWorks(review, await Ann.Follow(review, way, work));

    [Fact]
    public async Task Each_work_of_the_main_line_cites_the_one_above_it()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light OR moth*");
        var set = await Ann.AllWorks(review, step);
        var outline = await Ann.Get($"/api/reviews/{review}/steps/{step}/outline");
        var line = outline.List("line").Select(l => l["work"]!.Int("id")).ToArray();
        Assert.True(line.Length > 3);
        Assert.Equal(set.Count, outline.Int("works"));
        Assert.All(line, w => Assert.Contains(w, set));
        for (var i = 1; i < line.Length; i++)
            Assert.Contains(line[i - 1], await Tied(review, line[i], "Backward"));
        // It begins with what cites nothing of the list, and ends with what nothing of it cites.
        Assert.Empty((await Tied(review, line[0], "Backward")).Intersect(set));
        Assert.Empty((await Tied(review, line[^1], "Forward")).Intersect(set));
        Assert.Equal(0, outline.List("line").First()["share"]!.GetValue<double>());
        Assert.All(outline.List("line").Skip(1), l => Assert.InRange(l["share"]!.GetValue<double>(), 0, 1));
    }

    [Fact]
    public async Task What_was_cited_late_is_what_the_years_of_its_citations_say()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "");
        foreach (var paper in (await Ann.Get($"/api/reviews/{review}/steps/{step}/outline")).List("sleeping").Take(3))
        {
            var forward = await Ann.Follow(review, "Forward", paper["work"]!.Int("id"));
            var years = (await Ann.Get($"/api/reviews/{review}/steps/{forward}/trail"))["future"]!["years"]!.AsArray();
            var most = years.MaxBy(y => y!.Int("inView"))!;
            Assert.Equal((most.Int("year"), most.Int("inView")), (paper.Int("peak"), paper.Int("atPeak")));
            Assert.True(paper.Int("awakened") <= paper.Int("peak"));
        }
    }

    [Fact]
    public async Task Retracted_works_say_who_still_cites_them()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "");
        var retracted = (await Ann.Get($"/api/reviews/{review}/steps/{step}/outline")).List("retracted").ToArray();
        var all = await Ann.AllWorks(review, await Ann.Search(review, "type:\"retraction notice\""));
        foreach (var one in retracted.Take(3))
        {
            var work = one["work"]!.Int("id");
            var citing = await Tied(review, work, "Forward");
            var notices = citing.Intersect(all).ToArray();
            Assert.NotEmpty(notices);
            Assert.InRange(one.Int("cited"), citing.Count - notices.Length, citing.Count - 1);
            await Ann.Ok(
                "POST",
                $"/api/reviews/{review}/decisions",
                new { act = "Keep", works = citing.Except(notices) }
            );
            var again = (await Ann.Get($"/api/reviews/{review}/steps/{step}/outline"))
                .List("retracted")
                .Single(r => r["work"]!.Int("id") == work);
            Assert.Equal(
                Math.Min(12, citing.Except(notices).Count()),
                again.List("kept").Count(k => citing.Contains(k.Int("id")))
            );
        }
    }

    [Fact]
    public async Task Bridges_are_tied_to_works_of_both_tags()
    {
        var review = await Ann.Review();
        var cited = await Ann.Works(review, await Ann.Search(review, "light OR moth*"), "sort=Cited&limit=20");
        int[] one = [.. cited.Take(10)],
            two = [.. cited.Skip(10)];
        foreach (var (works, value) in new[] { (one, "lamps"), (two, "moths") })
            await Ann.Ok(
                "POST",
                $"/api/reviews/{review}/decisions",
                new
                {
                    act = "Tag",
                    works,
                    value,
                }
            );
        var step = await Ann.Search(review, "light OR moth*");
        var bridges = await Ann.Get($"/api/reviews/{review}/steps/{step}/bridges?first=lamps&second=moths");
        Assert.True(bridges.Int("total") > 0);
        foreach (var bridge in bridges.List("works").Take(3))
        {
            var work = bridge["work"]!.Int("id");
            var tied = (await Tied(review, work, "Backward")).Union(await Tied(review, work, "Forward")).ToHashSet();
            Assert.Equal(
                (one.Count(tied.Contains), two.Count(tied.Contains)),
                (bridge.Int("first"), bridge.Int("second"))
            );
        }
        Assert.Equal(
            ["lamps", "moths"],
            (await Ann.Get($"/api/reviews/{review}/steps/{step}/outline"))["tags"]!
                .AsArray()
                .Select(t => t!.GetValue<string>())
        );
        foreach (var query in new[] { "first=lamps&second=lamps", "first=lamps&second=nobody" })
            Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/{step}/bridges?{query}")).Status);
    }
}
