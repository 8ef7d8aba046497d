using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;

namespace Zendle.Server.Tests;

/// <summary>Pages that lead on: a library's, a table of contents, one behind the other, and in a circle.</summary>
public sealed class WaysOnwardTests : IAsyncLifetime
{
    private const string Title = "Lamps in lanes and fields";
    private readonly WebApplication site = WebApplication
        .CreateSlimBuilder(["--urls", "http://127.0.0.1:0", "--Logging:LogLevel:Default", "None"])
        .Build();
    private int asked;

    private static IResult Html(string body) => Results.Text($"<html><body>{body}</body></html>", "text/html");

    private static IResult Pdf(string name) =>
        Results.Bytes(
            "%PDF-"u8.ToArray().Concat(System.Text.Encoding.ASCII.GetBytes(name)).ToArray(),
            "application/pdf"
        );

    private string At(string path) => site.Urls.First() + path;

    public async ValueTask InitializeAsync()
    {
        site.MapGet("/resolve", () => Html($"<a href='/help'>Help</a><a href='{At("/proxy?url=x")}'>Full text</a>"));
        site.MapGet("/proxy", () => Results.Redirect("/through/book"));
        site.MapGet(
            "/through/book",
            () =>
                Html(
                    "<ol><li>Moths of roads <a href='/other.pdf'>PDF</a></li>"
                        + $"<li><b>{Title}</b> Berg <a href='/through/chapter.pdf'>PDF</a></li></ol>"
                )
        );
        site.MapGet("/through/chapter.pdf", () => Pdf("chapter"));
        site.MapGet("/other.pdf", () => Pdf("other"));
        site.MapGet(
            "/whole",
            (HttpContext http) =>
            {
                http.Response.Headers.Append("Link", "</other.pdf>; rel=\"item\"; type=\"application/pdf\"");
                return Html($"<li><a href='/through/chapter.pdf'>{Title}</a></li>");
            }
        );
        site.MapGet(
            "/circle",
            () =>
            {
                asked++;
                return Html($"<li><a href='/circle?{asked}'>{Title}</a></li>");
            }
        );
        await site.StartAsync();
    }

    public ValueTask DisposeAsync() => site.DisposeAsync();

    private async Task<Fetched> Fetch(string path, bool isPart, bool withLibrary = false)
    {
        using var fetcher = new DocumentFetcher(new([new(site.Urls.First())]), new(), TimeProvider.System);
        return await fetcher.Fetch(
            new(At(path)),
            _ => { },
            CancellationToken.None,
            withLibrary ? new(new(At("/proxy?url=")), null) : null,
            new([Title], isPart)
        );
    }

    [Fact]
    public async Task A_librarys_page_leads_to_a_table_of_contents_and_that_to_the_chapter()
    {
        var fetched = await Fetch("/resolve", isPart: true, withLibrary: true);
        Assert.Equal((null, "/through/chapter.pdf"), (fetched.Outcome, fetched.Address.AbsolutePath));
    }

    [Theory]
    // Of a chapter the page that has the whole book as its text is asked for the chapter first; an article's page is not.
    [InlineData(true, "/through/chapter.pdf")]
    [InlineData(false, "/other.pdf")]
    public async Task What_a_page_calls_the_text_is_the_whole_book_for_a_chapter(bool isPart, string came) =>
        Assert.Equal(came, (await Fetch("/whole", isPart)).Address.AbsolutePath);

    [Fact]
    public async Task A_table_that_leads_in_a_circle_is_followed_once()
    {
        Assert.Equal(AttemptOutcome.NoTextThere, (await Fetch("/circle", isPart: true)).Outcome);
        Assert.Equal(2, asked);
    }
}
