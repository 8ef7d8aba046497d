using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Core.Trails;

namespace Zendle.Index.Terms;

/// <summary>
/// Tells which works look like the good ones: those that have as much of what marks these as nine in ten of them have
/// themselves (relevance weights: Robertson, Spärck Jones 1976), or half as much and a tie to one of them.
/// </summary>
internal sealed class LikeGood
{
    /// <summary>What is rarer by chance than once in a thousand (χ², one degree of freedom).</summary>
    private const double Sure = 10.83;

    /// <summary>What a tenth of the good works do not reach, and nearly as much is enough.</summary>
    private const double Least = 0.1,
        Nearly = 0.9;

    private readonly float[] scores;
    private readonly WorkSet good;
    private readonly CitationGraph graph;
    private readonly double enough;

    /// <summary>Learns what marks the good works, and weighs every work by it. O(works of the terms).</summary>
    /// <param name="terms">Terms that mark them, the surest first, none within another.</param>
    /// <param name="works">The works that have a term.</param>
    /// <param name="good">The good works.</param>
    /// <param name="all">How many works there are.</param>
    /// <param name="graph">Who cites whom.</param>
    public LikeGood(
        IEnumerable<MarkingTerm> terms,
        Func<MarkingTerm, WorkSet> works,
        WorkSet good,
        int all,
        CitationGraph graph
    )
    {
        (this.good, this.graph) = (good, graph);
        var of = good.Count();
        scores = new float[good.Size];
        foreach (var having in terms.Where(t => t.Term.Strength > Sure).Select(works))
        {
            var with = having.CountWith(good);
            var weight = (float)Weight(with, of, having.Count() - with, all - of);
            foreach (var work in having)
                scores[work] += weight;
        }
        var own = good.Members().Select(w => scores[w]).Order().ToArray();
        enough = own.Length == 0 ? double.PositiveInfinity : Math.Max(own[(int)(own.Length * Least)] * Nearly, 1);
    }

    /// <summary>How many works look like the good ones. O(works).</summary>
    public int Count(WorkSet works)
    {
        var count = 0;
        foreach (var work in works)
            if (scores[work] is var score && (score >= enough || (score * 2 >= enough && IsTied(work))))
                count++;
        return count;
    }

    private static double Weight(int with, int of, int otherWith, int others) =>
        Math.Max(
            0,
            Math.Log((with + 0.5) / (of - with + 0.5)) - Math.Log((otherWith + 0.5) / (others - otherWith + 0.5))
        );

    private bool IsTied(int work) => IsGood(graph.Cites(work)) || IsGood(graph.CitedBy(work));

    private bool IsGood(ReadOnlySpan<int> works)
    {
        foreach (var work in works)
            if (good.Contains(work))
                return true;
        return false;
    }
}
