using System.Globalization;
using Zendle.Core.Merging;
using Zendle.Outside.Files;

namespace Zendle.Bench.Measure;

/// <summary>
/// <c>measure [--world DIR] [--seed N] [--works M] [--noise K] [--examples] [--fit FILE]</c>: harvests a world and
/// prints what came out against its truth. <c>--merging</c> measures only whether records are joined right,
/// <c>--people</c> only whether people are told apart,
/// <c>--documents</c> only whether documents are told apart, <c>--fields</c> only how much of bare records is read
/// right, <c>--spelling</c> only how misspelt lines are mended, <c>--offers</c> only what offered terms bring,
/// <c>--references</c> only whether pasted references are found and split, <c>--texts</c> only whether the lists of papers
/// are read out of them,
/// <c>--gather</c> only how many of the lawful texts are got, and whether they are the right ones (<c>--sample</c> works, 600),
/// <c>--maps</c> only whether topics of a map are subtopics,
/// <c>--senses</c> only whether groups of one sense are those of one field. Without a world one is written from the
/// seed. <c>--fit</c>
/// estimates the weights of merging on that world and writes them to a file; <c>--fit-people</c> those of people on
/// worlds of seeds 1 and 2.
/// </summary>
internal static class MeasureCommand
{
    public static async Task<int> Run(string[] args)
    {
        string? Option(string name) =>
            Array.IndexOf(args, name) is >= 0 and var at && at + 1 < args.Length ? args[at + 1] : null;
        var temporary = Directory.CreateTempSubdirectory("zendle-measure-").FullName;
        try
        {
            var seed = ulong.Parse(Option("--seed") ?? "1", CultureInfo.InvariantCulture);
            if (args.Contains("--fields"))
            {
                FieldMeasure.Print(seed, Console.Out, args.Contains("--examples"));
                return 0;
            }
            if (args.Contains("--documents"))
            {
                DocumentMeasure.Print(seed, Console.Out, args.Contains("--examples"));
                return 0;
            }
            if (args.Contains("--fit-people"))
            {
                var worlds = new List<PeopleMeasure.Labelled>();
                foreach (var (number, slips) in new[] { (1UL, 1.0), (2UL, 2.0) })
                {
                    var made = Path.Combine(temporary, $"world{number}");
                    WorldFolder.Write(made, number, 12_000, slips, TextWriter.Null);
                    var files = new WorldFiles(made);
                    await using var one = await Harvested.From(files, Path.Combine(temporary, $"corpus{number}"));
                    worlds.Add(PeopleMeasure.Label(await one.Entries(), files));
                }
                PeopleFit.Print(worlds, Console.Out);
                return 0;
            }
            var size = int.Parse(Option("--works") ?? "12000", CultureInfo.InvariantCulture);
            var noise = double.Parse(Option("--noise") ?? "1", CultureInfo.InvariantCulture);
            var folder = Option("--world");
            if (folder is null)
            {
                folder = Path.Combine(temporary, "world");
                WorldFolder.Write(folder, seed, size, noise, TextWriter.Null);
            }
            if (!Directory.Exists(Path.Combine(folder, "truth")))
            {
                await Console.Error.WriteLineAsync(
                    $"{folder} is not a world: it has no truth. Write one with ./zendle world --out DIR."
                );
                return 1;
            }
            var world = new WorldFiles(folder);
            if (args.Contains("--gather"))
            {
                await GatherMeasure.Print(
                    world,
                    new(seed, size, noise),
                    int.Parse(Option("--sample") ?? "600", CultureInfo.InvariantCulture),
                    Path.Combine(temporary, "data"),
                    Path.GetFullPath(Option("--binaries") ?? Path.Combine(AppContext.BaseDirectory, "../../../app")),
                    Console.Out,
                    args.Contains("--examples")
                );
                return 0;
            }
            var began = TimeProvider.System.GetTimestamp();
            await using var harvested = await Harvested.From(world, Path.Combine(temporary, "corpus"));
            var seconds = TimeProvider.System.GetElapsedTime(began).TotalSeconds;
            if (
                args.Contains("--spelling")
                || args.Contains("--offers")
                || args.Contains("--senses")
                || args.Contains("--references")
                || args.Contains("--trails")
                || args.Contains("--maps")
            )
            {
                using var corpus = await IndexedCorpus.Of(harvested, Path.Combine(temporary, "corpus"));
                var (snapshot, examples) = (corpus.Snapshot, args.Contains("--examples"));
                if (args.Contains("--spelling"))
                    SpellingMeasure.Print(snapshot, (int)seed, Console.Out, examples);
                if (args.Contains("--offers"))
                    OfferMeasure.Print(snapshot, await harvested.Entries(), world, Console.Out, examples);
                if (args.Contains("--references"))
                    await PastedMeasure.Print(snapshot, harvested.Reader, (int)seed, Console.Out, examples);
                if (args.Contains("--trails"))
                    TrailMeasure.Print(snapshot, await harvested.Entries(), world, Console.Out, examples);
                if (args.Contains("--maps"))
                    MapMeasure.Print(snapshot, await harvested.Entries(), world, Console.Out);
                if (args.Contains("--senses"))
                    SenseMeasure.Print(snapshot, await harvested.Entries(), world, Console.Out, examples);
                return 0;
            }
            var entries = await harvested.Entries();
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{entries.Count:N0} records harvested and merged in {seconds:0.0} s "
                        + $"({entries.Count / seconds:N0} a second) into "
                        + $"{entries.Select(e => e.WorkId).Distinct().Count():N0} works"
                )
            );
            var truth = world.Records();
            if (Option("--fit") is { } file)
            {
                await File.WriteAllTextAsync(file, WeightFit.Of([.. LabelledPairs(entries, truth)]).Write() + "\n");
                Console.WriteLine($"weights written to {file}");
            }
            if (args.Contains("--people"))
            {
                PeopleMeasure.Print(PeopleMeasure.Label(entries, world), Console.Out, args.Contains("--examples"));
                return 0;
            }
            if (args.Contains("--texts"))
            {
                var scenario = Outside.World.Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
                var works = Outside.World.Companions.With(
                    Outside.World.WorldMaker.Make(scenario, seed, size),
                    seed,
                    noise
                );
                TextReferenceMeasure.Print(entries, truth, works, scenario, Console.Out, args.Contains("--examples"));
                return 0;
            }
            MergeMeasure.Print(entries, truth, Console.Out);
            MergeMeasure.Companions(entries, truth, world, Console.Out);
            if (args.Contains("--merging"))
            {
                if (args.Contains("--examples"))
                    MergeMeasure.Examples(entries, truth, Console.Out);
                return 0;
            }
            ReferenceMeasure.Print(entries, truth, world, Console.Out, args.Contains("--examples") ? 60 : 0);
            PeopleMeasure.Print(PeopleMeasure.Label(entries, world), Console.Out);
            VenueMeasure.Print(entries, world, Console.Out);
            if (Option("--world") is null)
            {
                DocumentMeasure.Print(seed, Console.Out, args.Contains("--examples"));
                FieldMeasure.Print(seed, Console.Out, args.Contains("--examples"));
            }
            if (args.Contains("--examples"))
                MergeMeasure.Examples(entries, truth, Console.Out);
            return 0;
        }
        finally
        {
            Directory.Delete(temporary, recursive: true);
        }
    }

    /// <summary>Pairs that share a key, compared, with the truth.</summary>
    private static IEnumerable<(Comparison, bool)> LabelledPairs(
        List<HarvestedEntry> entries,
        Dictionary<RecordAt, (int Work, string Version)> truth
    )
    {
        var facts = entries
            .Select(e => (Facts: MergeFacts.Of(e.Id, e.DatabaseId, e.Record), truth[e.At].Work))
            .ToArray();
        var seen = new HashSet<(int, int)>();
        foreach (
            var bucket in facts
                .SelectMany((f, i) => f.Facts.Blocking.Select(k => (Key: k, Index: i)))
                .GroupBy(k => k.Key, k => k.Index)
        )
        {
            var indexes = bucket.ToArray();
            if (indexes.Length > 48)
                continue;
            for (var i = 0; i < indexes.Length; i++)
            for (var j = i + 1; j < indexes.Length; j++)
            {
                var (a, b) = (facts[indexes[i]], facts[indexes[j]]);
                if (!seen.Add((indexes[i], indexes[j])))
                    continue;
                yield return (Comparison.Of(a.Facts, b.Facts), a.Work == b.Work);
            }
        }
    }
}
