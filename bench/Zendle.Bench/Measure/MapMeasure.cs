using System.Globalization;
using Zendle.Core.Sets;
using Zendle.Index;
using Zendle.Index.Questions;
using Zendle.Index.Senses;

namespace Zendle.Bench.Measure;

/// <summary>
/// Whether the topics that a map finds are the subtopics its works were written for: the adjusted Rand index (Hubert, Arabie
/// 1985), 1 for the same parting and 0 for one by chance, over the works that are in a topic.
/// </summary>
internal static class MapMeasure
{
    public static void Print(
        CorpusSnapshot snapshot,
        IReadOnlyList<HarvestedEntry> entries,
        WorldFiles world,
        TextWriter to
    )
    {
        var subtopics = Subtopics.Of(snapshot, entries, world);
        var of = new Dictionary<int, int>();
        for (var i = 0; i < subtopics.Count; i++)
            foreach (var work in subtopics[i].Value)
                of[work] = i;
        var set = WorkSet.Of(snapshot.Columns.WorkSize, of.Keys);
        foreach (var resolution in new[] { 0.7, 1.2, 1.6, 2.2, 3 })
        {
            var (groups, modularity) = new SenseGroups(snapshot).Part(
                set,
                Budget.Current,
                Fineness.Topics(of.Count) with
                {
                    Resolution = resolution,
                }
            );
            var placed = groups.SelectMany((g, i) => g.Works.Select(w => (Found: i, True: of[w]))).ToArray();
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  resolution {resolution:0.0}: {groups.Count} topics of {subtopics.Count} subtopics, "
                        + $"{placed.Length:N0} of {of.Count:N0} works in one; adjusted Rand index {AdjustedRand(placed):0.000}, "
                        + $"modularity {modularity:0.000}"
                )
            );
        }
    }

    /// <summary>The adjusted Rand index of two partings.</summary>
    internal static double AdjustedRand(IReadOnlyCollection<(int Found, int True)> placed)
    {
        static double Pairs(IEnumerable<int> sizes) => sizes.Sum(n => n * (n - 1.0) / 2);
        var both = Pairs(placed.CountBy(p => p).Select(c => c.Value));
        var (found, real) = (
            Pairs(placed.CountBy(p => p.Found).Select(c => c.Value)),
            Pairs(placed.CountBy(p => p.True).Select(c => c.Value))
        );
        var expected = found * real / Pairs([placed.Count]);
        var most = (found + real) / 2;
        return most == expected ? 1 : (both - expected) / (most - expected);
    }
}
