using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A database that sends what real repositories send: all of it is kept, cleaned with a note, and nothing is joined by
/// accident.
/// </summary>
public sealed class OddDatabaseTests : IAsyncLifetime
{
    private readonly WebApplication host = WebApplication
        .CreateSlimBuilder([
            "--urls",
            "http://127.0.0.1:0",
            "--Logging:LogLevel:Default",
            "None",
            "--Logging:LogLevel:Microsoft",
            "None",
        ])
        .Build();
    private ZendleHost zendle = null!;
    private Visitor ann = null!;
    private int review;

    private static string Name(string family, string given) =>
        $"<name type='personal'><namePart type='family'>{family}</namePart><namePart type='given'>{given}</namePart></name>";

    private static readonly string[] Records =
    [
        // 0: no title; 1: the same again in other words of nothing
        Name("Berg", "Mei"),
        Name("Berg", "Mei"),
        // 2: a year that cannot be, markup and control characters
        "<titleInfo><title>A year that cannot be, and "
            + "&lt;i&gt;markup&lt;/i&gt;</title></titleInfo><originInfo><dateIssued>20233</dateIssued>"
            + "</originInfo><abstract>&lt;p&gt;Lamps&#x85;fell by "
            + "5&amp;nbsp;%.&lt;/p&gt;&lt;script&gt;alert(1)&lt;/script&gt;</abstract>",
        // 3: a thousand people
        "<titleInfo><title>A thousand people count the moths of one night</title></titleInfo>"
            + string.Concat(
                Enumerable
                    .Range(0, 1_000)
                    .Select(i => Name("Count" + (char)('a' + i % 26) + (char)('a' + i / 26 % 26), "M" + i))
            ),
        // 4: all names in one string; 5: empty names
        "<titleInfo><title>All names of this paper stand in one string</title></titleInfo><name><namePart>Berg, "
            + "M., Lind, P. and Moe, O.</namePart></name>",
        "<titleInfo><title>Nobody of this paper has a name at all</title></titleInfo><name><namePart/></name><name/>",
        // 6: a megabyte of abstract; 7: rich text
        "<titleInfo><title>A paper whose abstract is a megabyte long</title></titleInfo><abstract>"
            + string.Concat(Enumerable.Repeat("lamps and moths ", 65_536))
            + "</abstract>",
        @"<titleInfo><title>A paper whose abstract is rich text</title></titleInfo>"
            + @"<abstract>{\rtf1\ansi Dark \b lanes\b0  matter\par}</abstract>",
        // 8: wrong check digits
        Name("Voss", "Anna")
            + "<titleInfo><title>A paper with three wrong check digits</title></titleInfo><identifier "
            + "type='isbn'>978-3-16-148410-1</identifier><relatedItem type='host'><titleInfo><title>Small "
            + "Wings</title></titleInfo><identifier type='issn'>0378-5954</identifier></relatedItem>",
        // 9, 10: each the other's version, in capitals and as an address; 11: its own version, citing itself
        "<titleInfo><title>Versions that run in a circle</title></titleInfo><identifier "
            + "type='doi'>10.5555/RING.A</identifier><relatedItem type='otherVersion'><identifier "
            + "type='doi'>10.5555/ring.b</identifier></relatedItem>",
        "<titleInfo><title>Versions that run in a circle</title></titleInfo><identifier "
            + "type='doi'>https://doi.org/10.5555/ring.b.</identifier><relatedItem type='otherVersion'><identifier "
            + "type='doi'>10.5555/ring.a</identifier></relatedItem>",
        "<titleInfo><title>A work that cites itself and precedes itself</title></titleInfo><identifier "
            + "type='doi'>10.5555/self</identifier><relatedItem type='preceding'><identifier "
            + "type='doi'>10.5555/self</identifier></relatedItem><relatedItem type='references'><identifier "
            + "type='doi'>10.5555/SELF</identifier></relatedItem>",
        // 12, 13: two editorials of one name
        Name("Berg", "Mei")
            + "<titleInfo><title>Editorial</title></titleInfo><originInfo><dateIssued>2001</dateIssued></originInfo>",
        Name("Berg", "Mei")
            + "<titleInfo><title>Editorial</title></titleInfo><originInfo><dateIssued>2001</dateIssued></originInfo>",
    ];

    private static string Reply(string verb)
    {
        var inside = verb switch
        {
            "Identify" => "<Identify><repositoryName>Odd "
                + "Shelf</repositoryName><baseURL>x</baseURL><protocolVersion>2.0</protocolVersion>"
                + "<earliestDatestamp>2000-01-01</earliestDatestamp><deletedRecord>no</deletedRecord>"
                + "<granularity>YYYY-MM-DD</granularity></Identify>",
            "ListMetadataFormats" => "<ListMetadataFormats><metadataFormat><metadataPrefix>mods</metadataPrefix>"
                + "<schema>x</schema><metadataNamespace>http://www.loc.gov/mods/v3</metadataNamespace>"
                + "</metadataFormat></ListMetadataFormats>",
            "ListSets" => "<error code='noSetHierarchy'>none</error>",
            _ => "<ListRecords>"
                + string.Concat(
                    Records.Select(
                        (r, i) =>
                            $"<record><header><identifier>oai:odd:{i}</identifier>"
                            + "<datestamp>2026-01-01</datestamp></header><metadata><mods "
                            + $"xmlns='http://www.loc.gov/mods/v3'>{r}</mods></metadata></record>"
                    )
                )
                + "</ListRecords>",
        };
        return "<OAI-PMH xmlns='http://www.openarchives.org/OAI/2.0/'>"
            + $"<responseDate>2026-01-01T00:00:00Z</responseDate><request>x</request>{inside}</OAI-PMH>";
    }

    public async ValueTask InitializeAsync()
    {
        host.MapGet("/oai", (string verb) => Results.Text(Reply(verb), "text/xml"));
        await host.StartAsync();
        zendle = new(host.Urls.First());
        ann = await zendle.Curator();
        var database = await ann.Harvest(host.Urls.First() + "/oai");
        Assert.Equal("Done", database["job"]!.Text("state"));
        Assert.Equal(Records.Length, database.Int("records"));
        review = await ann.Review();
    }

    public async ValueTask DisposeAsync()
    {
        await zendle.DisposeAsync();
        await host.DisposeAsync();
    }

    private async Task<System.Text.Json.Nodes.JsonNode> Work(string expression)
    {
        var works = await ann.Works(review, await ann.Search(review, expression));
        return await ann.Get($"/api/reviews/{review}/works/{Assert.Single(works)}");
    }

    private static string[] Notes(System.Text.Json.Nodes.JsonNode work) =>
        [.. work.List("records").SelectMany(r => r["notes"]!.AsArray().Select(n => n!.GetValue<string>()))];

    [Fact]
    public async Task Every_record_is_kept_and_only_what_belongs_together_is_joined()
    {
        // Fourteen records; the two of the ring are one work, all others stand alone.
        Assert.Equal(
            Records.Length - 1,
            (await ann.Get($"/api/reviews/{review}/steps/{await ann.Search(review, "")}")).Int("count")
        );
        Assert.Equal(2, (await Work("title:circle")).List("records").Count());
        Assert.Equal(2, await ann.Count(review, await ann.Search(review, "title:editorial")));
    }

    [Fact]
    public async Task What_was_mended_is_noted_in_the_pane()
    {
        Assert.Contains(
            "The date “20233” is not plausible and was left out.",
            Notes(await Work("title:\"cannot be\""))
        );
        Assert.Contains(
            Notes(await Work("title:string")),
            n => n.StartsWith("All people were in one field", StringComparison.Ordinal)
        );
        Assert.Contains("The abstract has 1,048,576 characters; 60,000 are kept.", Notes(await Work("title:megabyte")));
        var wrong = Notes(await Work("title:digits"));
        Assert.Contains(wrong, n => n.StartsWith("The ISBN", StringComparison.Ordinal));
        Assert.Contains(wrong, n => n.StartsWith("The ISSN", StringComparison.Ordinal));
        Assert.Equal(3, (await Work("title:string")).List("people").Count());
        Assert.Empty((await Work("title:nobody")).List("people"));
        Assert.Equal(1_000, (await Work("title:thousand")).List("people").Count());
    }

    [Fact]
    public async Task Markup_is_text_and_nothing_in_it_acts()
    {
        var work = await Work("title:\"cannot be\"");
        Assert.Equal("A year that cannot be, and markup", work["title"]!.Text("text"));
        Assert.Equal("Lamps fell by 5 %. alert(1)", work["abstract"]!.Text("text"));
        Assert.Equal("Dark lanes matter", (await Work("title:\"rich text\""))["abstract"]!.Text("text"));
    }

    [Fact]
    public async Task A_circle_ends_and_a_work_is_not_its_own_trail()
    {
        var self = await Work("title:itself");
        Assert.Equal((0, 0), (self.Int("citesCount"), self.Int("citedCount")));
        var step = await ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds = new[] { self.Int("id") },
                way = "Both",
            }
        );
        Assert.Equal(0, await ann.Count(review, step));
    }

    [Fact]
    public async Task A_record_without_a_title_is_shown_as_one_and_can_be_handed_on()
    {
        var bare = await ann.Works(review, await ann.Search(review, "author:berg NOT title:(editorial OR string)"));
        Assert.Equal(2, bare.Length);
        var work = await ann.Get($"/api/reviews/{review}/works/{bare[0]}");
        Assert.Equal("", work["title"]!.Text("text"));
        Assert.Contains("The record has no title.", Notes(work));
        foreach (var format in new[] { "ris", "bibtex", "csl-json", "csv" })
        {
            var file = await ann.Http.GetAsync(
                $"/api/reviews/{review}/export?stepId={await ann.Search(review, "")}&sort=Newest&format={format}"
            );
            Assert.True(file.IsSuccessStatusCode, format);
        }
    }

    [Fact]
    public async Task The_same_records_again_change_nothing()
    {
        var id = (await ann.Get("/api/databases")).List("databases").Single().Int("id");
        await ann.Ok("POST", $"/api/databases/{id}/harvest");
        Assert.Equal(0, (await ann.Ended(id))["job"]!.Int("changed"));
    }
}
