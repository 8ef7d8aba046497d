using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class HarvestTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start(works: 350, seed: 5);
        host = new(outside.Address.ToString());
        ann = await host.Curator();
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    [Fact]
    public async Task A_look_shows_who_it_is_before_anything_is_copied()
    {
        var look = await ann.Ok("POST", "/api/databases/look", new { address = outside.Oai("farnet") });
        Assert.Equal(
            ("Farnet", "persistent", "mods"),
            (look.Text("name"), look.Text("deletedRecord"), look.Text("bestFormat"))
        );
        Assert.Equal(["mods", "oai_dc"], look.List("formats").Select(f => f.Text("prefix")));
        Assert.Contains("type:article", look.List("sets").Select(s => s.Text("spec")));
        Assert.Equal([100, 100], look.List("formats").Select(f => f.Int("records")));
        Assert.Equal([10, 10], look.List("formats").Select(f => f.List("preview").Count()));
        Assert.True(look.Int("total") > 300);
        Assert.Empty((await ann.Get("/api/databases")).List("databases"));
        var one = await ann.Ok(
            "POST",
            "/api/databases/look",
            new { address = outside.Oai("farnet"), set = "type:thesis" }
        );
        // the crawl calls a few of them articles
        Assert.InRange(one.List("formats").Last().List("preview").Count(p => p.Text("type") == "thesis"), 8, 10);
    }

    [Fact]
    public async Task The_second_harvest_sees_only_what_changed_and_deletions_take_effect()
    {
        var first = await ann.Harvest(outside.Oai("farnet"));
        Assert.Equal("Done", first["job"]!.Text("state"));
        var records = first.Int("records");
        await ann.Ok("POST", $"/api/databases/{first.Int("id")}/harvest");
        var idle = await ann.Ended(first.Int("id"));
        Assert.Equal("Nothing has changed since the last harvest.", idle["job"]!.Text("message"));
        await outside.Move(90);
        await ann.Ok("POST", $"/api/databases/{first.Int("id")}/harvest");
        var later = await ann.Ended(first.Int("id"));
        var changed = later["job"]!.Int("changed");
        Assert.InRange(changed, 1, records / 2);
        Assert.Equal(later["job"]!.Int("done"), changed); // "from" asked for nothing else
        Assert.NotEqual(records, later.Int("records"));
        Assert.Equal((await ann.Get("/api/databases")).Int("records"), later.Int("records"));
    }

    [Fact]
    public async Task A_set_alone_can_be_harvested_and_an_address_only_once()
    {
        var job = await ann.Ok(
            "POST",
            "/api/databases",
            new
            {
                address = outside.Oai("farnet"),
                format = "oai_dc",
                set = "type:thesis",
                trusted = false,
            }
        );
        var database = await ann.Ended(job.Int("subject"));
        Assert.Equal("Farnet (type:thesis)", database.Text("name"));
        Assert.Equal("thesis", database.List("types").First().Text("value")); // the crawl calls a few of them articles
        var (status, problem) = await ann.Send(
            "POST",
            "/api/databases",
            new
            {
                address = outside.Oai("farnet"),
                format = "oai_dc",
                set = "type:thesis",
                trusted = false,
            }
        );
        Assert.Equal((422, "Farnet (type:thesis) is among the databases already."), (status, problem!.Text("title")));
    }

    [Theory]
    [InlineData("down", "answers with status 500")]
    [InlineData("malformed", "is not well-formed XML")]
    [InlineData("doctype", "carries a document type declaration")]
    [InlineData("cut", "broke off in the middle")]
    [InlineData("redirect", "redirects more than 3 times")]
    [InlineData("endless", "same resumption token again and again")]
    public async Task A_fault_is_told_what_came_is_kept_and_the_harvest_goes_on(string fault, string says)
    {
        // The first page comes whole; the fault meets the second (and, for a loop, every one after it).
        await outside.Fault("farnet", "none");
        var job = await ann.Ok(
            "POST",
            "/api/databases",
            new
            {
                address = outside.Oai("farnet"),
                format = "mods",
                trusted = false,
            }
        );
        var whole = await ann.Ended(job.Int("subject"));
        var all = whole.Int("records");
        await host.DisposeAsync();
        host = new(outside.Address.ToString());
        ann = await host.Curator();

        await outside.Fault("farnet", fault, 9);
        job = await ann.Ok(
            "POST",
            "/api/databases",
            new
            {
                address = outside.Oai("farnet"),
                format = "mods",
                trusted = false,
            }
        );
        var broken = await ann.Ended(job.Int("subject"));
        Assert.Equal("Failed", broken["job"]!.Text("state"));
        Assert.Contains(says, broken["job"]!.Text("message"), StringComparison.Ordinal);
        Assert.Contains("What was received is kept", broken["job"]!.Text("message"), StringComparison.Ordinal);
        await outside.Fault("farnet", "none");
        await ann.Ok("POST", $"/api/jobs/{broken["job"]!.Int("id")}/resume");
        var mended = await ann.Ended(broken.Int("id"));
        Assert.Equal(("Done", all), (mended["job"]!.Text("state"), mended.Int("records")));
    }

    [Theory]
    [InlineData("busy", 2)]
    [InlineData("slow", 1)]
    [InlineData("expired", 1)]
    [InlineData("redirect", 2)]
    public async Task What_can_be_borne_is_borne(string fault, int times)
    {
        await outside.Fault("meridian", fault, times);
        var database = await ann.Harvest(outside.Oai("meridian"));
        Assert.Equal("Done", database["job"]!.Text("state"));
        Assert.True(database.Int("records") > 80);
    }

    [Theory]
    [InlineData("not an address", "is not a web address")]
    [InlineData("ftp://127.0.0.1/x", "is not a web address")]
    [InlineData("http://127.0.0.1:9/oai", "The settings do not allow")]
    [InlineData("http://localhost:5000/oai", "The settings do not allow")]
    public async Task An_address_that_may_not_be_asked_is_not_asked(string address, string says)
    {
        var (status, problem) = await ann.Send("POST", "/api/databases/look", new { address });
        Assert.Equal(422, status);
        Assert.Contains(says, problem!.Text("title"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_service_that_does_not_speak_the_protocol_is_told()
    {
        var (_, problem) = await ann.Send(
            "POST",
            "/api/databases/look",
            new { address = new Uri(outside.Address, "/health").ToString() }
        );
        Assert.Contains("not well-formed XML", problem!.Text("title"), StringComparison.Ordinal);
        var (_, html) = await ann.Send(
            "POST",
            "/api/databases/look",
            new { address = new Uri(outside.Address, "/nothing/oai").ToString() }
        );
        Assert.Contains("answers with status 404", html!.Text("title"), StringComparison.Ordinal);
    }
}
