using System.Diagnostics;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Documents.Pdf;
using Zendle.Store.Files;

namespace Zendle.Bench;

/// <summary>
/// Five hundred documents from five hosts that each answer after 200 ms: a landing page, then the PDF; fetched, checked,
/// stored.
/// </summary>
internal static class GatherBench
{
    private const int Documents = 500,
        Hosts = 5;
    private static readonly TimeSpan Latency = TimeSpan.FromMilliseconds(200);

    /// <summary>Gathers them as the job does: ten works at once, two requests at a host.</summary>
    public static async Task Run(string folder, int seed)
    {
        var papers = new Papers(seed, 900);
        var files = papers.Studies.TakeLast(Documents).Select(w => (Work: w, Bytes: papers.Print(w))).ToArray();
        var hosts = new List<WebApplication>();
        for (var h = 0; h < Hosts; h++)
        {
            var builder = WebApplication.CreateSlimBuilder(["--urls", "http://127.0.0.1:0"]);
            builder.Logging.ClearProviders();
            var host = builder.Build();
            host.MapGet(
                "/{n:int}",
                async (int n, HttpContext http) =>
                {
                    await Task.Delay(Latency);
                    http.Response.Headers.Append("Link", $"</{n}/text.pdf>; rel=\"item\"; type=\"application/pdf\"");
                    return Results.Text("<html></html>", "text/html");
                }
            );
            host.MapGet(
                "/{n:int}/text.pdf",
                async (int n) =>
                {
                    await Task.Delay(Latency);
                    return Results.Bytes(files[n].Bytes, "application/pdf");
                }
            );
            await host.StartAsync();
            hosts.Add(host);
        }
        using var fetcher = new DocumentFetcher(
            new([.. hosts.Select(h => new Uri(h.Urls.First()))]),
            new(),
            TimeProvider.System
        );
        var vault = new FileVault(folder);
        foreach (var round in new[] { "first", "second" })
        {
            var (got, watch) = (0, Stopwatch.StartNew());
            await Parallel.ForEachAsync(
                Enumerable.Range(0, Documents),
                new ParallelOptions { MaxDegreeOfParallelism = 10 },
                async (n, cancel) =>
                {
                    var fetched = await fetcher.Fetch(
                        new Uri(new Uri(hosts[n % Hosts].Urls.First()), $"/{n}"),
                        _ => { },
                        cancel
                    );
                    if (
                        fetched.Bytes is not { } bytes
                        || DocumentCheck
                            .Of(PdfText.Read(bytes, DocumentLimits.Usual), Papers.Expected(files[n].Work))
                            .Verdict != DocumentVerdict.Agrees
                    )
                        return;
                    vault.Put(bytes);
                    Interlocked.Increment(ref got);
                }
            );
            Console.WriteLine(
                $"{round} round: {got} of {Documents} documents fetched, checked and stored in "
                    + $"{watch.Elapsed.TotalSeconds:N1} s (waiting alone: "
                    + $"{Documents * 2 * Latency.TotalSeconds / (Hosts * 2):N1} s)"
            );
        }
        foreach (var host in hosts)
            await host.DisposeAsync();
    }
}
