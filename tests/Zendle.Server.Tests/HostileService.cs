using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;

namespace Zendle.Server.Tests;

/// <summary>A service whose replies are made to cost much: what kind is in the path.</summary>
internal sealed class HostileService : IAsyncDisposable
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
    private int asked;

    public string Base => service.Urls.First();

    private static string Wrapped(string inside) =>
        "<OAI-PMH xmlns='http://www.openarchives.org/OAI/2.0/'>"
        + $"<responseDate>2026-01-01T00:00:00Z</responseDate><request>x</request>{inside}</OAI-PMH>";

    private static string Record(string mods, int id = 1) =>
        $"<record><header><identifier>oai:evil:{id}</identifier><datestamp>2026-01-01</datestamp></header>"
        + $"<metadata><mods xmlns='http://www.loc.gov/mods/v3'>{mods}</mods></metadata></record>";

    private static string Page(string kind, int n) =>
        kind switch
        {
            "nested" => "<ListRecords>"
                + Record(
                    string.Concat(Enumerable.Repeat("<note>", 100_000))
                        + string.Concat(Enumerable.Repeat("</note>", 100_000))
                )
                + "</ListRecords>",
            "attributes" => "<ListRecords>"
                + Record("<note " + string.Join(' ', Enumerable.Range(0, 400_000).Select(i => $"a{i}='x'")) + "/>")
                + "</ListRecords>",
            "parts" => "<ListRecords>"
                + Record(string.Concat(Enumerable.Repeat("<note/>", 3_000_000)))
                + "</ListRecords>",
            "tokens" => $"<ListRecords><resumptionToken>token {n}</resumptionToken></ListRecords>",
            "word" => "<ListRecords>"
                + Record("<titleInfo><title>" + new string('w', 20_000_000) + "</title></titleInfo>")
                + "</ListRecords>",
            "long" => "<ListRecords>"
                + Record(
                    "<titleInfo><title>Moths "
                        + new string('w', 500_000)
                        + "</title></titleInfo><abstract>"
                        + new string('v', 500_000)
                        + " lamps</abstract>"
                )
                + "</ListRecords>",
            "error" => $"<error code='{new string('c', 10_000)}'>{new string('e', 1_000_000)}</error>",
            _ => "<ListRecords>"
                + Record("<titleInfo><title>An honest record about moths and lamps</title></titleInfo>")
                + "</ListRecords>",
        };

    public async Task Start()
    {
        service.MapGet(
            "/{kind}/oai",
            async (string kind, string verb, HttpContext http) =>
            {
                var n = Interlocked.Increment(ref asked);
                http.Response.ContentType = "text/xml";
                if (verb == "ListRecords" && kind == "drip")
                {
                    // A byte now and then, without end.
                    await http.Response.WriteAsync(
                        "<OAI-PMH xmlns='http://www.openarchives.org/OAI/2.0/'>",
                        http.RequestAborted
                    );
                    while (!http.RequestAborted.IsCancellationRequested)
                    {
                        await http.Response.WriteAsync(" ", http.RequestAborted);
                        await http.Response.Body.FlushAsync(http.RequestAborted);
                        await Task.Delay(50, http.RequestAborted);
                    }
                    return;
                }
                await http.Response.WriteAsync(
                    Wrapped(
                        verb switch
                        {
                            "Identify" =>
                                $"<Identify><repositoryName>{kind}</repositoryName><granularity>YYYY-MM-DD</granularity></Identify>",
                            "ListMetadataFormats" =>
                                "<ListMetadataFormats><metadataFormat><metadataPrefix>mods</metadataPrefix>"
                                    + "<schema>x</schema><metadataNamespace>http://www.loc.gov/mods/v3</metadataNamespace>"
                                    + "</metadataFormat></ListMetadataFormats>",
                            "ListSets" => "<error code='noSetHierarchy'>none</error>",
                            _ => Page(kind, n),
                        }
                    ),
                    Encoding.UTF8,
                    http.RequestAborted
                );
            }
        );
        await service.StartAsync();
    }

    public ValueTask DisposeAsync() => service.DisposeAsync();
}
