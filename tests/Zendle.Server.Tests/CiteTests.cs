using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class CiteTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    [Fact]
    public async Task A_work_is_cited_in_a_style_found_by_name_and_a_language()
    {
        var review = await Ann.Review();
        var work = (await Ann.Works(review, await Ann.Search(review, "type:article AND moth*"), "limit=1"))[0];
        var pane = await Ann.Get($"/api/reviews/{review}/works/{work}");
        var made = await Ann.Ok("POST", $"/api/reviews/{review}/cite", new { works = new[] { work } });
        var reference = made.List("references").Single();
        Assert.Equal((work, "zendle"), (reference.Int("workId"), made["style"]!.Text("key")));
        Assert.Contains(pane["title"]!.Text("text"), reference.Text("text"), StringComparison.Ordinal);
        Assert.Contains($"({pane.Int("year")})", reference.Text("text"), StringComparison.Ordinal);
        Assert.StartsWith("<div class=\"csl-entry\">", reference.Text("html"), StringComparison.Ordinal);

        var found = await Ann.Get("/api/styles?find=journal%20ecol");
        Assert.True(found.Int("total") > 10_000 && found.List("locales").Count() > 50);
        var style = found.List("styles").First().Text("key");
        var other = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/cite",
            new
            {
                works = new[] { work },
                style,
                locale = "de-CH",
            }
        );
        Assert.NotEqual(reference.Text("text"), other.List("references").Single().Text("text"));
        // de-CH ships; a dialect that does not falls back and says so.
        Assert.Equal(
            "There is no locale for de-LU; de-DE is used.",
            (
                await Ann.Ok("POST", $"/api/reviews/{review}/cite", new { works = new[] { work }, locale = "de-LU" })
            ).Text("note")
        );
        var (status, body) = await Ann.Send(
            "POST",
            $"/api/reviews/{review}/cite",
            new { works = new[] { work }, style = "nobody-wrote-this" }
        );
        Assert.Equal((404, "This style does not ship with Zendle."), (status, body!.Text("title")));
    }

    [Fact]
    public async Task What_the_records_do_not_have_is_said_beside_a_correct_reference()
    {
        var review = await Ann.Review();
        var works = await Ann.Works(review, await Ann.Search(review, "year:-1990"), "limit=200");
        var made = await Ann.Ok("POST", $"/api/reviews/{review}/cite", new { works });
        var gaps = made.List("references")
            .SelectMany(r => r["missing"]!.AsArray().Select(m => m!.GetValue<string>()))
            .ToHashSet();
        Assert.Contains("pages", gaps); // old works of the crawl, without pages or DOI
        Assert.All(made.List("references"), r => Assert.EndsWith(".", r.Text("text"), StringComparison.Ordinal));
        Assert.Equal(works.Order(), made.List("references").Select(r => r.Int("workId")).Order());
    }

    [Fact]
    public async Task A_set_becomes_a_bibliography_as_text_and_as_html()
    {
        var review = await Ann.Review("Lamps <& moths>");
        var step = await Ann.Search(review, "\"street lighting\"");
        var count = await Ann.Count(review, step);
        using var html = await Ann.Http.GetAsync($"/api/reviews/{review}/bibliography?stepId={step}&format=html");
        var page = await html.Content.ReadAsStringAsync();
        Assert.Equal(count, page.Split("<div class=\"csl-entry\">").Length - 1);
        Assert.Contains("<h1>Lamps &lt;&amp; moths&gt;</h1>", page, StringComparison.Ordinal);
        Assert.DoesNotContain("<script", page, StringComparison.OrdinalIgnoreCase);
        Assert.Matches(
            @"^lamps-moths_bibliography_\d+-works_\d{4}-\d\d-\d\d\.html$",
            html.Content.Headers.ContentDisposition!.FileNameStar!
        );
        var text = await Ann.Http.GetStringAsync($"/api/reviews/{review}/bibliography?stepId={step}&format=text");
        Assert.Equal(count, text.Trim().Split("\n\n").Length);
        var families = text.Trim().Split("\n\n").Select(t => t.Split(',', '-', ' ')[0]).ToArray();
        Assert.Equal(families.Order(StringComparer.InvariantCultureIgnoreCase).First(), families[0]);
        Assert.Equal(
            400,
            (await Ann.Send("GET", $"/api/reviews/{review}/bibliography?stepId={step}&format=docx")).Status
        );
        var onScreen = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/cite",
            new { stepId = await Ann.Search(review, "of OR in") }
        );
        Assert.Equal(300, onScreen.List("references").Count());
        Assert.True(onScreen.Int("left") > 0);
    }
}
