using System.Diagnostics;
using System.Text.Json.Nodes;

namespace Zendle.Bench.Soak;

/// <summary>How long one request took.</summary>
/// <param name="Kind">What was asked.</param>
/// <param name="Took">From sending it until the last byte of the answer.</param>
internal readonly record struct Timing(string Kind, TimeSpan Took);

/// <summary>
/// Somebody at work in a review of their own: asks, looks through the list, narrows, follows trails, decides, cites,
/// exports. What they ask is drawn from what the answers offer, so that hardly any two questions are the same.
/// </summary>
internal sealed class SoakPerson : IDisposable
{
    private static readonly string[] Words =
    [
        "moth*",
        "light*",
        "night",
        "pollinat*",
        "lamp*",
        "insect*",
        "garden*",
        "street",
        "LED",
        "bat*",
        "flower*",
        "hedge*",
        "soil",
        "river*",
        "survey",
        "abundance",
        "visits",
        "diversity",
        "urban",
        "dark*",
        "trap*",
        "seed*",
    ];
    private static readonly string[] Facets =
    [
        "Year",
        "Type",
        "Language",
        "Venue",
        "Subject",
        "Person",
        "Database",
        "Affiliation",
        "Country",
        "Funder",
        "Quartile",
        "OpenAccess",
        "Keyword",
        "Text",
        "Stage",
        "Tag",
    ];
    private static readonly string[] Sorts =
    [
        "Relevance",
        "Newest",
        "Oldest",
        "Cited",
        "CitedPerYear",
        "Title",
        "Person",
        "Venue",
    ];
    private static readonly string[] Formats = ["csv", "ris", "bibtex", "csl-json"];

    private readonly Session session;
    private readonly Random random;
    private readonly int review;
    private readonly Action<Timing> told;
    private int step;
    private int[] works = [];

    private SoakPerson(Session session, Random random, int review, Action<Timing> told) =>
        (this.session, this.random, this.review, this.told) = (session, random, review, told);

    /// <summary>Signs somebody in and begins a review.</summary>
    /// <param name="address">Where Zendle answers.</param>
    /// <param name="name">Name of the account.</param>
    /// <param name="password">Its password.</param>
    /// <param name="seed">What they do follows from it.</param>
    /// <param name="told">Is told of each request.</param>
    public static async Task<SoakPerson> SignIn(
        Uri address,
        string name,
        string password,
        int seed,
        Action<Timing> told
    )
    {
        var session = new Session(address);
        await session.SignIn(name, password);
        var review = await session.Ok(
            HttpMethod.Post,
            "/api/reviews",
            new { title = $"Soak {name} {seed}", question = "" }
        );
        return new(session, new(seed), review["id"]!.GetValue<int>(), told);
    }

    /// <summary>Makes an account; for curators.</summary>
    public Task Invite(string name, string password) =>
        session.Send(
            HttpMethod.Post,
            "/api/accounts",
            new
            {
                name,
                displayName = name,
                password,
            }
        );

    /// <summary>Works until told to stop.</summary>
    /// <param name="pause">Mean pause between two acts.</param>
    /// <param name="until">Ends it.</param>
    public async Task Work(TimeSpan pause, CancellationToken until)
    {
        await Search();
        while (!until.IsCancellationRequested)
        {
            await Act();
            if (pause > TimeSpan.Zero)
                await Task.Delay(2 * pause * random.NextDouble(), CancellationToken.None);
        }
    }

    private Task Act() =>
        random.Next(24) switch
        {
            < 4 => Search(),
            < 6 => Read(),
            < 9 => Leaf(),
            < 12 => Narrow(),
            < 14 => Follow(),
            < 17 => LookAtWork(),
            < 20 => Decide(),
            20 => Get("log", "log"),
            21 => Get("paths", "paths"),
            22 => Cite(),
            _ => Export(),
        };

    private string Line()
    {
        string Any() => Words[random.Next(Words.Length)];
        return random.Next(5) switch
        {
            0 => Any(),
            1 => $"{Any()} AND {Any()}",
            2 => $"({Any()} OR {Any()}) AND ({Any()} OR {Any()})",
            3 => $"{Any()} NEAR/{random.Next(2, 9)} {Any()}",
            _ => $"title:{Any()} NOT {Any()}",
        };
    }

    private async Task Search()
    {
        await Step("search", 0, new { kind = "Search", expression = Line() });
        await Leaf();
    }

    private async Task Step(string kind, int parent, object act)
    {
        if (await Post(kind, "steps", new { parentId = parent, act }) is { } taken)
            step = taken["stepId"]!.GetValue<int>();
        await Get("view", $"steps/{step}");
    }

    private async Task Read()
    {
        var text = Line();
        await Post("reading", "reading", new { text, stepId = step });
        await Post(
            "complete",
            "reading/complete",
            new
            {
                text,
                caret = text.Length,
                stepId = step,
            }
        );
        await Post("missed", "reading/missed", new { text, stepId = step });
    }

    private async Task Leaf()
    {
        var sort = Sorts[random.Next(Sorts.Length)];
        var page = await Get("list", $"steps/{step}/works?sort={sort}&offset={50 * random.Next(3)}&limit=50");
        if (page?["works"]?.AsArray() is { Count: > 0 } rows)
            works = [.. rows.Select(r => r!["id"]!.GetValue<int>())];
    }

    private async Task Narrow()
    {
        var facet = Facets[random.Next(Facets.Length)];
        var values = (await Get("facet", $"steps/{step}/facets/{facet}"))?["shown"]?.AsArray();
        if (values is not { Count: > 0 })
            return;
        var value = values[random.Next(Math.Min(8, values.Count))]!["value"]!.GetValue<string>();
        await Step(
            "narrow",
            step,
            facet == "Year" && int.TryParse(value, out var year)
                ? new
                {
                    kind = "Years",
                    from = year - 5,
                    to = year + 5,
                }
                : new
                {
                    kind = "Narrow",
                    facet,
                    values = new[] { value },
                }
        );
        await Leaf();
    }

    private async Task Follow()
    {
        if (works.Length == 0)
            return;
        var seeds = works.OrderBy(_ => random.Next()).Take(random.Next(1, 8)).ToArray();
        await Step(
            "trail",
            0,
            new
            {
                kind = "Trail",
                seeds,
                way = random.Next(2) == 0 ? "Backward" : "Forward",
            }
        );
        await Get("trail of view", $"steps/{step}/trail");
        await Leaf();
    }

    private async Task LookAtWork()
    {
        if (works.Length == 0)
            return;
        var work = works[random.Next(works.Length)];
        await Get("work", $"works/{work}?stepId={step}");
        await Get("score", $"works/{work}/score?stepId={step}");
        await Get("references", $"works/{work}/references");
    }

    private async Task Decide()
    {
        if (works.Length == 0)
            return;
        int[] some = [works[random.Next(works.Length)]];
        await (
            random.Next(6) switch
            {
                0 => Post(
                    "decide",
                    "decisions",
                    new
                    {
                        act = "SetAside",
                        works = some,
                        value = "off topic",
                    }
                ),
                1 => Post(
                    "decide",
                    "decisions",
                    new
                    {
                        act = "Tag",
                        works = some,
                        value = $"tag {random.Next(9)}",
                    }
                ),
                2 => Post("undo", "undo", new { }),
                _ => Post("decide", "decisions", new { act = "Keep", works = some }),
            }
        );
    }

    private async Task Cite()
    {
        if (works.Length > 0)
            await Post("cite", "cite", new { works = works.Take(10).ToArray() });
    }

    private Task Export() =>
        Get("export", $"export?format={Formats[random.Next(Formats.Length)]}&stepId={step}&set=step");

    private Task<JsonNode?> Get(string kind, string path) => Timed(kind, HttpMethod.Get, path, null);

    private Task<JsonNode?> Post(string kind, string path, object body) => Timed(kind, HttpMethod.Post, path, body);

    private async Task<JsonNode?> Timed(string kind, HttpMethod method, string path, object? body)
    {
        var watch = Stopwatch.StartNew();
        var (status, node) = await session.Send(method, $"/api/reviews/{review}/{path}", body);
        told(new(kind, watch.Elapsed));
        if (status >= 500)
            Console.WriteLine($"  {method} {path} gave {status}");
        return status < 300 ? node : null;
    }

    public void Dispose() => session.Dispose();
}
