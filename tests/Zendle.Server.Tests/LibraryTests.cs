using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A person's library: chosen, its holdings asked, its proxy gone through by whoever has signed in, and by nobody else.
/// </summary>
public sealed class LibraryTests(Gathering world) : IClassFixture<Gathering>, IAsyncLifetime
{
    private const string Falls = "XD-QUF7",
        Quillmere = "XA-QUI1";
    private readonly HttpClient outside = new();

    private Visitor Ann => world.Ann;

    /// <summary>Every test begins without a library, and with libraries that work.</summary>
    public async ValueTask InitializeAsync()
    {
        foreach (var key in new[] { "quillmere", "quillmere-falls" })
            await Fault(key, "none");
        await Ann.Ok("PUT", "/api/libraries/used", new { libraries = Array.Empty<int>() });
    }

    public ValueTask DisposeAsync()
    {
        outside.Dispose();
        return ValueTask.CompletedTask;
    }

    private async Task Fault(string library, string kind) =>
        (
            await outside.PostAsync(
                new Uri(world.Outside.Address, $"/libraries/faults?library={library}&kind={kind}"),
                null
            )
        ).EnsureSuccessStatusCode();

    private async Task<int> Use(string identifier, Visitor? by = null)
    {
        var now = await (by ?? Ann).Ok("POST", "/api/libraries/choose", new { identifier });
        var id = now.List("libraries").Single(l => l.Text("identifier") == identifier).Int("id");
        await Loaded(id);
        return id;
    }

    private async Task<JsonNode> Library(int id, Visitor? by = null) =>
        (await (by ?? Ann).Get("/api/libraries")).List("libraries").Single(l => l.Int("id") == id);

    private async Task<JsonNode> Loaded(int id)
    {
        for (var i = 0; i < 400; i++)
        {
            var library = await Library(id);
            if (library["job"] is null || library["job"]!["endedAt"] is not null)
                return library;
            await Task.Delay(50);
        }
        throw new TimeoutException("The holdings did not come in twenty seconds.");
    }

    private async Task<(int Status, JsonNode? Body)> Bring(int id, byte[] file)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/libraries/{id}/holdings");
        request.Headers.Add("X-Zendle-Token", (await Ann.Get("/api/me")).Text("requestToken"));
        request.Content = new ByteArrayContent(file);
        using var reply = await Ann.Http.SendAsync(request);
        var text = await reply.Content.ReadAsStringAsync();
        return ((int)reply.StatusCode, text.Length == 0 ? null : JsonNode.Parse(text));
    }

    private async Task<int> Added(string name, string? proxy = null, string? resolver = null, Uri? holdings = null) => (
            await Ann.Ok(
                "POST",
                "/api/libraries",
                new
                {
                    name,
                    town = "Vessmark",
                    country = "Iskaria",
                    holdingsAddress = holdings?.ToString(),
                    resolver,
                    proxyPrefix = proxy,
                    asksPassword = proxy is not null,
                }
            )
        ).List("libraries").Max(l => l.Int("id"));

    private Task SignIn(int library, string name = "reader", string password = "reading lamp 7", Visitor? by = null) =>
        (by ?? Ann).Ok("POST", $"/api/libraries/{library}/session", new { name, password });

    /// <summary>Works that are sold at their publisher and held by a library, with what lies there set.</summary>
    private async Task<int[]> Sold(int library, string kind = "fine", int most = 3)
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "type:article");
        var found = new List<int>();
        for (var offset = 0; found.Count < most && offset < 600; offset += 200)
        {
            var ids = await Ann.Works(review, step, $"limit=200&offset={offset}");
            foreach (var held in await HeldOf(ids))
            {
                if (
                    held["isFree"]!.GetValue<bool>()
                    || held.Text("coverage") != "Held"
                    || held.Int("libraryId") != library
                )
                    continue;
                var work = await Ann.Get($"/api/reviews/{review}/works/{held.Int("workId")}");
                if (
                    work["copies"]!.AsArray() is not [{ } only]
                    || await TitleOf(only.Text("address")) != work["title"]!.Text("text")
                )
                    continue;
                await world.Set(new Uri(only.Text("address")).AbsolutePath, kind);
                found.Add(held.Int("workId"));
                if (found.Count == most)
                    break;
            }
        }
        Assert.Equal(most, found.Count);
        return [.. found];
    }

    private async Task<string> TitleOf(string landing)
    {
        await world.Set(new Uri(landing).AbsolutePath, "fine");
        var page = System.Net.WebUtility.HtmlDecode(await outside.GetStringAsync(new Uri(landing)));
        return page.Split("<h1>")[1].Split("</h1>")[0];
    }

    private async Task<JsonNode[]> HeldOf(int[] works, Visitor? by = null) =>
        [.. (await (by ?? Ann).Get($"/api/held?works={string.Join(',', works)}")).AsArray().Select(w => w!)];

    private static string Last(JsonNode row, string field) =>
        row["attempts"]!.AsArray().Last(a => a!.Text("route") == "library")!.Text(field);

    [Fact]
    public async Task A_wall_of_the_publishers_own_behind_the_proxy_does_not_end_the_session()
    {
        // A library whose contracts are another's than its proxy's: what it holds opens, and stands behind a wall all the same.
        var host = world.Outside.Address;
        var odd = await Added(
            "Odd library",
            new Uri(host, "/library/quillmere/proxy?url=").ToString(),
            null,
            new Uri(host, "/library/quillmere-falls/holdings.tsv")
        );
        await Loaded(odd);
        await Ann.Ok("PUT", "/api/libraries/used", new { libraries = new[] { odd } });
        await SignIn(odd);
        var review = await Ann.Review();
        var walled = new List<int>();
        while (walled.Count == 0)
        {
            var (work, _) = await world.Work("sign-in");
            if ((await HeldOf([work])).Single()["coverage"]?.GetValue<string>() is not ("Held" or "PerhapsHeld"))
                continue;
            var row = (await world.Gather(review, [work]))[work];
            // Some of them the proxy's own library pays for, too.
            if (row.Text("state") != "InHand")
                walled.Add(work);
        }
        var end = (await world.Settled(review))[walled[0]];
        Assert.Equal("SignInAsked", Last(end, "outcome"));
        Assert.Contains("/through/", Last(end, "address"), StringComparison.Ordinal);
        Assert.Equal("NotFound", end.Text("state"));
        Assert.NotNull((await Library(odd))["signedInAt"]);
    }

    [Fact]
    public async Task A_library_is_found_by_name_place_or_identifier_and_told_from_one_of_nearly_the_same_name()
    {
        async Task<(string, string)[]> Found(string words) =>
            [
                .. (await Ann.Get($"/api/libraries/directory?find={Uri.EscapeDataString(words)}"))
                    .List("libraries")
                    .Select(l => (l.Text("town"), l.Text("country"))),
            ];
        Assert.Equal([("Quillmere", "Voorland"), ("Quillmere Falls", "Dravinia")], await Found("university quillm"));
        Assert.Equal([("Quillmere Falls", "Dravinia")], await Found("dravinia"));
        Assert.Equal([("Quillmere", "Voorland")], await Found("xa-qui1"));
        Assert.Empty(await Found("nowhere at all"));

        var id = await Use(Quillmere);
        var mine = (await Ann.Get("/api/libraries")).List("libraries").First();
        Assert.Equal((id, true, "Password"), (mine.Int("id"), mine["isMine"]!.GetValue<bool>(), mine.Text("signIn")));
        Assert.Equal(404, (await Ann.Send("POST", "/api/libraries/choose", new { identifier = "XX-NONE" })).Status);
    }

    [Fact]
    public async Task Holdings_narrow_and_count_as_a_plain_reading_of_the_file_says()
    {
        var id = await Use(Falls);
        var label = (await Library(id)).Text("label");
        Assert.Equal("Quillmere University Library, Quillmere Falls", label);

        var review = await Ann.Review();
        var all = await Ann.Search(review, "");
        var step = await Ann.Step(
            review,
            all,
            new
            {
                kind = "Narrow",
                facet = "Library",
                values = new[] { label },
            }
        );
        var narrowed = new HashSet<int>();
        for (int[] page; (page = await Ann.Works(review, step, $"limit=200&offset={narrowed.Count}")).Length > 0; )
            narrowed.UnionWith(page);
        var counted = (await Ann.Get($"/api/reviews/{review}/steps/{all}/facets/Library"))
            .List("shown")
            .Single(v => v.Text("value") == label);
        Assert.Equal(narrowed.Count, counted.Int("count"));

        // Read again from the file itself, by rules of its own.
        var plain = await PlainHoldings.Read(
            outside,
            new Uri(world.Outside.Address, "/library/quillmere-falls/holdings.tsv")
        );
        var (held, others) = (0, 0);
        var works = new List<int>();
        for (int[] page; (page = await Ann.Works(review, all, $"limit=200&offset={works.Count}")).Length > 0; )
            works.AddRange(page);
        foreach (var work in works)
        {
            var of = await Ann.Get($"/api/reviews/{review}/works/{work}");
            var says = plain.Says(of);
            if (says is null)
                continue;
            Assert.True(
                narrowed.Contains(work) == says,
                $"{says}: {of["issn"]} {of["isbn"]} {of["year"]} {of["volume"]} {of["issue"]} {of.Text("type")} "
                    + of["records"]!.ToJsonString()
            );
            _ = says.Value ? held++ : others++;
        }
        Assert.True(held > 50 && others > 50, $"{held} {others}");
    }

    [Fact]
    public async Task What_waits_for_a_sign_in_goes_on_after_it_and_comes_through_the_proxy()
    {
        var id = await Use(Quillmere);
        var works = await Sold(id);
        var review = await Ann.Review();
        var rows = await world.Gather(review, works);
        Assert.All(
            works,
            w =>
            {
                Assert.Equal("SignIn", rows[w].Text("state"));
                Assert.Equal("SignInAsked", Last(rows[w], "outcome"));
            }
        );
        Assert.Equal(
            422,
            (await Ann.Send("POST", $"/api/libraries/{id}/session", new { name = "reader", password = "x" })).Status
        );
        await SignIn(id);
        Assert.NotNull((await Library(id))["signedInAt"]);
        rows = await world.Settled(review);
        Assert.All(works, w => Assert.Equal("InHand", rows[w].Text("state")));
        Assert.All(
            works,
            w => Assert.Contains("/library/quillmere/through/", Last(rows[w], "address"), StringComparison.Ordinal)
        );
        var report = await Ann.Get($"/api/reviews/{review}/report/texts");
        Assert.Contains(
            ("library", works.Length),
            report.List("byRoute").Select(t => (t.Text("word"), t.Int("count")))
        );

        // Ended, on demand: the next one waits again.
        await Ann.Ok("DELETE", $"/api/libraries/{id}/session");
        Assert.Null((await Library(id))["signedInAt"]);
        Assert.Equal(404, (await Ann.Send("DELETE", $"/api/libraries/{id}/session")).Status);
    }

    [Fact]
    public async Task A_session_opens_for_its_person_alone_and_is_nowhere_to_be_read()
    {
        var bob = await world.Host.Another(Ann, "bob");
        var id = await Use(Quillmere);
        await Use(Quillmere, bob);
        await SignIn(id);
        Assert.NotNull((await Library(id))["signedInAt"]);
        Assert.Null((await Library(id, bob))["signedInAt"]);
        var works = await Sold(id);
        var review = await bob.Review();
        await bob.Ok("POST", $"/api/reviews/{review}/gather", new { works, again = false });
        for (var i = 0; i < 400; i++)
        {
            var all = await bob.Get($"/api/reviews/{review}/gather");
            if (all["job"]?["endedAt"] is null)
                await Task.Delay(50);
            else
            {
                Assert.All(all.List("works"), w => Assert.Equal("SignIn", w.Text("state")));
                break;
            }
        }
        // Ann's still works; what is stored of it holds neither password nor anything the proxy gave.
        var hers = await Ann.Review();
        Assert.Equal("InHand", (await world.Gather(hers, works))[works[0]].Text("state"));
        foreach (var file in Directory.GetFiles(world.Host.Data, "zendle.db*"))
        {
            await using var open = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            using var copy = new MemoryStream();
            await open.CopyToAsync(copy);
            var text = Encoding.Latin1.GetString(copy.ToArray());
            Assert.DoesNotContain("reading lamp 7", text, StringComparison.Ordinal);
            Assert.DoesNotContain("\"Bearer\"", text, StringComparison.Ordinal);
            Assert.DoesNotContain("\"Cookies\"", text, StringComparison.Ordinal);
        }
        // What is kept for Ann cannot be opened as Bob's.
        await SignIn(id, by: bob);
        await using (
            var db = new Microsoft.Data.Sqlite.SqliteConnection(
                $"Data Source={Path.Combine(world.Host.Data, "zendle.db")}"
            )
        )
        {
            await db.OpenAsync();
            await using var swap = db.CreateCommand();
            swap.CommandText =
                "UPDATE LibrarySessions SET Secret = (SELECT Secret FROM LibrarySessions ORDER BY At LIMIT 1)";
            await swap.ExecuteNonQueryAsync();
        }
        review = await bob.Review();
        await bob.Ok("POST", $"/api/reviews/{review}/gather", new { works, again = false });
        for (var i = 0; i < 400; i++)
        {
            var all = await bob.Get($"/api/reviews/{review}/gather");
            if (all["job"]?["endedAt"] is not null)
            {
                Assert.All(all.List("works"), w => Assert.Equal("SignIn", w.Text("state")));
                return;
            }
            await Task.Delay(50);
        }
        Assert.Fail("Bob's gathering did not end.");
    }

    [Fact]
    public async Task A_session_that_the_library_ended_is_asked_for_again()
    {
        var id = await Use(Quillmere);
        var works = await Sold(id);
        await SignIn(id);
        await Fault("quillmere", "ended");
        var review = await Ann.Review();
        var rows = await world.Gather(review, [works[0]]);
        Assert.Equal("SignIn", rows[works[0]].Text("state"));
        Assert.Null((await Library(id))["signedInAt"]);
        await Fault("quillmere", "none");
        await SignIn(id);
        Assert.Equal("InHand", (await world.Settled(review))[works[0]].Text("state"));
    }

    [Theory]
    // The resolver fails, or goes in circles: through the proxy it goes on.
    [InlineData("down")]
    [InlineData("loop")]
    public async Task A_resolver_that_fails_is_passed_by(string fault)
    {
        var id = await Use(Quillmere);
        var works = await Sold(id);
        await SignIn(id);
        await Fault("quillmere", fault);
        var review = await Ann.Review();
        var row = (await world.Gather(review, [works[0]]))[works[0]];
        Assert.Equal("InHand", row.Text("state"));
        var tried = row["attempts"]!.AsArray().Where(a => a!.Text("route") == "library").ToArray();
        Assert.Equal(2, tried.Length);
        Assert.Equal(fault == "loop" ? "RedirectLoop" : "Unreachable", tried[0]!.Text("outcome"));
    }

    [Fact]
    public async Task A_sign_in_page_that_comes_again_with_status_200_is_no_session()
    {
        var id = await Use(Quillmere);
        await Fault("quillmere", "refuse");
        var (status, body) = await Ann.Send(
            "POST",
            $"/api/libraries/{id}/session",
            new { name = "reader", password = "reading lamp 7" }
        );
        Assert.Equal((422, "The library did not take this name and password."), (status, body!.Text("title")));
        Assert.Null((await Library(id))["signedInAt"]);
    }

    [Fact]
    public async Task A_window_of_the_library_gives_a_key_to_whoever_opened_it()
    {
        var id = await Use(Falls);
        Assert.Equal(
            422,
            (await Ann.Send("POST", $"/api/libraries/{id}/session", new { name = "a", password = "b" })).Status
        );
        var back = new Uri(Ann.Http.BaseAddress!, "/library-return").ToString();
        Assert.Equal(
            400,
            (await Ann.Send("POST", $"/api/libraries/{id}/window", new { back = "https://elsewhere.example/x" })).Status
        );
        var window = new Uri((await Ann.Ok("POST", $"/api/libraries/{id}/window", new { back })).Text("address"));
        var asked = System.Web.HttpUtility.ParseQueryString(window.Query);
        using var http = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false });
        using var signedIn = await http.PostAsync(
            new Uri(window.GetLeftPart(UriPartial.Path)),
            new FormUrlEncodedContent(
                asked
                    .AllKeys.Select(k => KeyValuePair.Create(k!, asked[k]!))
                    .Append(new("card", "reader"))
                    .Append(new("secret", "reading lamp 7"))
            )
        );
        var given = System.Web.HttpUtility.ParseQueryString(signedIn.Headers.Location!.Query);
        object answer = new { state = given["state"], code = given["code"] };
        // Nobody else can bring it, and it works once.
        var carl = await world.Host.Another(Ann, "carl");
        Assert.Equal(422, (await carl.Send("POST", "/api/libraries/return", answer)).Status);
        var works = await Sold(id);
        var review = await Ann.Review();
        Assert.Equal("SignIn", (await world.Gather(review, [works[0]]))[works[0]].Text("state"));
        Assert.Equal(1, (await Ann.Ok("POST", "/api/libraries/return", answer)).Int("goOn"));
        Assert.Equal("InHand", (await world.Settled(review))[works[0]].Text("state"));
        Assert.Equal(422, (await Ann.Send("POST", "/api/libraries/return", answer)).Status);
    }

    [Fact]
    public async Task Libraries_are_asked_in_the_order_of_the_person()
    {
        var (first, second) = (await Use(Falls), await Use(Quillmere));
        Task<string[]> Order(params int[] wanted) => Ordered(wanted);
        async Task<string[]> Ordered(int[] wanted) =>
            [
                .. (await Ann.Ok("PUT", "/api/libraries/used", new { libraries = wanted }))
                    .List("libraries")
                    .Where(l => l["isMine"]!.GetValue<bool>())
                    .Select(l => l.Text("identifier")),
            ];
        Assert.Equal([Quillmere, Falls], await Order(second, first));
        Assert.Equal([Falls], await Order(first));
        Assert.Equal(400, (await Ann.Send("PUT", "/api/libraries/used", new { libraries = new[] { 9_999 } })).Status);
    }

    [Fact]
    public async Task A_file_of_holdings_is_read_whatever_it_is_and_what_is_none_changes_nothing()
    {
        var id = await Added("Library of Vessmark");
        Assert.Equal(0, (await Library(id)).Int("lines"));
        var latin = Encoding.Latin1.GetBytes(
            "publication_title\tprint_identifier\nÉtudes de nuit\t9000-1370\nno number\t\nLamps\t9000-2741\n"
        );
        Assert.Equal(200, (await Bring(id, latin)).Status);
        var library = await Loaded(id);
        Assert.Equal((2, 1), (library.Int("lines"), library.Int("unread")));
        Assert.Equal(
            ["3: it has no valid ISSN or ISBN"],
            library["faults"]!.AsArray().Select(f => f!.GetValue<string>())
        );

        Assert.Equal(200, (await Bring(id, "<html>Please sign in</html>"u8.ToArray())).Status);
        library = await Loaded(id);
        Assert.Equal("Failed", library["job"]!.Text("state"));
        Assert.Contains("publication_title", library["job"]!.Text("message"), StringComparison.Ordinal);
        Assert.Equal(2, library.Int("lines"));

        Assert.Equal(
            200,
            (
                await Bring(
                    id,
                    Encoding
                        .Unicode.GetPreamble()
                        .Concat(Encoding.Unicode.GetBytes("publication_title\tonline_identifier\nA\t9000-1370\n"))
                        .ToArray()
                )
            ).Status
        );
        Assert.Equal(1, (await Loaded(id)).Int("lines"));
        Assert.Single(Directory.GetFiles(Path.Combine(world.Host.Data, "holdings"), $"{id}-*"));

        await Ann.Ok("DELETE", $"/api/libraries/{id}");
        Assert.Empty(Directory.GetFiles(Path.Combine(world.Host.Data, "holdings"), $"{id}-*"));
        Assert.Equal(404, (await Ann.Send("DELETE", $"/api/libraries/{id}")).Status);
    }

    [Fact]
    public async Task Holdings_that_cannot_be_fetched_any_more_stay_as_they_were()
    {
        var id = await Use(Quillmere);
        var lines = (await Library(id)).Int("lines");
        Assert.True(lines > 10);
        await Fault("quillmere", "no-table");
        await Ann.Ok("POST", $"/api/libraries/{id}/refresh");
        var library = await Loaded(id);
        Assert.Equal(("Failed", lines), (library["job"]!.Text("state"), library.Int("lines")));
        await Fault("quillmere", "none");
        await Ann.Ok("POST", $"/api/libraries/{id}/refresh");
        Assert.Null((await Loaded(id))["job"]);
    }

    [Theory]
    [InlineData("", null, 400)]
    [InlineData("A", "no address", 400)]
    [InlineData("A", "http://10.0.0.1/holdings.tsv", 400)]
    public async Task A_library_is_added_with_a_name_and_addresses_that_may_be_asked(
        string name,
        string? address,
        int status
    ) =>
        Assert.Equal(
            status,
            (
                await Ann.Send(
                    "POST",
                    "/api/libraries",
                    new
                    {
                        name,
                        town = (string?)null,
                        country = (string?)null,
                        holdingsAddress = address,
                        resolver = (string?)null,
                        proxyPrefix = (string?)null,
                        asksPassword = false,
                    }
                )
            ).Status
        );
}
