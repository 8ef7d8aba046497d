using System.Net;
using System.Text;
using Zendle.Outside.Oai;
using Zendle.Outside.World;

namespace Zendle.Outside.Pages;

/// <summary>Pages a person can open: the outside's own state, and a landing page for each work.</summary>
public static class LandingPages
{
    /// <summary>Maps the pages.</summary>
    public static void MapPages(this WebApplication app, IReadOnlyList<Work> works, IReadOnlyList<OutsideDatabase> databases, OutsideClock clock, Faults faults)
    {
        app.MapGet("/", () => Results.Text(State(databases, clock, faults, works.Count), "text/html; charset=utf-8", Encoding.UTF8));
        app.MapGet("/publisher/{publisher}/{id:int}", (int id) => Landing(works, id, "Version of record"));
        app.MapGet("/harbour/item/{id:int}", (int id) => Landing(works, id, "Deposited text"));
        app.MapGet("/harbour/preprint/{id:int}", (int id) => Landing(works, id, "Preprint"));
    }

    private static string State(IReadOnlyList<OutsideDatabase> databases, OutsideClock clock, Faults faults, int works)
    {
        var rows = string.Concat(databases.Select(d => $"<tr><td>{d.Name}</td><td><code>/{d.Key}/oai</code></td><td>{d.At(clock.Now).Count(e => !e.Deleted):N0}</td><td>{faults.State.GetValueOrDefault(d.Key, "none")}</td></tr>"));
        return Page("The outside", $"""
            <p>Simulated services over one made-up world of {works:N0} works. It is {clock.Now:yyyy-MM-dd HH:mm:ss} here.</p>
            <table><tr><th>database</th><th>address</th><th>records now</th><th>fault</th></tr>{rows}</table>
            <p>Move time on: <code>POST /clock?days=30</code>. Switch a fault on: <code>POST /faults?database=farnet&amp;kind=busy&amp;times=2</code>; kinds: {string.Join(", ", Faults.Kinds)}.</p>
            """);
    }

    private static IResult Landing(IReadOnlyList<Work> works, int id, string what)
    {
        if (id < 0 || id >= works.Count) return Results.NotFound();
        var w = works[id];
        var people = WebUtility.HtmlEncode(string.Join("; ", w.People.Select(p => $"{p.Given} {p.Family}")));
        return Results.Text(Page(w.Title, $"<p>{people} ({w.Year})</p><p>{what}{(w.Journal is null ? "" : ", " + WebUtility.HtmlEncode(w.Journal.Title))}</p><p>{WebUtility.HtmlEncode(w.Abstract)}</p>"), "text/html; charset=utf-8", Encoding.UTF8);
    }

    private static string Page(string title, string body) =>
        $"<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><title>{WebUtility.HtmlEncode(title)}</title><body><h1>{WebUtility.HtmlEncode(title)}</h1>{body}</body></html>";
}
