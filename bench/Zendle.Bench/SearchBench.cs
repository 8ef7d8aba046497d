using System.Diagnostics;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Terms;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Bench;

/// <summary>The same questions put to Zendle's index and to SQLite FTS5 in turn.</summary>
internal static class SearchBench
{
    /// <summary>Builds both and asks both.</summary>
    public static void Run(string folder, int works, int seed)
    {
        var corpus = new SyntheticCorpus(works, seed);
        var count = corpus.Records().Count();
        Console.WriteLine($"{works:N0} works, {count:N0} records, seed {seed}");

        var watch = Stopwatch.StartNew();
        using var index = new CorpusIndex(Path.Combine(folder, "index"));
        var columns = new CorpusColumns.Builder(count + 1, works + 1, SyntheticCorpus.Databases);
        foreach (var r in corpus.Records())
        {
            index.Put(r.Id, r.Record);
            columns.Add(Shown(r), Row(r));
        }
        index.Refresh(columns.Build(), SyntheticCorpus.Databases, 1);
        Console.WriteLine(
            $"Zendle index built: {watch.Elapsed.TotalSeconds:N0} s, "
                + $"{count / watch.Elapsed.TotalSeconds:N0} records/s, "
                + $"{Measures.Megabytes(Path.Combine(folder, "index")):N0} MB on disk"
        );

        watch.Restart();
        using var fts = new FtsStore(Path.Combine(folder, "fts.db"));
        fts.Fill(corpus.Records());
        Console.WriteLine(
            $"FTS5 built: {watch.Elapsed.TotalSeconds:N0} s, "
                + $"{Measures.Megabytes(folder) - Measures.Megabytes(Path.Combine(folder, "index")):N0} MB on disk"
        );

        Console.WriteLine(
            "Three AND-ed concepts of four terms (one of them a truncation), with ledger, narrowing by years and type, and the first page:"
        );
        Run("narrow: rarer words", 1, 30, 40, 1_200);
        Run("middle: usual words", 2, 24, 10, 200);
        Run("broad: common words", 3, 12, 3, 60);
        Run("narrow, asked again (sets remembered)", 1, 30, 40, 1_200);
        Run("middle, asked again (sets remembered)", 2, 24, 10, 200);
        Console.WriteLine($"Memory: {Measures.Memory()}");

        void Run(string name, int salt, int questions, int fromRank, int toRank)
        {
            var random = new Random(seed * 1000 + salt);
            var (ours, theirs, hits) = (new List<double>(), new List<double>(), new List<int>());
            for (var q = 0; q < questions + 3; q++)
            {
                var concepts = Enumerable
                    .Range(0, 3)
                    .Select(_ =>
                        "("
                        + string.Join(
                            " OR ",
                            Enumerable
                                .Range(0, 4)
                                .Select(t => SyntheticCorpus.Word(random.Next(fromRank, toRank)) + (t == 3 ? "*" : ""))
                        )
                        + ")"
                    )
                    .ToArray();
                var expression = string.Join(" AND ", concepts);
                var (fromYear, type) = (random.Next(1990, 2015), (DocumentType)random.Next(1, 6));
                var started = Stopwatch.GetTimestamp();
                var mine = Ours(expression, fromYear, type);
                var ourTime = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
                started = Stopwatch.GetTimestamp();
                var other = fts.Answer(expression, fromYear, type);
                var theirTime = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
                if (mine.Records != other.Records || mine.Works != other.Works || mine.Narrowed != other.Narrowed)
                    throw new InvalidOperationException(
                        $"The answers differ for {expression}: {mine} against {other}."
                    );
                if (q < 3)
                    continue; // warm-up of both
                ours.Add(ourTime);
                theirs.Add(theirTime);
                hits.Add(mine.Works);
            }
            var ratio = Measures.Ratio(ours, theirs);
            Console.WriteLine(
                $"{name}: {questions} questions, median {Measures.Median(hits.Select(h => (double)h)):N0} "
                    + $"works. Zendle median {Measures.Median(ours):N1} ms, p95 "
                    + $"{Measures.Percentile(ours, 0.95):N1} ms; FTS5 median {Measures.Median(theirs):N1} ms. "
                    + $"FTS5 ÷ Zendle, geometric mean: {ratio:N1}"
            );
        }

        (int Records, int Works, int Narrowed, int Page) Ours(string expression, int fromYear, DocumentType type)
        {
            using var snapshot = index.Snapshot();
            var evaluator = new QuestionEvaluator(snapshot, null);
            var root = QueryReader.Read(expression).Root!;
            var records = evaluator.Records(root);
            var ledger = Ledger.Of(snapshot, records, []);
            var state = SearchState.Of([new YearsAct(fromYear), new NarrowAct(Facet.Type, [DocumentTypes.Name(type)])]);
            var inView = evaluator.Narrowed(state, null, _ => null)!;
            inView.IntersectWith(evaluator.Works(records));
            var page = WorkOrder
                .Sort(snapshot, inView, SortOrder.Relevance, Concepts.Of(root), records, 2026)
                .Take(50)
                .Count();
            return (ledger.Records, ledger.Works, inView.Count(), page);
        }
    }

    /// <summary>What the columns take of a record.</summary>
    /// <summary>The values that a work of the synthetic corpus shows: all its records agree.</summary>
    public static WorkValues Shown(SyntheticRecord r) =>
        new(
            r.Record.Year,
            r.Record.Type,
            r.Record.Language,
            r.Record.Title,
            r.Record.People[0].Family,
            r.Record.Venue!.Title
        )
        {
            Words = RunningWords.Of([r.Record.Title, .. r.Record.Keywords, r.Record.Abstract]),
        };

    public static ColumnRow Row(SyntheticRecord r) =>
        new(
            r.Id,
            r.Work,
            r.Database,
            r.Record.Year,
            r.Record.Type,
            [r.Record.People[0].Short],
            [],
            TextAtHand.Best([]),
            null,
            MergeKeys.Doi(r.Record.Doi),
            MergeKeys.TitleAndPerson(r.Record.Title, r.Record.People[0].Family),
            [],
            Around: new([], [], [], r.Record.Keywords)
        );
}
