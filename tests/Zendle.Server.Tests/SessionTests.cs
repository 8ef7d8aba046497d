using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http;
using Zendle.Server.Identity;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A cookie counts as long as its session does; guesses come to an end; nobody can be shut out by a stranger.
/// </summary>
public sealed class SessionTests : IAsyncLifetime
{
    private readonly ZendleHost host = new();

    public ValueTask InitializeAsync() => ValueTask.CompletedTask;

    public ValueTask DisposeAsync() => host.DisposeAsync();

    /// <summary>The cookie of a sign-in, as a thief would have it.</summary>
    private async Task<(Visitor Visitor, string Cookie)> SignIn(string name, string password)
    {
        var visitor = await host.Visit();
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/sign-in")
        {
            Content = System.Net.Http.Json.JsonContent.Create(new { name, password }),
        };
        request.Headers.Add("X-Zendle-Token", (await visitor.Get("/api/me")).Text("requestToken"));
        using var reply = await visitor.Http.SendAsync(request);
        reply.EnsureSuccessStatusCode();
        return (
            visitor,
            reply
                .Headers.GetValues("Set-Cookie")
                .First(c => c.StartsWith("zendle=", StringComparison.Ordinal))
                .Split(';')[0]
        );
    }

    private async Task<int> With(string cookie)
    {
        using var bare = host.Server.CreateClient();
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/reviews");
        request.Headers.Add("Cookie", cookie);
        return (int)(await bare.SendAsync(request)).StatusCode;
    }

    [Fact]
    public async Task Signing_out_ends_the_cookie_wherever_it_was_copied_to_and_no_other()
    {
        await host.Curator();
        var (here, stolen) = await SignIn("ann", ZendleHost.Password);
        var (_, elsewhere) = await SignIn("ann", ZendleHost.Password);
        Assert.Equal((200, 200), (await With(stolen), await With(elsewhere)));
        await here.Ok("POST", "/api/sign-out");
        Assert.Equal((401, 200), (await With(stolen), await With(elsewhere)));
        // Also after a restart.
        using var again = host.Restarted();
        await again.Visit();
        using var bare = again.Server.CreateClient();
        foreach (var (cookie, status) in new[] { (stolen, 401), (elsewhere, 200) })
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/api/reviews");
            request.Headers.Add("Cookie", cookie);
            Assert.Equal(status, (int)(await bare.SendAsync(request)).StatusCode);
        }
    }

    [Fact]
    public async Task A_change_of_password_ends_every_cookie_but_the_new_one()
    {
        await host.Curator();
        var (here, own) = await SignIn("ann", ZendleHost.Password);
        var (_, elsewhere) = await SignIn("ann", ZendleHost.Password);
        await here.Ok("POST", "/api/password", new { current = ZendleHost.Password, next = "three other words" });
        Assert.Equal((401, 401), (await With(own), await With(elsewhere)));
        await here.Get("/api/reviews");
    }

    [Fact]
    public async Task Names_that_exist_and_names_that_do_not_are_answered_alike()
    {
        await host.Curator();
        var stranger = await host.Visit();
        async Task<(int, string)> Try(string name, string password)
        {
            var (status, body) = await stranger.Send("POST", "/api/sign-in", new { name, password });
            return (status, body!.Text("title"));
        }
        for (var i = 0; i < 13; i++)
            Assert.Equal(await Try("nobody", "wrong words here"), await Try("ann", "wrong words here"));
        Assert.Equal((429, "Too many wrong passwords from here."), await Try("nobody", "x"));
        Assert.Equal((401, "Name or password is wrong."), await Try("ann2", new string('x', 100_000)));
    }

    [Fact]
    public void A_stranger_shuts_nobody_out_elsewhere()
    {
        var guesses = new Guesses(TimeProvider.System);
        static HttpContext From(string address) =>
            new DefaultHttpContext { Connection = { RemoteIpAddress = IPAddress.Parse(address) } };
        for (var i = 0; i < 30; i++)
            guesses.Wrong(Guesses.Key("Ann", From("203.0.113.9")));
        Assert.True(guesses.AreTooMany(Guesses.Key(" ann ", From("203.0.113.9"))));
        Assert.False(guesses.AreTooMany(Guesses.Key("ann", From("198.51.100.4"))));
        guesses.Right(Guesses.Key("ann", From("203.0.113.9")));
        Assert.False(guesses.AreTooMany(Guesses.Key("ann", From("203.0.113.9"))));
    }

    [Fact]
    public async Task Guesses_at_the_current_password_come_to_an_end()
    {
        var ann = await host.Curator();
        for (var i = 0; i < 10; i++)
            Assert.Equal(
                400,
                (
                    await ann.Send(
                        "POST",
                        "/api/password",
                        new { current = $"guess number {i}", next = "three other words" }
                    )
                ).Status
            );
        Assert.Equal(
            429,
            (
                await ann.Send(
                    "POST",
                    "/api/password",
                    new { current = ZendleHost.Password, next = "three other words" }
                )
            ).Status
        );
    }

    [Theory]
    [InlineData("1234567890", false)]
    [InlineData("0987654321", false)]
    [InlineData("qwertyuiop", false)]
    [InlineData("abcdefghij", false)]
    [InlineData("aaaaaaaaaaaa", false)]
    [InlineData("abcabcabcabc", false)]
    [InlineData("password123!", false)]
    [InlineData("passwordpassword", false)]
    [InlineData("Zendle2026!", false)]
    [InlineData("marisol-1234", false)] // the name and little else
    [InlineData("short", false)]
    [InlineData("night garden 26", true)]
    [InlineData("a long password", true)]
    [InlineData("ochre lamp over the hedge", true)]
    [InlineData("kT4#vm9!Qz", true)]
    public void Passwords_that_are_guessed_first_are_refused(string password, bool isTaken) =>
        Assert.Equal(isTaken, PasswordRules.WhyNot("marisol", password) is null);

    [Fact]
    public void A_hundred_thousand_characters_are_no_password() =>
        Assert.Contains(
            "longer than 200",
            PasswordRules.WhyNot("ann", string.Concat(Enumerable.Range(0, 20_000).Select(i => $"{i:00000}"))),
            StringComparison.Ordinal
        );

    [Fact]
    public async Task An_event_stream_ends_with_the_session_and_tells_nothing_of_a_review_one_has_left()
    {
        var ann = await host.Curator();
        var ben = await host.Another(ann, "ben");
        var review = await ann.Review();
        await ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "ben", role = "Reader" });
        using var reply = await ben.Http.GetAsync("/api/events", HttpCompletionOption.ResponseHeadersRead);
        using var lines = new StreamReader(await reply.Content.ReadAsStreamAsync());
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(60));
        async Task<JsonNode?> Next()
        {
            while (await lines.ReadLineAsync(patience.Token) is { } line)
                if (line.StartsWith("data:", StringComparison.Ordinal))
                    return JsonNode.Parse(line[5..]);
            return null;
        }
        Assert.Equal("hello", (await Next())!.Text("kind"));
        await ann.Ok("PATCH", $"/api/reviews/{review}", new { title = "Told to members" });
        Assert.Equal(
            ("review", review),
            ((await Next()) is { } told ? (told.Text("kind"), told.Int("reviewId")) : default)
        );
        await ann.Ok("DELETE", $"/api/reviews/{review}/members/ben");
        Assert.Equal("members", (await Next())!.Text("kind"));
        await ann.Ok("PATCH", $"/api/reviews/{review}", new { title = "Told to nobody else" });
        await ben.Ok("POST", "/api/sign-out");
        // Neither the change of the review that ben has left, nor anything after the end of the session.
        Assert.Null(await Next());
    }

    [Fact]
    public async Task Only_our_own_names_are_answered_to_and_private_answers_are_not_stored()
    {
        var ann = await host.Curator();
        using var foreign = new HttpRequestMessage(HttpMethod.Get, "/api/me") { Headers = { Host = "evil.example" } };
        Assert.Equal(400, (int)(await ann.Http.SendAsync(foreign)).StatusCode);
        Assert.Equal("no-store", (await ann.Http.GetAsync("/api/reviews")).Headers.CacheControl!.ToString());
        await using var named = new ZendleHost(null, false, ("Zendle:Hosts", "zendle.example"));
        var visitor = await named.Visit();
        using var own = new HttpRequestMessage(HttpMethod.Get, "/api/me") { Headers = { Host = "zendle.example" } };
        Assert.Equal(200, (int)(await visitor.Http.SendAsync(own)).StatusCode);
    }

    [Fact]
    public async Task Cookies_are_secure_over_https_which_only_a_known_proxy_may_claim()
    {
        async Task<string> Cookie(ZendleHost at, bool isProxy)
        {
            await at.Visit();
            var reply = await at.Server.SendAsync(c =>
            {
                (c.Request.Method, c.Request.Path, c.Request.Host) = ("GET", "/api/me", new("localhost"));
                c.Connection.RemoteIpAddress = IPAddress.Parse(isProxy ? "192.0.2.7" : "192.0.2.8");
                c.Request.Headers["X-Forwarded-Proto"] = "https";
                c.Request.Headers["X-Forwarded-For"] = "198.51.100.23";
            });
            return reply.Response.Headers.SetCookie.ToString();
        }
        await using var behind = new ZendleHost(null, false, ("Zendle:Proxies", "192.0.2.7"));
        Assert.Contains("secure", await Cookie(behind, isProxy: true), StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("secure", await Cookie(behind, isProxy: false), StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("secure", await Cookie(host, isProxy: true), StringComparison.OrdinalIgnoreCase);
    }
}
