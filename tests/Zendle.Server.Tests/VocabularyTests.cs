using System.Text.Json.Nodes;
using Zendle.Core.Terms;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Controlled vocabularies over HTTP: fetched from where a curator says, their terms offered with what they bring.
/// </summary>
public sealed class VocabularyTests(Harvested harvested) : IClassFixture<Harvested>
{
    private Visitor Ann => harvested.Ann;

    private string There => new Uri(harvested.Outside.Address, "/lifeleaf/vocabulary").ToString();

    private async Task<IReadOnlyList<JsonNode>> Offered(int review, string line) =>
        [
            .. (
                await Ann.Ok(
                    "POST",
                    $"/api/reviews/{review}/terms",
                    new
                    {
                        text = line,
                        stepId = await Ann.Search(review, line),
                        source = "Kept",
                        works = Array.Empty<int>(),
                    }
                )
            ).List("ofVocabularies"),
        ];

    [Fact]
    public async Task Narrower_broader_and_other_names_are_offered_with_what_taking_them_brings()
    {
        using var http = new HttpClient();
        var vocabulary = SkosReader.Read(await http.GetByteArrayAsync(There));
        var told = await Ann.Ok("PUT", "/api/databases/1/vocabulary", new { address = There });
        Assert.Equal(vocabulary.Concepts.Length, told.GetValue<int>());
        var shown = (await Ann.Get("/api/databases")).List("databases").Single(d => d.Int("id") == 1)["vocabulary"]!;
        Assert.Equal((There, vocabulary.Concepts.Length), (shown.Text("address"), shown.Int("concepts")));

        var review = await Ann.Review();
        // An area has narrower terms; a term has its area above it.
        var area = vocabulary.Concepts.First(c => c.Broader.IsEmpty && c.Narrower.Length > 3);
        var below = vocabulary.Concepts[area.Narrower[0]];
        var offers = await Offered(review, $"\"{area.Label}\"");
        Assert.NotEmpty(offers);
        var labels = area.Narrower.Select(n => vocabulary.Concepts[n].Label).ToHashSet();
        foreach (var offer in offers)
        {
            Assert.Equal(("Narrower", area.Label), (offer["tie"]!.Text("relation"), offer["tie"]!.Text("of")));
            Assert.Contains(offer.Text("text"), labels);
            async Task<int> Found(string line) => await Ann.Count(review, await Ann.Search(review, line));
            var before = await Found($"\"{area.Label}\"");
            Assert.Equal(before + offer.Int("adds"), await Found($"\"{area.Label}\" OR {offer.Text("expression")}"));
        }
        var above = await Offered(review, $"\"{below.Label}\"");
        Assert.All(
            above.Where(o => o["tie"]!.Text("relation") == "Broader"),
            o => Assert.Equal(area.Label, o.Text("text"))
        );

        // Refused, it is not offered again; taken away, the vocabulary offers nothing.
        await Ann.Ok(
            "PUT",
            $"/api/reviews/{review}/terms/refused",
            new { text = offers[0].Text("text").ToLowerInvariant(), isRefused = true }
        );
        Assert.DoesNotContain(
            await Offered(review, $"\"{area.Label}\""),
            o => o.Text("text") == offers[0].Text("text")
        );
        await Ann.Ok("PUT", "/api/databases/1/vocabulary", new { address = (string?)null });
        Assert.Empty(await Offered(review, $"\"{area.Label}\""));
    }

    [Theory]
    [InlineData("/meridian/oai?verb=Identify", 422, "first element is not rdf:RDF")]
    [InlineData("/nothing/here", 422, "answers 404")]
    [InlineData("ftp://example.org/v", 400, "http:// or https://")]
    [InlineData("http://10.0.0.1/v", 422, "")]
    public async Task What_is_no_vocabulary_changes_nothing(string address, int status, string says)
    {
        var (got, body) = await Ann.Send(
            "PUT",
            "/api/databases/2/vocabulary",
            new { address = address[0] == '/' ? new Uri(harvested.Outside.Address, address).ToString() : address }
        );
        Assert.Equal(status, got);
        Assert.Contains(says, body!.Text("title"), StringComparison.Ordinal);
        Assert.Null((await Ann.Get("/api/databases")).List("databases").Single(d => d.Int("id") == 2)["vocabulary"]);
    }
}
