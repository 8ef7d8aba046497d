using System.Collections.Concurrent;
using System.Globalization;
using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using Zendle.Outside.Documents;
using Zendle.Outside.Oai;
using Zendle.Outside.World;

namespace Zendle.Outside.Pages;

/// <summary>
/// The hosts of texts: publishers and the repository, by path on one port, and a DOI resolver. Each work has a landing
/// page with FAIR Signposting links in its header (cite-as, item, type, author, license, describedby), and its PDF is
/// printed when it is asked for.
/// </summary>
public sealed class Hosts(IReadOnlyList<Work> works, Scenario scenario, CopyKinds kinds, OutsideClock clock)
{
    private const int MostPrinted = 200;
    private readonly ConcurrentDictionary<string, byte[]> printed = new();
    private readonly Dictionary<string, (Work Work, Look Look)> byDoi = works
        .SelectMany(w =>
            new[] { (w.Doi, Work: w, Look: Look.Typeset), (Doi: w.PreprintDoi, Work: w, Look: Look.Preprint) }
        )
        .Where(d => d.Doi is not null)
        .GroupBy(d => d.Doi!, StringComparer.OrdinalIgnoreCase)
        .ToDictionary(g => g.Key, g => (g.First().Work, g.First().Look), StringComparer.OrdinalIgnoreCase);

    /// <summary>Maps landing pages, texts, descriptions, the resolver, and the switch for tests.</summary>
    public void Map(WebApplication app)
    {
        app.MapGet(
            "/publisher/{publisher}/{id:int}",
            (string publisher, int id, HttpContext http) => Landing(http, id, Look.Typeset)
        );
        app.MapGet(
            "/publisher/{publisher}/{id:int}/text.pdf",
            (string publisher, int id, HttpContext http) => Text(http, id, Look.Typeset)
        );
        app.MapGet(
            "/publisher/{publisher}/{id:int}/text.html",
            (string publisher, int id, HttpContext http) => Marked(http, id, "/text.html")
        );
        app.MapGet(
            "/publisher/{publisher}/{id:int}/text.xml",
            (string publisher, int id, HttpContext http) => Marked(http, id, "/text.xml")
        );
        app.MapGet(
            "/publisher/{publisher}/{id:int}/text.epub",
            (string publisher, int id, HttpContext http) => Marked(http, id, "/text.epub")
        );
        app.MapGet(
            "/publisher/{publisher}/{id:int}/figure-1.png",
            (string publisher, int id) =>
                id < works.Count
                    ? Results.Bytes(CountFigure.Png(CountTable.Of(works[id], Look.Typeset)), "image/png")
                    : Results.NotFound()
        );
        // What has no journal lies in the repository alone, in whatever format it was written.
        foreach (var ending in new[] { "/text.html", "/text.xml", "/text.epub" })
            app.MapGet($"/harbour/item/{{id:int}}{ending}", (int id, HttpContext http) => Marked(http, id, ending));
        foreach (var repository in new[] { "/harbour/item/", Deposit.HoldsBack })
        {
            app.MapGet(
                repository + "{id:int}",
                async (int id, HttpContext http) =>
                    Withheld(repository, id, isPage: true) ?? await Landing(http, id, Look.Manuscript)
            );
            app.MapGet(
                repository + "{id:int}/text.pdf",
                async (int id, HttpContext http) =>
                    Withheld(repository, id, isPage: false) ?? await Text(http, id, Look.Manuscript)
            );
        }
        app.MapGet("/harbour/preprint/{id:int}", (int id, HttpContext http) => Landing(http, id, Look.Preprint));
        app.MapGet("/harbour/preprint/{id:int}/text.pdf", (int id, HttpContext http) => Text(http, id, Look.Preprint));
        app.MapGet(
            "/described/{id:int}",
            (int id) =>
                id < works.Count
                    ? Results.Text(Described(works[id]), "application/vnd.citationstyles.csl+json", Encoding.UTF8)
                    : Results.NotFound()
        );
        app.MapGet(
            "/doi/{**doi}",
            (string doi) =>
                byDoi.TryGetValue(doi, out var found)
                    ? Results.Redirect(PathOf(found.Work, found.Look))
                    : Results.NotFound()
        );
        app.MapPost(
            "/copies",
            (string path, string kind) =>
                kinds.Set(path, kind) ? Results.Ok() : Results.BadRequest("Unknown kind of copy.")
        );
        app.MapGet(
            "/copies",
            () =>
                Results.Json(
                    works.SelectMany(w =>
                        Copies(w)
                            .Select(c => new
                            {
                                path = c.Path,
                                kind = kinds.Of(c.Path, w, c.Look),
                                open = c.Path == Deposit.PathOf(w)
                                    ? !IsHeldBack(w)
                                    : c.Look != Look.Typeset || w.Journal is not { Open: false },
                            })
                    )
                )
        );
    }

    /// <summary>Path of the work a DOI stands for; null for none.</summary>
    internal string? Resolved(string doi) =>
        byDoi.TryGetValue(doi, out var found) ? PathOf(found.Work, found.Look) : null;

    /// <summary>Serves a publisher's page or text through a library.</summary>
    /// <param name="http">The request; its path ends in the publisher's.</param>
    /// <param name="id">The work.</param>
    /// <param name="ending">Which text; empty for the page.</param>
    /// <param name="isPaid">Whether the library pays for it: then nothing is asked.</param>
    internal async Task<IResult> Serve(HttpContext http, int id, string ending, bool isPaid)
    {
        if (isPaid)
            http.Items[Paid] = Paid;
        return ending switch
        {
            "" => await Landing(http, id, Look.Typeset),
            "/text.pdf" => await Text(http, id, Look.Typeset),
            _ => Marked(http, id, ending),
        };
    }

    private static readonly object Paid = new();

    private static bool IsPaid(HttpContext http) => http.Items.ContainsKey(Paid);

    /// <summary>The publisher's own path of a page, whoever it is asked through.</summary>
    private static string Own(string path) =>
        path.IndexOf("/publisher/", StringComparison.Ordinal) is > 0 and var at ? path[at..] : path;

    /// <summary>Where the copies of a work lie.</summary>
    internal static IEnumerable<(string Path, Look Look)> Copies(Work w)
    {
        if (w.Journal is not null)
            yield return (PathOf(w, Look.Typeset), Look.Typeset);
        if (w.HasManuscript)
            yield return (Deposit.PathOf(w), LookOf(w, Look.Manuscript));
        if (w.PreprintDoi is not null)
            yield return ($"/harbour/preprint/{w.Id}", Look.Preprint);
    }

    private static string PathOf(Work w, Look look) =>
        look == Look.Preprint ? $"/harbour/preprint/{w.Id}"
        : w.Journal is null ? $"/harbour/item/{w.Id}"
        : $"/publisher/{w.Journal.Publisher.ToLowerInvariant().Replace(' ', '-')}/{w.Id}";

    /// <summary>The line of a page that says whose the work is, and of when.</summary>
    private static string Names(Work w) =>
        $"<p>{WebUtility.HtmlEncode(string.Join("; ", w.People.Select(p => $"{p.Given} {p.Family}")))} ({w.Year})</p>";

    private bool IsHeldBack(Work w) =>
        Deposit.OpensOn(w) is { } opens && opens > DateOnly.FromDateTime(clock.Now.UtcDateTime);

    /// <summary>What a repository answers in place of a manuscript that lies in another, or is held back; null for neither.</summary>
    private IResult? Withheld(string repository, int id, bool isPage)
    {
        if (id < 0 || id >= works.Count)
            return Results.NotFound();
        var w = works[id];
        if (w.HasManuscript ? Deposit.PathOf(w) != repository + id : repository == Deposit.HoldsBack)
            return Results.NotFound();
        if (!IsHeldBack(w))
            return null;
        var until = string.Create(CultureInfo.InvariantCulture, $"{Deposit.OpensOn(w):d MMMM yyyy}");
        return isPage
            ? Results.Text(
                LandingPages.Page(
                    w.Title,
                    $"""
                    {Names(w)}
                    <p>Accepted manuscript, under embargo until {until}.</p>
                    <p>{WebUtility.HtmlEncode(w.Abstract)}</p>
                    """
                ),
                "text/html; charset=utf-8",
                Encoding.UTF8
            )
            : Results.Text($"Under embargo until {until}.", statusCode: 403);
    }

    /// <summary>
    /// What lies in the repository of a work without a journal is its only version; of one with a journal the
    /// manuscript.
    /// </summary>
    private static Look LookOf(Work w, Look asked) =>
        asked == Look.Manuscript && w.Journal is null ? (w.Type == "preprint" ? Look.Preprint : Look.Typeset) : asked;

    private static string Price(Work w) => (24 + w.Id % 5 * 5).ToString("0.00", CultureInfo.InvariantCulture);

    private static bool IsSold(HttpContext http, Work w, Look look) =>
        look == Look.Typeset && w.Journal is { Open: false } && !IsPaid(http);

    private async Task<IResult> Landing(HttpContext http, int id, Look asked)
    {
        if (id < 0 || id >= works.Count)
            return Results.NotFound();
        var (w, look, path) = (works[id], LookOf(works[id], asked), http.Request.Path.Value!);
        var host = $"{http.Request.Scheme}://{http.Request.Host}";
        var kind = kinds.Of(Own(path), w, look);
        switch (kind)
        {
            case "dead":
                return Results.NotFound();
            case "loop":
                return Results.Redirect(path + "?again=" + (http.Request.Query["again"].ToString() + "1"));
            case "private":
                return Results.Redirect("http://10.1.2.3/text.pdf");
            // This publisher shows nothing to whoever does not give back the cookie it gave.
            case "page" when !http.Request.Cookies.ContainsKey("visit"):
                http.Response.Cookies.Append("visit", "1", new() { Path = "/" });
                return Results.Redirect(path);
        }
        await Task.CompletedTask;
        var links = new List<string>
        {
            $"<https://schema.org/{(w.Type == "thesis" ? "Thesis" : "ScholarlyArticle")}>; rel=\"type\"",
            $"<{host}/described/{id}>; rel=\"describedby\"; type=\"application/vnd.citationstyles.csl+json\"",
        };
        var doi = look == Look.Preprint ? w.PreprintDoi ?? w.Doi : w.Doi;
        if (doi is not null)
            links.Add($"<{host}/doi/{doi}>; rel=\"cite-as\"");
        links.AddRange(
            w.People.Where(p => p.Orcid is not null)
                .Take(5)
                .Select(p => $"<https://orcid.org/{p.Orcid}>; rel=\"author\"")
        );
        if (!IsSold(http, w, look))
            links.Add("<https://creativecommons.org/licenses/by/4.0/>; rel=\"license\"");
        if (kind == "jats" && !IsSold(http, w, look))
            links.Add($"<{host}{path}/text.xml>; rel=\"item\"; type=\"application/xml\"");
        else if (kind == "epub" && !IsSold(http, w, look))
            links.Add($"<{host}{path}/text.epub>; rel=\"item\"; type=\"application/epub+zip\"");
        else if (kind is not ("landing-only" or "page" or "preview"))
            links.Add($"<{host}{path}/text.pdf>; rel=\"item\"; type=\"application/pdf\"");
        http.Response.Headers.Append("Link", string.Join(", ", links));
        return Results.Text(
            LandingPages.Page(
                w.Title,
                $"""
                {(
                    kind is "page" or "preview" && !IsSold(http, w, look)
                        ? $"<meta name=\"citation_fulltext_html_url\" content=\"{path}/text.html\">"
                        : ""
                )}<script type="application/ld+json">{JsonSerializer.Serialize(Offer(http, w, look))}</script>
                {Names(w)}
                <p>{(
                    look switch
                    {
                        Look.Typeset => "Version of record",
                        Look.Manuscript => "Accepted manuscript",
                        _ => "Preprint",
                    }
                )}{(w.Journal is null ? "" : ", " + WebUtility.HtmlEncode(w.Journal.Title))}</p>
                <p>{WebUtility.HtmlEncode(w.Abstract)}</p>
                <p>{(
                    IsSold(http, w, look) ? $"Full text: {Price(w)} EUR"
                    : kind == "landing-only" ? "The text is not online."
                    : kind is "page" or "jats" or "epub" or "preview" ? "Full text on this site"
                    : $"<a href=\"{path}/text.pdf\">Full text (PDF)</a>"
                )}</p>
                """
            ),
            "text/html; charset=utf-8",
            Encoding.UTF8
        );
    }

    private static Dictionary<string, object> Offer(HttpContext http, Work w, Look look)
    {
        var data = new Dictionary<string, object>
        {
            ["@context"] = "https://schema.org",
            ["@type"] = "ScholarlyArticle",
            ["name"] = w.Title,
            ["isAccessibleForFree"] = !IsSold(http, w, look),
        };
        if (IsSold(http, w, look))
            data["offers"] = new Dictionary<string, string>
            {
                ["@type"] = "Offer",
                ["price"] = Price(w),
                ["priceCurrency"] = "EUR",
            };
        return data;
    }

    /// <summary>A text that is no PDF: a page, or XML.</summary>
    private IResult Marked(HttpContext http, int id, string ending)
    {
        if (id < 0 || id >= works.Count)
            return Results.NotFound();
        var w = works[id];
        var landing = http.Request.Path.Value![..^ending.Length];
        if (IsSold(http, w, Look.Typeset))
            return Results.Text("Payment required.", statusCode: 402);
        if (kinds.Of(Own(landing), w, Look.Typeset) == "page" && !http.Request.Cookies.ContainsKey("visit"))
            return Results.Redirect(landing);
        var paper = Paper.Of(w, works, scenario, Look.Typeset);
        // What is said to be the text is its beginning.
        if (kinds.Of(Own(landing), w, Look.Typeset) == "preview")
            paper = paper with { Sections = [], CitedAs = [], References = [] };
        if (ending == "/text.epub")
            return Results.Bytes(
                ArticleEpub.Of(paper, CountFigure.Png(CountTable.Of(w, Look.Typeset))),
                "application/epub+zip"
            );
        return ending == "/text.xml"
            ? Results.Bytes(ArticleXml.Jats(paper), "application/xml")
            : Results.Text(ArticlePage.Html(paper, landing), "text/html; charset=utf-8", Encoding.UTF8);
    }

    private async Task<IResult> Text(HttpContext http, int id, Look asked)
    {
        if (id < 0 || id >= works.Count)
            return Results.NotFound();
        var (w, look) = (works[id], LookOf(works[id], asked));
        var landing = http.Request.Path.Value![..^"/text.pdf".Length];
        if (IsSold(http, w, look))
            return Results.Text("Payment required.", statusCode: 402);
        var cancel = http.RequestAborted;
        switch (kinds.Of(Own(landing), w, look))
        {
            case "dead":
                return Results.NotFound();
            case "sign-in" when !IsPaid(http):
                return Results.Text(
                    LandingPages.Page("Sign in", "<p>Sign in with your institution to read this text.</p>"),
                    "text/html",
                    Encoding.UTF8,
                    403
                );
            case "html" when !IsPaid(http):
                return Results.Text(
                    LandingPages.Page("Sign in", "<p>Sign in with your institution to read this text.</p>"),
                    "text/html",
                    Encoding.UTF8
                );
            case "wait" when kinds.Times(Own(landing)) == 1:
                http.Response.Headers.RetryAfter = "2";
                return Results.StatusCode(429);
            case "wrong":
                return Pdf(Printed(Another(w), look, false));
            case "other-title":
                return Pdf(Printed(w, look, true));
            case "truncated":
                return Pdf(Printed(w, look, false) is var whole ? whole[..(whole.Length * 3 / 5)] : []);
            case "empty":
                return Pdf([]);
            case "encrypted":
                return Pdf(OddFiles.Encrypted());
            case "script":
                return Pdf(OddFiles.Scripted());
            case "scanned":
                return Pdf(OddFiles.Scanned());
            case "many-pages":
                return Pdf(OddFiles.Pages(5_000));
            case "bomb":
                return await Bomb(http);
            case "huge":
                http.Response.ContentLength = 900_000_000;
                goto case "endless";
            case "endless":
                return await Endless(http, 65_536, TimeSpan.Zero, cancel);
            case "dripping":
                return await Endless(http, 1, TimeSpan.FromMilliseconds(200), cancel);
            case var alike when LookAlikes.Kinds.Contains(alike):
                return Pdf(LookAlikes.Print(alike, w, works, scenario, 0));
            default:
                return Pdf(Printed(w, look, false));
        }
    }

    /// <summary>A paper of another field, which somebody put where this one should lie.</summary>
    private Work Another(Work w) =>
        Enumerable
            .Range(1, works.Count - 1)
            .Select(i => works[(w.Id * 7 + 13 * i) % works.Count])
            .First(o => o.Topic.Area != w.Topic.Area && o.Type == "article" && o.Language == "eng");

    private static IResult Pdf(byte[] bytes) => Results.Bytes(bytes, "application/pdf");

    private byte[] Printed(Work w, Look look, bool otherTitle)
    {
        if (printed.Count > MostPrinted)
            printed.Clear();
        return printed.GetOrAdd(
            $"{w.Id} {look} {otherTitle}",
            _ => PaperPrinter.Print(Paper.Of(w, works, scenario, look, otherTitle))
        );
    }

    private static async Task<IResult> Endless(HttpContext http, int size, TimeSpan pause, CancellationToken cancel)
    {
        http.Response.ContentType = "application/pdf";
        await http.Response.Body.WriteAsync("%PDF-1.4\n"u8.ToArray(), cancel);
        var part = new byte[size];
        try
        {
            while (!cancel.IsCancellationRequested)
            {
                await http.Response.Body.WriteAsync(part, cancel);
                await http.Response.Body.FlushAsync(cancel);
                if (pause > TimeSpan.Zero)
                    await Task.Delay(pause, cancel);
            }
        }
        catch (Exception e) when (e is OperationCanceledException or IOException or InvalidOperationException) { }
        return Results.Empty;
    }

    private static async Task<IResult> Bomb(HttpContext http)
    {
        http.Response.ContentType = "application/pdf";
        http.Response.Headers.ContentEncoding = "gzip";
        using var small = new MemoryStream();
        await using (var gzip = new GZipStream(small, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            await gzip.WriteAsync("%PDF-1.4\n"u8.ToArray());
            var zeros = new byte[1_000_000];
            for (var i = 0; i < 400; i++)
                await gzip.WriteAsync(zeros);
        }
        http.Response.ContentLength = small.Length;
        await http.Response.Body.WriteAsync(small.ToArray());
        return Results.Empty;
    }

    private static string Described(Work w) =>
        JsonSerializer.Serialize(
            new Dictionary<string, object?>
            {
                ["id"] = w.Id.ToString(CultureInfo.InvariantCulture),
                ["type"] = w.Journal is null ? "document" : "article-journal",
                ["title"] = w.Title,
                ["author"] = w.People.Select(p => new Dictionary<string, string>
                {
                    ["family"] = p.Family,
                    ["given"] = p.Given,
                }),
                ["issued"] = new Dictionary<string, int[][]>
                {
                    ["date-parts"] =
                    [
                        [w.Year],
                    ],
                },
                ["container-title"] = w.Journal?.Title,
                ["DOI"] = w.Doi,
            }
        );
}
