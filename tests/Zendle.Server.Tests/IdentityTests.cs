using System.Net.Http.Json;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class IdentityTests : IAsyncLifetime
{
    private readonly ZendleHost host = new();

    public ValueTask InitializeAsync() => ValueTask.CompletedTask;

    public ValueTask DisposeAsync() => host.DisposeAsync();

    [Fact]
    public async Task The_first_account_needs_the_code_and_the_code_works_once()
    {
        var stranger = await host.Visit();
        Assert.True((await stranger.Get("/api/me"))["needsFirstAccount"]!.GetValue<bool>());
        var (status, problem) = await stranger.Send(
            "POST",
            "/api/first-account",
            new
            {
                code = "AAAA-BBBB-CCCC-DDDD",
                name = "eve",
                displayName = "Eve",
                password = ZendleHost.Password,
            }
        );
        Assert.Equal((403, "The code is wrong."), (status, problem!.Text("title")));
        var ann = await host.Curator();
        var me = await ann.Get("/api/me");
        Assert.Equal(
            (true, "ann", true, false),
            (
                me["signedIn"]!.GetValue<bool>(),
                me.Text("name"),
                me["isCurator"]!.GetValue<bool>(),
                me["needsFirstAccount"]!.GetValue<bool>()
            )
        );
        Assert.Equal(
            409,
            (
                await stranger.Send(
                    "POST",
                    "/api/first-account",
                    new
                    {
                        code = "X",
                        name = "eve",
                        displayName = "Eve",
                        password = ZendleHost.Password,
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task Without_signing_in_nothing_can_be_reached()
    {
        var ann = await host.Curator();
        var review = await ann.Review();
        var stranger = await host.Visit();
        var open = new HashSet<string> { "/api/me", "/api/sign-in", "/api/first-account" };
        var asked = 0;
        foreach (var operation in ApiDescription.Operations.Where(o => !open.Contains(o.Path)))
        {
            var (status, problem) = await stranger.Send(
                operation.Method,
                operation.At(("reviewId", review)),
                operation.Method == "GET" ? null : new { }
            );
            Assert.True(
                status == 401 && problem!.Text("title") == "You are not signed in.",
                $"{operation.Method} {operation.Path} gave {status}"
            );
            asked++;
        }
        Assert.True(asked > 25);
        Assert.Equal(401, (await stranger.Send("GET", "/api/events")).Status);
    }

    [Fact]
    public async Task Signing_out_ends_it_and_a_wrong_password_is_told()
    {
        var ann = await host.Curator();
        await ann.Ok("POST", "/api/sign-out");
        Assert.Equal(401, (await ann.Send("GET", "/api/reviews")).Status);
        var (status, problem) = await ann.Send(
            "POST",
            "/api/sign-in",
            new { name = "ann", password = "not it at all" }
        );
        Assert.Equal((401, "Name or password is wrong."), (status, problem!.Text("title")));
        await ann.SignedIn();
        await ann.Get("/api/reviews");
    }

    [Fact]
    public async Task The_password_can_be_changed_with_the_old_one_only()
    {
        var ann = await host.Curator();
        var (status, problem) = await ann.Send(
            "POST",
            "/api/password",
            new { current = "wrong", next = "another password" }
        );
        Assert.Equal((400, "The current password is wrong."), (status, problem!.Text("title")));
        Assert.Equal(
            "The password needs at least 10 characters.",
            (await ann.Send("POST", "/api/password", new { current = ZendleHost.Password, next = "short" })).Body!.Text(
                "title"
            )
        );
        await ann.Ok("POST", "/api/password", new { current = ZendleHost.Password, next = "another password" });
        await ann.Get("/api/reviews"); // still signed in
        var again = await host.Visit();
        Assert.Equal(
            401,
            (await again.Send("POST", "/api/sign-in", new { name = "ann", password = ZendleHost.Password })).Status
        );
        await again.Ok("POST", "/api/sign-in", new { name = "ann", password = "another password" });
    }

    [Fact]
    public async Task A_change_without_the_token_is_refused()
    {
        var ann = await host.Curator();
        var reply = await ann.Http.PostAsJsonAsync("/api/reviews", new { title = "x" });
        Assert.Equal(400, (int)reply.StatusCode);
        Assert.Contains("This page is out of date", await reply.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Empty((await ann.Get("/api/reviews")).AsArray());
    }

    [Fact]
    public async Task Too_many_tries_to_sign_in_have_to_wait()
    {
        await using var strict = new ZendleHost(null, false, ("Zendle:SignInsPerMinute", "3"));
        var stranger = await strict.Visit();
        for (var i = 0; i < 3; i++)
            Assert.Equal(
                401,
                (await stranger.Send("POST", "/api/sign-in", new { name = "ann", password = "x" })).Status
            );
        var (status, problem) = await stranger.Send("POST", "/api/sign-in", new { name = "ann", password = "x" });
        Assert.Equal((429, "Too many tries to sign in from this address."), (status, problem!.Text("title")));
    }

    [Fact]
    public async Task Pages_carry_a_strict_policy_and_a_fresh_nonce()
    {
        var stranger = await host.Visit();
        var (first, second) = (await stranger.Http.GetAsync("/"), await stranger.Http.GetAsync("/r/1/search"));
        var policy = first.Headers.GetValues("Content-Security-Policy").Single();
        Assert.Contains(
            "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-",
            policy,
            StringComparison.Ordinal
        );
        Assert.NotEqual(policy, second.Headers.GetValues("Content-Security-Policy").Single());
        Assert.DoesNotContain("__NONCE__", await second.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal("nosniff", first.Headers.GetValues("X-Content-Type-Options").Single());
    }

    [Fact]
    public async Task Malformed_requests_get_a_problem_not_a_crash()
    {
        var ann = await host.Curator();
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/reviews")
        {
            Content = new StringContent("{", System.Text.Encoding.UTF8, "application/json"),
        };
        request.Headers.Add("X-Zendle-Token", (await ann.Get("/api/me")).Text("requestToken"));
        var reply = await ann.Http.SendAsync(request);
        Assert.Equal(
            (400, "application/problem+json"),
            ((int)reply.StatusCode, reply.Content.Headers.ContentType!.MediaType)
        );
        Assert.Equal(404, (await ann.Send("GET", "/api/nothing")).Status);
        Assert.Equal(404, (await ann.Send("GET", "/api/reviews/99")).Status);
    }
}
