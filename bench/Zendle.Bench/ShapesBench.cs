using System.Diagnostics;
using System.Globalization;
using System.Numerics;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Bench;

/// <summary>
/// Each shape of question with complete count and ledger, beside SQLite FTS5 and beside plain arrays of places; the
/// board; facets; first pages; set algebra beside bare loops; ten people at once. Every answer is compared; where two
/// differ, the bench stops.
/// </summary>
internal sealed class ShapesBench : IDisposable
{
    private readonly SyntheticCorpus corpus;
    private readonly int count,
        works,
        seed;
    private readonly CorpusIndex index;
    private readonly FtsStore fts;
    private CorpusSnapshot snapshot;

    private ShapesBench(string folder, int works, int seed)
    {
        (this.works, this.seed, corpus) = (works, seed, new(works, seed));
        count = corpus.Records().Count();
        index = SyntheticIndex.Built(folder, corpus, works, count);
        var watch = Stopwatch.StartNew();
        fts = new(Path.Combine(folder, "fts.db"));
        fts.Fill(corpus.Records());
        Console.WriteLine($"FTS5: {watch.Elapsed.TotalSeconds:N0} s");
        snapshot = index.Snapshot();
    }

    public static void Run(string folder, int works, int seed)
    {
        using var bench = new ShapesBench(folder, works, seed);
        // Code that ran once or twice is not yet compiled as it will be for people, and parts of the index are still put
        // together behind the scenes. So other questions of the same shapes come first, and what they found is forgotten.
        for (var before = 1; before <= 3; before++)
        {
            bench.Shapes(seed + 100 * before, TextWriter.Null);
            bench.Forget(before);
        }
        bench.Shapes(seed + 7, Console.Out);
        bench.Boards();
        bench.Facets();
        bench.Pages();
        bench.Algebra();
        bench.AtOnce();
        Console.WriteLine(Measures.Memory());
    }

    private static string Word(Random random, int from, int to) => SyntheticCorpus.Word(random.Next(from, to));

    private void Forget(int times)
    {
        snapshot.Dispose();
        index.Refresh(snapshot.Columns, SyntheticCorpus.Databases, 1 + times);
        snapshot = index.Snapshot();
    }

    private void Shapes(int questionSeed, TextWriter say)
    {
        var (random, pairs) = (new Random(questionSeed), Pairs());
        string Group(int from, int to) =>
            "("
            + string.Join(" OR ", Enumerable.Range(0, 4).Select(t => Word(random, from, to) + (t == 3 ? "*" : "")))
            + ")";
        var shapes = new (string Name, int Questions, bool Fts, Func<string> Make)[]
        {
            ("term", 20, true, () => Word(random, 20, 800)),
            (
                "three concepts of four terms",
                10,
                true,
                () => $"{Group(20, 400)} AND {Group(20, 400)} AND {Group(20, 400)}"
            ),
            ("phrase", 10, true, () => $"title:\"{pairs(random, 30)}\" OR abstract:\"{pairs(random, 30)}\""),
            (
                "phrase of the commonest words",
                3,
                true,
                () => $"abstract:\"{SyntheticCorpus.Word(random.Next(3))} {SyntheticCorpus.Word(random.Next(3))}\""
            ),
            ("NEAR/5", 10, true, () => $"abstract:({Word(random, 20, 200)} NEAR/5 {Word(random, 20, 200)})"),
            ("open end", 10, true, () => SyntheticCorpus.Word(random.Next(400, 2_000))[..4] + "*"),
            ("open end, one letter", 3, true, () => "bcdfghk"[random.Next(7)] + "*"),
            (
                "open inside",
                5,
                false,
                () => SyntheticCorpus.Word(random.Next(400, 8_000)) is var w ? w[..2] + "*" + w[^2..] : ""
            ),
            ("open start", 5, false, () => "*" + SyntheticCorpus.Word(random.Next(400, 8_000))[2..]),
            ("NOT", 10, true, () => $"{Word(random, 20, 400)} AND NOT {Word(random, 5, 100)}"),
            ("one field", 10, true, () => $"title:{Word(random, 20, 800)}"),
        };
        var questions = shapes
            .Select(s => (s.Name, s.Fts, Lines: Enumerable.Range(0, s.Questions + 1).Select(_ => s.Make()).ToArray()))
            .ToArray();
        var plain = new PlainPostings(
            corpus.Records(),
            questions.SelectMany(q => q.Lines).Select(l => QueryReader.Read(l).Root!),
            count + 1
        );
        say.WriteLine(
            "shapes, each question once (medians): works | Zendle | FTS5 | plain arrays | FTS5 ÷ Zendle | "
                + "Zendle ÷ plain; with ledger and complete count"
        );
        var (allFts, allPlain) = (new List<double>(), new List<double>());
        foreach (var (name, hasFts, lines) in questions)
        {
            var (ours, theirs, bare, found) = (
                new List<double>(),
                new List<double>(),
                new List<double>(),
                new List<double>()
            );
            foreach (var line in lines)
            {
                var root = QueryReader.Read(line).Root!;
                var (mine, answer) = Measures.Time(() => Counted(new QuestionEvaluator(snapshot, null).Records(root)));
                var (plainly, beside) = Measures.Time(() => Counted(plain.Records(root)));
                Same(line, answer, beside);
                var other = double.NaN;
                if (hasFts)
                {
                    (other, var counted) = Measures.Time(() => fts.Counts(Match(root)));
                    Same(line, answer, counted);
                }
                if (line == lines[0])
                    continue; // the first of each shape warms all up
                ours.Add(mine);
                bare.Add(plainly);
                found.Add(answer.Works);
                if (hasFts)
                    theirs.Add(other);
            }
            if (hasFts)
                allFts.Add(Measures.Ratio(ours, theirs));
            allPlain.Add(Measures.Ratio(bare, ours));
            say.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{name} | {Measures.Median(found):N0} | {Measures.Median(ours):N1} ms | "
                        + $"{(hasFts ? $"{Measures.Median(theirs):N1} ms" : "–")} | {Measures.Median(bare):N1} ms "
                        + $"| {(hasFts ? $"{Measures.Ratio(ours, theirs):N1}" : "–")} | "
                        + $"{Measures.Ratio(bare, ours):N1}"
                )
            );
        }
        say.WriteLine(
            $"geometric mean over the shapes: FTS5 ÷ Zendle {Math.Exp(allFts.Average(Math.Log)):N1}; Zendle "
                + $"÷ plain arrays {Math.Exp(allPlain.Average(Math.Log)):N1}"
        );
        var set = new QuestionEvaluator(snapshot, null);
        var inside = QueryReader.Read(SyntheticCorpus.Word(30)).Root!;
        var whole = set.Works(set.Records(inside));
        var within = Enumerable
            .Range(0, 10)
            .Select(_ => Word(random, 100, 2_000))
            .Select(w =>
                Measures
                    .Time(() =>
                    {
                        var left = set.Works(set.Records(QueryReader.Read(w).Root!));
                        left.IntersectWith(whole);
                        return left.Count();
                    })
                    .Milliseconds
            );
        say.WriteLine($"a further word inside a set of {whole.Count():N0}: {Measures.Median(within):N1} ms");
    }

    /// <summary>
    /// A board of twelve terms: the whole, what each term alone brings in, and each database; cold and after one term
    /// is another.
    /// </summary>
    private void Boards()
    {
        var random = new Random(seed + 11);
        var (cold, warm, theirs) = (new List<double>(), new List<double>(), new List<double>());
        for (var i = 0; i < 6; i++)
        {
            var terms = Enumerable.Range(0, 12).Select(_ => Word(random, 20, 2_000)).ToArray();
            cold.Add(Measures.Time(() => Board(terms)).Milliseconds);
            terms[random.Next(12)] = Word(random, 20, 2_000);
            var (ours, board) = Measures.Time(() => Board(terms));
            warm.Add(ours);
            var (other, counts) = Measures.Time(() => FtsBoard(terms));
            if (!board.SequenceEqual(counts))
                throw new InvalidOperationException(
                    $"The boards differ for {Line(terms)}: {string.Join(' ', board)} against {string.Join(' ', counts)}."
                );
            theirs.Add(other);
        }
        Console.WriteLine(
            $"board of twelve terms with every only-it and all databases: cold {Measures.Median(cold):N1} "
                + $"ms, after one changed term {Measures.Median(warm):N1} ms; FTS5 {Measures.Median(theirs):N0} "
                + $"ms; FTS5 ÷ Zendle after a change {Measures.Ratio(warm, theirs):N0}, cold "
                + $"{Measures.Ratio(cold, theirs):N0}"
        );
    }

    private static string Line(string[] terms) =>
        string.Join(" AND ", terms.Chunk(4).Where(c => c.Length > 0).Select(c => "(" + string.Join(" OR ", c) + ")"));

    private int[] Board(string[] terms)
    {
        var (root, evaluator) = (QueryReader.Read(Line(terms)).Root!, new QuestionEvaluator(snapshot, null));
        var records = evaluator.Records(root);
        var whole = evaluator.Works(records).Count();
        var ledger = Ledger.Of(snapshot, records, []);
        return
        [
            whole,
            .. Concepts
                .Terms(root, QueryField.About)
                .Select(t => whole - evaluator.Works(evaluator.Records(root, QueryField.About, t.Term)).Count()),
            .. ledger.Databases.Select(d => d.Works),
        ];
    }

    private int[] FtsBoard(string[] terms)
    {
        var whole = fts.Counts(Match(QueryReader.Read(Line(terms)).Root!));
        int Without(int t)
        {
            var groups = terms
                .Select((term, i) => (term, i))
                .Where(x => x.i != t)
                .GroupBy(x => x.i / 4)
                .Select(g => "(" + string.Join(" OR ", g.Select(x => x.term)) + ")");
            return fts.Counts(string.Join(" AND ", groups)).Works;
        }
        return [whole.Works, .. Enumerable.Range(0, 12).Select(t => whole.Works - Without(t)), .. whole.Databases];
    }

    private void Facets()
    {
        var set = WorkSet.Of(
            works + 1,
            Enumerable
                .Range(0, Math.Min(100_000, works / 2))
                .Select(i => 1 + (int)((long)i * works / Math.Min(100_000, works / 2)) % works)
        );
        Facet[] fields =
        [
            Facet.Year,
            Facet.Type,
            Facet.Language,
            Facet.Venue,
            Facet.Person,
            Facet.Database,
            Facet.Text,
            Facet.Keyword,
        ];
        var times = Enumerable
            .Range(0, 12)
            .Select(_ => Measures.Time(() => fields.Sum(f => snapshot.Columns.Of(f).Count(set).Length)).Milliseconds)
            .Skip(2);
        Console.WriteLine($"eight fields of a set of {set.Count():N0}: {Measures.Median(times):N1} ms");
    }

    private void Pages()
    {
        var evaluator = new QuestionEvaluator(snapshot, null);
        var root = QueryReader.Read(SyntheticCorpus.Word(40)).Root!;
        var records = evaluator.Records(root);
        var found = evaluator.Works(records);
        foreach (var order in Enum.GetValues<SortOrder>().Where(o => o != SortOrder.Ties))
        {
            var times = Enumerable
                .Range(0, 6)
                .Select(_ =>
                    Measures
                        .Time(() =>
                            WorkOrder.Sort(snapshot, found, order, Concepts.Of(root), records, 2026).Take(50).Sum()
                        )
                        .Milliseconds
                )
                .ToArray();
            Console.WriteLine(
                $"first page of {found.Count():N0} by {order}: {Measures.Median(times.Skip(1)):N1} ms, the first time {times[0]:N0} ms"
            );
        }
    }

    /// <summary>AND of three remembered sets with its count, against bare loops over words of bits.</summary>
    private void Algebra()
    {
        string[] words = [SyntheticCorpus.Word(12), SyntheticCorpus.Word(25), SyntheticCorpus.Word(33)];
        var (root, evaluator) = (
            QueryReader.Read(string.Join(" AND ", words)).Root!,
            new QuestionEvaluator(snapshot, null)
        );
        var bits = words.Select(w => Bits(evaluator.Records(QueryReader.Read(w).Root!))).ToArray();
        var (ours, bare) = (new List<double>(), new List<double>());
        for (var i = 0; i < 60; i++)
        {
            var (a, n) = Measures.Time(() => evaluator.Records(root).Count());
            var (b, m) = Measures.Time(() => Both(bits));
            if (n != m)
                throw new InvalidOperationException("Set algebra differs.");
            if (i < 10)
                continue;
            ours.Add(a);
            bare.Add(b);
        }
        Console.WriteLine(
            $"AND of three remembered sets over {count:N0} records with its count: "
                + $"{Measures.Median(ours):N2} ms; bare AND and popcount {Measures.Median(bare):N2} ms; Zendle ÷ "
                + $"bare {Measures.Ratio(bare, ours):N1}"
        );

        ulong[] Bits(RecordSet set)
        {
            var b = new ulong[(count + 64) / 64];
            foreach (var n in set.ToArray())
                b[n >> 6] |= 1UL << n;
            return b;
        }

        static int Both(ulong[][] bits)
        {
            var n = 0;
            for (var i = 0; i < bits[0].Length; i++)
                n += BitOperations.PopCount(bits[0][i] & bits[1][i] & bits[2][i]);
            return n;
        }
    }

    private void AtOnce()
    {
        List<double> Ask(int who, int questions)
        {
            var (random, times) = (new Random(seed * 100 + who), new List<double>());
            string Group() =>
                "(" + string.Join(" OR ", Enumerable.Range(0, 4).Select(_ => Word(random, 20, 1_500))) + ")";
            for (var q = 0; q < questions; q++)
            {
                var line = $"{Group()} AND {Group()} AND {Group()}";
                times.Add(
                    Measures
                        .Time(() =>
                            Counted(new QuestionEvaluator(snapshot, null).Records(QueryReader.Read(line).Root!))
                        )
                        .Milliseconds
                );
            }
            return times;
        }
        var one = Ask(50, 40);
        var threads = Enumerable
            .Range(0, 10)
            .Select(who => Task.Factory.StartNew(() => Ask(who, 20), TaskCreationOptions.LongRunning))
            .ToArray();
        Task.WaitAll(threads);
        var ten = threads.SelectMany(t => t.Result).ToList();
        Console.WriteLine(
            $"one person: p95 {Measures.Percentile(one, 0.95):N0} ms; ten at once on "
                + $"{Environment.ProcessorCount} cores: p95 {Measures.Percentile(ten, 0.95):N0} ms, "
                + $"{Measures.Percentile(ten, 0.95) / Measures.Percentile(one, 0.95):N1} times"
        );
    }

    private (int Records, int Works, int[] Databases) Counted(RecordSet records)
    {
        var ledger = Ledger.Of(snapshot, records, []);
        return (ledger.Records, ledger.Works, [.. ledger.Databases.Select(d => d.Works)]);
    }

    private static void Same(
        string line,
        (int Records, int Works, int[] Databases) a,
        (int Records, int Works, int[] Databases) b
    )
    {
        if (a.Records != b.Records || a.Works != b.Works || !a.Databases.SequenceEqual(b.Databases))
            throw new InvalidOperationException(
                $"The answers differ for {line}: {a.Records} {a.Works} {string.Join(' ', a.Databases)} "
                    + $"against {b.Records} {b.Works} {string.Join(' ', b.Databases)}."
            );
    }

    /// <summary>Two words that do stand side by side somewhere, the first of at least a rank.</summary>
    private Func<Random, int, string> Pairs()
    {
        var titles = corpus.Records().Take(5_000).Select(r => r.Record.Title.Split(' ')).ToArray();
        var common = Enumerable.Range(0, 30).Select(SyntheticCorpus.Word).ToHashSet();
        return (random, _) =>
        {
            while (true)
            {
                var title = titles[random.Next(titles.Length)];
                var at = random.Next(title.Length - 1);
                if (!common.Contains(title[at]) && !common.Contains(title[at + 1]))
                    return $"{title[at]} {title[at + 1]}";
            }
        };
    }

    /// <summary>A question in the words of FTS5.</summary>
    private static string Match(QueryNode node) =>
        node switch
        {
            TermNode t => t.IsPhrase ? $"\"{string.Join(' ', t.Slots)}\""
            : t.Slots[0].EndsWith('*') ? $"{t.Slots[0][..^1]}*"
            : t.Slots[0],
            AndNode and => and.Parts.Aggregate(
                "",
                (line, part) =>
                    part is NotNode not ? $"({line} NOT {Match(not.Part)})"
                    : line.Length == 0 ? Match(part)
                    : $"({line} AND {Match(part)})"
            ),
            OrNode or => "(" + string.Join(" OR ", or.Parts.Select(Match)) + ")",
            NearNode near => $"NEAR({string.Join(' ', near.Parts.Select(Match))}, {near.Distances[0]})",
            FieldNode f => $"{QueryFields.Name(f.Field)} : {Match(f.Part)}",
            _ => throw new NotSupportedException(node.GetType().Name),
        };

    public void Dispose()
    {
        snapshot.Dispose();
        index.Dispose();
        fts.Dispose();
    }
}
