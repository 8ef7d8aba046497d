using System.Diagnostics;
using System.Globalization;
using Zendle.Bench;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

// ./zendle bench [--works N] [--seed N]: builds the synthetic corpus, then puts the same questions to Zendle's index and to SQLite
// FTS5 in turn. Milliseconds on shared machines only orient; the ratios are what counts.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var works = Option("--works", 100_000);
var seed = Option("--seed", 1);
var folder = Directory.CreateTempSubdirectory("zendle-bench-").FullName;
var needed = works * 6_000L;
if (new DriveInfo(folder).AvailableFreeSpace < needed)
{
    Console.Error.WriteLine($"The bench needs about {needed / 1_000_000} MB free in {folder}; choose fewer works with --works.");
    return 1;
}
try
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
        columns.Add(Row(r));
    }
    index.Refresh(columns.Build(), SyntheticCorpus.Databases, 1);
    Console.WriteLine($"Zendle index built: {watch.Elapsed.TotalSeconds:N0} s, {count / watch.Elapsed.TotalSeconds:N0} records/s, {Size(Path.Combine(folder, "index")):N0} MB on disk");

    watch.Restart();
    using var fts = new FtsStore(Path.Combine(folder, "fts.db"));
    fts.Fill(corpus.Records());
    Console.WriteLine($"FTS5 built: {watch.Elapsed.TotalSeconds:N0} s, {Size(folder) - Size(Path.Combine(folder, "index")):N0} MB on disk");

    Console.WriteLine("Three AND-ed concepts of four terms (one of them a truncation), with ledger, narrowing by years and type, and the first page:");
    Run("narrow: rarer words", 1, 30, 40, 1_200);
    Run("middle: usual words", 2, 24, 10, 200);
    Run("broad: common words", 3, 12, 3, 60);
    Run("narrow, asked again (sets remembered)", 1, 30, 40, 1_200);
    Run("middle, asked again (sets remembered)", 2, 24, 10, 200);
    Console.WriteLine($"Memory: {Process.GetCurrentProcess().WorkingSet64 / 1_000_000:N0} MB working set, {GC.GetTotalMemory(true) / 1_000_000:N0} MB managed");
    return 0;

    void Run(string name, int salt, int questions, int fromRank, int toRank)
    {
        var random = new Random(seed * 1000 + salt);
        var (ours, theirs, hits) = (new List<double>(), new List<double>(), new List<int>());
        for (var q = 0; q < questions + 3; q++)
        {
            var concepts = Enumerable.Range(0, 3).Select(_ => "(" + string.Join(" OR ", Enumerable.Range(0, 4).Select(t => SyntheticCorpus.Word(random.Next(fromRank, toRank)) + (t == 3 ? "*" : ""))) + ")").ToArray();
            var expression = string.Join(" AND ", concepts);
            var (fromYear, type) = (random.Next(1990, 2015), (DocumentType)random.Next(1, 6));
            var started = Stopwatch.GetTimestamp();
            var mine = Ours(expression, fromYear, type);
            var ourTime = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
            started = Stopwatch.GetTimestamp();
            var other = fts.Answer(expression, fromYear, type);
            var theirTime = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
            if (mine.Records != other.Records || mine.Works != other.Works || mine.Narrowed != other.Narrowed)
                throw new InvalidOperationException($"The answers differ for {expression}: {mine} against {other}.");
            if (q < 3) continue; // warm-up of both
            ours.Add(ourTime);
            theirs.Add(theirTime);
            hits.Add(mine.Works);
        }
        var ratio = Math.Exp(ours.Zip(theirs, (a, b) => Math.Log(b / a)).Average());
        Console.WriteLine($"{name}: {questions} questions, median {Median(hits.Select(h => (double)h)):N0} works. Zendle median {Median(ours):N1} ms, p95 {Percentile(ours, 0.95):N1} ms; FTS5 median {Median(theirs):N1} ms. FTS5 ÷ Zendle, geometric mean: {ratio:N1}");
    }

    (int Records, int Works, int Narrowed, int Page) Ours(string expression, int fromYear, DocumentType type)
    {
        using var snapshot = index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        var root = QueryReader.Read(expression).Root!;
        var records = evaluator.Records(root);
        var ledger = Ledger.Of(snapshot, records, []);
        var state = SearchState.Of([new(StepKind.Years, From: fromYear), new(StepKind.Narrow, Facet: Facet.Type, Values: [DocumentTypes.Name(type)])]);
        var inView = evaluator.Narrowed(state, null, _ => null)!;
        inView.IntersectWith(evaluator.Works(records));
        var page = WorkOrder.Sort(snapshot, inView, SortOrder.Relevance, Concepts.Of(root), records, 2026).Take(50).Count();
        return (ledger.Records, ledger.Works, inView.Count(), page);
    }
}
finally { Directory.Delete(folder, recursive: true); }

int Option(string name, int otherwise) => Array.IndexOf(args, name) is >= 0 and var at && at + 1 < args.Length && int.TryParse(args[at + 1], out var value) ? value : otherwise;

static ColumnRow Row(SyntheticRecord r) => new(r.Id, r.Work, r.Database, r.Database == 2 ? 0 : 1, r.Record.Year, r.Record.Type, r.Record.Language, r.Record.Title, r.Record.People[0].Family, [r.Record.People[0].Short],
    r.Record.Venue!.Title, [], TextAtHand.Best([]), null, MergeKeys.Doi(r.Record.Doi), 0, []);

static double Size(string folder) => Directory.GetFiles(folder, "*", SearchOption.AllDirectories).Sum(f => new FileInfo(f).Length) / 1e6;

static double Median(IEnumerable<double> values) => Percentile([.. values], 0.5);

static double Percentile(List<double> values, double p) => values.Order().ElementAt((int)(p * (values.Count - 1)));
