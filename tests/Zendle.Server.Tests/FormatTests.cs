using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A service that offers several formats is harvested in the one whose records tell most, whatever the formats are
/// called; a curator sees them side by side and may take another.
/// </summary>
public sealed class FormatTests : OddHost
{
    private void Offer(string prefix, string space, Func<int, string> inside) => odd.Offer(prefix, space, inside);

    private static string Dc(int i, string more = "") =>
        "<oai_dc:dc xmlns:oai_dc='http://www.openarchives.org/OAI/2.0/oai_dc/' "
        + $"xmlns:dc='http://purl.org/dc/elements/1.1/'><dc:title>Moths of place {i}</dc:title>"
        + $"<dc:creator>Falk, Ida</dc:creator><dc:date>2020</dc:date>{more}</oai_dc:dc>";

    private static string Mods(int i, string more = "") =>
        $"<mods xmlns='http://www.loc.gov/mods/v3'><titleInfo><title>Moths of place {i}</title></titleInfo>{more}</mods>";

    private const string Prose =
        "We counted moths at forty lamps in two summers and found fewer of them where the light was white.";

    private static string Jats(int i) =>
        "<article article-type='research-article'><front><journal-meta><journal-title>Night "
        + "Letters</journal-title></journal-meta><article-meta><article-id "
        + $"pub-id-type='doi'>10.5555/moth.{i}</article-id><title-group><article-title>Moths of place "
        + $"{i}</article-title></title-group><contrib-group><contrib><name><surname>Falk</surname>"
        + "<given-names>Ida</given-names></name></contrib></contrib-group><pub-date><year>2020</year>"
        + $"</pub-date><volume>{i}</volume><fpage>4</fpage><abstract><p>{Prose}</p></abstract></article-meta>"
        + "</front></article>";

    private Task<JsonNode> Look() => ann.Ok("POST", "/api/databases/look", new { address = odd.Address });

    private static JsonNode Format(JsonNode look, string prefix) =>
        look.List("formats").Single(f => f.Text("prefix") == prefix);

    private static int Told(JsonNode format, string field) =>
        format.List("fields").Single(f => f.Text("field") == field).Int("count");

    [Fact]
    public async Task The_format_that_tells_most_is_taken_not_the_one_that_could()
    {
        Offer("oai_dc", "", i => Dc(i, $"<dc:description>{Prose}</dc:description><dc:type>article</dc:type>"));
        Offer("mods", "http://www.loc.gov/mods/v3", i => Mods(i));
        Offer("rdf", "http://example.org/rdf", i => $"<rdf>{i}</rdf>");
        var look = await Look();
        Assert.Equal("oai_dc", look.Text("bestFormat"));
        var (dc, mods) = (Format(look, "oai_dc"), Format(look, "mods"));
        Assert.Equal((3, 3, 3, 0), (dc.Int("records"), Told(dc, "title"), Told(dc, "abstract"), Told(dc, "DOI")));
        Assert.Equal((3, 3, 0), (mods.Int("records"), Told(mods, "title"), Told(mods, "people")));
        // Of three fields that all records tell: 0.14 for the title; with people, abstract, year and type 0.54.
        Assert.Equal((54, 14), (dc.Int("worth"), mods.Int("worth")));
        Assert.Null(Format(look, "rdf")["name"]);
        Assert.Equal("oai_dc", (await ann.Harvest(odd.Address, format: null)).Text("format"));
    }

    [Fact]
    public async Task Of_formats_that_tell_as_much_the_first_in_order_is_taken()
    {
        Offer("oai_dc", "", i => Dc(i));
        Offer(
            "mods",
            "http://www.loc.gov/mods/v3",
            i =>
                Mods(
                    i,
                    "<name><namePart>Falk, Ida</namePart></name><originInfo><dateIssued>2020</dateIssued></originInfo>"
                )
        );
        Assert.Equal("mods", (await Look()).Text("bestFormat"));
    }

    [Fact]
    public async Task A_class_in_one_format_is_as_much_as_a_subject_in_another()
    {
        Offer("oai_dc", "", i => Dc(i, "<dc:subject>Ecology</dc:subject>"));
        Offer(
            "mods",
            "http://www.loc.gov/mods/v3",
            i =>
                Mods(
                    i,
                    "<name><namePart>Falk, Ida</namePart></name><originInfo><dateIssued>2020</dateIssued></originInfo>"
                        + "<classification>Ecology</classification>"
                )
        );
        var look = await Look();
        Assert.Equal("mods", look.Text("bestFormat"));
        Assert.All(look.List("formats"), f => Assert.Equal(3, Told(f, "keywords or subjects")));
    }

    [Fact]
    public async Task Records_are_laid_side_by_side_as_each_format_is_read()
    {
        Offer("oai_dc", "", i => Dc(i));
        Offer("jats", "http://jats.nlm.nih.gov", Jats);
        var look = await Look();
        Assert.Equal("jats", look.Text("bestFormat"));
        var (dc, jats) = (Format(look, "oai_dc").List("preview").First(), Format(look, "jats").List("preview").First());
        Assert.Equal((dc.Text("identifier"), dc.Text("title")), (jats.Text("identifier"), jats.Text("title")));
        Assert.Equal("Night Letters 1, 4", jats.Text("venue"));
        Assert.Equal("10.5555/moth.1", jats.Text("doi"));
        Assert.Null(dc["venue"]);
    }

    [Fact]
    public async Task A_format_that_is_offered_and_not_given_is_said_and_passed_over()
    {
        Offer("oai_dc", "", i => Dc(i));
        odd.Formats.Add(("marcxml", "http://www.loc.gov/MARC21/slim"));
        var look = await Look();
        Assert.Equal("oai_dc", look.Text("bestFormat"));
        Assert.Contains("cannotDisseminateFormat", Format(look, "marcxml").Text("fault"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task With_another_format_everything_is_read_anew_and_works_and_decisions_stay()
    {
        Offer("oai_dc", "", i => Dc(i));
        var database = await ann.Harvest(odd.Address, format: null);
        var review = await ann.Review();
        var step = await ann.Search(review, "moths");
        var before = await ann.Works(review, step);
        Assert.Equal(3, before.Length);
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { before[0] } });
        Offer("jats", "http://jats.nlm.nih.gov", Jats);
        var id = database.Int("id");
        Assert.Equal("jats", (await ann.Get($"/api/databases/{id}/look")).Text("bestFormat"));
        await ann.Ok("PUT", $"/api/databases/{id}/format", new { format = "jats" });
        var after = await ann.Ended(id);
        Assert.Equal(
            ("Done", "jats", 3),
            (after["job"]!.Text("state"), after.Text("format"), after.Int("withAbstract"))
        );
        Assert.Equal(before.Order(), (await ann.Works(review, await ann.Search(review, "moths"))).Order());
        Assert.Equal(3, await ann.Count(review, await ann.Search(review, "\"forty lamps\"")));
        Assert.Equal(1, (await ann.Get($"/api/reviews/{review}")).Int("kept"));
    }

    [Theory]
    [InlineData("rdf", 409)]
    [InlineData("nothing", 409)]
    public async Task What_is_not_offered_or_not_read_is_not_taken(string format, int status)
    {
        Offer("oai_dc", "", i => Dc(i));
        Offer("rdf", "http://example.org/rdf", i => $"<rdf>{i}</rdf>");
        var id = (await ann.Harvest(odd.Address, format: null)).Int("id");
        Assert.Equal(status, (await ann.Send("PUT", $"/api/databases/{id}/format", new { format })).Status);
        Assert.Equal(404, (await ann.Send("GET", "/api/databases/99/look")).Status);
        Assert.Equal("oai_dc", (await ann.Get("/api/databases")).List("databases").Single().Text("format"));
    }
}
