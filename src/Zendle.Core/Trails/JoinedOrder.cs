using System.Collections.Immutable;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>
/// How like the seeds works are by several reasons: Σ weight ÷ (60 + rank), reciprocal rank fusion (Cormack, Clarke,
/// Büttcher 2009).
/// </summary>
/// <remarks>It holds nothing of its own: what is asked for is read off the lists.</remarks>
public sealed class JoinedOrder
{
    /// <summary>How much the first ranks are held together.</summary>
    private const double Flatness = 60;

    private readonly ImmutableArray<(NeighbourList List, double Weight)> reasons;

    /// <summary>The order by some lists.</summary>
    /// <param name="lists">One for each reason.</param>
    /// <param name="weight">What a reason weighs; 0 leaves it out.</param>
    internal JoinedOrder(ImmutableArray<NeighbourList> lists, Func<NeighbourKind, double> weight) =>
        reasons = [.. lists.Select(l => (l, weight(l.Kind))).Where(r => r.Item2 > 0)];

    /// <summary>How like the seeds a work is; 0 for one that is no neighbour. O(log neighbours).</summary>
    public double Of(int work) =>
        reasons.Sum(r => r.List.Rank(work) is > 0 and var rank ? r.Weight / (Flatness + rank) : 0);

    /// <summary>The works of a set, the likest first, equal ones by id. O(works + neighbours) by one reason, else and what it
    /// takes to sort the works.</summary>
    public int[] Sort(WorkSet set) => reasons is [var (only, _)] ? Sorted(set, only) : Sorted(set.ToArray());

    /// <summary>By one reason its own order is what is asked for; what is no neighbour comes last.</summary>
    private static int[] Sorted(WorkSet set, NeighbourList by)
    {
        var (sorted, at) = (new int[set.Count()], 0);
        var works = by.Works;
        foreach (var place in by.Order)
            if (set.Contains(works[place]))
                sorted[at++] = works[place];
        if (at < sorted.Length)
            foreach (var work in set.Members().Where(w => by.Shared(w) == 0))
                sorted[at++] = work;
        return sorted;
    }

    private int[] Sorted(int[] works)
    {
        var likeness = new double[works.Length];
        foreach (var (list, weight) in reasons)
        {
            var neighbours = list.Works;
            var ranks = list.Ranks;
            // Both ascend.
            for (int at = 0, place = 0; at < works.Length && place < neighbours.Length; at++)
            {
                while (place < neighbours.Length && neighbours[place] < works[at])
                    place++;
                if (place < neighbours.Length && neighbours[place] == works[at])
                    likeness[at] += weight / (Flatness + ranks[place]);
            }
        }
        var keys = new ulong[works.Length];
        // Bits of a number that is not negative order as it does.
        for (var i = 0; i < works.Length; i++)
            keys[i] = ~BitConverter.DoubleToUInt64Bits(likeness[i]);
        RadixSort.Sort(keys, works);
        return works;
    }
}
