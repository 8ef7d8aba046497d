using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Store.Files;
using Zendle.Store.Made;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class GatherTests(Gathering world) : IClassFixture<Gathering>
{
    private Visitor Ann => world.Ann;

    /// <summary>Each kind of copy, how its one attempt ends, and how the work then stands.</summary>
    private static readonly (string Kind, string Outcome, string State)[] Kinds =
    [
        ("fine", "Got", "InHand"),
        ("wait", "Got", "InHand"),
        ("dead", "DeadLink", "NotFound"),
        ("wrong", "AnotherWork", "NotFound"),
        ("truncated", "Damaged", "NotFound"),
        ("html", "NotADocument", "NotFound"),
        ("landing-only", "NoTextThere", "NotFound"),
        ("sign-in", "SignInAsked", "NotFound"),
        ("other-title", "Doubtful", "ToLookAt"),
        ("empty", "Empty", "NotFound"),
        ("encrypted", "Encrypted", "NotFound"),
        ("scanned", "NoLetters", "NotFound"),
        ("loop", "RedirectLoop", "NotFound"),
        ("private", "NotAllowed", "NotFound"),
        ("bomb", "TooLarge", "NotFound"),
        ("huge", "TooLarge", "NotFound"),
        ("script", "Scripted", "NotFound"),
        ("many-pages", "TooManyPages", "NotFound"),
        ("page", "Got", "InHand"),
        ("jats", "Got", "InHand"),
        ("preview", "NoTextThere", "NotFound"),
    ];

    [Fact]
    public async Task Whatever_lies_behind_a_link_the_attempt_ends_with_its_reason_and_the_job_goes_on()
    {
        var review = await Ann.Review();
        var works = new Dictionary<string, int>();
        foreach (var (kind, _, _) in Kinds)
            works[kind] = (await world.Work(kind)).Work;
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works.Values });
        string[] Files() =>
            Directory.GetFiles(Path.Combine(world.Host.Data, "files"), "*", SearchOption.AllDirectories);
        var before = Files();
        var rows = await world.Gather(review, null);
        foreach (var (kind, outcome, state) in Kinds)
        {
            var row = rows[works[kind]];
            Assert.Equal(
                (kind, outcome, state),
                (kind, row["attempts"]!.AsArray()[^1]!.Text("outcome"), row.Text("state"))
            );
        }
        // Only what passed, or may pass, is stored: five documents and their figures, nothing half-written.
        Assert.Equal(5, Files().Except(before).Count(f => File.ReadAllBytes(f) is not [0x89, (byte)'P', ..]));
        Assert.DoesNotContain(Files(), f => f.EndsWith(".part", StringComparison.Ordinal));
        var report = await Ann.Get($"/api/reviews/{review}/report/texts");
        Assert.Equal(
            (Kinds.Length, 4, Kinds.Length - 4, 0),
            (report.Int("sought"), report.Int("got"), report.Int("notGot"), report.Int("waiting"))
        );
        Assert.Equal(
            [("version of record", 4)],
            report.List("byVersion").Select(t => (t.Text("word"), t.Int("count")))
        );
        Assert.Equal(Kinds.Length - 4, report.List("byReason").Sum(t => t.Int("count")));
        Assert.Contains(("too large", 2), report.List("byReason").Select(t => (t.Text("word"), t.Int("count"))));

        // Only the failed ones are tried again; what was mended comes now.
        var address = new Uri(rows[works["dead"]]["attempts"]!.AsArray()[0]!.Text("address"));
        await world.Set(address.AbsolutePath, "fine");
        rows = await world.Gather(review, null, again: true);
        Assert.Equal("InHand", rows[works["dead"]].Text("state"));
        Assert.Equal("ToLookAt", rows[works["other-title"]].Text("state"));
        Assert.Single(rows[works["fine"]]["attempts"]!.AsArray()); // was not asked again
        Assert.StartsWith(
            "asked to wait 2 s, then ",
            rows[works["wait"]]["attempts"]![0]!.Text("brief"),
            StringComparison.Ordinal
        );
        Assert.Equal("NotFound", rows[works["wrong"]].Text("state"));
    }

    [Theory]
    [InlineData("page", "Html", "text/html", ".html")]
    [InlineData("jats", "Jats", "application/xml", ".xml")]
    [InlineData("epub", "Epub", "application/epub+zip", ".epub")]
    public async Task A_text_that_is_no_pdf_is_taken_with_its_figure_shown_and_counted(
        string kind,
        string format,
        string type,
        string ending
    )
    {
        var review = await Ann.Review();
        // Letters and notices have no figure.
        var (work, path) = await world.Work(kind, "article");
        var row = (await world.Gather(review, [work]))[work];
        Assert.Equal("InHand", row.Text("state"));
        var text = row.List("texts").Single();
        Assert.Equal((format, 0), (text.Text("format"), text.Int("pages")));
        var address = $"/api/reviews/{review}/texts/{text.Int("id")}";
        var detail = await Ann.Get(address);
        Assert.EndsWith(ending, detail.Text("fileName"), StringComparison.Ordinal);
        Assert.All(detail.List("checks"), c => Assert.NotEqual("False", c["agrees"]?.ToString()));

        var readable = await Ann.Get(address + "/readable");
        var html = readable.Text("html");
        Assert.Contains(
            $"<h1>{System.Net.WebUtility.HtmlEncode(detail.Text("title"))}",
            html,
            StringComparison.OrdinalIgnoreCase
        );
        Assert.Equal((1, 0), (readable.Int("figures"), readable.Int("figuresMissing")));
        Assert.Contains($"src=\"{address}/figures/0\"", html, StringComparison.Ordinal);
        Assert.Contains("<table>", html, StringComparison.Ordinal);
        foreach (var odd in (string[])["<script", "onclick", "<form", "<style", "Readers also opened", "class="])
            Assert.DoesNotContain(odd, html, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(
            ["Introduction", "Methods", "Results", "Discussion"],
            readable
                .List("headings")
                .Select(h => h.Text("text"))
                .Where(h => h[0] is 'I' or 'M' or 'R' or 'D' && h != "References")
        );
        Assert.All(
            readable.List("headings"),
            h => Assert.Contains($"id=\"{h.Text("id")}\"", html, StringComparison.Ordinal)
        );

        using var figure = await Ann.Http.GetAsync(address + "/figures/0");
        Assert.Equal("image/png", figure.Content.Headers.ContentType!.MediaType);
        Assert.Equal(404, (int)(await Ann.Http.GetAsync(address + "/figures/1")).StatusCode);
        using var file = await Ann.Http.GetAsync(address + "/file");
        Assert.Equal(type, file.Content.Headers.ContentType!.MediaType);
        Assert.Equal("attachment", file.Content.Headers.ContentDisposition!.DispositionType);
        Assert.Contains(
            "sandbox",
            file.Headers.GetValues("Content-Security-Policy").Single(),
            StringComparison.Ordinal
        );

        // In an archive its figure lies beside it, unless its own file holds it.
        var step = await Ann.Search(
            review,
            $"doi:{(await Ann.Get($"/api/reviews/{review}/works/{work}")).Text("doi")}"
        );
        var told = await Ann.Get($"/api/reviews/{review}/export/texts?stepId={step}");
        using var copy = new MemoryStream(
            await Ann.Http.GetByteArrayAsync($"/api/reviews/{review}/export/texts/zip?stepId={step}")
        );
        using var zip = new System.IO.Compression.ZipArchive(copy);
        var named = zip.Entries[0].FullName;
        Assert.Equal(
            [named, .. ending == ".epub" ? [] : new[] { $"{named} figures/1.png" }, "manifest.csv"],
            zip.Entries.Select(e => e.FullName)
        );
        Assert.Equal(told["bytes"]!.GetValue<long>(), zip.Entries.SkipLast(1).Sum(e => e.Length));
        Assert.All(
            zip.Entries.Skip(1).SkipLast(1),
            e => Assert.Equal(figure.Content.Headers.ContentLength ?? e.Length, e.Length)
        );

        // What it cites is read out of it, and so are the sentences that cite.
        var said = await Ann.Get($"/api/reviews/{review}/works/{work}?stepId=0");
        Assert.True(said.Int("citesCount") > 0);
        await using var made = await world
            .Host.Services.GetRequiredService<IDbContextFactory<ZendleContext>>()
            .CreateDbContextAsync();
        var reading = await made.ThatWereRead().SingleAsync(t => t.Id == text.Int("id"));
        Assert.NotEmpty(reading.References);
        Assert.NotEmpty(reading.Citations);
    }

    [Fact]
    public async Task A_page_that_is_not_the_work_is_refused_and_a_brought_one_is_recognised()
    {
        var review = await Ann.Review();
        var ((work, path), (other, _)) = (await world.Work("page"), await world.Work("page"));
        var row = (await world.Gather(review, [work]))[work];
        var file = await Ann.Http.GetByteArrayAsync(
            $"/api/reviews/{review}/texts/{row.List("texts").Single().Int("id")}/file"
        );
        // Brought by hand into another review it finds its work by its DOI; figures beside it are missing, and said to be.
        var second = await Ann.Review("Another");
        var brought = (await Bring(second, file, "saved page.html")).Body!;
        Assert.True(brought.Text("verdict") == "Verified", brought.Text("sentence"));
        Assert.Equal(work, brought.Int("workId"));
        var address = $"/api/reviews/{second}/texts/{brought.Int("textId")}";
        Assert.Equal("Html", (await Ann.Get(address)).Text("format"));
        // The same file has its figure from the first time.
        Assert.Equal(0, (await Ann.Get(address + "/readable")).Int("figuresMissing"));
        // For another work it waits for a person.
        var wrong = (await Bring(second, file, "saved page.html", other)).Body!;
        Assert.Equal("Doubtful", wrong.Text("verdict"));
        Assert.DoesNotContain(path, wrong.Text("sentence"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_doubtful_document_waits_for_a_person_and_is_settled_by_one_answer()
    {
        var review = await Ann.Review();
        var (first, second) = ((await world.Work("other-title")).Work, (await world.Work("other-title")).Work);
        var rows = await world.Gather(review, [first, second]);
        int Text(int work) => rows[work]["texts"]!.AsArray()[0]!.Int("id");
        var detail = await Ann.Get($"/api/reviews/{review}/texts/{Text(first)}");
        Assert.Equal(["title", "people", "DOI", "year", "length"], detail.List("checks").Select(c => c.Text("name")));
        Assert.False(detail.List("checks").First()["agrees"]!.GetValue<bool>());
        Assert.Equal("Doubtful", detail.Text("verdict"));
        Assert.Equal(0, (await Ann.Get($"/api/reviews/{review}")).Int("withText"));

        await Ann.Ok("POST", $"/api/reviews/{review}/texts/{Text(first)}/settle", new { answer = "OtherVersion" });
        await Ann.Ok("POST", $"/api/reviews/{review}/texts/{Text(second)}/settle", new { answer = "Not" });
        var refused = Text(second);
        rows = await world.Settled(review);
        Assert.Equal(
            ("InHand", "submitted manuscript"),
            (rows[first].Text("state"), rows[first]["texts"]!.AsArray()[0]!.Text("version"))
        );
        Assert.Equal("NotFound", rows[second].Text("state"));
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/texts/{refused}/file")).Status);
        Assert.Equal(
            (1, 1),
            (
                (await Ann.Get($"/api/reviews/{review}")).Int("withText"),
                (await Ann.Get($"/api/reviews/{review}")).Int("needYou")
            )
        );
        // The same file comes again: what a person has said stands.
        Assert.Equal("NotFound", (await world.Gather(review, [second]))[second].Text("state"));
    }

    private async Task<(int Status, JsonNode? Body)> Bring(int review, byte[] bytes, string name, int? workId = null)
    {
        using var request = new HttpRequestMessage(
            HttpMethod.Post,
            $"/api/reviews/{review}/texts?name={Uri.EscapeDataString(name)}{(workId is { } w ? $"&workId={w}" : "")}"
        );
        request.Headers.Add(
            "X-Zendle-Token",
            JsonNode.Parse(await Ann.Http.GetStringAsync("/api/me"))!["requestToken"]!.GetValue<string>()
        );
        request.Content = new ByteArrayContent(bytes)
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/pdf") },
        };
        using var reply = await Ann.Http.SendAsync(request);
        var text = await reply.Content.ReadAsStringAsync();
        return ((int)reply.StatusCode, text.Length == 0 ? null : JsonNode.Parse(text));
    }

    private async Task<byte[]> FileAt(string path)
    {
        using var http = new HttpClient();
        return await http.GetByteArrayAsync(new Uri(world.Outside.Address, path + "/text.pdf"));
    }

    [Fact]
    public async Task A_brought_file_finds_its_work_is_attached_and_handed_on_by_name()
    {
        var review = await Ann.Review();
        var (work, path) = await world.Work("fine");
        var bytes = await FileAt(path);
        var (status, reply) = await Bring(review, bytes, "download (3).pdf");
        var brought = reply!;
        Assert.Equal((200, work, "Verified"), (status, brought.Int("workId"), brought.Text("verdict")));
        var detail = await Ann.Get($"/api/reviews/{review}/texts/{brought.Int("textId")}");
        Assert.Matches(@"^\S.* \d{4} .+ \(version of record\)\.pdf$", detail.Text("fileName"));
        using var file = await Ann.Http.GetAsync(
            $"/api/reviews/{review}/texts/{brought.Int("textId")}/file?download=true"
        );
        Assert.Equal(bytes, await file.Content.ReadAsByteArrayAsync());
        Assert.Equal("sandbox; default-src 'none'", Assert.Single(file.Headers.GetValues("Content-Security-Policy")));
        Assert.Equal(detail.Text("fileName"), file.Content.Headers.ContentDisposition!.FileNameStar);
        Assert.Equal("InHand", (await world.Settled(review))[work].Text("state"));
        Assert.Equal(
            brought.Int("textId"),
            (await Ann.Get($"/api/reviews/{review}/works/{work}"))["inHand"]!.Int("textId")
        );
        // A second time changes nothing.
        Assert.Equal(brought.Int("textId"), (await Bring(review, bytes, "again.pdf")).Body!.Int("textId"));
    }

    [Fact]
    public async Task A_brought_file_that_fits_nothing_or_is_no_document_is_told_so_and_not_stored()
    {
        var review = await Ann.Review();
        Assert.Equal(
            (422, "There are hardly any words in the file."),
            await Said(Bring(review, "hello"u8.ToArray(), "a.pdf"))
        );
        Assert.Equal(
            (422, "The file is not a PDF, web page, JATS XML article, EPUB or plain text."),
            await Said(Bring(review, [80, 75, 3, 4, 0, 0, 1, 2], "a.zip"))
        );
        Assert.Equal((422, "The file is empty."), await Said(Bring(review, [], "a.pdf")));
        var (work, path) = await world.Work("fine");
        var bytes = await FileAt(path);
        Assert.Equal(
            (422, "The file is cut off or damaged: it cannot be read to its end."),
            await Said(Bring(review, bytes[..2000], "a.pdf"))
        );
        // On the row of another work it is not refused at once: a person brought it, a person looks.
        var other = (await world.Work("dead")).Work;
        var (status, reply) = await Bring(review, bytes, "mine.pdf", other);
        var brought = reply!;
        Assert.Equal((200, "Doubtful", other), (status, brought.Text("verdict"), brought.Int("workId")));
        Assert.NotEqual(work, other);

        static async Task<(int, string)> Said(Task<(int Status, JsonNode? Body)> reply) =>
            ((await reply).Status, (await reply).Body!.Text("title"));
    }

    [Fact]
    public async Task Of_several_versions_the_version_of_record_is_the_text_everywhere()
    {
        var review = await Ann.Review();
        var (work, path) = await world.Work("other-title");
        // First what a person calls another version, then the version of record.
        var first = (await world.Gather(review, [work]))[work].List("texts").Single().Int("id");
        await Ann.Ok("POST", $"/api/reviews/{review}/texts/{first}/settle", new { answer = "OtherVersion" });
        await world.Set(path, "fine");
        var record = (await Bring(review, await FileAt(path), "record.pdf", work)).Body!.Int("textId");
        Assert.NotEqual(first, record);
        var row = (await world.Settled(review))[work];
        Assert.Equal([record, first], row.List("texts").Select(t => t.Int("id")));
        Assert.Equal(record, (await Ann.Get($"/api/reviews/{review}/works/{work}"))["inHand"]!.Int("textId"));
        var reading = (await Ann.Get($"/api/reviews/{review}/reading")).AsArray().Single()!;
        Assert.Equal(record, reading.Int("textId"));
        Assert.Equal([first], reading.List("others").Select(o => o.Int("textId")));
        Assert.Equal(
            [("version of record", 1)],
            (await Ann.Get($"/api/reviews/{review}/report/texts"))
                .List("byVersion")
                .Select(t => (t.Text("word"), t.Int("count")))
        );
    }

    [Fact]
    public async Task A_scan_is_kept_for_the_work_a_person_names_and_settled_by_eye()
    {
        var review = await Ann.Review();
        var (work, path) = await world.Work("scanned");
        var scan = await FileAt(path);
        var unsaid = (await Bring(review, scan, "old paper.pdf")).Body!;
        Assert.Null(unsaid["textId"]);
        Assert.Equal("", unsaid["unknown"]!.Text("title"));
        Assert.StartsWith("Its pages are images", unsaid.Text("sentence"), StringComparison.Ordinal);
        var said = (await Bring(review, scan, "old paper.pdf", work)).Body!;
        Assert.Equal("Doubtful", said.Text("verdict"));
        Assert.Equal("ToLookAt", (await world.Settled(review))[work].Text("state"));
        await Ann.Ok("POST", $"/api/reviews/{review}/texts/{said.Int("textId")}/settle", new { answer = "This" });
        var row = (await world.Settled(review))[work];
        Assert.Equal("InHand", row.Text("state"));
        Assert.True(row.List("texts").Single().Int("pages") > 0);
    }

    [Fact]
    public async Task A_file_that_no_work_fits_says_what_it_is_and_is_taken_once_its_work_is_added()
    {
        var review = await Ann.Review();
        var page = System.Text.Encoding.UTF8.GetBytes(
            "<html><body><h1>Counting owls by lamplight in Quenby parish</h1><p>Una Quist. doi:10.5555/quenby.9</p>"
                + "<h2>Counts</h2><p>"
                + string.Concat(Enumerable.Repeat("We counted the owls of the parish by the light of one lamp. ", 40))
                + "</p></body></html>"
        );
        var unknown = (await Bring(review, page, "owls.html")).Body!;
        Assert.Null(unknown["workId"]);
        Assert.Equal(
            ("Counting owls by lamplight in Quenby parish", "10.5555/quenby.9"),
            (unknown["unknown"]!.Text("title"), unknown["unknown"]!.Text("doi"))
        );
        var added = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/entries",
            new
            {
                entries = new[]
                {
                    new
                    {
                        title = unknown["unknown"]!.Text("title"),
                        doi = unknown["unknown"]!.Text("doi"),
                        people = "Quist, Una",
                        year = "1999",
                        type = "article",
                        venue = "",
                        volume = "",
                        issue = "",
                        pages = "",
                        publisher = "",
                        isbn = "",
                        address = "",
                        language = "",
                        keywords = "",
                        @abstract = "",
                        references = "",
                    },
                },
            }
        );
        var work = added["works"]![0]!.GetValue<int>();
        var brought = (await Bring(review, page, "owls.html", work)).Body!;
        Assert.Equal(("Verified", work), (brought.Text("verdict"), brought.Int("workId")));
        // The next file of it is recognised.
        Assert.Equal(work, (await Bring(review, page, "again.html")).Body!.Int("workId"));
    }

    [Fact]
    public async Task An_address_that_a_person_gives_is_tried_first_and_kept()
    {
        var review = await Ann.Review();
        var (work, path) = await world.Work("dead");
        var row = (await world.Gather(review, [work]))[work];
        Assert.Equal("NotFound", row.Text("state"));
        Task<(int Status, JsonNode? Body)> Try(string address, params int[] works) =>
            Ann.Send(
                "POST",
                $"/api/reviews/{review}/gather",
                new
                {
                    works,
                    again = true,
                    address,
                }
            );
        foreach (
            var odd in (string[])
                ["", "text.pdf", "ftp://host.example/a", "javascript:x", "http://10.1.2.3/a", new('h', 3_000)]
        )
        {
            var (status, reply) = await Try(odd, work);
            Assert.True(status == 400, odd);
            Assert.Contains("Nothing was asked for.", reply!.Text("detail"), StringComparison.Ordinal);
        }
        var elsewhere = new Uri(world.Outside.Address, path + "/text.xml").AbsoluteUri;
        Assert.Equal(400, (await Try(elsewhere, work, work + 1)).Status);
        Assert.Equal(200, (await Try(elsewhere, work)).Status);
        row = (await world.Settled(review))[work];
        Assert.Equal(
            ("InHand", "address given", elsewhere),
            (
                row.Text("state"),
                row.List("attempts").First().Text("route"),
                row.List("attempts").First().Text("address")
            )
        );
    }

    [Fact]
    public async Task A_curator_sees_the_hosts_with_what_they_gave_and_what_went_wrong()
    {
        var review = await Ann.Review();
        var (good, dead) = ((await world.Work("fine")).Work, (await world.Work("dead")).Work);
        await world.Gather(review, [good, dead]);
        var told = await Ann.Get("/api/hosts");
        var host = told.List("hosts")
            .Single(h => h.Text("host") == world.Outside.Address.GetLeftPart(UriPartial.Authority));
        await using var made = await world
            .Host.Services.GetRequiredService<IDbContextFactory<ZendleContext>>()
            .CreateDbContextAsync();
        // An independent count over all attempts: one host has them all but what led elsewhere.
        var all = (await made.Attempts.AsNoTracking().ToListAsync())
            .Where(a => a.Address.StartsWith(host.Text("host") + "/", StringComparison.Ordinal))
            .ToArray();
        Assert.Equal(
            (all.Length, all.Count(a => a.Outcome == Core.FullText.AttemptOutcome.Got)),
            (host.Int("attempts"), host.Int("got"))
        );
        Assert.Equal(all.Length - host.Int("got"), host.List("notGot").Sum(o => o.Int("count")));
        Assert.Contains("dead link", host.List("notGot").Select(o => o.Text("word")));
        Assert.Equal(("Nothing", 0), (host.Text("says"), host.Int("rules")));
        var other = await world.Host.Another(Ann, "nobody");
        Assert.Equal(403, (await other.Send("GET", "/api/hosts")).Status);
    }

    [Fact]
    public async Task Texts_belong_to_their_review_and_only_screeners_gather()
    {
        var review = await Ann.Review();
        var (work, _) = await world.Work("fine");
        var rows = await world.Gather(review, [work]);
        var text = rows[work]["texts"]!.AsArray()[0]!.Int("id");
        var other = await Ann.Review("Another review");
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{other}/texts/{text}/file")).Status);
        Assert.Equal(
            404,
            (await Ann.Send("POST", $"/api/reviews/{other}/texts/{text}/settle", new { answer = "Not" })).Status
        );
        var reader = await world.Host.Another(Ann, "reader");
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "reader", role = "Reader" });
        Assert.Equal(200, (await reader.Send("GET", $"/api/reviews/{review}/texts/{text}")).Status);
        foreach (
            var (method, path, body) in new (string, string, object)[]
            {
                ("POST", "gather", new { works = new[] { work }, again = false }),
                ("POST", "gather/stop", new { }),
                ("POST", $"texts/{text}/settle", new { answer = "Not" }),
            }
        )
            Assert.Equal(403, (await reader.Send(method, $"/api/reviews/{review}/{path}", body)).Status);
        Assert.Equal(409, (await Ann.Send("POST", $"/api/reviews/{review}/gather/stop", new { })).Status);
    }

    [Fact]
    public async Task Texts_of_a_set_come_as_an_archive_named_by_a_template_with_a_table_of_all_works()
    {
        var review = await world.Ann.Review("Lamps");
        var (work, _) = await world.Work("fine");
        var others = (await world.Ann.Works(review, await world.Ann.Search(review, "moth*"), "limit=9"))
            .Where(w => w != work)
            .Take(2)
            .ToArray();
        await world.Ann.Decide(review, "Keep", [work, .. others]);
        var step = await world.Ann.Search(review, "stage:kept");
        var path = $"/api/reviews/{review}/export/texts";
        Assert.Equal(404, (await world.Ann.Send("GET", $"{path}/zip?stepId={step}")).Status);
        await world.Gather(review, [work]);

        var told = await world.Ann.Get($"{path}?stepId={step}&template={Uri.EscapeDataString("{year} {key}")}");
        Assert.Equal((3, 1, 1), (told.Int("works"), told.Int("withText"), told.Int("texts")));
        var name = told.List("names").Single().GetValue<string>();
        Assert.Matches(@"^\d{4} \S+\.pdf$", name);
        var slip = await world.Ann.Get($"{path}?stepId={step}&template={Uri.EscapeDataString("{yaer}")}");
        Assert.StartsWith("“{yaer}” is not a part", slip.Text("fault"), StringComparison.Ordinal);
        Assert.Equal(
            400,
            (await world.Ann.Send("GET", $"{path}/zip?stepId={step}&template={Uri.EscapeDataString("{yaer}")}")).Status
        );

        await using var bytes = await world.Ann.Http.GetStreamAsync(
            $"{path}/zip?stepId={step}&template={Uri.EscapeDataString("{year} {key}")}"
        );
        using var copy = new MemoryStream();
        await bytes.CopyToAsync(copy);
        using var zip = new System.IO.Compression.ZipArchive(copy);
        Assert.Equal([name, "manifest.csv"], zip.Entries.Select(e => e.FullName));
        using var pdf = new MemoryStream();
        await using (var file = await zip.Entries[0].OpenAsync())
            await file.CopyToAsync(pdf);
        Assert.Equal(told["bytes"]!.GetValue<long>(), pdf.Length);
        Assert.Equal("%PDF"u8.ToArray(), pdf.ToArray()[..4]);
        using var table = new StreamReader(await zip.Entries[1].OpenAsync());
        var rows = (await table.ReadToEndAsync()).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(4, rows.Length);
        Assert.StartsWith($"{name},", rows[1], StringComparison.Ordinal);
        Assert.Contains(
            Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(pdf.ToArray())),
            rows[1],
            StringComparison.OrdinalIgnoreCase
        );
        // Works without a text have a row without a file.
        Assert.All(rows[2..], row => Assert.StartsWith(",,,,,,,,", row, StringComparison.Ordinal));
        Assert.Equal(
            others.Order(),
            rows[2..].Select(r => int.Parse(r.Split(',')[8], System.Globalization.CultureInfo.InvariantCulture)).Order()
        );
    }

    [Fact]
    public async Task A_stop_keeps_what_came_and_the_rest_goes_on_later()
    {
        var review = await Ann.Review();
        var slow = await world.Work("dripping");
        var quick = await world.Work("fine");
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/gather",
            new { works = new[] { quick.Work, slow.Work }, again = false }
        );
        for (var i = 0; i < 400; i++)
        {
            var row = (await Ann.Get($"/api/reviews/{review}/gather")).List("works").ToDictionary(w => w.Int("workId"));
            if (
                row[quick.Work].Text("state") == "InHand"
                && row[slow.Work]["going"] is { } going
                && going.GetValue<string>().Contains("fetches", StringComparison.Ordinal)
            )
                break;
            await Task.Delay(50);
        }
        await Ann.Ok("POST", $"/api/reviews/{review}/gather/stop", new { });
        var rows = await world.Settled(review);
        Assert.Equal(("InHand", "Waiting"), (rows[quick.Work].Text("state"), rows[slow.Work].Text("state")));
        Assert.Equal("Stopped", (await Ann.Get($"/api/reviews/{review}/gather"))["job"]!.Text("state"));
        await world.Set(slow.Path, "fine");
        rows = await world.Gather(review, []);
        Assert.Equal("InHand", rows[slow.Work].Text("state"));
    }

    [Fact]
    public async Task Texts_do_not_wait_for_a_long_harvest()
    {
        var review = await Ann.Review();
        var (work, _) = await world.Work("fine");
        var database = (await Ann.Get("/api/databases")).List("databases").First().Int("id");
        await world.Outside.Fault("farnet", "slow", 3); // three seconds for each of the first pages
        await Ann.Ok("POST", $"/api/databases/{database}/harvest", new { });
        Assert.Equal("InHand", (await world.Gather(review, [work]))[work].Text("state"));
        Assert.Null(
            (await Ann.Get("/api/databases")).List("databases").First(d => d.Int("id") == database)["job"]!["endedAt"]
        );
        await Ann.Ended(database);
    }

    [Fact]
    public async Task The_account_of_a_review_without_texts_is_empty()
    {
        var review = await Ann.Review();
        var report = await Ann.Get($"/api/reviews/{review}/report/texts");
        Assert.Equal(
            (0, 0, 0, 0),
            (report.Int("sought"), report.Int("got"), report.Int("notGot"), report.Int("waiting"))
        );
        var gather = await Ann.Get($"/api/reviews/{review}/gather");
        Assert.Null(gather["job"]);
        Assert.Empty(gather.List("works"));
        // Nothing kept, nothing to seek: no job is begun.
        Assert.Equal(
            0,
            (await Ann.Ok("POST", $"/api/reviews/{review}/gather", new { works = (int[]?)null, again = false })).Int(
                "sought"
            )
        );
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/gather",
                    new { works = Enumerable.Range(1, 5_001), again = false }
                )
            ).Status
        );
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/texts/999999")).Status);
    }

    [Fact]
    public async Task A_full_disk_ends_the_attempt_and_stores_nothing()
    {
        var folder = Directory.CreateTempSubdirectory("zendle-vault-").FullName;
        var left = 1_000L;
        var vault = new FileVault(folder, 100, () => left);
        var small = vault.Put(new byte[500]);
        Assert.True(vault.Has(small));
        Assert.Throws<NoRoomException>(() => vault.Put(new byte[950]));
        left = 10_000;
        File.WriteAllText(Path.Combine(folder, "files", "half.part"), "half");
        Assert.Equal(small, new FileVault(folder, 100, () => left).Put(new byte[500])); // the same bytes have the same name
        Assert.Empty(Directory.GetFiles(Path.Combine(folder, "files"), "*.part"));
        Assert.Throws<ArgumentException>(() => vault.PathOf("../../etc/passwd"));
        // A place that cannot be written to at all: the folder of the name is a file.
        var bytes = new byte[] { 1, 2, 3 };
        var name = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes));
        await File.WriteAllTextAsync(Path.Combine(folder, "files", name[..2]), "in the way");
        Assert.Throws<NoRoomException>(() => vault.Put(bytes));
        Assert.Empty(Directory.GetFiles(Path.Combine(folder, "files"), "*.part"));
        Directory.Delete(folder, true);
    }

    [Fact]
    public async Task A_killed_gathering_goes_on_at_the_next_start()
    {
        using var host = new ZendleHost(world.Outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(world.Outside.Oai("farnet"));
        var review = await ann.Review();
        var works = await ann.Works(review, await ann.Search(review, "moth*"), "limit=3");
        // What a kill leaves behind: works that wait, a job that says it runs.
        var contexts = host.Services.GetRequiredService<IDbContextFactory<ZendleContext>>();
        await using (var context = await contexts.CreateDbContextAsync())
        {
            var account = await context.Users.Select(u => u.Id).FirstAsync();
            context.Sought.AddRange(
                works.Select(w => new SoughtRow
                {
                    ReviewId = review,
                    WorkId = w,
                    State = SoughtState.Waiting,
                    Round = 1,
                    AccountId = account,
                    At = DateTimeOffset.UtcNow,
                })
            );
            context.Jobs.Add(
                new()
                {
                    Kind = "gather",
                    Subject = review,
                    State = JobState.Running,
                    CreatedAt = DateTimeOffset.UtcNow,
                    Message = "1 of 3 tried.",
                }
            );
            await context.SaveChangesAsync();
        }
        using var again = host.Restarted();
        var visitor = await again.SignedIn();
        for (var i = 0; i < 600; i++)
        {
            var all = await visitor.Get($"/api/reviews/{review}/gather");
            if (all["job"]!["endedAt"] is not null)
            {
                Assert.Equal("Done", all["job"]!.Text("state"));
                Assert.DoesNotContain(all.List("works"), w => w.Text("state") == "Waiting");
                return;
            }
            await Task.Delay(50);
        }
        Assert.Fail("The gathering did not go on.");
    }
}
