using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class DecisionTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private static Task<System.Text.Json.Nodes.JsonNode> Decide(
        Visitor who,
        int review,
        string act,
        int[] works,
        string? value = null
    ) =>
        who.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act,
                works,
                value,
            }
        );

    private static async Task<string> Stage(Visitor who, int review, int work) =>
        (await who.Get($"/api/reviews/{review}/works/{work}"))["judgement"]!.Text("stage");

    [Fact]
    public async Task Kept_works_are_a_set_like_any_other()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        var works = await Ann.Works(review, step);
        await Decide(Ann, review, "Keep", works[..4]);
        await Decide(Ann, review, "SetAside", [works[5]], "not a study of its own");
        await Decide(Ann, review, "Tag", works[..2], "crops");
        Assert.Equal(works[..4].Order(), (await Ann.Works(review, await Ann.Search(review, "stage:kept"))).Order());
        Assert.Equal([works[5]], await Ann.Works(review, await Ann.Search(review, "stage:\"set aside\"")));
        Assert.Equal(
            works[..2].Order(),
            (await Ann.Works(review, await Ann.Search(review, "tag:crops AND moth*"))).Order()
        );
        var view = await Ann.Get($"/api/reviews/{review}/steps/{step}");
        Assert.Equal((4, 1), (view.Int("kept"), view.Int("setAside")));
        Assert.Equal(
            view.Int("count") - 5,
            (await Ann.Get($"/api/reviews/{review}/steps/{step}/works?hideJudged=true&limit=1")).Int("total")
        );
        var head = await Ann.Get($"/api/reviews/{review}");
        Assert.Equal((4, 1, 2), (head.Int("kept"), head.Int("setAside"), head.List("tags").Single().Int("count")));
    }

    [Fact]
    public async Task Keeping_the_first_of_the_list_is_one_act_that_one_undo_takes_back()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light");
        var expected = await Ann.Works(review, step, "sort=Cited&limit=20");
        await Decide(Ann, review, "Keep", [expected[3]]);
        var done = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act = "Keep",
                stepId = step,
                first = 20,
                sort = "Cited",
            }
        );
        Assert.Equal(19, done.Int("changed")); // one was kept already
        Assert.Equal(expected.Order(), (await Ann.Works(review, await Ann.Search(review, "stage:kept"))).Order());
        Assert.Equal(19, (await Ann.Ok("POST", $"/api/reviews/{review}/undo", new { })).Int("changed"));
        Assert.Equal([expected[3]], await Ann.Works(review, await Ann.Search(review, "stage:kept")));
    }

    [Fact]
    public async Task Two_tabs_on_one_work_both_see_it_and_undo_is_personal()
    {
        var review = await Ann.Review();
        var ben = await world.Host.Another(Ann, "ben" + review);
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "ben" + review, role = "Screener" });
        var work = (await Ann.Works(review, await Ann.Search(review, "moth*")))[0];
        await Decide(Ann, review, "Keep", [work]);
        Assert.Equal("Kept", await Stage(ben, review, work));
        await Decide(ben, review, "SetAside", [work], "twice");
        Assert.Equal("SetAside", await Stage(Ann, review, work));
        var (status, problem) = await Ann.Send("POST", $"/api/reviews/{review}/undo", new { });
        Assert.Equal(409, status);
        Assert.StartsWith(
            "Another member has decided on the same work since",
            problem!.Text("title"),
            StringComparison.Ordinal
        );
        await ben.Ok("POST", $"/api/reviews/{review}/undo", new { });
        Assert.Equal("Kept", await Stage(Ann, review, work));
        await Ann.Ok("POST", $"/api/reviews/{review}/undo", new { });
        Assert.Equal("Found", await Stage(ben, review, work));
        Assert.Equal(
            "There is nothing of yours left to undo in this review.",
            (await ben.Send("POST", $"/api/reviews/{review}/undo", new { })).Body!.Text("title")
        );
    }

    [Fact]
    public async Task Decisions_at_the_same_moment_all_count()
    {
        var review = await Ann.Review();
        var works = await Ann.Works(review, await Ann.Search(review, "light"), "limit=40");
        await Task.WhenAll(works.Select(w => Decide(Ann, review, "Keep", [w])));
        Assert.Equal(works.Order(), (await Ann.Works(review, await Ann.Search(review, "stage:kept"))).Order());
    }

    [Theory]
    [InlineData("SetAside", null, "Setting aside needs a reason.")]
    [InlineData("SetAside", "  ", "Setting aside needs a reason.")]
    [InlineData("Tag", "", "A tag needs a name.")]
    public async Task What_is_missing_is_asked_for(string act, string? value, string sentence)
    {
        var review = await Ann.Review();
        var (status, problem) = await Ann.Send(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act,
                works = new[] { 1 },
                value,
            }
        );
        Assert.Equal((400, sentence), (status, problem!.Text("title")));
        Assert.Equal(0, (await Decide(Ann, review, "Keep", [0, -4, 999_999])).Int("changed"));
    }

    [Fact]
    public async Task An_open_page_hears_of_what_others_do()
    {
        var review = await Ann.Review();
        var work = (await Ann.Works(review, await Ann.Search(review, "moth*")))[0];
        using var stream = await Ann.Http.GetStreamAsync("/api/events");
        using var reader = new StreamReader(stream);
        Assert.Contains("hello", await reader.ReadLineAsync(), StringComparison.Ordinal);
        await Decide(Ann, review, "Keep", [work]);
        string? line;
        do
        {
            line = await reader.ReadLineAsync().WaitAsync(TimeSpan.FromSeconds(60));
        } while (line is not null && !line.Contains($"\"reviewId\":{review}", StringComparison.Ordinal));
        Assert.Contains("\"kind\":\"review\"", line, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Roles_decide_who_may_do_what()
    {
        var review = await Ann.Review();
        var cleo = await world.Host.Another(Ann, "cleo" + review);
        var name = "cleo" + review;
        var step = await Ann.Search(review, "moth*");
        async Task<int> As(string method, string path, object? body = null) =>
            (await cleo.Send(method, $"/api/reviews/{review}{path}", body)).Status;
        Assert.Equal(404, await As("GET", "")); // not a member: there is no such review
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name, role = "Reader" });
        Assert.Equal(
            new[] { 200, 200, 200 },
            new[]
            {
                await As("GET", $"/steps/{step}/works"),
                await As("GET", "/log"),
                await As("POST", "/reading", new { text = "moth", stepId = 0 }),
            }
        );
        Assert.Equal(
            new[] { 403, 403, 403, 403 },
            new[]
            {
                await As("POST", "/decisions", new { act = "Keep", works = new[] { 1 } }),
                await As("POST", "/steps", new { parentId = 0, act = new { kind = "Search", expression = "x" } }),
                await As("POST", "/undo", new { }),
                await As("DELETE", $"/steps/{step}"),
            }
        );
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name, role = "Screener" });
        Assert.Equal(
            new[] { 200, 403, 403 },
            new[]
            {
                await As("POST", "/decisions", new { act = "Keep", works = new[] { 1 } }),
                await As("PATCH", "", new { title = "Mine" }),
                await As("DELETE", "/members/ann"),
            }
        );
        Assert.Equal(
            403,
            (await cleo.Send("POST", "/api/databases", new { address = "http://x.example", trusted = false })).Status
        );
        Assert.Equal(
            403,
            (
                await cleo.Send(
                    "POST",
                    "/api/accounts",
                    new
                    {
                        name = "x",
                        displayName = "x",
                        password = ZendleHost.Password,
                    }
                )
            ).Status
        );
        await Ann.Ok("DELETE", $"/api/reviews/{review}/members/{name}");
        Assert.Equal(404, await As("GET", ""));
    }
}
