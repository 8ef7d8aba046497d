using System.Net;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>The references of a work as printed, doubt about people, and the forms on the outside's own page.</summary>
public sealed class ReferencesTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private async Task<(int Review, int Work)> MostReferences()
    {
        var review = await Ann.Review();
        var works = await Ann.Works(
            review,
            await Ann.Search(review, "review OR synthesis OR the"),
            "limit=60&sort=Newest"
        );
        foreach (var work in works)
            if ((await Ann.Get($"/api/reviews/{review}/works/{work}")).Int("citesCount") > 5)
                return (review, work);
        throw new InvalidOperationException("nothing in this world cites");
    }

    [Fact]
    public async Task List_trail_and_count_of_a_work_are_one_thing()
    {
        var review = await Ann.Review();
        var (wrong, looked) = (new List<string>(), 0);
        foreach (var work in await Ann.Works(review, await Ann.Search(review, ""), "limit=200&sort=Newest"))
        {
            var count = (await Ann.Get($"/api/reviews/{review}/works/{work}")).Int("citesCount");
            if (count == 0)
                continue;
            looked++;
            var listed = (await Ann.Get($"/api/reviews/{review}/works/{work}/references"))
                .List("references")
                .Where(r => r["workId"] is not null)
                .Select(r => r.Int("workId"))
                .Where(w => w != work)
                .Distinct()
                .Count();
            var trail = await Ann.Count(
                review,
                await Ann.Step(
                    review,
                    0,
                    new
                    {
                        kind = "Trail",
                        seeds = new[] { work },
                        way = "Backward",
                    }
                )
            );
            if (count != listed || count != trail)
                wrong.Add($"{work}: counts {count}, lists {listed}, leads to {trail}");
        }
        Assert.True(wrong.Count == 0, string.Join('\n', wrong));
        Assert.True(looked > 60, $"{looked} works with references");
    }

    [Fact]
    public async Task Each_reference_says_what_it_means_and_by_what()
    {
        var (review, work) = await MostReferences();
        var told = await Ann.Get($"/api/reviews/{review}/works/{work}/references");
        var references = told.List("references").ToArray();
        Assert.Equal(told.Int("matched"), references.Count(r => r["workId"] is not null));
        // What the references mean is what the work's backward trail holds.
        var trail = await Ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds = new[] { work },
                way = "Backward",
            }
        );
        var cited = new HashSet<int>(await Ann.Works(review, trail, "limit=200"));
        Assert.Equal(
            cited.Order(),
            references
                .Where(r => r["workId"] is not null)
                .Select(r => r.Int("workId"))
                .Where(w => w != work)
                .Distinct()
                .Order()
        );
        Assert.All(
            references,
            r =>
            {
                Assert.NotEmpty(r["databases"]!.AsArray());
                Assert.Equal(r["workId"] is null, r["evidence"] is null);
                Assert.InRange(r["sure"]!.GetValue<double>(), 0, 1);
                if (r["workId"] is not null)
                    Assert.False(string.IsNullOrEmpty(r.Text("title")));
            }
        );
        Assert.Contains(references, r => r["evidence"]?.GetValue<string>() == "the same DOI");
    }

    [Fact]
    public async Task A_work_without_references_has_an_empty_list_and_nobody_else_may_look()
    {
        var (review, work) = await MostReferences();
        Assert.Empty((await Ann.Get($"/api/reviews/{review}/works/9999999/references")).List("references"));
        var stranger = await world.Host.Visit();
        Assert.Equal(401, (await stranger.Send("GET", $"/api/reviews/{review}/works/{work}/references")).Status);
    }

    [Fact]
    public async Task Doubt_about_people_stands_beside_their_names_and_is_mutual()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "the OR of OR in");
        var shown = (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/Person"))
            .List("shown")
            .ToDictionary(
                v => v.Text("value"),
                v => v["perhaps"]!.AsArray().Select(p => p!.GetValue<string>()).ToArray()
            );
        Assert.NotEmpty(shown);
        foreach (var (name, perhaps) in shown)
        foreach (var other in perhaps)
        {
            Assert.NotEqual(name, other);
            if (shown.TryGetValue(other, out var back))
                Assert.Contains(name, back);
        }
        Assert.All(
            (await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/Type")).List("shown"),
            v => Assert.Empty(v["perhaps"]!.AsArray())
        );
    }

    private static async Task<HttpResponseMessage> Post(Uri at, params (string, string)[] form)
    {
        using var http = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false });
        using var content = new FormUrlEncodedContent(form.Select(f => KeyValuePair.Create(f.Item1, f.Item2)));
        return await http.PostAsync(at, content);
    }

    [Fact]
    public async Task Time_is_moved_and_faults_are_switched_from_the_outsides_own_page()
    {
        await using var outside = await OutsideHost.Start(works: 200, seed: 8);
        using var http = new HttpClient();
        async Task<DateTimeOffset> Now() =>
            DateTimeOffset.Parse(
                await http.GetStringAsync(new Uri(outside.Address, "/clock")),
                System.Globalization.CultureInfo.InvariantCulture
            );
        var before = await Now();
        var moved = await Post(new(outside.Address, "/clock"), ("days", "30"));
        Assert.Equal((HttpStatusCode.Redirect, "/"), (moved.StatusCode, moved.Headers.Location!.ToString()));
        Assert.InRange((await Now() - before).TotalDays, 30, 30.1);
        foreach (var days in new[] { "0", "-3", "9999", "soon", "" })
            Assert.Equal(
                HttpStatusCode.BadRequest,
                (await Post(new(outside.Address, "/clock"), ("days", days))).StatusCode
            );
        Assert.Equal(
            HttpStatusCode.Redirect,
            (
                await Post(new(outside.Address, "/faults"), ("database", "farnet"), ("kind", "busy"), ("times", "3"))
            ).StatusCode
        );
        var page = await http.GetStringAsync(outside.Address);
        Assert.Contains("busy, 3 times", page, StringComparison.Ordinal);
        Assert.Contains("<form method=\"post\" action=\"/clock\">", page, StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await Post(new(outside.Address, "/faults"), ("database", "nowhere"), ("kind", "busy"))).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await Post(new(outside.Address, "/faults"), ("database", "farnet"), ("kind", "earthquake"))).StatusCode
        );
        await Post(new(outside.Address, "/faults"), ("database", "farnet"), ("kind", "none"));
        Assert.DoesNotContain("busy, 3 times", await http.GetStringAsync(outside.Address), StringComparison.Ordinal);
    }
}
