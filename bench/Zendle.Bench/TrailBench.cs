using System.Collections.Immutable;
using Microsoft.Data.Sqlite;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Index.Trails;

namespace Zendle.Bench;

/// <summary>
/// Forward trails of the most cited works, narrowed, with each database's share and the first page: the graph against
/// SQL over the same references.
/// </summary>
internal static class TrailBench
{
    /// <summary>Builds both and asks both.</summary>
    public static void Run(string folder, int works, int seed)
    {
        var random = new Random(seed);
        var builder = new CorpusColumns.Builder(works * 3 + 1, works + 1, SyntheticCorpus.Databases);
        using var sql = new SqliteConnection($"Data Source={Path.Combine(folder, "trails.db")}");
        sql.Open();
        Do(
            sql,
            "PRAGMA journal_mode=OFF; PRAGMA synchronous=OFF; PRAGMA cache_size=-400000; PRAGMA "
                + "mmap_size=2000000000; PRAGMA temp_store=MEMORY; CREATE TABLE records (id INTEGER PRIMARY KEY, work "
                + "INTEGER, database INTEGER, year INTEGER, type INTEGER); CREATE TABLE refs (record INTEGER, work "
                + "INTEGER, cited INTEGER);"
        );
        var (id, references) = (0, 0);
        using (var transaction = sql.BeginTransaction())
        {
            using var record = Prepared(sql, "INSERT INTO records VALUES ($0, $1, $2, $3, $4)", 5);
            using var reference = Prepared(sql, "INSERT INTO refs VALUES ($0, $1, $2)", 3);
            for (var work = 1; work <= works; work++)
            {
                var (year, type) = (1966 + (int)(60L * work / works), (DocumentType)random.Next(1, 6));
                var cited = Enumerable
                    .Range(0, work < 20 ? 0 : random.Next(4, 28))
                    .Select(_ => 1 + (int)((work - 1) * Math.Pow(random.NextDouble(), 3)))
                    .Distinct()
                    .ToArray();
                var held = random.Next(1, 8);
                for (var database = 1; database <= 3; database++)
                {
                    if ((held & 1 << database - 1) == 0)
                        continue;
                    var reported = cited.Where(_ => random.Next(10) > 0).ToArray();
                    builder.Add(
                        new(year, type, "eng", $"Work {work}", "Voss", "Verge"),
                        new(
                            ++id,
                            work,
                            database,
                            year,
                            type,
                            ["Voss, A."],
                            [],
                            TextAtHand.Best([]),
                            null,
                            MergeKeys.Doi($"10.5555/bench.{work}"),
                            0,
                            [.. reported.Select(c => new ReferenceKeys(MergeKeys.Doi($"10.5555/bench.{c}"), 0, 0))]
                        )
                    );
                    Put(record, id, work, database, year, (int)type);
                    foreach (var c in reported)
                        Put(reference, id, work, c);
                    references += reported.Length;
                }
            }
            transaction.Commit();
        }
        Do(
            sql,
            "CREATE INDEX by_cited ON refs (cited, work, record); CREATE INDEX by_citing ON refs (work, cited); "
                + "CREATE INDEX by_work ON records (work, year, "
                + "type); CREATE TABLE cited AS SELECT cited AS work, count(DISTINCT work) AS n FROM refs WHERE cited "
                + "<> work GROUP BY cited; CREATE UNIQUE INDEX cited_work ON cited (work); ANALYZE;"
        );
        using var index = new CorpusIndex(Path.Combine(folder, "index"));
        var (built, columns) = Measures.Time(builder.Build);
        index.Refresh(columns, SyntheticCorpus.Databases, 1);
        Console.WriteLine(
            $"{works:N0} works, {id:N0} records, {references:N0} references reported, "
                + $"{columns.Graph.Ties:N0} ties of {(double)columns.Graph.Bytes / columns.Graph.Ties:N1} bytes; "
                + $"columns and graph built in {built / 1000:N1} s; SQLite "
                + $"{Measures.Megabytes(folder):N0} MB"
        );
        var seeds = Enumerable
            .Range(1, works)
            .OrderByDescending(w => columns.Graph.CitedByCount(w))
            .ThenBy(w => w)
            .Take(40)
            .ToArray();
        Ask("the most cited work", 40, _ => [seeds[0]]);
        Ask("one of the forty most cited", 40, q => [seeds[q % 40]]);
        Ask("one work of middling fame", 40, q => [works / 3 + q * 7]);
        Ask("sixty works together", 20, q => [.. Enumerable.Range(0, 60).Select(i => works / 4 + q * 100 + i * 13)]);
        Ask(
            "two thousand works together",
            6,
            q => [.. Enumerable.Range(0, 2_000).Select(i => works / 8 + q * 10 + i * 9)]
        );
        foreach (var kind in new[] { NeighbourKind.SharedReferences, NeighbourKind.CitedTogether })
        {
            AskNear(kind, "one work", 9, q => [works / 3 + q * 7]);
            AskNear(
                kind,
                "a hundred works",
                3,
                q => [.. Enumerable.Range(0, 100).Select(i => works / 4 + q * 100 + i * 13)]
            );
        }
        AskLine("the most cited", Enumerable.Range(1, works).OrderByDescending(w => columns.Graph.CitedByCount(w)));
        AskLine("the youngest", Enumerable.Range(1, works).Reverse());
        Console.WriteLine($"Memory: {Measures.Memory()}");

        void AskLine(string name, IEnumerable<int> from)
        {
            var set = WorkSet.Of(columns.WorkSize, from.Take(20_000));
            var times = new List<double>();
            for (var run = 0; run < 4; run++)
            {
                var (ms, line) = Measures.Time(() =>
                    MainLine.Of(set, w => columns.Graph.Cites(w).ToArray(), w => columns.Year[w])
                );
                if (run > 0)
                    times.Add(ms);
                else
                    Console.WriteLine(
                        $"Main line of {name} 20,000 works: {line.Works.Count:N0} works, {line.Tied:N0} tied."
                    );
            }
            Console.WriteLine($"  Zendle median {Measures.Median(times):N0} ms.");
        }

        void AskNear(NeighbourKind kind, string name, int times, Func<int, int[]> from)
        {
            var (ours, theirs, size) = (new List<double>(), new List<double>(), 0);
            for (var q = 0; q < times + 1; q++)
            {
                var start = from(q);
                var (a, mine) = Measures.Time(() => Near(index, kind, start));
                var (b, other) = Measures.Time(() => NearBySql(sql, kind, start));
                if (mine != other)
                    throw new InvalidOperationException($"The answers differ for {kind}: {mine} against {other}.");
                if (q == 0)
                    continue; // warm-up of both
                ours.Add(a);
                theirs.Add(b);
                size = mine.Works;
            }
            Console.WriteLine(
                $"{kind} of {name}: {size:N0} neighbours. Zendle median {Measures.Median(ours):N1} ms, SQL median "
                    + $"{Measures.Median(theirs):N0} ms. SQL ÷ Zendle, geometric mean: {Measures.Ratio(ours, theirs):N1}"
            );
        }

        void Ask(string name, int times, Func<int, int[]> from)
        {
            var (ours, theirs, size) = (new List<double>(), new List<double>(), 0);
            for (var q = 0; q < times + 3; q++)
            {
                var (start, year, type) = (from(Math.Max(0, q - 3)), 1985 + q % 20, (DocumentType)(1 + q % 5));
                var (a, mine) = Measures.Time(() => Ours(index, start, year, type));
                var (b, other) = Measures.Time(() => Theirs(sql, start, year, type));
                if (mine != other)
                    throw new InvalidOperationException($"The answers differ for {name}: {mine} against {other}.");
                if (q < 3)
                    continue; // warm-up of both
                ours.Add(a);
                theirs.Add(b);
                size = mine.Works;
            }
            Console.WriteLine(
                $"forward from {name}: {size:N0} works. Zendle median {Measures.Median(ours):N2} ms, SQL "
                    + $"median {Measures.Median(theirs):N2} ms. SQL ÷ Zendle, geometric mean: "
                    + $"{Measures.Ratio(ours, theirs):N1}"
            );
        }
    }

    private static (int Works, int Ties, int Only, int Narrowed, int First) Ours(
        CorpusIndex index,
        int[] seeds,
        int fromYear,
        DocumentType type
    )
    {
        using var snapshot = index.Snapshot();
        var trail = Trail.Follow(
            snapshot.Columns.Graph,
            new(seeds.ToImmutableArray(), TrailWay.Forward),
            [],
            snapshot.Columns.WorkSize
        );
        var works = trail.Future.Works(1);
        var shares = trail.Shares();
        var state = SearchState.Of([new YearsAct(fromYear), new NarrowAct(Facet.Type, [DocumentTypes.Name(type)])]);
        var inView = new QuestionEvaluator(snapshot, null).Narrowed(state, null, _ => null)!;
        inView.IntersectWith(works);
        var page = WorkOrder
            .Sort(
                snapshot,
                inView,
                SortOrder.Ties,
                [],
                new RecordSet(snapshot.Columns.RecordSize),
                2026,
                trail.Future.Ties
            )
            .Take(50)
            .ToArray();
        return (
            works.Count(),
            shares.Sum(s => s.Ties),
            shares.Sum(s => s.OnlyHere),
            inView.Count(),
            page.FirstOrDefault()
        );
    }

    private static (int Works, int Ties, int Only, int Narrowed, int First) Theirs(
        SqliteConnection sql,
        int[] seeds,
        int fromYear,
        DocumentType type
    )
    {
        Do(
            sql,
            "DROP TABLE IF EXISTS temp.seeds; CREATE TEMP TABLE seeds (work INTEGER PRIMARY KEY); INSERT "
                + $"OR IGNORE INTO temp.seeds VALUES {string.Join(",", seeds.Select(s => $"({s})"))}; DROP TABLE "
                + "IF EXISTS temp.ties; "
                + "CREATE TEMP TABLE ties AS SELECT DISTINCT f.work AS work, f.cited AS seed, r.database AS "
                + "database FROM temp.seeds s CROSS JOIN refs f INDEXED BY by_cited ON f.cited = s.work CROSS JOIN "
                + "records r ON r.id = f.record WHERE f.work <> f.cited;"
        );
        var works = Number(sql, "SELECT count(DISTINCT work) FROM temp.ties");
        var ties = Number(sql, "SELECT sum(n) FROM (SELECT database, count(*) AS n FROM temp.ties GROUP BY database)");
        var only = Number(
            sql,
            "SELECT count(*) FROM (SELECT work FROM temp.ties GROUP BY work HAVING count(DISTINCT database) = 1)"
        );
        var inView =
            "SELECT v.work AS work FROM (SELECT DISTINCT work FROM temp.ties) v WHERE EXISTS (SELECT 1 "
            + $"FROM records r WHERE r.work = v.work AND r.year >= {fromYear}) AND EXISTS (SELECT 1 FROM "
            + $"records r WHERE r.work = v.work AND r.type = {(int)type})";
        var narrowed = Number(sql, $"SELECT count(*) FROM ({inView})");
        var first = Number(
            sql,
            "WITH n AS (SELECT work, count(DISTINCT seed) AS n FROM temp.ties GROUP BY work) SELECT work "
                + $"FROM (SELECT v.work AS work, n.n AS ties, coalesce(c.n, 0) AS cited FROM ({inView}) v JOIN n "
                + "ON n.work = v.work LEFT JOIN cited c ON c.work = v.work ORDER BY 2 DESC, 3 DESC, 1 LIMIT 50) "
                + "LIMIT 1"
        );
        return (works, ties, only, narrowed, first);
    }

    /// <summary>The neighbours, how many things they share in all, and the first page of the joined order.</summary>
    private static (int Works, long Shared) Near(CorpusIndex index, NeighbourKind kind, int[] seeds)
    {
        using var snapshot = index.Snapshot();
        var size = snapshot.Columns.WorkSize;
        var list = new NeighbourLists(snapshot).Of(kind, seeds);
        var near = new Neighbours([list]);
        var works = near.Works(1, size);
        var order = near.Order(_ => 1);
        _ = WorkOrder
            .Sort(snapshot, works, SortOrder.Likeness, [], new(snapshot.Columns.RecordSize), 2026, null, order)
            .Take(50)
            .ToArray();
        return (works.Count(), list.Shares);
    }

    /// <summary>The same by SQL, the first page by how much is shared.</summary>
    private static (int Works, long Shared) NearBySql(SqliteConnection sql, NeighbourKind kind, int[] seeds)
    {
        var (from, to) = kind == NeighbourKind.SharedReferences ? ("work", "cited") : ("cited", "work");
        Do(
            sql,
            "DROP TABLE IF EXISTS temp.seeds; CREATE TEMP TABLE seeds (work INTEGER PRIMARY KEY); INSERT OR IGNORE "
                + $"INTO temp.seeds VALUES {string.Join(",", seeds.Select(s => $"({s})"))}; DROP TABLE IF EXISTS "
                + "temp.things; CREATE TEMP TABLE things AS SELECT DISTINCT f."
                + $"{to} AS thing FROM temp.seeds s CROSS JOIN refs f ON f.{from} = s.work WHERE f.work <> f.cited; "
                + "DROP TABLE IF EXISTS temp.near; CREATE TEMP TABLE near AS SELECT work, count(*) AS n FROM (SELECT "
                + $"DISTINCT f.{from} AS work, t.thing AS thing FROM temp.things t CROSS JOIN refs f ON f.{to} = t.thing "
                + "WHERE f.work <> f.cited) WHERE work NOT IN (SELECT work FROM temp.seeds) GROUP BY work;"
        );
        _ = Number(sql, "SELECT work FROM (SELECT work FROM temp.near ORDER BY n DESC, work LIMIT 50) LIMIT 1");
        return (
            Number(sql, "SELECT count(*) FROM temp.near"),
            Number(sql, "SELECT coalesce(sum(n), 0) FROM temp.near")
        );
    }

    private static SqliteCommand Prepared(SqliteConnection sql, string text, int parameters)
    {
        var command = sql.CreateCommand();
#pragma warning disable CA2100 // constants of ours
        command.CommandText = text;
#pragma warning restore CA2100
        for (var i = 0; i < parameters; i++)
            command.Parameters.AddWithValue("$" + i, 0);
        return command;
    }

    private static void Put(SqliteCommand command, params int[] values)
    {
        for (var i = 0; i < values.Length; i++)
            command.Parameters[i].Value = values[i];
        command.ExecuteNonQuery();
    }

    private static void Do(SqliteConnection sql, string text)
    {
        using var command = Prepared(sql, text, 0);
        command.ExecuteNonQuery();
    }

    private static int Number(SqliteConnection sql, string text)
    {
        using var command = Prepared(sql, text, 0);
        return command.ExecuteScalar() is { } value and not DBNull
            ? Convert.ToInt32(value, System.Globalization.CultureInfo.InvariantCulture)
            : 0;
    }
}
