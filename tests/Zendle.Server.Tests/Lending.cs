using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Zendle served on a port, so that desks can write to it, beside a small outside; Ann uses a library with two desks.
/// </summary>
public sealed class Lending : IAsyncLifetime
{
    private readonly HttpClient http = new();
    private readonly HashSet<int> taken = [];

    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Visitor Ann { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Outside = await OutsideHost.Start(works: 700, seed: 6);
        Host = new(Outside.Address.ToString());
        Ann = await Host.Curator(served: true);
        await Ann.HarvestTwo(Outside);
        await Ann.Ok("POST", "/api/libraries/choose", new { identifier = "XA-QUI1" });
    }

    /// <summary>Sets the fault of a desk.</summary>
    public async Task Fault(string desk, string kind) =>
        (
            await http.PostAsync(new Uri(Outside.Address, $"/loan-desk/faults?desk={desk}&kind={kind}"), null)
        ).EnsureSuccessStatusCode();

    /// <summary>Desks know no account any more.</summary>
    public async Task Forget() =>
        (await http.PostAsync(new Uri(Outside.Address, "/loan-desk/forget"), null)).EnsureSuccessStatusCode();

    /// <summary>What the outside says of a request.</summary>
    public async Task<JsonNode> AtDesk(string number) =>
        JsonNode
            .Parse(await http.GetStringAsync(new Uri(Outside.Address, "/loan-desk/requests")))!
            .AsArray()
            .Single(r => r!.Text("number") == number)!;

    /// <summary>
    /// A work of a kind that a desk will supply or not; each call gives another one. Which works a desk lacks is the outside's:
    /// every 4th of the first desk, every 9th of the second, counted from the end of each row.
    /// </summary>
    public async Task<int> Work(int review, string type, Func<int, bool> isWanted)
    {
        var step = await Ann.Search(review, $"type:{type}");
        for (var offset = 0; offset < 700; offset += 100)
        {
            var ids = await Ann.Works(review, step, $"limit=100&offset={offset}");
            if (ids.Length == 0)
                break;
            foreach (var id in ids.Where(i => !taken.Contains(i)))
                if (await InWorld(review, id) is { } number && isWanted(number) && taken.Add(id))
                    return id;
        }
        throw new InvalidOperationException("The small world has no more such works.");
    }

    /// <summary>
    /// The number of a work in the outside's world, where its DOI leads to it and its record has the title it truly has (of others
    /// texts rightly wait for a person); null otherwise.
    /// </summary>
    private async Task<int?> InWorld(int review, int work)
    {
        var detail = await Ann.Get($"/api/reviews/{review}/works/{work}");
        if (detail["doi"]?.GetValue<string>() is not { } doi)
            return null;
        using var reply = await http.GetAsync(new Uri(Outside.Address, $"/doi/{doi}"));
        var page = System.Net.WebUtility.HtmlDecode(await reply.Content.ReadAsStringAsync());
        return
            page.Contains($"<h1>{detail["title"]!.Text("text")}</h1>", StringComparison.Ordinal)
            && int.TryParse(reply.RequestMessage!.RequestUri!.AbsolutePath.Split('/')[^1], out var number)
            ? number
            : null;
    }

    public async ValueTask DisposeAsync()
    {
        http.Dispose();
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}
