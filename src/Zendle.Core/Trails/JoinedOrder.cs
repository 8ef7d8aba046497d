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

    /// <summary>So many times as many neighbours as works asked for are searched, not walked.</summary>
    private const int Sparse = 16;

    private readonly ImmutableArray<(NeighbourList List, double Weight)> reasons;

    /// <summary>The order by some lists.</summary>
    /// <param name="lists">One for each reason.</param>
    /// <param name="weight">What a reason weighs; 0 leaves it out.</param>
    internal JoinedOrder(ImmutableArray<NeighbourList> lists, Func<NeighbourKind, double> weight) =>
        reasons = [.. lists.Select(l => (l, weight(l.Kind))).Where(r => r.Item2 > 0)];

    /// <summary>How like the seeds a work is; 0 for one that is no neighbour. O(log neighbours).</summary>
    public double Of(int work) =>
        reasons.Sum(r => r.List.Rank(work) is > 0 and var rank ? r.Weight / (Flatness + rank) : 0);

    /// <summary>The works of a set, the likest first, equal ones by id. O(works + neighbours) by one reason, else with the
    /// works sorted.</summary>
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
            var ranks = list.Ranks;
            foreach (var (at, place) in new Meeting(works, list.Works))
                likeness[at] += weight / (Flatness + ranks[place]);
        }
        var keys = new ulong[works.Length];
        // Bits of a number that is not negative order as it does.
        for (var i = 0; i < works.Length; i++)
            keys[i] = ~BitConverter.DoubleToUInt64Bits(likeness[i]);
        RadixSort.Sort(keys, works);
        return works;
    }

    /// <summary>Where works that are asked for stand among neighbours, both ascending.</summary>
    private ref struct Meeting(ReadOnlySpan<int> works, ReadOnlySpan<int> neighbours)
    {
        private readonly ReadOnlySpan<int> works = works;
        private readonly ReadOnlySpan<int> neighbours = neighbours;
        private readonly bool isSparse = works.Length < neighbours.Length / Sparse;
        private int at = -1,
            place = 0;

        public readonly Meeting GetEnumerator() => this;

        public readonly (int At, int Place) Current => (at, place);

        public bool MoveNext()
        {
            while (++at < works.Length)
            {
                if (isSparse)
                {
                    var found = neighbours[place..].BinarySearch(works[at]);
                    place += found < 0 ? ~found : found;
                    if (found >= 0)
                        return true;
                    continue;
                }
                while (place < neighbours.Length && neighbours[place] < works[at])
                    place++;
                if (place < neighbours.Length && neighbours[place] == works[at])
                    return true;
            }
            return false;
        }
    }
}
