using System.Globalization;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Index.Senses;
using Zendle.Outside.World;

namespace Zendle.Bench.Measure;

/// <summary>
/// Whether groups of works that use a word in different company are those of the fields they come from: B³ (Bagga,
/// Baldwin 1998) over the works in a group, for twenty words that stand in several fields.
/// </summary>
internal static class SenseMeasure
{
    private const int Orders = 5;

    private static readonly string[] Words =
    [
        "light",
        "exposure",
        "attraction",
        "moth*",
        "field*",
        "flight",
        "network*",
        "contrast",
        "colour",
        "sensitivity",
        "response*",
        "scent",
        "structure",
        "model*",
        "noise",
        "night",
        "trap*",
        "spectrum OR spectra",
        "signal*",
        "density",
    ];

    public static void Print(
        CorpusSnapshot snapshot,
        IReadOnlyList<HarvestedEntry> entries,
        WorldFiles world,
        TextWriter to,
        bool examples
    )
    {
        var truth = world.Records();
        var areas = Scenario
            .Read(Path.Combine(AppContext.BaseDirectory, "demo"))
            .Topics.ToDictionary(t => t.Key, t => t.Area);
        var topics = world
            .Truth("works.csv")
            .ToDictionary(
                row => int.Parse(row[0], CultureInfo.InvariantCulture),
                row => bool.Parse(row[5]) ? "the scenario" : areas[row[4]]
            );
        var topicOf = entries
            .GroupBy(e => e.WorkId)
            .ToDictionary(g => g.Key, g => topics.GetValueOrDefault(truth[g.First().At].Work, "?"));
        var evaluator = new QuestionEvaluator(snapshot, null);
        var scores = new List<(double Precision, double Recall, double Placed, double Same)>();
        foreach (var word in Words)
        {
            var set = evaluator.Works(evaluator.Records(QueryReader.Read(word).Root!));
            if (set.Count() is < 20 or > SenseGroups.MostWorks)
                continue;
            var began = TimeProvider.System.GetTimestamp();
            var groups = new SenseGroups(snapshot).Of(set, Zendle.Index.Budget.Current);
            var took = TimeProvider.System.GetElapsedTime(began).TotalMilliseconds;
            var (precision, recall) = BCubed(groups, topicOf);
            var same = Enumerable.Range(1, Orders).Average(seed => Same(groups, Shuffled(seed)));
            scores.Add((precision, recall, (double)groups.Sum(g => g.Works.Count) / set.Count(), same));
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {word}: {set.Count():N0} works, {groups.Count} groups, B³ precision {precision:0.00} "
                        + $"recall {recall:0.00}, in other orders {same:0.00} the same, {took:0} ms"
                )
            );
            if (examples)
                foreach (var g in groups)
                    to.WriteLine(
                        $"      {g.Works.Count}: {string.Join(", ", g.Terms)} | {string.Join(", ", Fields(g, topicOf))}"
                    );

            IReadOnlyList<SenseGroup> Shuffled(int seed) =>
                new SenseGroups(snapshot).Of(set, Zendle.Index.Budget.Current, new Random(seed));
        }
        var (p, r) = (scores.Average(s => s.Precision), scores.Average(s => s.Recall));
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"Senses of {scores.Count} words: B³ precision {p:0.000}, recall {r:0.000}, "
                    + $"F {2 * p * r / (p + r):0.000}; {scores.Average(s => s.Placed):0.00} of the works are in a group; "
                    + $"with the works in {Orders} other orders the groups are {scores.Average(s => s.Same):0.000} the "
                    + $"same, {scores.Min(s => s.Same):0.000} at worst"
            )
        );
    }

    /// <summary>The commonest fields of a group, with their works.</summary>
    private static IEnumerable<string> Fields(SenseGroup group, Dictionary<int, string> topicOf) =>
        group.Works.CountBy(w => topicOf[w]).OrderByDescending(t => t.Value).Take(4).Select(t => $"{t.Key} {t.Value}");

    /// <summary>
    /// How far two partings agree: F of B³ over the works that either places, those it leaves over being a group.
    /// </summary>
    private static double Same(IReadOnlyList<SenseGroup> groups, IReadOnlyList<SenseGroup> others)
    {
        var (one, other) = (Placed(groups), Placed(others));
        (int One, int Other)[] works =
        [
            .. one.Keys.Union(other.Keys).Select(w => (one.GetValueOrDefault(w, -1), other.GetValueOrDefault(w, -1))),
        ];
        if (works.Length == 0)
            return 1;
        var (ofOne, ofOther, both) = (
            works.CountBy(w => w.One).ToDictionary(),
            works.CountBy(w => w.Other).ToDictionary(),
            works.CountBy(w => w).ToDictionary()
        );
        var (p, r) = (
            works.Average(w => (double)both[w] / ofOther[w.Other]),
            works.Average(w => (double)both[w] / ofOne[w.One])
        );
        return 2 * p * r / (p + r);

        static Dictionary<int, int> Placed(IReadOnlyList<SenseGroup> from) =>
            from.SelectMany((g, i) => g.Works.Select(w => (w, i))).ToDictionary(w => w.w, w => w.i);
    }

    private static (double Precision, double Recall) BCubed(
        IReadOnlyList<SenseGroup> groups,
        Dictionary<int, string> topicOf
    )
    {
        var all = groups.SelectMany((g, i) => g.Works.Select(w => (Group: i, Topic: topicOf[w]))).ToArray();
        var (inGroup, inTopic, both) = (
            all.CountBy(w => w.Group).ToDictionary(),
            all.CountBy(w => w.Topic).ToDictionary(),
            all.CountBy(w => w).ToDictionary()
        );
        return all.Length == 0
            ? (0, 0)
            : (
                all.Average(w => (double)both[w] / inGroup[w.Group]),
                all.Average(w => (double)both[w] / inTopic[w.Topic])
            );
    }
}
