using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A small outside with two harvested databases, and ways to choose works by what lies behind their copies.
/// </summary>
public sealed class Gathering : IAsyncLifetime
{
    private readonly HttpClient http = new();
    private readonly Queue<string> open = new();

    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Visitor Ann { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Outside = await OutsideHost.Start(works: 700, seed: 6);
        Host = new(Outside.Address.ToString());
        Ann = await Host.Curator();
        await Ann.HarvestTwo(Outside);
        // Open publisher copies of works that have no other copy, so that what lies behind the one decides.
        var copies = JsonNode
            .Parse(await http.GetStringAsync(new Uri(Outside.Address, "/copies")))!
            .AsArray()
            .Select(c => (Path: c!.Text("path"), Kind: c!.Text("kind"), Open: c!["open"]!.GetValue<bool>()))
            .ToArray();
        var single = copies
            .GroupBy(c => c.Path.Split('/')[^1])
            .Where(g => g.Count() == 1)
            .SelectMany(g => g)
            .Where(c => c.Open && c.Path.StartsWith("/publisher", StringComparison.Ordinal));
        foreach (var copy in single)
            open.Enqueue(copy.Path);
    }

    /// <summary>Sets what lies behind a copy.</summary>
    public async Task Set(string path, string kind) =>
        (
            await http.PostAsync(new Uri(Outside.Address, $"/copies?path={path}&kind={kind}"), null)
        ).EnsureSuccessStatusCode();

    /// <summary>A work with one open copy at its publisher, of the given kind; each call gives another one.</summary>
    /// <param name="kind">The kind.</param>
    /// <param name="type">Its kind of document; null for any.</param>
    public async Task<(int Work, string Path)> Work(string kind, string? type = null)
    {
        while (open.TryDequeue(out var path))
        {
            await Set(path, "fine");
            using var reply = await http.GetAsync(new Uri(Outside.Address, path));
            var doi = reply.Headers.TryGetValues("Link", out var links)
                ? links
                    .SelectMany(l => l.Split(", "))
                    .FirstOrDefault(l => l.Contains("cite-as", StringComparison.Ordinal))
                    ?.Split("/doi/")[1]
                    .Split('>')[0]
                : null;
            await Set(path, kind);
            if (doi is null)
                continue;
            var review = await Review();
            var found = await Ann.Works(review, await Ann.Search(review, $"doi:\"{doi}\""));
            if (found.Length != 1)
                continue;
            var work = await Ann.Get($"/api/reviews/{review}/works/{found[0]}");
            if (work["copies"]!.AsArray().Count != 1 || (type is not null && work.Text("type") != type))
                continue;
            // Some records have slips in their titles, and their texts rightly wait for a person.
            var page = System.Net.WebUtility.HtmlDecode(await reply.Content.ReadAsStringAsync());
            if (!page.Contains($"<h1>{work["title"]!.Text("text")}</h1>", StringComparison.Ordinal))
                continue;
            return (found[0], path);
        }
        throw new InvalidOperationException("The small world has no more such works.");
    }

    private int review;

    private async Task<int> Review() => review == 0 ? review = await Ann.Review() : review;

    /// <summary>Gathers and waits for the end; the rows by work.</summary>
    public async Task<Dictionary<int, JsonNode>> Gather(int review, int[]? works, bool again = false)
    {
        await Ann.Ok("POST", $"/api/reviews/{review}/gather", new { works, again });
        return await Settled(review);
    }

    public async Task<Dictionary<int, JsonNode>> Settled(int review)
    {
        for (var i = 0; i < 3_600; i++)
        {
            var all = await Ann.Get($"/api/reviews/{review}/gather");
            if (all["job"] is null || all["job"]!["endedAt"] is not null)
                return all.List("works").ToDictionary(w => w.Int("workId"));
            await Task.Delay(50);
        }
        throw new TimeoutException("Gathering did not end in three minutes.");
    }

    public async ValueTask DisposeAsync()
    {
        http.Dispose();
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}
