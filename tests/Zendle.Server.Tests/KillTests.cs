using System.Globalization;
using System.Net;
using System.Text.RegularExpressions;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// The real process is killed in the middle of harvests, decisions and starts; nothing acknowledged is lost, and every
/// start works. Twenty times, or as often as ZENDLE_KILLS says (a nightly run: 100).
/// </summary>
public sealed class KillTests : IAsyncLifetime
{
    private static readonly int Kills = int.TryParse(
        Environment.GetEnvironmentVariable("ZENDLE_KILLS"),
        CultureInfo.InvariantCulture,
        out var n
    )
        ? n
        : 20;

    // Far more than a start takes here (see docs/measures.md), and far less than for ever.
    private static readonly TimeSpan LongestStart = TimeSpan.FromSeconds(30);

    private readonly string data = Path.Combine(Path.GetTempPath(), "zendle-kill-" + Guid.NewGuid().ToString("N"));
    private readonly CookieContainer cookies = new();
    private OutsideHost outside = null!;
    private ServerProcess? server;

    public async ValueTask InitializeAsync() => outside = await OutsideHost.Start(works: 600, seed: 4);

    public async ValueTask DisposeAsync()
    {
        server?.Dispose();
        await outside.DisposeAsync();
        Directory.Delete(data, recursive: true);
    }

    private string Outside => $"--Zendle:Outside={outside.Address}";

    private async Task<Visitor> Start()
    {
        (server, var took) = await ServerProcess.Start(data, Outside);
        Assert.True(took < LongestStart, $"a start took {took}: {server.Said}");
        return server.Visit(cookies);
    }

    /// <summary>Begins a start and kills it at some moment.</summary>
    private async Task KillInStart(int milliseconds)
    {
        using var begun = ServerProcess.Begin(data, Outside);
        await Task.Delay(milliseconds);
    }

    [Fact]
    public async Task Kills_lose_nothing_that_was_acknowledged_and_block_no_later_start()
    {
        var random = new Random(11);
        await KillInStart(700); // the very first start: tables are being made
        await KillInStart(1_300);
        var ann = await Start();
        for (var i = 0; i < 100 && server!.Code.Length == 0; i++)
            await Task.Delay(50);
        await ann.Ok(
            "POST",
            "/api/first-account",
            new
            {
                code = server!.Code,
                name = "ann",
                displayName = "Ann",
                password = ZendleHost.Password,
            }
        );
        await ann.Ok("POST", "/api/databases", new { address = outside.Oai("farnet"), trusted = false });
        var review = await ann.Review();
        var (kept, runs, lastRecords) = (new HashSet<int>(), 0, 0);
        for (var round = 0; round < Kills; round++)
        {
            if (round == 3)
                await ann.Ok("POST", "/api/databases", new { address = outside.Oai("meridian"), trusted = true });
            using var over = new CancellationTokenSource(random.Next(40, 500));
            try
            {
                while (!over.IsCancellationRequested)
                {
                    var step = await ann.Search(review, $"moth* OR light OR night{round}x{runs}");
                    runs++;
                    var fresh = (await ann.Works(review, step, "limit=200"))
                        .Where(w => !kept.Contains(w))
                        .Take(2)
                        .ToArray();
                    if (fresh.Length == 0)
                        continue;
                    await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = fresh });
                    kept.UnionWith(fresh);
                }
            }
            finally
            {
                server.Dispose();
            }
            if (round % 3 == 2)
                await KillInStart(random.Next(200, 2_500));
            ann = await Start();
            var log = (await ann.Get($"/api/reviews/{review}/log")).Int("searches");
            Assert.True(log >= runs, $"round {round}: {runs} runs were acknowledged, {log} are in the log");
            Assert.Equal(kept.Count, (await ann.Get($"/api/reviews/{review}")).Int("kept"));
            var records = (await ann.Get("/api/databases")).Int("records");
            Assert.True(records >= lastRecords, "records were lost");
            lastRecords = records;
        }
        // The harvests went on by themselves after each start, and end whole.
        foreach (var key in new[] { "farnet", "meridian" })
        {
            var id = (await ann.Get("/api/databases"))
                .List("databases")
                .Single(d => d.Text("address").Contains(key, StringComparison.Ordinal))
                .Int("id");
            var database = await ann.Ended(id);
            Assert.Equal("Done", database["job"]!.Text("state"));
            Assert.Equal(
                Live(await new HttpClient().GetStringAsync(new Uri(outside.Address, "/")), key),
                database.Int("records")
            );
        }
        Assert.Equal(kept.Count, await ann.Count(review, await ann.Search(review, "stage:kept")));
        // What is counted now is what an index made from nothing counts.
        string[] questions =
        [
            "moth*",
            "light AND night",
            "\"artificial light\"",
            "pollinat* NEAR/5 night",
            "year:2000-2010",
        ];
        var counted = new List<int>();
        foreach (var question in questions)
            counted.Add(await ann.Count(review, await ann.Search(review, question)));
        await server!.Stop();
        Directory.Delete(Path.Combine(data, "index"), recursive: true);
        ann = await Start();
        foreach (var (question, count) in questions.Zip(counted))
            Assert.Equal(count, await ann.Count(review, await ann.Search(review, question)));
    }

    /// <summary>What the outside's own page says a database holds.</summary>
    private static int Live(string page, string key) =>
        int.Parse(
            Regex
                .Match(page, $@"/{key}/oai</code></td><td>([\d,]+)")
                .Groups[1]
                .Value.Replace(",", "", StringComparison.Ordinal),
            CultureInfo.InvariantCulture
        );
}
