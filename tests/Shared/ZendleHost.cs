using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Documents.Reading;
using Zendle.Server.Identity;

namespace Zendle.Tests.Shared;

/// <summary>Zendle in this process over a data folder of its own, on real SQLite files.</summary>
public sealed class ZendleHost : WebApplicationFactory<Program>
{
    public const string Password = "a long password";
    private static readonly DocumentReader Readers = DocumentReader.Usual();
    private readonly Dictionary<string, string> settings;

    public ZendleHost(string? outside = null, bool demo = false, params (string Name, string Value)[] more)
    {
        settings = new()
        {
            ["Zendle:Data"] = Data,
            ["Zendle:Demo"] = demo ? "true" : "false",
            ["Zendle:SignInsPerMinute"] = "1000",
            ["Zendle:FirstRetrySeconds"] = "0.02",
        };
        if (outside is not null)
            settings["Zendle:Outside"] = outside;
        foreach (var (name, value) in more)
            settings[name] = value;
        if (settings["Zendle:Data"] == Data)
            EmptyFolder.CopyTo(Data);
    }

    private ZendleHost(string data, Dictionary<string, string> settings) => (Data, this.settings) = (data, settings);

    public string Data { get; } = Path.Combine(Path.GetTempPath(), "zendle-test-" + Guid.NewGuid().ToString("N"));

    private bool handedOn;

    /// <summary>A Zendle over a copy of a data folder that another one left behind.</summary>
    /// <param name="folder">The folder; it is only read.</param>
    /// <param name="outside">Origin of the outside that it was harvested from.</param>
    /// <param name="demo">Whether it is the demo.</param>
    public static ZendleHost OverACopy(string folder, string outside, bool demo = false)
    {
        var host = new ZendleHost(outside, demo);
        Remove(host.Data);
        // The lock is left out: a process that is just being started elsewhere may hold it for a moment longer.
        foreach (
            var file in Directory
                .GetFiles(folder, "*", SearchOption.AllDirectories)
                .Where(f => Path.GetFileName(f) != "in-use")
        )
        {
            var to = Path.Combine(host.Data, Path.GetRelativePath(folder, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to);
        }
        return host;
    }

    /// <summary>Ends it and leaves its data folder; whoever asks removes it.</summary>
    public async Task<string> Left()
    {
        handedOn = true;
        await DisposeAsync();
        LetGo();
        return Data;
    }

    /// <summary>Ends this one and starts another over the same data.</summary>
    /// <param name="between">What happens to the data meanwhile.</param>
    public ZendleHost Restarted(Action? between = null)
    {
        handedOn = true;
        Dispose();
        LetGo();
        between?.Invoke();
        return new(Data, settings);
    }

    /// <summary>
    /// Waits until the data folder is let go. Two dispose of the services, this factory and the application's own end;
    /// whoever comes second returns at once, while the first may still be closing files.
    /// </summary>
    private void LetGo()
    {
        var hold = Path.Combine(settings["Zendle:Data"], "keys", "in-use");
        for (var tries = 0; File.Exists(hold); tries++)
        {
            try
            {
                using var mine = new FileStream(hold, FileMode.Open, FileAccess.ReadWrite, FileShare.None);
                return;
            }
            catch (IOException) when (tries < 600)
            {
                Thread.Sleep(50);
            }
        }
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseEnvironment("Production");
        foreach (var (name, value) in settings)
            builder.UseSetting(name, value);
        // Accounts of tests are not worth what guessing their passwords shall cost: a tenth of all these tests' time.
        builder.ConfigureServices(s => s.Configure<PasswordHasherOptions>(o => o.IterationCount = 1_000));
        // Processes that read documents know nothing of who asks; those of one Zendle serve the next, too.
        builder.ConfigureTestServices(s => s.AddSingleton(Readers));
    }

    /// <summary>A visitor who has not signed in; waits until Zendle is ready.</summary>
    /// <param name="early">Comes as soon as somebody can sign in, though the demo is still being made.</param>
    public async Task<Visitor> Visit(bool early = false)
    {
        var visitor = new Visitor(
            CreateClient(new() { AllowAutoRedirect = false, BaseAddress = ClientOptions.BaseAddress })
        );
        await Ready(visitor.Http, early);
        return visitor;
    }

    /// <summary>Waits until Zendle is ready, and the demo made if it is one.</summary>
    private static async Task Ready(HttpClient http, bool early = false)
    {
        for (var i = 0; i < 9_000; i++)
        {
            using var reply = await http.GetAsync("/health");
            if (
                reply.IsSuccessStatusCode
                && (early || JsonNode.Parse(await reply.Content.ReadAsStringAsync())!["doing"] is null)
            )
                return;
            await Task.Delay(20);
        }
        throw new TimeoutException("Zendle was not ready in three minutes.");
    }

    /// <summary>The curator: the first account, made by the one-time code.</summary>
    /// <param name="name">The account's name.</param>
    /// <param name="served">Whether Zendle is served on a port of this machine, so that others can write to it.</param>
    public async Task<Visitor> Curator(string name = "ann", bool served = false)
    {
        var visitor = served ? await Served() : await Visit();
        await visitor.Ok(
            "POST",
            "/api/first-account",
            new
            {
                code = Services.GetRequiredService<FirstAccountCode>().Text,
                name,
                displayName = "Ann",
                password = Password,
            }
        );
        return visitor;
    }

    /// <summary>Serves it on a port of this machine, for a browser, and waits until it is ready.</summary>
    /// <returns>A visitor who has not signed in.</returns>
    public async Task<Visitor> Served()
    {
        UseKestrel(0);
        StartServer();
        var visitor = new Visitor(new HttpClient { BaseAddress = ClientOptions.BaseAddress });
        await Ready(visitor.Http);
        return visitor;
    }

    /// <summary>Somebody who has an account already, signed in.</summary>
    public async Task<Visitor> SignedIn(string name = "ann") => await (await Visit()).SignedIn(name);

    /// <summary>Another account, made by the curator and signed in.</summary>
    public async Task<Visitor> Another(Visitor curator, string name)
    {
        await curator.Ok(
            "POST",
            "/api/accounts",
            new
            {
                name,
                displayName = name,
                password = Password,
            }
        );
        return await SignedIn(name);
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing && !handedOn)
            Remove(Data);
    }

    /// <summary>Removes a folder into which a service that is just ending may still write.</summary>
    internal static void Remove(string folder)
    {
        for (var tries = 0; Directory.Exists(folder); tries++)
        {
            try
            {
                Directory.Delete(folder, recursive: true);
            }
            catch (IOException) when (tries < 50)
            {
                Thread.Sleep(100);
            }
        }
    }
}

/// <summary>Someone who talks to Zendle over HTTP.</summary>
public sealed class Visitor(HttpClient http)
{
    public HttpClient Http => http;

    /// <summary>Signs in with the password that all accounts of tests have.</summary>
    public async Task<Visitor> SignedIn(string name = "ann")
    {
        await Ok("POST", "/api/sign-in", new { name, password = ZendleHost.Password });
        return this;
    }

    /// <summary>Sends a request with the token that changes need.</summary>
    public async Task<(int Status, JsonNode? Body)> Send(string method, string path, object? body = null)
    {
        using var request = new HttpRequestMessage(new(method), path);
        if (method != "GET")
            request.Headers.Add(
                "X-Zendle-Token",
                JsonNode.Parse(await http.GetStringAsync("/api/me"))!["requestToken"]!.GetValue<string>()
            );
        if (body is not null)
            request.Content = System.Net.Http.Json.JsonContent.Create(body);
        using var reply = await http.SendAsync(request);
        var text = await reply.Content.ReadAsStringAsync();
        return (
            (int)reply.StatusCode,
            text.Length > 0
            && reply.Content.Headers.ContentType?.MediaType?.Contains("json", StringComparison.Ordinal) == true
                ? JsonNode.Parse(text)
                : null
        );
    }

    /// <summary>Sends a request that must succeed.</summary>
    public async Task<JsonNode> Ok(string method, string path, object? body = null)
    {
        var (status, reply) = await Send(method, path, body);
        if (status is < 200 or >= 300)
            throw new InvalidOperationException($"{method} {path} gave {status}: {reply?.ToJsonString()}");
        return reply ?? new JsonObject();
    }

    public Task<JsonNode> Get(string path) => Ok("GET", path);

    /// <summary>Makes a review and gives its id.</summary>
    public async Task<int> Review(string title = "Lamps and moths") =>
        (await Ok("POST", "/api/reviews", new { title, question = "Do they?" })).Int("id");

    /// <summary>Takes a step and gives its id.</summary>
    public async Task<int> Step(int review, int parent, object act) =>
        (await Ok("POST", $"/api/reviews/{review}/steps", new { parentId = parent, act })).Int("stepId");

    /// <summary>Takes a search step from nothing.</summary>
    public Task<int> Search(int review, string expression) => Step(review, 0, new { kind = "Search", expression });

    public async Task<int> Count(int review, int step) =>
        (await Get($"/api/reviews/{review}/steps/{step}")).Int("count");

    /// <summary>Ids of the works of a step's list, in order.</summary>
    public async Task<int[]> Works(int review, int step, string query = "limit=200") =>
        [
            .. (await Get($"/api/reviews/{review}/steps/{step}/works?{query}"))["works"]!
                .AsArray()
                .Select(w => w!.Int("id")),
        ];

    /// <summary>Follows a trail from works; its step.</summary>
    public Task<int> Follow(int review, string way, params int[] seeds) =>
        Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds,
                way,
            }
        );

    /// <summary>Decides on works.</summary>
    public Task<JsonNode> Decide(int review, string act, int[] works, string? value = null) =>
        Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act,
                works,
                value,
            }
        );

    /// <summary>Every work of a step, page by page.</summary>
    public async Task<HashSet<int>> AllWorks(int review, int step, string more = "")
    {
        var found = new HashSet<int>();
        for (int offset = 0, total = 1; offset < total; offset += 200)
        {
            var page = await Get($"/api/reviews/{review}/steps/{step}/works?limit=200&offset={offset}{more}");
            total = page.Int("total");
            found.UnionWith(page.List("works").Select(w => w.Int("id")));
        }
        return found;
    }

    /// <summary>Harvests two databases of the outside: farnet, and meridian as the trusted one.</summary>
    public async Task HarvestTwo(OutsideHost outside)
    {
        await Harvest(outside.Oai("farnet"));
        await Harvest(outside.Oai("meridian"), trusted: true);
    }

    /// <summary>Adds a database and waits for its harvest to end; gives the database as it is listed.</summary>
    /// <param name="address">Where it answers.</param>
    /// <param name="trusted">Whether it is believed before the others.</param>
    /// <param name="format">The format, where it is offered; null leaves the choice to Zendle.</param>
    public async Task<JsonNode> Harvest(string address, bool trusted = false, string? format = "mods")
    {
        var job = await Ok(
            "POST",
            "/api/databases",
            new
            {
                address,
                format,
                set = (string?)null,
                trusted,
            }
        );
        return await Ended(job.Int("subject"));
    }

    /// <summary>Waits until a database's last job has ended.</summary>
    public async Task<JsonNode> Ended(int database)
    {
        for (var i = 0; i < 3_600; i++)
        {
            var listed = (await Get("/api/databases"))["databases"]!.AsArray().First(d => d!.Int("id") == database)!;
            if (listed["job"]!["endedAt"] is not null)
                return listed;
            await Task.Delay(50);
        }
        throw new TimeoutException("The harvest did not end in three minutes.");
    }
}

public static class JsonReading
{
    public static int Int(this JsonNode node, string name) => node[name]!.GetValue<int>();

    public static string Text(this JsonNode node, string name) => node[name]!.GetValue<string>();

    public static IEnumerable<JsonNode> List(this JsonNode node, string name) => node[name]!.AsArray().Select(n => n!);
}
