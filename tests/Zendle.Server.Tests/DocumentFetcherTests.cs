using System.IO.Compression;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;

namespace Zendle.Server.Tests;

/// <summary>Every rule of fetching, against a host that breaks it.</summary>
public sealed class DocumentFetcherTests : IAsyncLifetime
{
    private static readonly FetchLimits Small = new()
    {
        Document = 200_000,
        Page = 50_000,
        Begin = TimeSpan.FromSeconds(60),
        Whole = TimeSpan.FromSeconds(60),
        Redirects = 3,
        Waits = 2,
        LongestWait = TimeSpan.FromSeconds(3),
        RetryPause = TimeSpan.FromMilliseconds(20),
    };

    /// <summary>For what is slow, so that nothing else is on a busy machine.</summary>
    private static readonly FetchLimits Hasty = Small with
    {
        Begin = TimeSpan.FromMilliseconds(600),
        Whole = TimeSpan.FromMilliseconds(1_500),
    };
    private static readonly byte[] Pdf = "%PDF-1.4\nsome bytes\n%%EOF"u8.ToArray();
    private readonly WebApplication host = WebApplication
        .CreateSlimBuilder([
            "--urls",
            "http://127.0.0.1:0",
            "--Logging:LogLevel:Default",
            "None",
            "--Logging:LogLevel:Microsoft",
            "None",
        ])
        .Build();
    private readonly List<DateTime> asked = [];
    private string? robots;
    private int broken;
    private Uri home = null!;

    public async ValueTask InitializeAsync()
    {
        var (now, most) = (0, 0);
        var waits = 0;
        host.MapGet("/pdf", () => Results.Bytes(Pdf, "application/pdf"));
        host.MapGet("/mislabelled", () => Results.Bytes(Pdf, "text/html"));
        host.MapGet(
            "/page",
            (HttpContext http) =>
            {
                http.Response.Headers.Append("Link", "</pdf>; rel=\"item\"; type=\"application/pdf\"");
                return Results.Text("<html></html>", "text/html");
            }
        );
        host.MapGet(
            "/page-to-page",
            (HttpContext http) =>
            {
                http.Response.Headers.Append("Link", "</page>; rel=\"item\"; type=\"application/pdf\"");
                return Results.Text("<html></html>", "text/html");
            }
        );
        host.MapGet(
            "/page-to-private",
            (HttpContext http) =>
            {
                http.Response.Headers.Append("Link", "<http://10.1.2.3/x.pdf>; rel=\"item\"; type=\"application/pdf\"");
                return Results.Text("<html></html>", "text/html");
            }
        );
        host.MapGet(
            "/sold",
            (HttpContext http) =>
            {
                http.Response.Headers.Append("Link", "</pay>; rel=\"item\"; type=\"application/pdf\"");
                return Results.Text(
                    """<script type="application/ld+json">{"offers":{"price":"34.00","priceCurrency":"EUR"}}</script>""",
                    "text/html"
                );
            }
        );
        host.MapGet("/pay", () => Results.StatusCode(402));
        host.MapGet("/status/{code:int}", (int code) => Results.StatusCode(code));
        host.MapGet("/loop/{n:int}", (int n) => Results.Redirect($"/loop/{n + 1}"));
        host.MapGet("/twice", () => Results.Redirect("/once"));
        host.MapGet("/once", () => Results.Redirect("/pdf"));
        host.MapGet("/to/{**address}", (string address) => Results.Redirect(address));
        host.MapGet(
            "/declared-huge",
            async (HttpContext http) =>
            {
                http.Response.ContentLength = 900_000_000;
                await http.Response.Body.WriteAsync(new byte[1000]);
            }
        );
        host.MapGet(
            "/endless",
            async (HttpContext http) =>
            {
                http.Response.ContentType = "application/pdf";
                while (!http.RequestAborted.IsCancellationRequested)
                    await http.Response.Body.WriteAsync(new byte[4096], http.RequestAborted);
            }
        );
        host.MapGet(
            "/dripping",
            async (HttpContext http) =>
            {
                http.Response.ContentType = "application/pdf";
                while (!http.RequestAborted.IsCancellationRequested)
                {
                    await http.Response.Body.WriteAsync(new byte[1], http.RequestAborted);
                    await http.Response.Body.FlushAsync(http.RequestAborted);
                    await Task.Delay(100, http.RequestAborted);
                }
            }
        );
        host.MapGet("/silent", (HttpContext http) => Task.Delay(10_000, http.RequestAborted));
        host.MapGet(
            "/bomb",
            async (HttpContext http) =>
            {
                (http.Response.ContentType, http.Response.Headers.ContentEncoding) = ("application/pdf", "gzip");
                using var small = new MemoryStream();
                await using (var gzip = new GZipStream(small, CompressionLevel.SmallestSize, true))
                    await gzip.WriteAsync(new byte[20_000_000]);
                await http.Response.Body.WriteAsync(small.ToArray());
            }
        );
        host.MapGet(
            "/cut",
            async (HttpContext http) =>
            {
                http.Response.ContentLength = 1000;
                await http.Response.Body.WriteAsync(new byte[10]);
                http.Abort();
            }
        );
        host.MapGet(
            "/wait-once",
            (HttpContext http) =>
            {
                asked.Add(DateTime.UtcNow);
                if (waits++ > 0)
                    return Results.Bytes(Pdf, "application/pdf");
                http.Response.Headers.RetryAfter = "1";
                return Results.StatusCode(429);
            }
        );
        host.MapGet(
            "/wait-always",
            (HttpContext http) =>
            {
                http.Response.Headers.RetryAfter = "0";
                return Results.StatusCode(503);
            }
        );
        host.MapGet(
            "/wait-long",
            (HttpContext http) =>
            {
                http.Response.Headers.RetryAfter = "3600";
                return Results.StatusCode(429);
            }
        );
        host.MapGet(
            "/crowd",
            async () =>
            {
                most = Math.Max(most, Interlocked.Increment(ref now));
                await Task.Delay(60);
                Interlocked.Decrement(ref now);
                return Results.Bytes(Pdf, "application/pdf");
            }
        );
        host.MapGet("/robots.txt", () => robots is null ? Results.NotFound() : Results.Text(robots));
        host.MapGet(
            "/once-broken",
            () => broken++ == 0 ? Results.StatusCode(502) : Results.Bytes(Pdf, "application/pdf")
        );
        host.MapGet(
            "/cookie",
            (HttpContext http) =>
            {
                if (http.Request.Cookies["visit"] == "yes")
                    return Results.Bytes(Pdf, "application/pdf");
                http.Response.Cookies.Append("visit", "yes");
                return Results.Redirect("/cookie");
            }
        );
        host.MapGet(
            "/agent",
            (HttpContext http) =>
                Results.Bytes(
                    [.. Pdf, .. System.Text.Encoding.UTF8.GetBytes(http.Request.Headers.UserAgent.ToString())],
                    "application/pdf"
                )
        );
        host.MapGet(
            "/meta",
            () =>
                Results.Text(
                    "<head><meta name=citation_pdf_url content=/status/404><meta name=citation_xml_url content=/xml></head>",
                    "text/html"
                )
        );
        host.MapGet("/xml", () => Results.Text("<article/>", "application/xml"));
        host.MapGet("/crowd/most", () => most.ToString(System.Globalization.CultureInfo.InvariantCulture));
        await host.StartAsync();
        home = new(host.Urls.First());
    }

    public async ValueTask DisposeAsync() => await host.DisposeAsync();

    private async Task<Fetched> Fetch(
        string path,
        AddressPolicy? policy = null,
        List<string>? said = null,
        FetchLimits? limits = null
    )
    {
        using var fetcher = new DocumentFetcher(policy ?? new([home]), limits ?? Small, TimeProvider.System);
        return await fetcher.Fetch(new(home, path), p => said?.Add(p.Sentence), CancellationToken.None);
    }

    [Theory]
    [InlineData("/pdf")]
    [InlineData("/page")]
    [InlineData("/twice")]
    [InlineData("/mislabelled")]
    public async Task A_document_comes_direct_through_a_page_and_through_redirects(string path)
    {
        var fetched = await Fetch(path);
        Assert.Null(fetched.Outcome);
        Assert.Equal(Pdf, fetched.Bytes);
    }

    [Theory]
    [InlineData("/status/404", AttemptOutcome.DeadLink, "There is nothing at the address any more.")]
    [InlineData("/status/410", AttemptOutcome.DeadLink, "There is nothing at the address any more.")]
    [InlineData("/status/401", AttemptOutcome.SignInAsked, "The host asks for a sign-in.")]
    [InlineData("/status/403", AttemptOutcome.SignInAsked, "The host asks for a sign-in.")]
    [InlineData("/status/402", AttemptOutcome.PriceAsked, "A price is asked; nothing was paid.")]
    [InlineData("/status/500", AttemptOutcome.Unreachable, "The host failed (status 500).")]
    [InlineData("/status/418", AttemptOutcome.Unreachable, "The host refused (status 418).")]
    [InlineData("/sold", AttemptOutcome.PriceAsked, "34 EUR asked; nothing was paid.")]
    [InlineData("/page-to-page", AttemptOutcome.NotADocument, "The link opens a web page instead of the document.")]
    [InlineData("/loop/1", AttemptOutcome.RedirectLoop, "Redirected more than 3 times.")]
    [InlineData("/declared-huge", AttemptOutcome.TooLarge, "The reply is longer than 200 kB.")]
    [InlineData("/endless", AttemptOutcome.TooLarge, "The reply is longer than 200 kB.")]
    [InlineData("/bomb", AttemptOutcome.TooLarge, "The reply is longer than 200 kB.")]
    [InlineData("/dripping", AttemptOutcome.TooSlow, "The reply took too long.")]
    [InlineData("/silent", AttemptOutcome.TooSlow, "The reply took too long.")]
    [InlineData("/cut", AttemptOutcome.Unreachable, "The host does not answer, or broke off in the middle.")]
    [InlineData("/wait-always", AttemptOutcome.Busy, "The host asks to wait again and again; try later.")]
    [InlineData("/wait-long", AttemptOutcome.Busy, "The host asks to wait 3600 seconds; try later.")]
    public async Task What_goes_wrong_ends_the_attempt_with_its_reason(
        string path,
        AttemptOutcome outcome,
        string sentence
    )
    {
        var fetched = await Fetch(path, limits: outcome == AttemptOutcome.TooSlow ? Hasty : Small);
        Assert.Equal((outcome, sentence), (fetched.Outcome, fetched.Sentence));
        Assert.Null(fetched.Bytes);
    }

    [Theory]
    [InlineData("/to/http://10.1.2.3/x.pdf")]
    [InlineData("/to/http://127.0.0.1:1/x.pdf")]
    [InlineData("/to/file:///etc/passwd")]
    [InlineData("/to/ftp://127.0.0.1/x.pdf")]
    [InlineData("/page-to-private")]
    public async Task No_redirect_and_no_link_leads_to_an_address_the_settings_do_not_allow(string path) =>
        Assert.Equal(AttemptOutcome.NotAllowed, (await Fetch(path)).Outcome);

    [Fact]
    public async Task Without_a_list_private_addresses_are_refused_before_and_after_name_resolution()
    {
        var open = new AddressPolicy([]);
        Assert.Equal(AttemptOutcome.NotAllowed, (await Fetch("/pdf", open)).Outcome); // 127.0.0.1 as a number
        using var fetcher = new DocumentFetcher(open, Small, TimeProvider.System);
        // only its resolution shows it
        var byName = await fetcher.Fetch(new($"http://localhost:{home.Port}/pdf"), _ => { }, CancellationToken.None);
        Assert.Equal(
            (AttemptOutcome.NotAllowed, "localhost resolves to a private network, which the settings do not allow."),
            (byName.Outcome, byName.Sentence)
        );
    }

    [Fact]
    public async Task A_host_that_nobody_answers_at_is_said_so() =>
        Assert.Equal(
            AttemptOutcome.Unreachable,
            (
                await new DocumentFetcher(new([new("http://127.0.0.1:9")]), Small, TimeProvider.System).Fetch(
                    new("http://127.0.0.1:9/x"),
                    _ => { },
                    CancellationToken.None
                )
            ).Outcome
        );

    [Fact]
    public async Task A_host_that_asks_to_wait_is_left_alone_so_long()
    {
        var said = new List<string>();
        var fetched = await Fetch("/wait-once", said: said);
        Assert.Null(fetched.Outcome);
        Assert.Equal(TimeSpan.FromSeconds(1), fetched.AskedToWait);
        Assert.True(asked[1] - asked[0] >= TimeSpan.FromSeconds(0.95));
        Assert.Contains(said, s => s.StartsWith("waits for 127.0.0.1, 1 s", StringComparison.Ordinal));
    }

    [Fact]
    public async Task At_most_two_requests_are_at_a_host_at_a_time()
    {
        using var fetcher = new DocumentFetcher(new([home]), Small, TimeProvider.System);
        await Task.WhenAll(
            Enumerable.Range(0, 12).Select(_ => fetcher.Fetch(new(home, "/crowd"), _ => { }, CancellationToken.None))
        );
        using var http = new HttpClient();
        Assert.Equal("2", await http.GetStringAsync(new Uri(home, "/crowd/most")));
    }

    [Fact]
    public async Task What_a_host_keeps_programs_from_is_not_asked_for()
    {
        robots = "User-agent: *\nDisallow: /pdf\nDisallow: /xml";
        var fetched = await Fetch("/pdf");
        Assert.Equal(
            (
                AttemptOutcome.KeptAway,
                "The host does not allow programs at this address (robots.txt). You can open it yourself."
            ),
            (fetched.Outcome, fetched.Sentence)
        );
        // Nor by a detour.
        Assert.Equal(AttemptOutcome.KeptAway, (await Fetch("/page")).Outcome);
        Assert.Null((await Fetch("/mislabelled")).Outcome);
        robots = "User-agent: Zendle\nAllow: /\n\nUser-agent: *\nDisallow: /";
        Assert.Null((await Fetch("/pdf")).Outcome);
    }

    [Fact]
    public async Task What_fails_once_on_its_way_is_asked_for_again()
    {
        Assert.Null((await Fetch("/once-broken")).Outcome);
        Assert.Equal(2, broken);
    }

    [Fact]
    public async Task A_host_that_fails_again_and_again_is_left_alone()
    {
        using var fetcher = new DocumentFetcher(new([home]), Small, TimeProvider.System);
        for (var i = 0; i < 5; i++)
            Assert.Equal(
                AttemptOutcome.Unreachable,
                (await fetcher.Fetch(new(home, "/status/500"), _ => { }, CancellationToken.None)).Outcome
            );
        var left = await fetcher.Fetch(new(home, "/pdf"), _ => { }, CancellationToken.None);
        Assert.Equal(AttemptOutcome.Busy, left.Outcome);
        Assert.Contains("is not asked again until", left.Sentence, StringComparison.Ordinal);
        Assert.NotNull(fetcher.RestsUntil(home));
    }

    [Fact]
    public async Task A_host_that_asks_to_wait_again_and_again_is_not_taken_for_one_that_fails()
    {
        using var fetcher = new DocumentFetcher(new([home]), Small, TimeProvider.System);
        for (var i = 0; i < 3; i++)
            await fetcher.Fetch(new(home, "/wait-always"), _ => { }, CancellationToken.None);
        Assert.Null(fetcher.RestsUntil(home));
    }

    [Fact]
    public async Task Cookies_last_for_one_fetch_and_hosts_read_who_asks()
    {
        Assert.Null((await Fetch("/cookie")).Outcome);
        using var fetcher = new DocumentFetcher(new([home]), Small, TimeProvider.System, "mailto:ann@library.example");
        var fetched = await fetcher.Fetch(new(home, "/agent"), _ => { }, CancellationToken.None);
        Assert.EndsWith(
            "Zendle/0.1 (full text; mailto:ann@library.example)",
            System.Text.Encoding.UTF8.GetString(fetched.Bytes!),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Where_one_address_of_a_page_fails_the_next_is_tried()
    {
        var fetched = await Fetch("/meta");
        Assert.Null(fetched.Outcome);
        Assert.Equal("<article/>", System.Text.Encoding.UTF8.GetString(fetched.Bytes!));
    }

    [Fact]
    public async Task A_stop_ends_it_at_once()
    {
        using var fetcher = new DocumentFetcher(new([home]), new(), TimeProvider.System);
        using var stop = new CancellationTokenSource(200);
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() =>
            fetcher.Fetch(new(home, "/silent"), _ => { }, stop.Token)
        );
    }
}
