using System.Globalization;
using System.Net;
using System.Text;
using Zendle.Outside.Loans;
using Zendle.Outside.Oai;
using Zendle.Outside.Pages;
using Zendle.Outside.World;

namespace Zendle.Outside.Libraries;

/// <summary>
/// The libraries over HTTP: their directory, their holdings, and a link resolver for each (OpenURL 1.0, ANSI/NISO
/// Z39.88-2004).
/// </summary>
public sealed class LibraryPages(
    IReadOnlyList<Work> works,
    Scenario scenario,
    OutsideClock clock,
    LibrarySwitches switches
)
{
    private readonly Dictionary<string, IReadOnlyList<Subscription>> held = OutsideLibrary.All.ToDictionary(
        l => l.Key,
        l => Subscription.Of(l, works, scenario)
    );
    private readonly ILookup<string, Work> byDoi = works
        .Where(w => w.Doi is not null)
        .ToLookup(w => w.Doi!, StringComparer.OrdinalIgnoreCase);

    /// <summary>Whether a library may open a work today.</summary>
    public bool Covers(OutsideLibrary library, Work work)
    {
        var today = DateOnly.FromDateTime(clock.Now.UtcDateTime);
        return held[library.Key].Any(s => s.Covers(work, today));
    }

    /// <summary>Maps the pages.</summary>
    public void Map(WebApplication app)
    {
        app.MapGet(
            "/libraries",
            (HttpContext http) => Results.Json(OutsideLibrary.All.Select(l => Entry(l, Host(http))))
        );
        app.MapPost(
            "/libraries/faults",
            (string library, string kind) =>
                OutsideLibrary.All.Any(l => l.Key == library) && switches.Set(library, kind)
                    ? Results.Ok()
                    : Results.BadRequest("Unknown library or fault.")
        );
        app.MapGet(
            "/library/{key}/holdings.tsv",
            (string key, HttpContext http) =>
                Of(key) is not { } library ? Results.NotFound()
                : switches.Has(key, "no-table") ? Results.Text("<html>Please sign in.</html>", "text/html")
                : Results.Bytes(KbartTable.Of(library, held[key], Host(http)), "text/tab-separated-values")
        );
        app.MapGet("/library/{key}/resolve", Resolve);
    }

    /// <summary>How the libraries stand, for the page of the outside's own state.</summary>
    public static string State(LibrarySwitches switches) =>
        $"""
            <h2>Libraries</h2>
            <table><tr><th>library</th><th>where</th><th>fault</th></tr>{string.Concat(
                OutsideLibrary.All.Select(l =>
                    $"<tr><td>{l.Name}</td><td>{l.Town}, {l.Country}</td><td>{switches.Of(l.Key)}</td></tr>"
                )
            )}</table>
            <p><a href="/libraries">Their directory</a>. Readers: {string.Join(
                ", ",
                OutsideLibrary.Readers.Select(r => $"<code>{r.Key}</code> with the password <code>{r.Value}</code>")
            )}. Change one: <code>POST /libraries/faults?library=quillmere&amp;kind=down</code>; kinds: {string.Join(
                ", ",
                LibrarySwitches.Kinds
            )}.</p>
            """;

    /// <summary>The library of a key; null for none.</summary>
    public static OutsideLibrary? Of(string key) => Array.Find(OutsideLibrary.All, l => l.Key == key);

    private static string Host(HttpContext http) => $"{http.Request.Scheme}://{http.Request.Host}";

    private static object Entry(OutsideLibrary l, string host)
    {
        var at = $"{host}/library/{l.Key}";
        return new
        {
            identifier = l.Isil,
            name = l.Name,
            town = l.Town,
            country = l.Country,
            holdings = $"{at}/holdings.tsv",
            resolver = $"{at}/resolve",
            proxy = $"{at}/proxy?url=",
            signIn = l.HasWindow
                ? (object)
                    new
                    {
                        kind = "oauth2",
                        authorize = $"{at}/authorize",
                        token = $"{at}/token",
                    }
                : new { kind = "form" },
            loanDesks = LoanDeskPages.Listed(host),
        };
    }

    private async Task<IResult> Resolve(string key, HttpContext http)
    {
        if (Of(key) is not { } library)
            return Results.NotFound();
        if (switches.Has(key, "down"))
            return Results.StatusCode(500);
        if (switches.Has(key, "loop"))
            return Results.Redirect(http.Request.Path + http.Request.QueryString);
        if (switches.Has(key, "slow"))
            await Task.Delay(TimeSpan.FromSeconds(3), http.RequestAborted);
        var work = Asked(http.Request.Query);
        if (work is null || !Covers(library, work))
            return Page(
                "Nothing at hand",
                $"<p>{WebUtility.HtmlEncode(library.Name)} holds no text of this item.</p>"
                    + "<p><a href=\"/libraries\">Other libraries</a></p>"
            );
        var target = Host(http) + Target(work);
        var link = $"{Host(http)}/library/{key}/proxy?url={Uri.EscapeDataString(target)}";
        return library.Redirects
            ? Results.Redirect(link)
            : Page(
                "Ways to this item",
                $"""
                <p>{WebUtility.HtmlEncode(work.Title)} ({work.Year})</p>
                <ul><li><a href="/libraries">About this library</a></li>
                <li><a href="{WebUtility.HtmlEncode(link)}">Full text at {WebUtility.HtmlEncode(
                    work.Journal?.Publisher ?? work.Publisher ?? "the publisher"
                )}</a></li></ul>
                """
            );
    }

    /// <summary>Path at which the publisher has a work.</summary>
    public static string Target(Work work) => Hosts.Copies(work).First(c => c.Look == Documents.Look.Typeset).Path;

    /// <summary>The work that an OpenURL describes: by DOI, else by ISSN, volume and first page.</summary>
    private Work? Asked(IQueryCollection query)
    {
        foreach (var id in query["rft_id"])
            if (
                id?.StartsWith("info:doi/", StringComparison.Ordinal) == true
                && byDoi[id["info:doi/".Length..]].FirstOrDefault(w => w.Journal is not null) is { } named
            )
                return named;
        var (issn, volume, page) = (query["rft.issn"], query["rft.volume"].ToString(), query["rft.spage"].ToString());
        return works.FirstOrDefault(w =>
            w.Journal is not null
            && issn.Contains(w.Journal.Issn)
            && w.Volume.ToString(CultureInfo.InvariantCulture) == volume
            && w.FirstPage.ToString(CultureInfo.InvariantCulture) == page
        );
    }

    internal static IResult Page(string title, string body, int status = 200) =>
        Results.Text(LandingPages.Page(title, body), "text/html; charset=utf-8", Encoding.UTF8, status);
}
