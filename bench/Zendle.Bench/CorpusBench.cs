using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;
using Zendle.Server;
using Zendle.Server.Corpus;
using Zendle.Store;
using Zendle.Store.Corpus;
using Zendle.Store.Sqlite;

namespace Zendle.Bench;

/// <summary>
/// From files to answers: parse, merge and store; the index from nothing; what a harvest of a thousand records costs
/// until it is seen; memory; a later start.
/// </summary>
internal static class CorpusBench
{
    private const int Harvested = 1_000,
        Asked = 200;

    public static async Task Run(string folder, string cache, int works, int seed)
    {
        var files = new CorpusFiles(cache, works, seed);
        var watch = Stopwatch.StartNew();
        var count = files.Write();
        Console.WriteLine(
            $"{works:N0} works, {count:N0} records, {files.Megabytes:N0} MB of pages in {cache} ({watch.Elapsed.TotalSeconds:N0} s)"
        );

        await using var services = new ServiceCollection().AddZendleStore(folder).BuildServiceProvider();
        await using (var context = services.GetRequiredService<IDbContextFactory<CorpusContext>>().CreateDbContext())
        {
            await Schema.BringUpToDate(context, CancellationToken.None);
            if (!await context.Databases.AnyAsync())
                foreach (var (id, name) in SyntheticCorpus.Databases.OrderBy(d => d.Key))
                    context.Databases.Add(
                        new()
                        {
                            Id = id,
                            Name = name,
                            Address = "http://bench.example/" + name,
                            Format = "mods",
                            Granularity = "YYYY-MM-DD",
                            Trust = id,
                        }
                    );
            await context.SaveChangesAsync();
        }
        var writer = services.GetRequiredService<CorpusWriter>();
        await writer.BringUpToDate(default);
        var stored = Path.Combine(folder, "stored");
        if (!File.Exists(stored))
        {
            await Store(writer, files, count, folder);
            await File.WriteAllTextAsync(stored, "");
        }
        await Index(services, count, folder);
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        // In processes of their own: what is measured is what they hold, not what was left behind here.
        foreach (var verb in new[] { "harvest", "start" })
        {
            using var later = Process.Start(
                new ProcessStartInfo(
                    Environment.ProcessPath!,
                    [typeof(CorpusBench).Assembly.Location, verb, "--store", folder, "--page", files.Pages(1).First()]
                )
            )!;
            await later.WaitForExitAsync();
        }
    }

    private static async Task Store(CorpusWriter writer, CorpusFiles files, int count, string folder)
    {
        var watch = Stopwatch.StartNew();
        var (done, mark) = (0, TimeSpan.Zero);
        // As in the harvest, the next page is read while one is written.
        var all = SyntheticCorpus
            .Databases.Keys.Order()
            .SelectMany(d => files.Pages(d).Select(p => (Database: d, File: p)))
            .ToArray();
        var next = Task.Run(() => PageFile.Read(all[0].Database, all[0].File));
        for (var i = 0; i < all.Length; i++)
        {
            var page = await next;
            if (i + 1 < all.Length)
                next = Task.Run(() => PageFile.Read(all[i + 1].Database, all[i + 1].File));
            var token = i + 1 < all.Length && all[i + 1].Database == all[i].Database ? "more" : null;
            done += (
                await writer.Write(
                    all[i].Database,
                    page.Records,
                    new(token, page.ResponseDate),
                    DateTimeOffset.UnixEpoch,
                    default
                )
            )
                .Changed
                .Count;
            if (done >= count / 2 && mark == TimeSpan.Zero)
                mark = watch.Elapsed;
        }
        var seconds = watch.Elapsed.TotalSeconds;
        Console.WriteLine(
            $"parse + merge + store: {seconds:N0} s, {done / seconds:N0} records/s (second half "
                + $"{(done - count / 2) / (watch.Elapsed - mark).TotalSeconds:N0}/s); "
                + $"{Measures.Megabytes(folder):N0} MB on disk; at most "
                + $"{Process.GetCurrentProcess().PeakWorkingSet64 / 1_000_000:N0} MB of memory"
        );
    }

    private static async Task Index(ServiceProvider services, int count, string folder)
    {
        if (Directory.Exists(Path.Combine(folder, "index")))
            Directory.Delete(Path.Combine(folder, "index"), recursive: true);
        var watch = Stopwatch.StartNew();
        using var corpus = Service(services, new() { Data = folder });
        await corpus.Start(default);
        Console.WriteLine(
            $"index and columns from nothing: {watch.Elapsed.TotalSeconds:N0} s, "
                + $"{count / watch.Elapsed.TotalSeconds:N0} records/s; {Measures.Memory()}"
        );
    }

    /// <summary>
    /// A thousand records come again, several times, each with a title that a kept store has not seen either.
    /// </summary>
    /// <param name="folder">A store with its index.</param>
    /// <param name="page">A file with the records of its first database.</param>
    public static async Task Harvest(string folder, string page)
    {
        await using var services = new ServiceCollection().AddZendleStore(folder).BuildServiceProvider();
        using var corpus = Service(services, new() { Data = folder });
        await corpus.Start(default);
        var writer = services.GetRequiredService<CorpusWriter>();
        var (salt, changed) = (DateTime.UtcNow.Ticks, Path.Combine(folder, "changed.xml"));
        for (var round = 1; round <= 4; round++)
        {
            await File.WriteAllTextAsync(
                changed,
                (await File.ReadAllTextAsync(page)).Replace(
                    "<titleInfo><title>",
                    $"<titleInfo><title>Round{round} {salt} ",
                    StringComparison.Ordinal
                )
            );
            var watch = Stopwatch.StartNew();
            var read = PageFile.Read(1, changed);
            var result = await writer.Write(
                1,
                read.Records,
                new(read.Token, read.ResponseDate),
                DateTimeOffset.UnixEpoch,
                default
            );
            var written = watch.Elapsed;
            corpus.Put(result.Changed);
            await corpus.Refresh(default);
            Console.WriteLine(
                $"{result.Changed.Count:N0} of {Harvested:N0} harvested records changed: written in "
                    + $"{written.TotalSeconds:N1} s, seen after {watch.Elapsed.TotalSeconds:N1} s"
            );
        }
    }

    /// <summary>A later start over a store with its index, and what serving from it holds.</summary>
    public static async Task Start(string folder)
    {
        await using var services = new ServiceCollection().AddZendleStore(folder).BuildServiceProvider();
        var watch = Stopwatch.StartNew();
        using var corpus = Service(services, new() { Data = folder });
        await corpus.Start(default);
        Console.WriteLine($"a later start: {watch.Elapsed.TotalSeconds:N1} s; {Measures.Memory()}");
        var random = new Random(1);
        for (var i = 0; i < Asked; i++)
        {
            using var snapshot = corpus.Snapshot();
            var evaluator = new QuestionEvaluator(snapshot, null);
            var words = Enumerable.Range(0, 4).Select(_ => SyntheticCorpus.Word(random.Next(20, 2_000))).ToArray();
            var root = QueryReader.Read($"({words[0]} OR {words[1]}*) AND ({words[2]} OR {words[3]})").Root!;
            var records = evaluator.Records(root);
            var works = evaluator.Works(records);
            _ = WorkOrder.Sort(
                snapshot,
                works,
                Enum.GetValues<SortOrder>()[i % (int)SortOrder.Ties],
                Concepts.Of(root),
                records,
                2026
            );
            foreach (var facet in Enum.GetValues<Facet>().Where(f => f is not (Facet.Stage or Facet.Tag)))
                _ = snapshot.Columns.Of(facet).Count(works);
        }
        Console.WriteLine($"serving, after {Asked} questions with their pages and fields: {Measures.Memory()}");
    }

    private static CorpusService Service(ServiceProvider services, ZendleOptions options) =>
        new(
            services.GetRequiredService<CorpusReader>(),
            new ColumnsBuild(
                services.GetRequiredService<CorpusReader>(),
                services.GetRequiredService<CorpusWriter>(),
                TimeProvider.System,
                options
            ),
            new NoMarks(),
            options,
            NullLogger<CorpusService>.Instance
        );
}
