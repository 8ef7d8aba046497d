using System.Text.Json.Nodes;

namespace Zendle.Bench.Measure;

/// <summary>Somebody who gathers at a Zendle that runs the demo.</summary>
internal sealed class Gatherer : IDisposable
{
    private static readonly TimeSpan Often = TimeSpan.FromSeconds(1);
    private readonly Session session;

    private Gatherer(Session session) => this.session = session;

    /// <summary>Signs in as whom the demo offers, once it is made.</summary>
    public static async Task<Gatherer> SignedIn(Uri address)
    {
        var session = new Session(address);
        while ((await session.Get("/health"))["doing"] is not null)
            await Task.Delay(Often);
        var offered = (await session.Get("/api/me"))["demo"]!;
        await session.SignIn(offered["name"]!.GetValue<string>(), offered["password"]!.GetValue<string>());
        return new(session);
    }

    /// <summary>Reads what must be there.</summary>
    public Task<JsonNode> Get(string path) => session.Get(path);

    /// <summary>Reads what may be there; null where it is not.</summary>
    public async Task<JsonNode?> Find(string path) =>
        await session.Send(HttpMethod.Get, path) is (200, var body) ? body : null;

    /// <summary>A file.</summary>
    public Task<byte[]> Bytes(string path) => session.Bytes(path);

    /// <summary>Uses a library of the directory and signs in there.</summary>
    public async Task UsesLibrary(string identifier, string name, string password)
    {
        var now = await session.Ok(HttpMethod.Post, "/api/libraries/choose", new { identifier });
        var id = now["libraries"]!.AsArray().Single(l => l!["identifier"]!.GetValue<string>() == identifier)!["id"]!;
        while ((await Get("/api/libraries"))["libraries"]!.AsArray().Any(l => l!["loadedAt"] is null))
            await Task.Delay(Often);
        await session.Ok(HttpMethod.Post, $"/api/libraries/{id}/session", new { name, password });
    }

    /// <summary>A review of its own.</summary>
    public async Task<int> Review() =>
        (await session.Ok(HttpMethod.Post, "/api/reviews", new { title = "Measured", question = "" }))[
            "id"
        ]!.GetValue<int>();

    /// <summary>What lies behind each copy now: the demo has some things set.</summary>
    public static async Task<Dictionary<string, string>> Copies(Uri address)
    {
        using var outside = new HttpClient { BaseAddress = address };
        return JsonNode
            .Parse(await outside.GetStringAsync("/copies"))!
            .AsArray()
            .ToDictionary(c => c!["path"]!.GetValue<string>(), c => c!["kind"]!.GetValue<string>());
    }

    /// <summary>The keys of databases in the world, by their names in Zendle.</summary>
    public async Task<Dictionary<string, string>> DatabaseKeys() =>
        (await Get("/api/databases"))["databases"]!
            .AsArray()
            .ToDictionary(
                d => d!["name"]!.GetValue<string>(),
                d => new Uri(d!["address"]!.GetValue<string>()).AbsolutePath.Split('/')[1]
            );

    /// <summary>All works that a question finds; null for all there are.</summary>
    public async Task<int[]> Works(int review, string? expression)
    {
        var step = expression is null
            ? 0
            : (
                await session.Ok(
                    HttpMethod.Post,
                    $"/api/reviews/{review}/steps",
                    new { parentId = 0, act = new { kind = "Search", expression } }
                )
            )["stepId"]!.GetValue<int>();
        var all = new List<int>();
        while (true)
        {
            var page = await Get($"/api/reviews/{review}/steps/{step}/works?limit=200&offset={all.Count}");
            var ids = page["works"]!.AsArray().Select(w => w!["id"]!.GetValue<int>()).ToArray();
            all.AddRange(ids);
            if (ids.Length == 0)
                return [.. all];
        }
    }

    /// <summary>Gathers works and waits for the end; their rows.</summary>
    public async Task<Dictionary<int, JsonNode>> Gathered(int review, int[] works)
    {
        await session.Ok(HttpMethod.Post, $"/api/reviews/{review}/gather", new { works, again = false });
        while (true)
        {
            var now = await Get($"/api/reviews/{review}/gather");
            if (now["job"]!["endedAt"] is not null)
                return now["works"]!.AsArray().ToDictionary(w => w!["workId"]!.GetValue<int>(), w => w!);
            await Task.Delay(Often);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => session.Dispose();
}
