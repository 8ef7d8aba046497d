using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Zendle.Bench.Soak;
using Zendle.Core.Text;
using Zendle.Documents;
using Zendle.Documents.Pdf;
using Zendle.Outside.Documents;
using Zendle.Outside.Libraries;
using Zendle.Outside.Pages;
using Zendle.Outside.World;

namespace Zendle.Bench.Measure;

/// <summary>A world of the outside.</summary>
internal readonly record struct WorldAt(ulong Seed, int Size, double Noise);

/// <summary>
/// Works of a world whose texts Zendle seeks, as it ships and through its own door: how many of the texts that may lawfully be had
/// it gets, whether they are the right ones, of the right version, and chapters those pages that are the chapter's. What is
/// true is told by the world, not by Zendle.
/// </summary>
internal static class GatherMeasure
{
    /// <summary>What lies behind a copy that gives the work's own text to anyone, and to whom a library opens it.</summary>
    private static readonly string[] Gives = ["fine", "wait", "page", "jats", "epub"],
        GivesThroughLibrary = [.. Gives, "html", "sign-in"];

    private const int Chapters = 60;

    private sealed record Sample(int Id, Work Truth, string[] Copies, string? Doi);

    /// <summary>Gathers and counts.</summary>
    /// <param name="files">The world's truth.</param>
    /// <param name="at">The world.</param>
    /// <param name="sample">How many works.</param>
    /// <param name="folder">An empty folder.</param>
    /// <param name="binaries">The built projects.</param>
    /// <param name="to">Takes the counts.</param>
    /// <param name="examples">Whether to name what went wrong.</param>
    public static async Task Print(
        WorldFiles files,
        WorldAt at,
        int sample,
        string folder,
        string binaries,
        TextWriter to,
        bool examples
    )
    {
        Directory.CreateDirectory(folder);
        using var server = await SoakedServer.Start(
            folder,
            binaries,
            5694,
            "--seed",
            at.Seed.ToString(CultureInfo.InvariantCulture),
            "--works",
            at.Size.ToString(CultureInfo.InvariantCulture),
            "--noise",
            at.Noise.ToString(CultureInfo.InvariantCulture)
        );
        using var person = await Person.SignedIn(server.Address);
        await person.UsesLibrary("XA-QUI1", "reader", "reading lamp 7");
        var scenario = Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
        var works = Companions.With(WorldMaker.Make(scenario, at.Seed, at.Size), at.Seed, at.Noise);
        var lawful = new Lawful(files, works, scenario, await person.Copies(server.Outside));
        var review = await person.Review();
        var chosen = await Chosen(person, review, files, works, sample, (int)at.Seed);
        var gathered = await person.Gathered(review, [.. chosen.Select(c => c.Id)]);
        var count = new Count();
        foreach (var one in chosen)
            await Judge(person, review, one, gathered[one.Id], lawful, works, scenario, count, examples ? to : null);
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"gathering, seed {at.Seed}, noise {at.Noise}: {chosen.Count} works, {count.Exist} with a text that may lawfully be had"
            )
        );
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  got {count.Got} ({Share(count.Got, count.Exist)}), left to a person {count.Doubtful}, not got {count.Exist - count.Got - count.Doubtful}; "
                    + $"documents accepted {count.Accepted}, wrong ones {count.Wrong}; right ones met {count.Met}, refused {count.Refused} ({Share(count.Refused, count.Met)}); "
                    + $"versions right {count.Versions} of {count.Accepted - count.Wrong} ({Share(count.Versions, count.Accepted - count.Wrong)}); "
                    + $"chapters right {count.ChaptersRight} of {count.ChaptersExist} ({Share(count.ChaptersRight, count.ChaptersExist)})"
            )
        );
    }

    private static string Share(int part, int of) =>
        of == 0 ? "none" : (100.0 * part / of).ToString("0.0", CultureInfo.InvariantCulture) + " %";

    /// <summary>Works drawn from all that the databases describe, some of them chapters, with what is true of each.</summary>
    private static async Task<List<Sample>> Chosen(
        Person person,
        int review,
        WorldFiles files,
        IReadOnlyList<Work> works,
        int sample,
        int seed
    )
    {
        var truth = files.Records();
        var keys = await person.DatabaseKeys();
        var random = new Random(seed);
        var all = await person.Works(review, null);
        random.Shuffle(all);
        var chapters = await person.Works(review, "type:chapter");
        random.Shuffle(chapters);
        var chosen = new List<Sample>();
        foreach (var id in chapters.Take(Chapters).Concat(all).Distinct())
        {
            if (chosen.Count == sample)
                break;
            var detail = await person.Get($"/api/reviews/{review}/works/{id}");
            // Records that were wrongly joined are another measure's: here a work is what most of its records describe.
            var described = detail["records"]!
                .AsArray()
                .Select(r =>
                    truth.TryGetValue(
                        new(keys[r!["database"]!.GetValue<string>()], r["identifier"]!.GetValue<string>()),
                        out var w
                    )
                        ? w.Work
                        : -1
                )
                .Where(w => w >= 0)
                .ToArray();
            if (described.Length == 0 || described.Distinct().Count() > 1)
                continue;
            chosen.Add(
                new(
                    id,
                    works[described[0]],
                    [
                        .. detail["copies"]!
                            .AsArray()
                            .Select(c => new Uri(c!["address"]!.GetValue<string>()).AbsolutePath),
                    ],
                    detail["doi"]?.GetValue<string>()
                )
            );
        }
        return chosen;
    }

    private sealed class Count
    {
        public int Exist,
            Got,
            Doubtful,
            Accepted,
            Wrong,
            Met,
            Refused,
            Versions,
            ChaptersExist,
            ChaptersRight;
    }

    private static async Task Judge(
        Person person,
        int review,
        Sample one,
        JsonNode row,
        Lawful lawful,
        IReadOnlyList<Work> works,
        Scenario scenario,
        Count count,
        TextWriter? examples
    )
    {
        var exists = lawful.Had(one.Truth, one.Copies, one.Doi);
        var text = row["texts"]!.AsArray().FirstOrDefault(t => t!["verdict"]!.GetValue<string>() == "Verified");
        var state = row["state"]!.GetValue<string>();
        if (exists)
        {
            count.Exist++;
            count.ChaptersExist += one.Truth.Book is null ? 0 : 1;
            if (text is not null)
                count.Got++;
            else if (state == "ToLookAt")
                count.Doubtful++;
            if (text is null)
                Note($"{state}, though it can be had at {string.Join(", ", one.Copies)}");
        }
        foreach (var attempt in row["attempts"]!.AsArray())
        {
            if (!lawful.IsRight(one.Truth, new Uri(attempt!["address"]!.GetValue<string>()).AbsolutePath))
                continue;
            var outcome = attempt["outcome"]!.GetValue<string>();
            if (outcome is "Got" or "Doubtful" or "AnotherWork")
                count.Met++;
            if (outcome == "AnotherWork")
            {
                count.Refused++;
                Note("its own text was refused");
            }
        }
        if (text is null)
            return;
        count.Accepted++;
        var from = new Uri(text["source"]!.GetValue<string>()).AbsolutePath;
        var isRight = lawful.IsRight(one.Truth, from);
        if (one.Truth.Book is not null)
        {
            isRight = await IsChapter(person, review, text, Paper.Of(one.Truth, works, scenario, Look.Typeset));
            count.ChaptersRight += isRight && exists ? 1 : 0;
        }
        if (!isRight)
        {
            count.Wrong++;
            Note($"wrong: {from}");
            return;
        }
        var version = text["version"]?.GetValue<string>();
        if (Lawful.Versions(one.Truth, from).Contains(version))
            count.Versions++;
        else
            Note($"version {version ?? "unknown"}: {from}");

        void Note(string what) =>
            examples?.WriteLine(
                $"    {one.Truth.Type} {one.Truth.Id} \u201C{one.Truth.Title}\u201D: {what} [{string.Join("; ", row["attempts"]!.AsArray().Select(a => $"{a!["outcome"]} {new Uri(a["address"]!.GetValue<string>()).AbsolutePath} {a["sentence"]}"))}]"
            );
    }

    /// <summary>Whether a stored document holds the chapter, all of it and nothing of its neighbours: its words against those printed.</summary>
    private static async Task<bool> IsChapter(Person person, int review, JsonNode text, Paper printed)
    {
        var bytes = await person.Bytes($"/api/reviews/{review}/texts/{text["id"]}/file");
        var (own, of) = (WordsOf(bytes), WordsOf(PaperPrinter.Print(printed)));
        var shared = own.Intersect(of).Count();
        // Running heads and covers differ by some words.
        return shared >= 0.97 * of.Count && shared >= 0.9 * own.Count;
    }

    private static HashSet<string> WordsOf(byte[] pdf) =>
        [.. PdfText.Read(pdf, DocumentLimits.Usual).Text.SelectMany(p => Words.AsWritten(p.Text))];

    /// <summary>What is true of the texts of a world.</summary>
    private sealed class Lawful(
        WorldFiles files,
        IReadOnlyList<Work> works,
        Scenario scenario,
        IReadOnlyDictionary<string, string> live
    )
    {
        private readonly Dictionary<string, (int Work, string Kind)> copies = files
            .Truth("copies.csv")
            .ToDictionary(r => r[0], r => (int.Parse(r[1], CultureInfo.InvariantCulture), live[r[0]]));
        private readonly IReadOnlyList<Subscription> held = Subscription.Of(OutsideLibrary.All[0], works, scenario);
        private readonly Dictionary<string, string> byDoi = files
            .Truth("copies.csv")
            .Select(r => (Path: r[0], Work: works[int.Parse(r[1], CultureInfo.InvariantCulture)], Version: r[2]))
            .Select(r => (r.Path, Doi: r.Version == "preprint" ? r.Work.PreprintDoi : r.Work.Doi, r.Version))
            .Where(r => r.Doi is not null && r.Version != "manuscript")
            .GroupBy(r => r.Doi!, StringComparer.OrdinalIgnoreCase)
            .ToDictionary(g => g.Key, g => g.First().Path, StringComparer.OrdinalIgnoreCase);

        /// <summary>Whether the text of a work lies, for a reader of the library, at an address that its records or its DOI tell.</summary>
        public bool Had(Work work, IReadOnlyCollection<string> told, string? doi) =>
            told.Concat(doi is not null && byDoi.TryGetValue(doi, out var path) ? [path] : []).Any(p => Gives(work, p));

        private bool Gives(Work work, string path)
        {
            if (path.StartsWith("/books/", StringComparison.Ordinal))
                return work.Book is not null || IsWhole(work, path + "/book.pdf");
            if (Of(path) is not { } copy || copy.Work != work.Id)
                return false;
            var isSold = path.StartsWith("/publisher/", StringComparison.Ordinal) && work.Journal is { Open: false };
            return isSold
                ? IsHeld(work) && GivesThroughLibrary.Contains(copy.Kind)
                : GatherMeasure.Gives.Contains(copy.Kind);
        }

        /// <summary>
        /// What lies at an address. What has no journal lies in the repository, which the truth lists only for manuscripts of
        /// journals.
        /// </summary>
        private (int Work, string Kind)? Of(string path)
        {
            if (copies.TryGetValue(path, out var copy))
                return copy;
            return
                path.StartsWith("/harbour/item/", StringComparison.Ordinal)
                && int.TryParse(path["/harbour/item/".Length..], CultureInfo.InvariantCulture, out var id)
                && works[id] is { Journal: null } alone
                ? (id, kinds.Of(path, alone, alone.Type == "preprint" ? Look.Preprint : Look.Typeset))
                : null;
        }

        private readonly CopyKinds kinds = new();

        private bool IsHeld(Work work) => held.Any(s => s.Covers(work, new(2026, 11, 20)));

        /// <summary>Whether an address is that of a whole book in one file; others have chapters alone.</summary>
        private static bool IsWhole(Work work, string path) =>
            work.Type == "book" && BookPlatform.MannerOf(work.Id) == 2 && path == $"/books/{work.Id}/book.pdf";

        /// <summary>Whether what came from an address is the work's own text.</summary>
        public bool IsRight(Work work, string from)
        {
            if (IsWhole(work, from))
                return true;
            if (from.IndexOf("/publisher/", StringComparison.Ordinal) is > 0 and var at)
                from = from[at..];
            foreach (var ending in new[] { "/text.pdf", "/text.html", "/text.xml", "/text.epub" })
                if (from.EndsWith(ending, StringComparison.Ordinal))
                    from = from[..^ending.Length];
            return Of(from) is { } copy && copy.Work == work.Id && GivesThroughLibrary.Contains(copy.Kind);
        }

        /// <summary>The versions that a right document from an address may be called.</summary>
        public static string[] Versions(Work work, string from) =>
            from.Contains("/harbour/preprint/", StringComparison.Ordinal) || work.Type == "preprint"
                ? ["preprint", "submitted manuscript", "author's original", "author’s original"]
            : from.Contains("/harbour/item/", StringComparison.Ordinal) && work.Journal is not null
                ? ["accepted manuscript"]
            : ["version of record"];
    }

    /// <summary>Somebody who talks to Zendle over HTTP.</summary>
    private sealed class Person(HttpClient http) : IDisposable
    {
        private string token = "";
        private static readonly TimeSpan Often = TimeSpan.FromSeconds(1);

        /// <summary>Signs in as whom the demo offers, once it is made.</summary>
        public static async Task<Person> SignedIn(Uri address)
        {
            var http = new HttpClient { BaseAddress = address, Timeout = TimeSpan.FromMinutes(10) };
            while (true)
            {
                var health = JsonNode.Parse(await http.GetStringAsync("/health"))!;
                if (health["doing"] is null)
                    break;
                await Task.Delay(Often);
            }
            var person = new Person(http);
            var me = await person.Get("/api/me");
            person.token = me["requestToken"]!.GetValue<string>();
            await person.Send("POST", "/api/sign-in", me["demo"]!);
            person.token = (await person.Get("/api/me"))["requestToken"]!.GetValue<string>();
            return person;
        }

        public Task<JsonNode> Get(string path) => Send("GET", path, null);

        public Task<byte[]> Bytes(string path) => http.GetByteArrayAsync(path);

        private async Task<JsonNode> Send(string method, string path, object? body)
        {
            using var request = new HttpRequestMessage(new(method), path);
            request.Headers.Add("X-Zendle-Token", token);
            if (body is not null)
                request.Content = JsonContent.Create(body);
            using var reply = await http.SendAsync(request);
            var text = await reply.Content.ReadAsStringAsync();
            return reply.IsSuccessStatusCode
                ? text.Length == 0
                    ? new JsonObject()
                    : JsonNode.Parse(text)!
                : throw new InvalidOperationException($"{method} {path} gave {(int)reply.StatusCode}: {text}");
        }

        public async Task UsesLibrary(string identifier, string name, string password)
        {
            var now = await Send("POST", "/api/libraries/choose", new { identifier });
            var id = now["libraries"]!.AsArray().Single(l => l!["identifier"]!.GetValue<string>() == identifier)![
                "id"
            ]!;
            while ((await Get("/api/libraries"))["libraries"]!.AsArray().Any(l => l!["loadedAt"] is null))
                await Task.Delay(Often);
            await Send("POST", $"/api/libraries/{id}/session", new { name, password });
        }

        public async Task<int> Review() =>
            (await Send("POST", "/api/reviews", new { title = "Measured", question = "" }))["id"]!.GetValue<int>();

        /// <summary>What lies behind each copy now: the demo has some things set.</summary>
        public async Task<Dictionary<string, string>> Copies(Uri outside) =>
            JsonNode
                .Parse(await http.GetStringAsync(new Uri(outside, "/copies")))!
                .AsArray()
                .ToDictionary(c => c!["path"]!.GetValue<string>(), c => c!["kind"]!.GetValue<string>());

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
                    await Send(
                        "POST",
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
            await Send("POST", $"/api/reviews/{review}/gather", new { works, again = false });
            while (true)
            {
                var now = await Get($"/api/reviews/{review}/gather");
                if (now["job"]!["endedAt"] is not null)
                    return now["works"]!.AsArray().ToDictionary(w => w!["workId"]!.GetValue<int>(), w => w!);
                await Task.Delay(Often);
            }
        }

        public void Dispose() => http.Dispose();
    }
}
