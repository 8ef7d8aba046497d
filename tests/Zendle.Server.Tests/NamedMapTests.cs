using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Maps under a name stay with their review, and say what became of their set.</summary>
public sealed class NamedMapTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private static object Look(int until = 2010, int pins = 2) =>
        new
        {
            lanes = "Venue",
            order = "First",
            along = "Year",
            size = "Links",
            database = 0,
            colour = "Tag",
            open = false,
            suggest = 3,
            against = 0,
            plan = 0,
            until,
            changed = new[]
            {
                new
                {
                    kind = "Value",
                    label = "Verge",
                    shown = "Folded",
                    name = "The verge",
                },
            },
            pins = Enumerable.Range(1, pins),
        };

    /// <summary>Saves a map under a name and gives its number.</summary>
    private async Task<int> Saved(int review, string name, int step) =>
        (
            await Ann.Ok(
                "POST",
                $"/api/reviews/{review}/maps",
                new
                {
                    name,
                    stepId = step,
                    look = Look(),
                }
            )
        ).GetValue<int>();

    private async Task<JsonNode[]> Maps(int review) =>
        [.. (await Ann.Get($"/api/reviews/{review}/maps")).AsArray().Select(m => m!)];

    [Fact]
    public async Task A_saved_map_opens_as_it_was_and_says_what_came_and_went()
    {
        var review = await Ann.Review();
        int[] works = [.. await Ann.Works(review, await Ann.Search(review, "moth*"), "limit=6")];
        await Ann.Decide(review, "Keep", works[..4]);
        var step = await Ann.Search(review, "stage:kept");
        var id = await Saved(review, " Core ", step);
        var saved = Assert.Single(await Maps(review));
        Assert.Equal(
            (id, "Core", step, 4, 4, 0, 0),
            (
                saved.Int("id"),
                saved.Text("name"),
                saved.Int("stepId"),
                saved.Int("then"),
                saved.Int("now"),
                saved.Int("came"),
                saved.Int("gone")
            )
        );
        Assert.Equal("Ann", saved.Text("by"));
        var look = saved["look"]!;
        Assert.Equal(
            ("Venue", "First", "Links", "Tag", 3, 2010),
            (
                look.Text("lanes"),
                look.Text("order"),
                look.Text("size"),
                look.Text("colour"),
                look.Int("suggest"),
                look.Int("until")
            )
        );
        Assert.Equal(
            ("Verge", "Folded", "The verge"),
            (
                look.List("changed").Single().Text("label"),
                look.List("changed").Single().Text("shown"),
                look.List("changed").Single().Text("name")
            )
        );
        Assert.Equal([1, 2], look.List("pins").Select(p => p.GetValue<int>()));

        // Two come, one goes.
        await Ann.Decide(review, "Keep", works[4..]);
        await Ann.Decide(review, "Clear", works[..1]);
        saved = Assert.Single(await Maps(review));
        Assert.Equal((4, 5, 2, 1), (saved.Int("then"), saved.Int("now"), saved.Int("came"), saved.Int("gone")));

        // Saved over, it is today's.
        await Ann.Ok(
            "PUT",
            $"/api/reviews/{review}/maps/{id}",
            new
            {
                name = "Core",
                stepId = step,
                look = Look(1999),
            }
        );
        saved = Assert.Single(await Maps(review));
        Assert.Equal(
            (5, 0, 0, 1999),
            (saved.Int("then"), saved.Int("came"), saved.Int("gone"), saved["look"]!.Int("until"))
        );

        await Ann.Ok("PUT", $"/api/reviews/{review}/maps/{id}/removed", new { isRemoved = true });
        Assert.Empty(await Maps(review));
        await Ann.Ok("PUT", $"/api/reviews/{review}/maps/{id}/removed", new { isRemoved = false });
        Assert.Single(await Maps(review));
    }

    [Fact]
    public async Task What_cannot_be_saved_says_why_and_other_reviews_see_nothing()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        async Task<string> Refused(object body)
        {
            var (status, problem) = await Ann.Send("POST", $"/api/reviews/{review}/maps", body);
            Assert.Equal(400, status);
            return problem!.Text("title");
        }
        Assert.Contains(
            "needs a name",
            await Refused(
                new
                {
                    name = "  ",
                    stepId = step,
                    look = Look(),
                }
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "not in the review",
            await Refused(
                new
                {
                    name = "x",
                    stepId = 999_999,
                    look = Look(),
                }
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "At most 6 cards",
            await Refused(
                new
                {
                    name = "x",
                    stepId = step,
                    look = Look(pins: 7),
                }
            ),
            StringComparison.Ordinal
        );
        Assert.Empty(await Maps(review));
        var id = await Saved(review, "x", step);
        var another = await Ann.Review("Another");
        Assert.Empty(await Maps(another));
        foreach (
            var (path, body) in new (string, object)[]
            {
                (
                    $"maps/{id}",
                    new
                    {
                        name = "y",
                        stepId = await Ann.Search(another, "light"),
                        look = Look(),
                    }
                ),
                ($"maps/{id}/removed", new { isRemoved = true }),
            }
        )
            Assert.Equal(404, (await Ann.Send("PUT", $"/api/reviews/{another}/{path}", body)).Status);
        Assert.Equal("x", Assert.Single(await Maps(review)).Text("name"));
    }
}
