using System.Globalization;
using System.Text.Json.Nodes;
using Zendle.Bench.Soak;
using Zendle.Core.Text;
using Zendle.Documents;
using Zendle.Documents.Pdf;
using Zendle.Outside.Documents;
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
        using var person = await Gatherer.SignedIn(server.Address);
        await person.UsesLibrary("XA-QUI1", "reader", "reading lamp 7");
        var scenario = Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
        var works = Companions.With(WorldMaker.Make(scenario, at.Seed, at.Size), at.Seed, at.Noise);
        var lawful = new LawfulTexts(files, works, scenario, await Gatherer.Copies(server.Outside));
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
                $"  got {count.Got} ({Share(count.Got, count.Exist)}), left to a person {count.Doubtful}, "
                    + $"not got {count.Exist - count.Got - count.Doubtful}; "
                    + $"documents accepted {count.Accepted}, wrong ones {count.Wrong}; "
                    + $"right ones met {count.Met}, refused {count.Refused} ({Share(count.Refused, count.Met)}); "
                    + $"versions right {count.Versions} of {count.Right} ({Share(count.Versions, count.Right)}); "
                    + $"chapters right {count.ChaptersRight} of {count.ChaptersExist} ({Share(count.ChaptersRight, count.ChaptersExist)})"
            )
        );
    }

    private static string Share(int part, int of) =>
        of == 0 ? "none" : (100.0 * part / of).ToString("0.0", CultureInfo.InvariantCulture) + " %";

    /// <summary>Works drawn from all that the databases describe, some of them chapters, with what is true of each.</summary>
    private static async Task<List<Sample>> Chosen(
        Gatherer person,
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
                    [.. Copies(detail), .. await BookCopies(person, review, id, detail)],
                    detail["doi"]?.GetValue<string>()
                )
            );
        }
        return chosen;
    }

    private static IEnumerable<string> Copies(JsonNode detail) =>
        detail["copies"]!.AsArray().Select(c => new Uri(c!["address"]!.GetValue<string>()).AbsolutePath);

    /// <summary>The copies that records of a chapter's book name; none for other works, and where no record is of the book.</summary>
    private static async Task<IEnumerable<string>> BookCopies(Gatherer person, int review, int id, JsonNode detail)
    {
        if (
            detail["type"]?.GetValue<string>() != "chapter"
            || await person.Find($"/api/reviews/{review}/works/{id}/book") is not { } of
            || of["workId"]?.GetValue<int>() is not { } book
        )
            return [];
        return Copies(await person.Get($"/api/reviews/{review}/works/{book}"));
    }

    private sealed class Count
    {
        public int Right => Accepted - Wrong;

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
        Gatherer person,
        int review,
        Sample one,
        JsonNode row,
        LawfulTexts lawful,
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
        if (LawfulTexts.Versions(one.Truth, from).Contains(version))
            count.Versions++;
        else
            Note($"version {version ?? "unknown"}: {from}");

        void Note(string what)
        {
            var tried = row["attempts"]!
                .AsArray()
                .Select(a =>
                    $"{a!["outcome"]} {new Uri(a["address"]!.GetValue<string>()).AbsolutePath} {a["sentence"]}"
                );
            examples?.WriteLine(
                $"    {one.Truth.Type} {one.Truth.Id} “{one.Truth.Title}”: {what} [{string.Join("; ", tried)}]"
            );
        }
    }

    /// <summary>
    /// Whether a stored document holds the chapter, all of it and nothing of its neighbours: its words against those printed.
    /// </summary>
    private static async Task<bool> IsChapter(Gatherer person, int review, JsonNode text, Paper printed)
    {
        var bytes = await person.Bytes($"/api/reviews/{review}/texts/{text["id"]}/file");
        var (own, of) = (WordsOf(bytes), WordsOf(PaperPrinter.Print(printed)));
        var shared = own.Intersect(of).Count();
        // Running heads and covers differ by some words.
        return shared >= 0.97 * of.Count && shared >= 0.9 * own.Count;
    }

    private static HashSet<string> WordsOf(byte[] pdf) =>
        [.. PdfText.Read(pdf, DocumentLimits.Usual).Text.SelectMany(p => Words.AsWritten(p.Text))];
}
