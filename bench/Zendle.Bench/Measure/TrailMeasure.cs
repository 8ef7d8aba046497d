using System.Globalization;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Index.Trails;

namespace Zendle.Bench.Measure;

/// <summary>
/// How soon trails and neighbours find the works of a subtopic: from three of its works, looking at candidates in the
/// tool's own order and keeping what the truth says, which joins the seeds. And how often the interval of what is missing
/// holds the true number.
/// </summary>
internal sealed class TrailMeasure
{
    private const int LeastWorks = 8,
        SeedSets = 3,
        Seeds = 3,
        Batch = 25;
    private static readonly int[] Depths = [50, 100, 200, 400];

    private readonly CorpusSnapshot snapshot;
    private readonly CitationGraph graph;
    private readonly int size;

    private TrailMeasure(CorpusSnapshot snapshot) =>
        (this.snapshot, graph, size) = (snapshot, snapshot.Columns.Graph, snapshot.Columns.WorkSize);

    /// <summary>An order of candidates, the likeliest first, from what was kept so far.</summary>
    private delegate IEnumerable<int> Order(int[] kept);

    public static void Print(
        CorpusSnapshot snapshot,
        IReadOnlyList<HarvestedEntry> entries,
        WorldFiles world,
        TextWriter to,
        bool examples
    )
    {
        var measure = new TrailMeasure(snapshot);
        var subtopics = Subtopics.Of(snapshot, entries, world).Where(t => t.Value.Count() >= LeastWorks).ToArray();
        (string Name, Order Order)[] orders =
        [
            ("backward only", measure.ByTies(w => measure.graph.Cites(w))),
            ("forward only", measure.ByTies(w => measure.graph.CitedBy(w))),
            .. NeighbourQuestion.AllKinds.Append(NeighbourKind.Tied).Select(k => (k.ToString(), measure.Joined(k))),
            ("joined", measure.Joined([.. NeighbourQuestion.AllKinds])),
            ("joined with ties", measure.Joined([.. NeighbourQuestion.AllKinds, NeighbourKind.Tied])),
        ];
        to.WriteLine(
            $"Trails of {subtopics.Length} subtopics from {SeedSets} sets of {Seeds} seeds each: recall after "
                + $"{string.Join(", ", Depths)} works looked at"
        );
        foreach (var (name, order) in orders)
        {
            var recalls = subtopics
                .SelectMany(t => Enumerable.Range(0, SeedSets).Select(s => Walk(t.Value, s, order).Recalls))
                .ToArray();
            var means = Depths.Select((_, d) => recalls.Average(r => r[d]));
            to.WriteLine(
                $"  {name}: {string.Join("  ", means.Select(m => m.ToString("0.000", CultureInfo.InvariantCulture)))}"
            );
        }
        measure.Missing(subtopics, orders[^1].Order, to, examples);
    }

    /// <summary>
    /// Chapman's interval over subtopics and seed sets: the searches are a two-word search for the subtopic, the trails
    /// one round looked through to the end; the true number is the subtopic's.
    /// </summary>
    private void Missing(KeyValuePair<string, WorkSet>[] subtopics, Order order, TextWriter to, bool examples)
    {
        var (holds, under, told, shares) = (0, 0, 0, new List<double>());
        foreach (var (topic, works) in subtopics)
            for (var s = 0; s < SeedSets; s++)
            {
                var kept = Walk(works, s, order).Kept;
                var searched = Searched(works, s);
                searched.IntersectWith(works);
                var all = WorkSet.Of(size, kept);
                all.UnionWith(searched);
                var tied = WorkSet.Of(
                    size,
                    all.Members().Where(w => Any(graph.Cites(w), all) || Any(graph.CitedBy(w), all))
                );
                if (MissingEstimate.Of(searched.Count(), tied.Count(), searched.CountWith(tied)) is not { } estimate)
                    continue;
                told++;
                var truth = works.Count();
                holds += estimate.Low <= truth + 0.5 && estimate.High >= truth - 0.5 ? 1 : 0;
                under += estimate.High < truth - 0.5 ? 1 : 0;
                shares.Add(estimate.All / truth);
                if (examples)
                    to.WriteLine(
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"    {topic} {s}: {truth} in truth, {estimate.Known} known, {estimate.Low:0.0} to "
                                + $"{estimate.High:0.0}"
                        )
                    );
            }
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"What is missing: {told} estimates; the 95 % interval holds the true number in "
                    + $"{(double)holds / Math.Max(1, told):0.00}, ends below it in {(double)under / Math.Max(1, told):0.00}; "
                    + $"the estimate is {(shares.Count == 0 ? 0 : shares.Average()):0.00} of the true number on average"
            )
        );
    }

    private static bool Any(ReadOnlySpan<int> works, WorkSet kept)
    {
        foreach (var work in works)
            if (kept.Contains(work))
                return true;
        return false;
    }

    /// <summary>What a person's search finds: two words that most titles of the subtopic share, other ones each time.</summary>
    private WorkSet Searched(WorkSet works, int which)
    {
        var evaluator = new QuestionEvaluator(snapshot, null);
        var words = new NeighbourLists(snapshot)
            .Telling.Of([.. works.Members()])
            .OrderByDescending(t => t.Works.CountWith(works))
            .ThenBy(t => t.Word, StringComparer.Ordinal)
            .Skip(2 * which)
            .Take(2)
            .Select(t => t.Expression);
        return evaluator.Works(string.Join(" OR ", words));
    }

    /// <summary>Looks at candidates, some at a time, and keeps those of the subtopic.</summary>
    private static (double[] Recalls, int[] Kept) Walk(WorkSet works, int set, Order order)
    {
        int[] all = [.. works.Members()];
        var kept = new List<int>(
            Enumerable.Range(0, Seeds).Select(i => all[(set + (i * SeedSets)) * 7 % all.Length]).Distinct()
        );
        var (looked, recalls) = (kept.ToHashSet(), new double[Depths.Length]);
        for (var seen = 0; seen < Depths[^1]; )
        {
            int[] next = [.. order([.. kept]).Where(w => !looked.Contains(w)).Take(Batch)];
            foreach (var work in next)
            {
                looked.Add(work);
                if (works.Contains(work))
                    kept.Add(work);
            }
            seen += Batch;
            for (var d = 0; d < Depths.Length; d++)
                if (seen <= Depths[d])
                    recalls[d] = (double)kept.Count / all.Length;
        }
        return (recalls, [.. kept]);
    }

    private Order ByTies(Neighbours.Having tied) =>
        kept =>
        {
            var ties = new Dictionary<int, int>();
            foreach (var seed in kept)
            foreach (var work in tied(seed))
                ties[work] = ties.GetValueOrDefault(work) + 1;
            return ties.OrderByDescending(t => t.Value)
                .ThenByDescending(t => graph.CitedByCount(t.Key))
                .ThenBy(t => t.Key)
                .Select(t => t.Key);
        };

    private Order Joined(params NeighbourKind[] kinds) =>
        kept =>
        {
            var found = new NeighbourLists(snapshot);
            var near = new Neighbours([.. kinds.Select(k => found.Of(k, kept))]);
            var order = near.Order(k => NeighbourWeights.Usual.Of(k));
            return near.Works(1, size)
                .Members()
                .OrderByDescending(order.Of)
                .ThenBy(w => w)
                .Take(Depths[^1] + Seeds + Batch);
        };
}
