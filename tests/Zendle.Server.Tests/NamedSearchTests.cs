using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Searches under a name, run again after the outside went on; and a database that is an extract of another. On a world
/// of its own, for it is changed.
/// </summary>
public sealed class NamedSearchTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start();
        host = new(outside.Address.ToString());
        ann = await host.Curator();
        await ann.Harvest(outside.Oai("lifeleaf"));
        await ann.Harvest(outside.Oai("select"));
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    private async Task<JsonNode[]> Named(int review) =>
        [.. (await ann.Get($"/api/reviews/{review}/searches")).AsArray().Select(n => n!)];

    [Fact]
    public async Task A_named_search_says_what_is_new_and_holds_it_when_it_is_run_again()
    {
        var review = await ann.Review();
        var step = await ann.Search(review, "");
        step = await ann.Step(
            review,
            step,
            new
            {
                kind = "Years",
                from = 1950,
                to = 2100,
            }
        );
        Assert.Empty(await Named(review));
        await ann.Ok("PATCH", $"/api/reviews/{review}/steps/{step}", new { name = "All of it" });
        var before = Assert.Single(await Named(review));
        Assert.Equal(("All of it", 0, 0), (before.Text("name"), before.Int("new"), before.Int("gone")));
        Assert.Equal(["everything", "1950–2100"], before.List("asks").Select(a => a.GetValue<string>()));
        Assert.Equal(before.Int("then"), before.Int("now"));
        var works = await ann.Works(review, step, "limit=200&sort=Newest");

        await outside.Move(120);
        var lifeleaf = (await ann.Get("/api/databases")).List("databases").First().Int("id");
        await ann.Ok("POST", $"/api/databases/{lifeleaf}/harvest");
        await ann.Ended(lifeleaf);
        var after = Assert.Single(await Named(review));
        Assert.Equal(before.Int("then"), after.Int("then"));
        Assert.True(after.Int("new") > 0);
        Assert.Equal(after.Int("now"), after.Int("then") + after.Int("new") - after.Int("gone"));
        // The path says both counts.
        var shown = (await ann.Get($"/api/reviews/{review}/steps/{step}/path")).List("steps").Last();
        Assert.Equal((after.Int("then"), after.Int("now")), (shown.Int("count"), shown.Int("countNow")));

        var ran = await ann.Ok("POST", $"/api/reviews/{review}/searches/{step}/again");
        Assert.Equal((after.Int("new"), after.Int("gone")), (ran.Int("new"), ran.Int("gone")));
        var holding = ran.Int("newStepId");
        Assert.Equal(after.Int("new"), await ann.Count(review, holding));
        Assert.Empty((await ann.Works(review, holding)).Intersect(works));
        Assert.Matches(
            @"^\d+ new since \d+ \w+ \d{4}$",
            (await ann.Get($"/api/reviews/{review}/steps/{holding}/path")).List("steps").Last().Text("label")
        );
        var settled = Assert.Single(await Named(review));
        Assert.Equal((settled.Int("now"), 0, 0), (settled.Int("then"), settled.Int("new"), settled.Int("gone")));
        // The log has the run, as one that repeats the first.
        Assert.Contains(
            (await ann.Get($"/api/reviews/{review}/log"))["runs"]!.AsArray(),
            r => r!["repeats"] is not null && r.Int("new") == after.Int("new")
        );
        Assert.Equal(404, (await ann.Send("POST", $"/api/reviews/{review}/searches/999999/again")).Status);
    }

    [Fact]
    public async Task An_extract_is_counted_together_with_what_contains_it()
    {
        var review = await ann.Review();
        var step = await ann.Search(review, "moth* OR light");
        async Task<Dictionary<string, JsonNode>> Ledger() =>
            (await ann.Get($"/api/reviews/{review}/steps/{step}"))["ledger"]!
                .List("databases")
                .ToDictionary(d => d.Text("name"));
        var databases = (await ann.Get("/api/databases"))
            .List("databases")
            .ToDictionary(d => d.Text("name"), d => d.Int("id"));
        var (whole, extract) = (databases["Lifeleaf Index"], databases["Lifeleaf Select"]);
        var apart = await Ledger();
        Assert.Null(apart["Lifeleaf Select"]["partOf"]);

        await ann.Ok("PUT", $"/api/databases/{extract}/part-of", new { partOf = whole });
        var nested = await Ledger();
        Assert.Equal(whole, nested["Lifeleaf Select"].Int("partOf"));
        // With two databases, without the whole and its extract nothing is left.
        Assert.Equal(nested["Lifeleaf Index"].Int("works"), nested["Lifeleaf Index"].Int("onlyHere"));
        Assert.True(apart["Lifeleaf Index"].Int("onlyHere") < nested["Lifeleaf Index"].Int("onlyHere"));
        Assert.Equal(apart["Lifeleaf Select"].Int("onlyHere"), nested["Lifeleaf Select"].Int("onlyHere"));

        // The page of databases means the same: what would be lost of all works, counted here by searching the others.
        var everything = await ann.Search(review, "");
        var all = await ann.Count(review, everything);
        foreach (var d in (await ann.Get("/api/databases")).List("databases"))
        {
            int[] gone = d.Int("id") == whole ? [whole, extract] : [d.Int("id")];
            int[] left = [.. databases.Values.Except(gone)];
            var without =
                left.Length == 0
                    ? 0
                    : await ann.Count(
                        review,
                        await ann.Step(review, everything, new { kind = "Databases", databases = left })
                    );
            Assert.Equal(all - without, d.Int("onlyHere"));
        }

        foreach (var (id, of) in new (int, int?)[] { (whole, extract), (extract, extract), (extract, 99), (99, whole) })
            Assert.Equal(400, (await ann.Send("PUT", $"/api/databases/{id}/part-of", new { partOf = of })).Status);
        await ann.Ok("PUT", $"/api/databases/{extract}/part-of", new { partOf = (int?)null });
        Assert.Equal(apart["Lifeleaf Index"].Int("onlyHere"), (await Ledger())["Lifeleaf Index"].Int("onlyHere"));
    }
}
