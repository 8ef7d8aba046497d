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
    public static void MapPages(this WebApplication app, IReadOnlyList<Work> works, IReadOnlyList<OutsideDatabase> databases, OutsideClock clock, Faults faults, CopyKinds kinds)
    {
        app.MapGet("/", () => Results.Text(State(databases, clock, faults, kinds, works.Count), "text/html; charset=utf-8", Encoding.UTF8));
    }

    private static string State(IReadOnlyList<OutsideDatabase> databases, OutsideClock clock, Faults faults, CopyKinds kinds, int works)
    {
        var rows = string.Concat(databases.Select(d => $"<tr><td>{d.Name}</td><td><code>/{d.Key}/oai</code></td><td>{d.At(clock.Now).Count(e => !e.Deleted):N0}</td><td>{faults.State.GetValueOrDefault(d.Key, "none")}</td></tr>"));
        return Page("The outside", $"""
            <p>Simulated services over one made-up world of {works:N0} works. It is {clock.Now:yyyy-MM-dd HH:mm:ss} here.</p>
            <table><tr><th>database</th><th>address</th><th>records now</th><th>fault</th></tr>{rows}</table>
            <h2>Time</h2>
            <form method="post" action="/clock"><label>Move time on by <input name="days" type="number" min="1" max="3660" value="30"> days</label> <button>Move on</button></form>
            <p>New works, citations, corrections, retractions and deletions arrive; the next harvest brings them. By program: <code>POST /clock?days=30</code>.</p>
            <h2>Faults</h2>
            <form method="post" action="/faults"><label>At <select name="database">{string.Concat(databases.Select(d => $"<option value=\"{d.Key}\">{d.Name}</option>"))}</select></label>
            <label>the next <input name="times" type="number" min="1" max="1000" value="2"> requests for records are</label>
            <label><select name="kind">{string.Concat(Faults.Kinds.Select(k => $"<option>{k}</option>"))}</select></label> <button>Switch</button></form>
            <p>By program: <code>POST /faults?database=farnet&amp;kind=busy&amp;times=2</code>.</p>
            <h2>Texts</h2>
            <p>Texts lie under <code>/publisher/…</code> and <code>/harbour/…</code>, DOIs resolve at <code>/doi/…</code>; <a href="/copies">what lies behind each</a>. Change one: <code>POST /copies?path=/harbour/item/1&amp;kind=truncated</code>; kinds: {string.Join(", ", CopyKinds.All)}.</p>
            <p>Changed by hand: {(kinds.ByHand.Count == 0 ? "none" : string.Join("; ", kinds.ByHand.Select(k => $"{WebUtility.HtmlEncode(k.Key)} {k.Value}")))}.</p>
            """);
    }

    /// <summary>A plain page.</summary>
    public static string Page(string title, string body) =>
        $"<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><title>{WebUtility.HtmlEncode(title)}</title><body><h1>{WebUtility.HtmlEncode(title)}</h1>{body}</body></html>";
}
