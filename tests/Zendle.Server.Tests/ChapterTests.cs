using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Chapters whose records name no more than their book's page.</summary>
public sealed class ChapterTests(Chapters world) : IClassFixture<Chapters>
{
    private Visitor Ann => world.Ann;

    /// <summary>Chapters by the manner of their book: a page for each, a link beside each title, the whole book alone.</summary>
    private async Task<ILookup<int, (int Work, int Book)>> ByManner(int review)
    {
        var found = new List<(int Work, int Book)>();
        foreach (var work in await Ann.Works(review, await Ann.Search(review, "type:chapter")))
            if (
                (await Ann.Get($"/api/reviews/{review}/works/{work}"))["copies"]!
                    .AsArray()
                    .Select(c => new Uri(c!.Text("address")).AbsolutePath)
                    .FirstOrDefault(p => p.StartsWith("/books/", StringComparison.Ordinal)) is
                { } path
            )
                found.Add((work, int.Parse(path.Split('/')[2], System.Globalization.CultureInfo.InvariantCulture)));
        return found.ToLookup(f => f.Book % 3);
    }

    private async Task<Dictionary<int, JsonNode>> Gather(int review, IEnumerable<int> works)
    {
        await Ann.Ok("POST", $"/api/reviews/{review}/gather", new { works = works.ToArray(), again = false });
        for (var i = 0; i < 2_400; i++)
        {
            var all = await Ann.Get($"/api/reviews/{review}/gather");
            if (all["job"]?["endedAt"] is not null)
                return all.List("works").ToDictionary(w => w.Int("workId"));
            await Task.Delay(50);
        }
        throw new TimeoutException("Gathering did not end.");
    }

    private async Task Refuse(int review, IEnumerable<JsonNode> rows)
    {
        foreach (var text in rows.SelectMany(r => r.List("texts")).ToArray())
            await Ann.Ok("POST", $"/api/reviews/{review}/texts/{text.Int("id")}/settle", new { answer = "Not" });
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    public async Task A_table_of_contents_leads_to_the_chapter(int manner)
    {
        var review = await Ann.Review();
        var chapters = (await ByManner(review))[manner].Take(4).ToArray();
        Assert.NotEmpty(chapters);
        var rows = await Gather(review, chapters.Select(c => c.Work));
        var got = chapters.Count(c => rows[c.Work].Text("state") == "InHand");
        // Titles with slips rightly find nothing in a table of contents.
        Assert.True(got * 2 > chapters.Length, $"{got} of {chapters.Length}");
        Assert.All(
            chapters.Where(c => rows[c.Work].Text("state") == "InHand"),
            c =>
                Assert.Contains(
                    $"/books/{c.Book}/chapters/",
                    rows[c.Work]["attempts"]!.AsArray()[^1]!.Text("address"),
                    StringComparison.Ordinal
                )
        );
    }

    [Fact]
    public async Task A_chapter_without_a_copy_of_its_own_is_found_through_the_record_of_its_book()
    {
        var review = await Ann.Review();
        var (with, without) = (new List<int>(), new List<int>());
        foreach (var work in await Ann.Works(review, await Ann.Search(review, "type:chapter")))
        {
            var detail = await Ann.Get($"/api/reviews/{review}/works/{work}");
            if (detail.List("copies").Any() || detail["doi"] is not null)
                continue;
            var (status, book) = await Ann.Send("GET", $"/api/reviews/{review}/works/{work}/book");
            var isTold =
                status == 200
                && book!["workId"] is { } id
                && (await Ann.Get($"/api/reviews/{review}/works/{id}")).List("copies").Any();
            (isTold ? with : without).Add(work);
        }
        Assert.NotEmpty(with);
        var rows = await Gather(review, with.Concat(without));
        var got = with.Count(w => rows[w].Text("state") == "InHand");
        Assert.True(got * 2 > with.Count, $"{got} of {with.Count}");
        Assert.All(
            with.SelectMany(w => rows[w].List("attempts")),
            a =>
            {
                Assert.Equal("its book", a.Text("route"));
                Assert.Contains("/books/", a.Text("address"), StringComparison.Ordinal);
            }
        );
        Assert.All(without, w => Assert.Equal("NotFound", rows[w].Text("state")));
    }

    [Fact]
    public async Task A_chapter_is_cut_out_of_its_book_which_is_kept_once()
    {
        var review = await Ann.Review();
        var book = (await ByManner(review))[2].GroupBy(c => c.Book).MaxBy(g => g.Count())!;
        var rows = await Gather(review, book.Select(c => c.Work));
        var cut = book.Where(c => rows[c.Work].Text("state") == "InHand").ToArray();
        Assert.True(book.Count() > 1 && cut.Length * 2 > book.Count(), $"{cut.Length} of {book.Count()}");
        await using var db = new SqliteConnection($"Data Source={Path.Combine(world.Host.Data, "zendle.db")}");
        await db.OpenAsync();
        var sources = new HashSet<string>();
        foreach (var (work, _) in cut)
        {
            var text = rows[work].List("texts").Single();
            Assert.Matches(@"^All checks agree: pages \d+ to \d+ of the book's \d+\.$", text.Text("sentence"));
            var pages = (await Ann.Get($"/api/reviews/{review}/works/{work}"))["pages"]!.GetValue<string>().Split('–');
            if (pages is [var first, var last])
                Assert.Equal(
                    int.Parse(last, System.Globalization.CultureInfo.InvariantCulture)
                        - int.Parse(first, System.Globalization.CultureInfo.InvariantCulture)
                        + 1,
                    text.Int("pages")
                );
            await using var command = db.CreateCommand();
            command.CommandText = "SELECT PartOf FROM Texts WHERE Id = $0";
            command.Parameters.AddWithValue("$0", text.Int("id"));
            sources.Add((string)(await command.ExecuteScalarAsync())!);
        }
        var source = Assert.Single(sources);
        var file = Directory
            .GetFiles(Path.Combine(world.Host.Data, "files"), "*", SearchOption.AllDirectories)
            .Single(f =>
                Path.GetFileName(f) == source
                || f.Replace("/", "", StringComparison.Ordinal).EndsWith(source, StringComparison.Ordinal)
            );
        // When no chapter of it counts any more, nor waits for a person, it is let go.
        Assert.True(File.Exists(file));
        await Refuse(review, rows.Values);
        Assert.False(File.Exists(file));
    }

    [Fact]
    public async Task A_sister_is_cut_out_of_the_file_that_is_here_already()
    {
        var review = await Ann.Review();
        var book = (await ByManner(review))[2]
            .GroupBy(c => c.Book)
            .MaxBy(g => g.Count())!
            .Select(c => c.Work)
            .ToArray();
        // One of them first; some titles have slips, and their pages wait for a person.
        var first = 0;
        while ((await Gather(review, [book[first]]))[book[first]].Text("state") != "InHand")
            first++;
        var rest = book.Where((_, i) => i > first).ToArray();
        Assert.NotEmpty(rest);
        var rows = await Gather(review, rest);
        var got = rest.Where(w => rows[w].Text("state") == "InHand").ToArray();
        Assert.NotEmpty(got);
        Assert.All(
            got,
            w =>
                Assert.EndsWith(
                    "cut from the book’s file, which was here already.",
                    rows[w].List("attempts").Single().Text("sentence"),
                    StringComparison.Ordinal
                )
        );
        Assert.All(got, w => Assert.NotEqual(Hash(rows[book[first]]), Hash(rows[w])));

        // Others look whether the book's file is let go.
        await Refuse(review, (await Ann.Get($"/api/reviews/{review}/gather")).List("works"));

        static string Hash(JsonNode row) => row.List("texts").Single()["id"]!.ToString();
    }

    [Fact]
    public async Task A_chapter_shows_its_book_with_its_sisters_and_what_the_contents_name_besides()
    {
        var review = await Ann.Review();
        foreach (var (work, _) in (await ByManner(review)).SelectMany(c => c))
        {
            var (status, book) = await Ann.Send("GET", $"/api/reviews/{review}/works/{work}/book");
            if (status != 200 || book!["chapters"]!.AsArray().Count < 2)
                continue;
            Assert.Contains(work, book.List("chapters").Select(c => c.Int("workId")));
            var step = await Ann.Search(review, book.Text("expression"));
            var all = await Ann.Works(review, step);
            Assert.Equal(
                all.Order(),
                book.List("chapters")
                    .Select(c => c.Int("workId"))
                    .Concat(book["workId"] is { } own ? [own.GetValue<int>()] : [])
                    .Order()
            );
            foreach (var chapter in book.List("chapters").Take(3))
                Assert.Equal(
                    (await Ann.Get($"/api/reviews/{review}/works/{chapter.Int("workId")}")).Int("citedCount"),
                    chapter.Int("cited")
                );
            return;
        }
        Assert.Fail("No book has two chapters here.");
    }
}

/// <summary>A world with enough books.</summary>
public sealed class Chapters : IAsyncLifetime
{
    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Visitor Ann { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Outside = await OutsideHost.Start(works: 1_500, seed: 6);
        Host = new(Outside.Address.ToString());
        Ann = await Host.Curator();
        await Ann.HarvestTwo(Outside);
        // Its catalogue tells the ISBN of the book that a chapter stands in.
        await Ann.Harvest(Outside.Oai("union"));
    }

    public async ValueTask DisposeAsync()
    {
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}
