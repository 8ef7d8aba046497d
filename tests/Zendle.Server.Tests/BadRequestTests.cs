using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Whatever is sent to any endpoint, Zendle says in a sentence what is wrong; nothing is its own fault (500). The
/// requests are made from the API description, so a new endpoint is asked too.
/// </summary>
public sealed class BadRequestTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;
    private int review,
        step,
        trail;
    private string token = "";

    public async ValueTask InitializeAsync()
    {
        var world = await HarvestedOnce.Of(works: 500, seed: 3);
        (outside, host) = (world.Outside, world.Copy());
        ann = await host.SignedIn();
        review = await ann.Review();
        step = await ann.Search(review, "moth* OR light");
        var works = await ann.Works(review, step);
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..5] });
        trail = await ann.Step(review, 0, new { kind = "Trail", seeds = works[..2] });
        token = (await ann.Get("/api/me")).Text("requestToken");
    }

    public ValueTask DisposeAsync() => host.DisposeAsync();

    private async Task<(int Status, string Text)> Raw(string method, string path, byte[]? body, string? type)
    {
        using var request = new HttpRequestMessage(new(method), path);
        request.Headers.Add("X-Zendle-Token", token);
        if (body is not null)
        {
            request.Content = new ByteArrayContent(body);
            if (type is not null)
                request.Content.Headers.TryAddWithoutValidation("Content-Type", type);
        }
        using var reply = await ann.Http.SendAsync(request);
        return ((int)reply.StatusCode, await reply.Content.ReadAsStringAsync());
    }

    private Task<(int Status, string Text)> Json(string method, string path, string body) =>
        Raw(method, path, Encoding.UTF8.GetBytes(body), "application/json");

    private static readonly string[] OddValues = ["0", "-1", "2147483647", "99999999999", "x", "99", "%F0%9F%A6%8B"];

    private static readonly string[] Odd =
    [
        "null",
        "0",
        "-1",
        "99",
        "2147483647",
        "-2147483648",
        "1e400",
        "true",
        "\"\"",
        "\"99\"",
        "\"\\u0000\"",
        "\"\\ud800\"",
        "[]",
        "[null]",
        "[-1,999,0]",
        "[[]]",
        "{}",
        "{\"kind\":null}",
        "[{\"kind\":\"Narrow\"}]",
        "[{\"kind\":\"Ties\"}]",
        "\"" + new string('(', 3_000) + "\"",
        "\"*a??????????\"",
        "[\"moth\",null]",
        "\"2147483648\"",
    ];

    /// <summary>Bodies that differ from one that fits in one place each, at any depth.</summary>
    private static IEnumerable<string> Bent(JsonNode fit)
    {
        yield return fit.ToJsonString();
        foreach (var whole in new[] { "null", "[]", "\"x\"", "{}", "{", "" })
            yield return whole;
        var places = new List<string[]>();
        void Walk(JsonNode? at, string[] path)
        {
            if (at is not JsonObject o || path.Length > 2)
                return;
            foreach (var (key, value) in o)
            {
                places.Add([.. path, key]);
                Walk(value, [.. path, key]);
            }
        }
        Walk(fit, []);
        // Every fourth oddity at every place, the next ones at the next: each stands in most kinds of request.
        foreach (var (at, place) in places.Index())
        {
            foreach (var odd in Odd.Append("(gone)").Where((_, i) => (i + at) % 4 == 0))
            {
                var copy = fit.DeepClone();
                var parent = place[..^1].Aggregate(copy, (n, k) => n[k]!).AsObject();
                if (odd == "(gone)")
                    parent.Remove(place[^1]);
                else
                    parent[place[^1]] = "MARK";
                yield return odd == "(gone)"
                    ? copy.ToJsonString()
                    : copy.ToJsonString().Replace("\"MARK\"", odd, StringComparison.Ordinal);
            }
        }
    }

    [Fact]
    public async Task No_request_is_a_fault_of_ours()
    {
        var (asked, faults) = (0, new List<string>());
        foreach (var (path, methods) in ApiDescription.Whole["paths"]!.AsObject())
        foreach (var (method, operation) in methods!.AsObject())
        {
            // These would change who is asking, or ask the outside in earnest each time.
            if (
                path
                is "/api/sign-out"
                    or "/api/password"
                    or "/api/sign-in"
                    or "/api/first-account"
                    or "/api/databases/{id}/harvest"
            )
                continue;
            var address = path.Replace("{reviewId}", $"{review}", StringComparison.Ordinal)
                .Replace("{stepId}", $"{(method == "delete" ? 999 : step)}", StringComparison.Ordinal)
                .Replace("{facet}", "Type", StringComparison.Ordinal);
            address = Regex.Replace(address, @"\{\w+\}", "1");
            if (operation!["requestBody"]?["content"]?["application/json"]?["schema"] is { } schema)
                foreach (
                    var body in Enumerable
                        .Range(0, ApiDescription.Kinds(schema))
                        .SelectMany(kind => Bent(ApiDescription.Fit(schema, "", step, member: kind)!))
                )
                {
                    var (status, text) = await Json(method.ToUpperInvariant(), address, body);
                    asked++;
                    if (status >= 500 || (status >= 400 && !text.Contains("\"title\"", StringComparison.Ordinal)))
                        faults.Add($"{status} {method} {path} {body[..Math.Min(160, body.Length)]}");
                }
            foreach (var place in Regex.Matches(path, @"\{(\w+)\}").Select(m => m.Value).Append("?"))
            foreach (var odd in OddValues.Where((_, i) => (i + path.Length) % 2 == 0))
            {
                var query = string.Join(
                    '&',
                    operation["parameters"]
                        ?.AsArray()
                        .Where(p => p!["in"]!.GetValue<string>() == "query")
                        .Select(p => $"{p!["name"]}={odd}")
                        ?? []
                );
                var bent =
                    place == "?"
                        ? $"{address}?{query}"
                        : Regex.Replace(
                            path.Replace(place, odd, StringComparison.Ordinal)
                                .Replace("{reviewId}", $"{review}", StringComparison.Ordinal)
                                .Replace("{facet}", "Type", StringComparison.Ordinal),
                            @"\{\w+\}",
                            $"{trail}"
                        );
                if (method == "delete" && !bent.Contains(odd, StringComparison.Ordinal))
                    continue;
                var (status, _) = await Json(method.ToUpperInvariant(), bent, "{}");
                asked++;
                if (status >= 500)
                    faults.Add($"{status} {method} {bent}");
            }
        }
        Assert.True(faults.Count == 0, $"{faults.Count} of {asked}:\n{string.Join('\n', faults.Take(40))}");
        Assert.True(asked > 1_500, $"{asked}");
    }

    [Theory]
    [InlineData("application/json; charset=utf-99", 415)]
    [InlineData("application/json; charset=\"\"", 415)]
    [InlineData("text/plain", 415)]
    [InlineData("application/json; charset=utf-8", 200)]
    [InlineData(null, 415)]
    public async Task A_charset_or_form_that_nobody_knows_is_said(string? type, int status) =>
        Assert.Equal(
            status,
            (
                await Raw(
                    "POST",
                    $"/api/reviews/{review}/reading",
                    "{\"text\":\"moth\",\"stepId\":0}"u8.ToArray(),
                    type
                )
            ).Status
        );

    [Fact]
    public async Task Enumerations_are_names_and_roles_are_three()
    {
        await host.Another(ann, "ben");
        foreach (var role in new[] { "99", "2", "Owner2", "", "curator" })
            Assert.Equal(
                400,
                (await ann.Send("PUT", $"/api/reviews/{review}/members", new { name = "ben", role })).Status
            );
        Assert.Equal(400, (await Json("POST", $"/api/reviews/{review}/decisions", "{\"act\":0,\"works\":[1]}")).Status);
        Assert.Equal(400, (await Json("POST", $"/api/reviews/{review}/decisions", "{\"works\":[1]}")).Status);
        Assert.Equal(400, (await ann.Send("GET", $"/api/reviews/{review}/steps/{step}/works?sort=99")).Status);
        Assert.Equal(400, (await ann.Send("GET", $"/api/reviews/{review}/steps/{step}/facets/99")).Status);
        await ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "ben", role = "Reader" });
    }

    [Fact]
    public async Task An_act_too_large_for_everyone_who_looks_is_refused()
    {
        var (status, problem) = await ann.Send(
            "POST",
            $"/api/reviews/{review}/steps",
            new
            {
                parentId = 0,
                act = new
                {
                    kind = "Narrow",
                    facet = "Keyword",
                    values = Enumerable.Range(0, 60_000).Select(i => $"word {i}"),
                },
            }
        );
        Assert.Equal(400, status);
        Assert.Contains("One step holds at most", problem!.Text("title"), StringComparison.Ordinal);
        Assert.Equal(
            400,
            (
                await ann.Send(
                    "POST",
                    $"/api/reviews/{review}/steps",
                    new
                    {
                        parentId = 0,
                        act = new
                        {
                            kind = "Narrow",
                            facet = "Keyword",
                            values = new[] { new string('x', 29_000_000) },
                        },
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_trails_first_step_can_be_taken_out_when_ways_and_ties_follow()
    {
        var way = await ann.Step(review, trail, new { kind = "Way", way = "Backward" });
        var ties = await ann.Step(review, way, new { kind = "Ties", atLeast = 2 });
        var years = await ann.Step(
            review,
            ties,
            new
            {
                kind = "Years",
                from = 1990,
                to = 2026,
            }
        );
        Assert.Equal(years, (await ann.Ok("DELETE", $"/api/reviews/{review}/steps/{trail}")).Int("stepId"));
        // What only narrowed the trail went with it; the years narrow what is there without it.
        Assert.Equal(
            [years],
            (await ann.Get($"/api/reviews/{review}/steps/{years}/path")).List("steps").Select(s => s.Int("id"))
        );
        Assert.Equal(
            await ann.Count(
                review,
                await ann.Step(
                    review,
                    0,
                    new
                    {
                        kind = "Years",
                        from = 1990,
                        to = 2026,
                    }
                )
            ),
            await ann.Count(review, years)
        );
    }

    [Fact]
    public async Task Ten_wishes_at_once_make_one_database_and_one_member()
    {
        await host.Another(ann, "cleo");
        var added = await Task.WhenAll(
            Enumerable
                .Range(0, 10)
                .Select(_ =>
                    ann.Send("POST", "/api/databases", new { address = outside.Oai("harbour"), trusted = false })
                )
        );
        Assert.Single(added, a => a.Status == 200);
        Assert.All(added.Where(a => a.Status != 200), a => Assert.Equal(422, a.Status));
        Assert.Single(
            (await ann.Get("/api/databases")).List("databases"),
            d => d.Text("address") == outside.Oai("harbour")
        );
        Assert.All(
            await Task.WhenAll(
                Enumerable
                    .Range(0, 10)
                    .Select(_ =>
                        ann.Send("PUT", $"/api/reviews/{review}/members", new { name = "cleo", role = "Screener" })
                    )
            ),
            a => Assert.Equal(204, a.Status)
        );
        Assert.Single((await ann.Get($"/api/reviews/{review}/members")).AsArray(), m => m!.Text("name") == "cleo");
        var made = await Task.WhenAll(
            Enumerable
                .Range(0, 10)
                .Select(_ =>
                    ann.Send(
                        "POST",
                        "/api/accounts",
                        new
                        {
                            name = "dora",
                            displayName = "Dora",
                            password = ZendleHost.Password,
                        }
                    )
                )
        );
        Assert.Single(made, a => a.Status == 204);
    }
}
