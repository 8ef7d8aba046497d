using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Topics of a map stay while its set changes a little, and are found anew when it changed much or when asked.</summary>
public sealed class MapTopicTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> Map(int review, int step, string asked = "") =>
        Ann.Get($"/api/reviews/{review}/steps/{step}/map?{asked}");

    private static (int Works, int Came, int Gone) Among(JsonNode map) =>
        (map["among"]!.Int("works"), map["among"]!.Int("came"), map["among"]!.Int("gone"));

    private static string Lane(JsonNode map, JsonNode work)
    {
        var lane = map.List("lanes").ElementAt(work.Int("lane"))!;
        return $"{lane.Text("kind")} {lane.Text("label")}";
    }

    private static Dictionary<int, string> Lanes(JsonNode map) =>
        map.List("works").ToDictionary(w => w.Int("id"), w => Lane(map, w));

    private async Task<(int Review, int Step, int[] Others)> Kept(int kept)
    {
        var review = await Ann.Review();
        int[] works = [.. await Ann.Works(review, await Ann.Search(review, "moth* OR light"), "limit=150&sort=Cited")];
        await Ann.Decide(review, "Keep", works[..kept]);
        return (review, await Ann.Search(review, "stage:kept"), works[kept..]);
    }

    [Theory]
    [InlineData("Topic", "Size")]
    [InlineData("Topic", "First")]
    [InlineData("Topic", "Links")]
    [InlineData("Sense", "Size")]
    public async Task A_suggestion_that_is_taken_stays_in_its_lane_and_moves_no_other(string lanes, string order)
    {
        var (review, step, _) = await Kept(60);
        var asked = $"lanes={lanes}&order={order}&suggest=12";
        var before = await Map(review, step, asked);
        Assert.Equal((60, 0, 0), Among(before));
        Assert.True(before.List("lanes").Count() > 1);
        foreach (var suggested in before.List("suggested").Take(6))
        {
            var (taken, lane) = (suggested["work"]!.Int("id"), Lane(before, suggested["work"]!));
            await Ann.Decide(review, "Keep", [taken]);
            var after = await Map(review, step, asked);
            Assert.Equal(
                before.List("lanes").Select(l => l.Text("label")),
                after.List("lanes").Select(l => l.Text("label"))
            );
            var (then, now) = (Lanes(before), Lanes(after));
            Assert.All(then, w => Assert.Equal(w.Value, now[w.Key]));
            Assert.Equal(lane, now[taken]);
            before = after;
        }
        Assert.Equal((60, 6, 0), Among(before));
    }

    [Fact]
    public async Task Topics_are_found_anew_when_a_person_asks()
    {
        var (review, step, others) = await Kept(60);
        var first = await Map(review, step);
        var gone = first.List("works").First().Int("id");
        await Ann.Decide(review, "Keep", others[..10]);
        await Ann.Decide(review, "SetAside", [gone], "other topic");
        var held = await Map(review, step);
        Assert.Equal((60, 10, 1), Among(held));
        Assert.Equal(69, held.List("works").Count());
        Assert.DoesNotContain(gone, Lanes(held).Keys);
        await Ann.Ok("POST", $"/api/reviews/{review}/steps/{step}/map/topics", new { });
        var anew = await Map(review, step);
        Assert.Equal((69, 0, 0), Among(anew));
        // The same set that never was another has the same topics.
        var fresh = await Map(review, await Ann.Search(review, "stage:kept AND (moth* OR light)"));
        Assert.Equal(Lanes(fresh), Lanes(anew));
        Assert.Equal(404, (await Ann.Send("POST", $"/api/reviews/{review}/steps/99999999/map/topics")).Status);
    }

    [Fact]
    public async Task Topics_are_found_anew_when_the_set_has_changed_by_more_than_half()
    {
        var (review, step, others) = await Kept(20);
        await Ann.Decide(review, "Keep", others[..10]);
        Assert.Equal((20, 10, 0), Among(await Map(review, step)));
        await Ann.Decide(review, "Keep", others[10..11]);
        Assert.Equal((31, 0, 0), Among(await Map(review, step)));
        await Ann.Decide(review, "Keep", others[11..12]);
        Assert.Equal((31, 1, 0), Among(await Map(review, step)));
        Assert.Null((await Map(review, step, "lanes=Venue"))["among"]);
    }
}
