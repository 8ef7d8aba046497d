using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>A curator parts and joins records; what was ruled is shown, respected and undone.</summary>
public sealed class RecordsTests(HarvestedWithItsOutside world) : IClassFixture<HarvestedWithItsOutside>
{
    private Visitor Ann => world.Ann;

    /// <summary>Works that a test has had: what it ruled about them stands, so the next test takes others.</summary>
    private static readonly HashSet<int> Had = [];

    private async Task<(int Review, int Work, int[] Records)> WorkOfTwo()
    {
        var review = await Ann.Review();
        var step = await Ann.Step(
            review,
            await Ann.Search(review, "of OR in"),
            new
            {
                kind = "Narrow",
                facet = "Database",
                values = new[] { "Meridian Citations" },
            }
        );
        foreach (var id in await Ann.Works(review, step))
        {
            var records = (await Ann.Get($"/api/works/{id}/records"))
                .List("records")
                .Select(r => r.Int("id"))
                .ToArray();
            if (records.Length == 2 && Had.Add(id))
                return (review, id, records);
        }
        throw new InvalidOperationException("no work has two records");
    }

    [Fact]
    public async Task Records_stand_side_by_side_with_what_is_shown_and_why_they_are_one()
    {
        var (_, work, records) = await WorkOfTwo();
        var side = await Ann.Get($"/api/works/{work}/records");
        Assert.Equal(work, side.Int("workId"));
        Assert.All(side.List("fields"), f => Assert.Equal(2, f["values"]!.AsArray().Count));
        var title = side.List("fields").Single(f => f.Text("name") == "title");
        Assert.Contains(title["takenFrom"]!.AsArray()[0]!.GetValue<int>(), records);
        var evidence = Assert.Single(side.List("evidence"));
        Assert.Equal(records.Order(), new[] { evidence.Int("first"), evidence.Int("second") });
        Assert.NotEmpty(evidence["for"]!.AsArray());
        Assert.True(side["canRule"]!.GetValue<bool>());
        Assert.Equal(404, (await Ann.Send("GET", "/api/works/999999/records")).Status);
    }

    [Fact]
    public async Task A_split_is_previewed_done_kept_over_a_harvest_and_undone()
    {
        var (review, work, records) = await WorkOfTwo();
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { work } });
        var preview = await Ann.Ok("POST", $"/api/works/{work}/split", new { records = records[1..], preview = true });
        Assert.Equal([false, true], preview.List("works").Select(w => w["isNew"]!.GetValue<bool>()));
        Assert.Equal(2, (await Ann.Get($"/api/works/{work}/records")).List("records").Count());

        var act = (
            await Ann.Ok("POST", $"/api/works/{work}/split", new { records = records[1..], preview = false })
        ).Text("act");
        var left = await Ann.Get($"/api/works/{work}/records");
        Assert.Single(left.List("records"));
        Assert.False(Assert.Single(left.List("rulings"))["same"]!.GetValue<bool>());
        // The decision stays with the work that keeps its number.
        Assert.Equal("Kept", (await Ann.Get($"/api/reviews/{review}/works/{work}"))["judgement"]!.Text("stage"));
        await world.Outside.Move(20);
        foreach (var database in (await Ann.Get("/api/databases")).List("databases"))
        {
            await Ann.Ok("POST", $"/api/databases/{database.Int("id")}/harvest");
            await Ann.Ended(database.Int("id"));
        }
        Assert.Single((await Ann.Get($"/api/works/{work}/records")).List("records"));

        Assert.Equal(204, (await Ann.Send("POST", $"/api/rulings/{act}/undo")).Status);
        Assert.Equal(records, (await Ann.Get($"/api/works/{work}/records")).List("records").Select(r => r.Int("id")));
        Assert.Empty((await Ann.Get($"/api/works/{work}/records")).List("rulings"));
        Assert.Equal(409, (await Ann.Send("POST", $"/api/rulings/{act}/undo")).Status); // it was taken back already
    }

    [Fact]
    public async Task A_join_undoes_an_earlier_split_and_what_cannot_be_is_refused_in_a_sentence()
    {
        var (_, work, records) = await WorkOfTwo();
        var split = await Ann.Ok("POST", $"/api/works/{work}/split", new { records = records[1..], preview = false });
        var (status, parted) = await Ann.Send(
            "POST",
            $"/api/works/{work}/split",
            new { records = new[] { 999_999 }, preview = true }
        );
        Assert.Equal((422, "Choose some of the work's records, but not all of them."), (status, parted!.Text("title")));
        var other = split.List("works").Select(w => w.Int("workId")).Single(w => w != work);
        var joined = await Ann.Ok("POST", "/api/works/join", new { works = new[] { work, other }, preview = false });
        Assert.Equal(work, Assert.Single(joined.List("works")).Int("workId"));
        // its old number leads on
        Assert.Equal(records, (await Ann.Get($"/api/works/{other}/records")).List("records").Select(r => r.Int("id")));
        Assert.Equal(
            422,
            (await Ann.Send("POST", "/api/works/join", new { works = new[] { work }, preview = false })).Status
        );
    }

    [Fact]
    public async Task Who_is_no_curator_sees_records_but_cannot_rule()
    {
        var (_, work, records) = await WorkOfTwo();
        var bob = await world.Host.Another(Ann, "bob");
        Assert.False((await bob.Get($"/api/works/{work}/records"))["canRule"]!.GetValue<bool>());
        Assert.Equal(403, (await bob.Send("POST", $"/api/works/{work}/split", new { records, preview = true })).Status);
        Assert.Equal(
            403,
            (await bob.Send("POST", "/api/works/join", new { works = new[] { work, work + 1 }, preview = true })).Status
        );
    }
}
