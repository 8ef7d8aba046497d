using System.Xml;
using System.Xml.Linq;
using System.Xml.Schema;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>The outside keeps to OAI-PMH 2.0, so that what passes against it has a chance elsewhere.</summary>
public sealed class OaiProtocolTests : IAsyncLifetime
{
    private static readonly XNamespace Oai = "http://www.openarchives.org/OAI/2.0/";
    private OutsideHost outside = null!;
    private readonly HttpClient http = new();

    public async ValueTask InitializeAsync() => outside = await OutsideHost.Start(works: 400, seed: 9);

    public async ValueTask DisposeAsync()
    {
        http.Dispose();
        await outside.DisposeAsync();
    }

    private async Task<XElement> Ask(string query) =>
        XElement.Parse(await http.GetStringAsync($"{outside.Oai("meridian")}?{query}"));

    [Theory]
    [InlineData("verb=Nonsense", "badVerb")]
    [InlineData("", "badVerb")]
    [InlineData("verb=Identify&verb=Identify", "badVerb")]
    [InlineData("verb=Identify&x=1", "badArgument")]
    [InlineData("verb=ListRecords", "badArgument")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&from=2026-01-01&from=2026-01-02", "badArgument")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&from=yesterday", "badArgument")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&from=2026-01-01&until=2026-01-01T00:00:00Z", "badArgument")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&from=2026-02-01&until=2026-01-01", "badArgument")]
    [InlineData("verb=ListRecords&resumptionToken=x&metadataPrefix=mods", "badArgument")]
    [InlineData("verb=ListRecords&metadataPrefix=marc", "cannotDisseminateFormat")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&until=1990-01-01", "noRecordsMatch")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&set=type:none", "noRecordsMatch")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&set=", "badArgument")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&set=a b", "badArgument")]
    [InlineData("verb=ListRecords&resumptionToken=bogus", "badResumptionToken")]
    [InlineData("verb=GetRecord&metadataPrefix=mods&identifier=oai:none", "idDoesNotExist")]
    [InlineData("verb=ListMetadataFormats&identifier=oai:none", "idDoesNotExist")]
    public async Task Errors_are_by_the_book(string query, string code) =>
        Assert.Equal(code, (string?)(await Ask(query)).Element(Oai + "error")?.Attribute("code"));

    [Theory]
    [InlineData("verb=Identify")]
    [InlineData("verb=ListSets")]
    [InlineData("verb=ListMetadataFormats")]
    [InlineData("verb=ListIdentifiers&metadataPrefix=oai_dc&set=type:article")]
    [InlineData("verb=ListRecords&metadataPrefix=oai_dc")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&from=2026-01-01")]
    [InlineData("verb=Nonsense&x=")]
    [InlineData("verb=ListRecords&metadataPrefix=mods&set=")]
    [InlineData("verb=ListRecords&metadataPrefix=marc")]
    [InlineData("verb=ListRecords&resumptionToken=bogus")]
    public async Task Every_reply_is_as_the_schema_has_it_and_names_its_schema(string query)
    {
        await outside.Move(200); // so that some are deleted
        var schemas = new XmlSchemaSet { XmlResolver = null };
        foreach (var name in new[] { "dc.xsd", "oai-dc.xsd", "oai-pmh.xsd" })
            schemas.Add(null, XmlReader.Create(typeof(OaiProtocolTests).Assembly.GetManifestResourceStream(name)!));
        var reply = new XDocument(await Ask(query));
        var faults = new List<string>();
        reply.Validate(schemas, (_, e) => faults.Add(e.Message));
        Assert.Empty(faults);
        XNamespace xsi = "http://www.w3.org/2001/XMLSchema-instance";
        Assert.Equal(
            "http://www.openarchives.org/OAI/2.0/ http://www.openarchives.org/OAI/2.0/OAI-PMH.xsd",
            (string?)reply.Root!.Attribute(xsi + "schemaLocation")
        );
        Assert.All(
            reply.Descendants().Where(e => e.Name.LocalName is "dc" or "mods"),
            e => Assert.NotNull(e.Attribute(xsi + "schemaLocation"))
        );
    }

    [Fact]
    public async Task Pages_add_up_to_the_complete_list_and_identifiers_agree_with_records()
    {
        async Task<List<string>> All(string verb)
        {
            var found = new List<string>();
            var query = $"verb={verb}&metadataPrefix=mods";
            while (true)
            {
                var list = (await Ask(query)).Element(Oai + verb)!;
                found.AddRange(list.Descendants(Oai + "header").Select(h => h.Element(Oai + "identifier")!.Value));
                var token = list.Element(Oai + "resumptionToken");
                if (token is null || token.Value.Length == 0)
                {
                    if (token is not null)
                        Assert.Equal(found.Count, (int)token.Attribute("completeListSize")!);
                    return found;
                }
                query = $"verb={verb}&resumptionToken={token.Value}";
            }
        }
        var records = await All("ListRecords");
        Assert.True(records.Count > 100);
        Assert.Equal(records.Count, records.Distinct().Count());
        Assert.Equal(records, await All("ListIdentifiers"));
        var one = (await Ask($"verb=GetRecord&metadataPrefix=oai_dc&identifier={records[0]}"))
            .Descendants(Oai + "identifier")
            .First();
        Assert.Equal(records[0], one.Value);
    }

    [Fact]
    public async Task From_and_until_are_kept_to_the_second_and_deletions_are_told()
    {
        await outside.Move(200);
        var headers = (
            await Ask("verb=ListIdentifiers&metadataPrefix=mods&from=2026-11-21T00:00:00Z&until=2027-01-15T12:00:00Z")
        )
            .Descendants(Oai + "header")
            .ToArray();
        Assert.NotEmpty(headers);
        Assert.All(
            headers,
            h =>
                Assert.InRange(
                    DateTimeOffset.Parse(
                        h.Element(Oai + "datestamp")!.Value,
                        System.Globalization.CultureInfo.InvariantCulture
                    ),
                    new(2026, 11, 21, 0, 0, 0, TimeSpan.Zero),
                    new(2027, 1, 15, 12, 0, 0, TimeSpan.Zero)
                )
        );
        var told = new List<XElement>();
        foreach (var database in new[] { "farnet", "meridian", "lifeleaf", "harbour" })
            told.AddRange(
                XElement
                    .Parse(
                        await http.GetStringAsync(
                            $"{outside.Oai(database)}?verb=ListIdentifiers&metadataPrefix=mods&from=2026-11-21&until=2027-01-19"
                        )
                    )
                    .Descendants(Oai + "header")
            );
        Assert.Contains(told, h => (string?)h.Attribute("status") == "deleted");
    }

    [Fact]
    public async Task The_same_seed_gives_the_same_bytes()
    {
        await using var twin = await OutsideHost.Start(works: 400, seed: 9);
        const string Query = "?verb=ListRecords&metadataPrefix=mods";
        var (a, b) = (
            await http.GetStringAsync(outside.Oai("farnet") + Query),
            await http.GetStringAsync(twin.Oai("farnet") + Query)
        );
        static string Body(string reply, Uri host) =>
            reply[
                reply.IndexOf("<ListRecords", StringComparison.Ordinal)..reply.IndexOf(
                    "<resumptionToken",
                    StringComparison.Ordinal
                )
            ]
                .Replace(host.Authority, "host", StringComparison.Ordinal);
        Assert.Equal(Body(a, outside.Address), Body(b, twin.Address));
    }
}
