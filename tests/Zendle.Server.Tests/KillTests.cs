using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>The real process is killed twenty times in the middle of harvests and decisions; nothing acknowledged is lost.</summary>
public sealed class KillTests : IAsyncLifetime
{
    private readonly string data = Path.Combine(Path.GetTempPath(), "zendle-kill-" + Guid.NewGuid().ToString("N"));
    private OutsideHost outside = null!;
    private Process? process;
    private string code = "";
    private string lastWords = "";

    public async ValueTask InitializeAsync() => outside = await OutsideHost.Start(works: 900, seed: 4);

    public async ValueTask DisposeAsync()
    {
        Kill();
        await outside.DisposeAsync();
        Directory.Delete(data, recursive: true);
    }

    private void Kill()
    {
        if (process is null) return;
        if (!process.HasExited) process.Kill(); // SIGKILL
        process.WaitForExit();
        process.Dispose();
        process = null;
    }

    private async Task<Visitor> Start(CookieContainer cookies)
    {
        // The port is free when it is asked for; another test's connection may take it before Zendle does. Then another is tried.
        for (var attempt = 1; ; attempt++)
        {
            if (await TryStart(cookies, FreePort()) is { } visitor) return visitor;
            Assert.True(attempt < 5, $"Zendle ended at its start: {lastWords}");
        }
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }

    private async Task<Visitor?> TryStart(CookieContainer cookies, int port)
    {
        lastWords = "";
        var server = typeof(Program).Assembly.Location;
        process = Process.Start(new ProcessStartInfo("dotnet", [server, "--urls", $"http://127.0.0.1:{port}", $"--Zendle:Data={data}", $"--Zendle:Outside={outside.Address}", "--Zendle:SignInsPerMinute=1000"]) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        process.OutputDataReceived += (_, e) => { if (e.Data is not null && Regex.Match(e.Data, @"owner: ([A-Z0-9-]{19})") is { Success: true } m) code = m.Groups[1].Value; };
        process.ErrorDataReceived += (_, e) => lastWords += e.Data + "\n";
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        var visitor = new Visitor(new HttpClient(new HttpClientHandler { CookieContainer = cookies }) { BaseAddress = new($"http://127.0.0.1:{port}") });
        for (var i = 0; i < 2400; i++)
        {
            try { if ((await visitor.Http.GetAsync("/health")).IsSuccessStatusCode) return visitor; }
            catch (HttpRequestException) when (!process.HasExited) { }
            catch (HttpRequestException)
            {
                process.WaitForExit(); // so that all it said has arrived
                Assert.True(lastWords.Contains("address already in use", StringComparison.OrdinalIgnoreCase), $"Zendle ended at its start: {lastWords}");
                return null;
            }
            await Task.Delay(50);
        }
        throw new TimeoutException("Zendle was not ready in two minutes.");
    }

    [Fact]
    public async Task Twenty_kills_lose_nothing_that_was_acknowledged()
    {
        var cookies = new CookieContainer();
        var random = new Random(11);
        var ann = await Start(cookies);
        for (var i = 0; i < 100 && code.Length == 0; i++) await Task.Delay(50);
        await ann.Ok("POST", "/api/first-account", new { code, name = "ann", displayName = "Ann", password = ZendleHost.Password });
        await ann.Ok("POST", "/api/databases", new { address = outside.Oai("farnet"), trusted = false });
        var review = await ann.Review();
        var (kept, runs, lastRecords) = (new HashSet<int>(), 0, 0);
        for (var round = 0; round < 20; round++)
        {
            if (round == 6) await ann.Ok("POST", "/api/databases", new { address = outside.Oai("meridian"), trusted = true });
            using var over = new CancellationTokenSource(random.Next(40, 500));
            try
            {
                while (!over.IsCancellationRequested)
                {
                    var step = await ann.Search(review, $"moth* OR light OR night{round}x{runs}");
                    runs++;
                    var fresh = (await ann.Works(review, step, "limit=200")).Where(w => !kept.Contains(w)).Take(2).ToArray();
                    if (fresh.Length == 0) continue;
                    await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = fresh });
                    kept.UnionWith(fresh);
                }
            }
            finally { Kill(); }
            ann = await Start(cookies);
            var log = (await ann.Get($"/api/reviews/{review}/log")).AsArray();
            Assert.True(log.Count >= runs, $"round {round}: {runs} runs were acknowledged, {log.Count} are in the log");
            Assert.Equal(kept.Count, (await ann.Get($"/api/reviews/{review}")).Int("kept"));
            var records = (await ann.Get("/api/databases")).Int("records");
            Assert.True(records >= lastRecords, "records were lost");
            lastRecords = records;
        }
        // The harvests went on by themselves after each start, and end whole.
        foreach (var key in new[] { "farnet", "meridian" })
        {
            var id = (await ann.Get("/api/databases")).List("databases").Single(d => d.Text("address").Contains(key, StringComparison.Ordinal)).Int("id");
            var database = await ann.Ended(id);
            Assert.Equal("done", database["job"]!.Text("state"));
            Assert.Equal(Live(await new HttpClient().GetStringAsync(new Uri(outside.Address, "/")), key), database.Int("records"));
        }
        Assert.Equal(kept.Count, await ann.Count(review, await ann.Search(review, "stage:kept")));
    }

    /// <summary>What the outside's own page says a database holds.</summary>
    private static int Live(string page, string key) =>
        int.Parse(Regex.Match(page, $@"/{key}/oai</code></td><td>([\d,]+)").Groups[1].Value.Replace(",", "", StringComparison.Ordinal), System.Globalization.CultureInfo.InvariantCulture);
}
