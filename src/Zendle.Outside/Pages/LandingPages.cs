using System.Net;
using System.Text;
using Zendle.Outside.Documents;
using Zendle.Outside.Oai;
using Zendle.Outside.World;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Pages;

/// <summary>The page of the outside's own state.</summary>
public static class LandingPages
{
    /// <summary>Maps the page.</summary>
    public static void MapPages(
        this WebApplication app,
        IReadOnlyList<Work> works,
        IReadOnlyList<OutsideDatabase> databases,
        OutsideClock clock,
        Faults faults,
        CopyKinds kinds,
        Func<string> libraries
    )
    {
        app.MapGet(
            "/",
            () =>
                Results.Text(
                    State(databases, clock, faults, kinds, libraries, works.Count),
                    "text/html; charset=utf-8",
                    Encoding.UTF8
                )
        );
    }

    private static string State(
        IReadOnlyList<OutsideDatabase> databases,
        OutsideClock clock,
        Faults faults,
        CopyKinds kinds,
        Func<string> libraries,
        int works
    )
    {
        var rows = string.Concat(
            databases.Select(d =>
                $"<tr><td>{d.Name}</td><td><code>/{d.Key}/oai</code></td>"
                + $"<td>{d.At(clock.Now).Count(e => !e.Deleted):N0}</td>"
                + $"<td>{faults.State.GetValueOrDefault(d.Key, "none")}</td></tr>"
            )
        );
        return Page(
            "The outside",
            $"""
            <p>Simulated services over one made-up world of {works:N0} works. It is {clock.Now:yyyy-MM-dd HH:mm:ss} here.</p>
            <table><tr><th>database</th><th>address</th><th>records now</th><th>fault</th></tr>{rows}</table>
            <h2>Time</h2>
            <form method="post" action="/clock"><label>Move time on by <input name="days" type="number" min="1"
            max="3660" value="30"> days</label> <button>Move on</button></form>
            <p>New works, citations, corrections, retractions and deletions arrive; the next harvest brings
            them. By program: <code>POST /clock?days=30</code>.</p>
            <h2>Faults</h2>
            <form method="post" action="/faults"><label>At <select name="database">{string.Concat(
                databases.Select(d => $"<option value=\"{d.Key}\">{d.Name}</option>")
            )}</select></label>
            <label>the next <input name="times" type="number" min="1" max="1000" value="2"> requests for records are</label>
            <label><select name="kind">{string.Concat(
                Faults.Kinds.Select(k => $"<option>{k}</option>")
            )}</select></label> <button>Switch</button></form>
            <p>By program: <code>POST /faults?database=farnet&amp;kind=busy&amp;times=2</code>.</p>
            <h2>Texts</h2>
            <p>Texts lie under <code>/publisher/…</code> and <code>/harbour/…</code>, DOIs resolve at
            <code>/doi/…</code>; <a href="/copies">what lies behind each</a>. Change one: <code>POST
            /copies?path=/harbour/item/1&amp;kind=truncated</code>; kinds: {string.Join(
                ", ",
                CopyKinds.All
            )}.</p>
            <p>Changed by hand: {(
                kinds.ByHand.Count == 0
                    ? "none"
                    : string.Join("; ", kinds.ByHand.Select(k => $"{WebUtility.HtmlEncode(k.Key)} {k.Value}"))
            )}.</p>
            {libraries()}
            """
        );
    }

    /// <summary>A plain page, readable at any width and in the dark.</summary>
    public static string Page(string title, string body) =>
        "<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><meta name=\"viewport\" "
        + $"content=\"width=device-width\"><title>{WebUtility.HtmlEncode(title)}</title><style>{Style}</style>"
        + $"<body><h1>{WebUtility.HtmlEncode(title)}</h1>{body}</body></html>";

    // Its own look, so that nobody takes the outside for a part of Zendle.
    private const string Style = """
        :root { color-scheme: light dark }
        body { font: 15px/1.5 Georgia, serif; max-width: 46rem; margin: 2.5rem auto; padding: 0 1.25rem }
        h1 { font-size: 1.6rem; margin: 0 0 .75rem } h2 { font-size: 1.1rem; margin: 2rem 0 .5rem }
        table { border-collapse: collapse; width: 100% } th { text-align: left; font-weight: normal; opacity: .75 }
        th, td { padding: .3rem 1rem .3rem 0; border-bottom: 1px solid color-mix(in srgb, currentcolor 18%, transparent) }
        td:nth-child(3), th:nth-child(3) { text-align: right; font-variant-numeric: tabular-nums }
        form { display: flex; flex-wrap: wrap; gap: .5rem; align-items: baseline } input, select, button { font:
        inherit; padding: .15rem .4rem }
        input[type=number] { width: 5rem } code { font-size: .9em }
        """;
}
