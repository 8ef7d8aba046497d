using System.Net;
using System.Text;
using Zendle.Outside.Documents;
using Zendle.Outside.World;

namespace Zendle.Outside.Pages;

/// <summary>
/// A platform of books in three manners: a table of contents whose chapters have pages of their own; one with a link beside
/// each title; one without links, over the whole book in one file.
/// </summary>
public sealed class BookPlatform(IReadOnlyList<Work> works, Scenario scenario)
{
    private readonly ILookup<int, Work> chapters = works
        .Where(w => w.Book is not null)
        .OrderBy(w => w.FirstPage)
        .ThenBy(w => w.Id)
        .ToLookup(w => w.Book!.Id);

    /// <summary>Maps the pages.</summary>
    public void Map(WebApplication app)
    {
        app.MapGet("/books/{id:int}", (int id, HttpContext http) => Book(id, http));
        app.MapGet("/books/{id:int}/book.pdf", Whole);
        app.MapGet(
            "/books/{id:int}/chapters/{chapter:int}",
            (int id, int chapter, HttpContext http) => Chapter(id, chapter, http)
        );
        app.MapGet("/books/{id:int}/chapters/{chapter:int}/text.pdf", Text);
    }

    /// <summary>Which of the three manners a book has.</summary>
    public static int MannerOf(int book) => book % 3;

    private static string Host(HttpContext http) => $"{http.Request.Scheme}://{http.Request.Host}";

    private static IResult Page(string title, string body) =>
        Results.Text(LandingPages.Page(title, body), "text/html; charset=utf-8", Encoding.UTF8);

    private static string E(string text) => WebUtility.HtmlEncode(text);

    private IResult Book(int id, HttpContext http)
    {
        if (id >= works.Count || works[id].Type != "book")
            return Results.NotFound();
        var (book, manner) = (works[id], MannerOf(id));
        if (manner == 2)
            http.Response.Headers.Append(
                "Link",
                $"<{Host(http)}/books/{id}/book.pdf>; rel=\"item\"; type=\"application/pdf\""
            );
        var rows = chapters[id]
            .Select(c =>
            {
                var at = $"/books/{id}/chapters/{c.Id}";
                var pages = $"pp. {c.FirstPage}–{c.LastPage}";
                var people = E(string.Join(", ", c.People.Select(p => p.Family)));
                return manner switch
                {
                    0 => $"<li><a href=\"{at}\">{E(c.Title)}</a><br>{people}, {pages}</li>",
                    1 => $"<li><b>{E(c.Title)}</b> {people}, {pages} <a href=\"{at}/text.pdf\">PDF</a></li>",
                    _ => $"<li>{E(c.Title)} {people}, {pages}</li>",
                };
            });
        return Page(
            book.Title,
            $"""
            <p>{E(string.Join("; ", book.People.Select(p => $"{p.Given} {p.Family}")))} (eds.), {book.Year}</p>
            <p><a href="/about">About this book</a></p><h2>Contents</h2><ol>{string.Concat(rows)}</ol>
            """
        );
    }

    private Work? ChapterOf(int id, int chapter) => chapters[id].FirstOrDefault(c => c.Id == chapter);

    private IResult Chapter(int id, int chapter, HttpContext http)
    {
        if (ChapterOf(id, chapter) is not { } c || MannerOf(id) != 0)
            return Results.NotFound();
        http.Response.Headers.Append(
            "Link",
            $"<{Host(http)}/books/{id}/chapters/{chapter}/text.pdf>; rel=\"item\"; type=\"application/pdf\""
        );
        return Page(c.Title, $"<p>In: <a href=\"/books/{id}\">{E(c.Book!.Title)}</a></p><p>{E(c.Abstract)}</p>");
    }

    private IResult Text(int id, int chapter) =>
        ChapterOf(id, chapter) is { } c && MannerOf(id) < 2
            ? Results.Bytes(PaperPrinter.Print(Printed(c)), "application/pdf")
            : Results.NotFound();

    private IResult Whole(int id) =>
        id < works.Count && works[id].Type == "book" && MannerOf(id) == 2
            ? Results.Bytes(BookPrinter.Print(works[id], [.. Parts(id).Select(Printed)]), "application/pdf")
            : Results.NotFound();

    /// <summary>The chapters of a book; the whole of one that was written in one piece.</summary>
    private IEnumerable<Work> Parts(int id) => chapters[id].Any() ? chapters[id] : [works[id]];

    private Paper Printed(Work chapter) => Paper.Of(chapter, works, scenario, Look.Typeset);
}
