using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;

namespace Zendle.Tests.Shared;

/// <summary>
/// An OAI-PMH service that behaves as it is told: what pages say, byte by byte, and what goes wrong before they come.
/// Apart from the outside, which behaves well.
/// </summary>
public sealed class OddService : IAsyncDisposable
{
    private readonly WebApplication service = WebApplication
        .CreateSlimBuilder([
            "--urls",
            "http://127.0.0.1:0",
            "--Logging:LogLevel:Default",
            "None",
            "--Logging:LogLevel:Microsoft",
            "None",
        ])
        .Build();

    /// <summary>What goes wrong with the next requests for records, one after another: a status, or "cut".</summary>
    public Queue<string> Faults { get; } = new();

    /// <summary>The pages of its list, as they go over the line. A page is asked for by its place as token.</summary>
    public List<byte[]> Pages { get; } = [];

    /// <summary>deletedRecord of Identify.</summary>
    public string Deleted { get; set; } = "no";

    /// <summary>metadataPrefix and namespace of what it offers.</summary>
    public List<(string Prefix, string Space)> Formats { get; } =
    [("oai_dc", "http://www.openarchives.org/OAI/2.0/oai_dc/")];

    /// <summary>What the requests for records asked, in their order.</summary>
    public List<string> Asked { get; } = [];

    /// <summary>
    /// Gives the page for some arguments; by default the one in <see cref="Pages"/> that the token names.
    /// </summary>
    public Func<IQueryCollection, byte[]>? Page { get; set; }

    /// <summary>
    /// Offers a format and answers in it with some records; a format that was offered elsewise gets the protocol's error.
    /// </summary>
    /// <param name="prefix">metadataPrefix.</param>
    /// <param name="space">Its namespace.</param>
    /// <param name="metadata">The metadata of a record, by its number from 1.</param>
    public void Offer(string prefix, string space, Func<int, string> metadata)
    {
        if (!Formats.Exists(f => f.Prefix == prefix))
            Formats.Add((prefix, space));
        given[prefix] = metadata;
        Page = query =>
            given.TryGetValue(query["metadataPrefix"].ToString(), out var inside)
                ? Around(
                    string.Concat(
                        Enumerable
                            .Range(1, 3)
                            .Select(i =>
                                $"<record><header><identifier>oai:odd:{i}</identifier>"
                                + $"<datestamp>2026-01-01</datestamp></header><metadata>{inside(i)}</metadata>"
                                + "</record>"
                            )
                    )
                )
                : Encoding.UTF8.GetBytes(Reply("<error code='cannotDisseminateFormat'>no</error>"));
    }

    private readonly Dictionary<string, Func<int, string>> given = [];

    public string Root => service.Urls.First();

    public string Address => $"{Root}/oai";

    public static async Task<OddService> Start()
    {
        var odd = new OddService();
        odd.service.MapGet("/oai", odd.Answer);
        await odd.service.StartAsync();
        return odd;
    }

    /// <summary>A whole page around some records, in UTF-8.</summary>
    public static byte[] Around(
        string records,
        string? token = null,
        string before = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
    ) =>
        Encoding.UTF8.GetBytes(
            $"{before}<OAI-PMH xmlns=\"http://www.openarchives.org/OAI/2.0/\">"
                + "<responseDate>2026-05-06T07:08:09Z</responseDate><request>x</request>"
                + $"<ListRecords>{records}{token}</ListRecords></OAI-PMH>"
        );

    /// <summary>A record in bare Dublin Core.</summary>
    /// <param name="id">Its number.</param>
    /// <param name="inside">Its elements; null for a deleted record.</param>
    public static string Dc(int id, string? inside) =>
        inside is null
            ? $"<record><header status=\"deleted\"><identifier>oai:odd:{id}</identifier><datestamp>2026-01-01</datestamp></header></record>"
            : $"<record><header><identifier>oai:odd:{id}</identifier><datestamp>2026-01-01</datestamp>"
                + "</header><metadata><oai_dc:dc xmlns:oai_dc=\"http://www.openarchives.org/OAI/2.0/oai_dc/\" "
                + $"xmlns:dc=\"http://purl.org/dc/elements/1.1/\">{inside}</oai_dc:dc></metadata></record>";

    private static string Offered((string Prefix, string Space) format) =>
        $"<metadataFormat><metadataPrefix>{format.Prefix}</metadataPrefix><schema>x</schema>"
        + $"<metadataNamespace>{format.Space}</metadataNamespace></metadataFormat>";

    /// <summary>A whole reply around what the protocol puts inside.</summary>
    private static string Reply(string inside) =>
        "<OAI-PMH xmlns='http://www.openarchives.org/OAI/2.0/'><responseDate>2026-01-01T00:00:00Z</responseDate>"
        + $"<request>x</request>{inside}</OAI-PMH>";

    private async Task Answer(HttpContext http)
    {
        http.Response.ContentType = "text/xml";
        if (http.Request.Query["verb"] != "ListRecords")
        {
            var inside = http.Request.Query["verb"].ToString() switch
            {
                "Identify" => "<Identify><repositoryName>Odd Shelf</repositoryName>"
                    + $"<granularity>YYYY-MM-DD</granularity><deletedRecord>{Deleted}</deletedRecord></Identify>",
                "ListMetadataFormats" =>
                    $"<ListMetadataFormats>{string.Concat(Formats.Select(Offered))}</ListMetadataFormats>",
                _ => "<error code='noSetHierarchy'>none</error>",
            };
            await http.Response.WriteAsync(Reply(inside));
            return;
        }
        lock (Asked)
            Asked.Add(http.Request.QueryString.Value!);
        var page = Page is not null
            ? Page(http.Request.Query)
            : Pages[int.TryParse(http.Request.Query["resumptionToken"], out var n) ? n : 0];
        if (Faults.TryDequeue(out var fault))
        {
            if (int.TryParse(fault, out var status))
            {
                http.Response.StatusCode = status;
                return;
            }
            // Cut off: with a length that never comes, or silently with a body that ends in the middle.
            if (fault == "cut")
            {
                http.Response.ContentLength = page.Length;
                await http.Response.Body.WriteAsync(page.AsMemory(0, page.Length / 2));
                http.Abort();
                return;
            }
            await http.Response.Body.WriteAsync(page.AsMemory(0, page.Length * 2 / 3));
            return;
        }
        await http.Response.Body.WriteAsync(page);
    }

    public ValueTask DisposeAsync() => service.DisposeAsync();
}
