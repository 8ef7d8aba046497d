using System.Buffers;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>
/// The neighbours of some works of one kind: how much each has in common with them, and how alike that makes it.
/// </summary>
/// <remarks>Memory: 12 bytes a neighbour. Finding one costs the logarithm of their number.</remarks>
public sealed class NeighbourList
{
    private readonly int[] works,
        shared;
    private readonly float[] likeness;
    private readonly Lazy<int[]> ranks;

    private NeighbourList(NeighbourKind kind, int[] works, int[] shared, float[] likeness)
    {
        (Kind, this.works, this.shared, this.likeness) = (kind, works, shared, likeness);
        ranks = new(Ranked);
    }

    /// <summary>What they have in common.</summary>
    public NeighbourKind Kind { get; }

    /// <summary>How many neighbours there are.</summary>
    public int Count => works.Length;

    /// <summary>The neighbours, ascending.</summary>
    public ReadOnlySpan<int> Works => works;

    /// <summary>About how many bytes it takes, with its ranks.</summary>
    public long Bytes => 200 + (16L * works.Length);

    /// <summary>Each place's rank by likeness, from 1; equal ones share the better.</summary>
    public ReadOnlySpan<int> Ranks => ranks.Value;

    /// <summary>Adds the works that have so much in common with the seeds. O(neighbours).</summary>
    public void AddTo(WorkSet set, int atLeast)
    {
        for (var i = 0; i < works.Length; i++)
            if (shared[i] >= atLeast)
                set.Add(works[i]);
    }

    /// <summary>
    /// How many references, terms or people a work shares with the seeds, or in how many works it is cited together with
    /// one of them; 0 for none.
    /// </summary>
    public int Shared(int work) => Array.BinarySearch(works, work) is >= 0 and var at ? shared[at] : 0;

    /// <summary>
    /// The mean over the seeds of the cosine between what the work has and what the seed has (Salton), 0 to 1.
    /// </summary>
    public double Likeness(int work) => Array.BinarySearch(works, work) is >= 0 and var at ? likeness[at] : 0;

    private int[] Ranked()
    {
        var (order, keys) = (new int[works.Length], new float[works.Length]);
        for (var i = 0; i < order.Length; i++)
            (order[i], keys[i]) = (i, -likeness[i]);
        Array.Sort(keys, order);
        var (rank, at) = (new int[order.Length], 0);
        for (var i = 0; i < order.Length; i++)
        {
            if (keys[i] != keys[at])
                at = i;
            rank[order[i]] = at + 1;
        }
        return rank;
    }

    /// <summary>Gathers what works share; room as long as the corpus is held between questions.</summary>
    /// <param name="size">Work ids are below this.</param>
    public sealed class Tally(int size) : IDisposable
    {
        private readonly double[] sums = Cleared<double>(size);
        private readonly int[] counts = Cleared<int>(size);

        private static T[] Cleared<T>(int size)
        {
            var room = ArrayPool<T>.Shared.Rent(size);
            Array.Clear(room, 0, size);
            return room;
        }

        /// <summary>A work shares one more thing.</summary>
        /// <param name="work">The work.</param>
        /// <param name="weight">What the thing adds to the sum over the seeds.</param>
        public void Add(int work, double weight)
        {
            sums[work] += weight;
            counts[work]++;
        }

        /// <summary>How many things a work shares so far.</summary>
        public int Shared(int work) => counts[work];

        /// <summary>The neighbours.</summary>
        /// <param name="kind">What they have in common.</param>
        /// <param name="seeds">No neighbours of themselves.</param>
        /// <param name="least">What fewer is passed over.</param>
        /// <param name="likeness">How alike a work is to the seeds, from what it shares with them.</param>
        public NeighbourList Finish(
            NeighbourKind kind,
            IReadOnlyCollection<int> seeds,
            int least,
            Func<int, double, double> likeness
        )
        {
            foreach (var seed in seeds)
                if ((uint)seed < (uint)size)
                    counts[seed] = 0;
            var (works, shared, alike) = (new List<int>(), new List<int>(), new List<float>());
            for (var work = 0; work < size; work++)
                if (counts[work] >= Math.Max(1, least))
                {
                    works.Add(work);
                    shared.Add(counts[work]);
                    alike.Add((float)Math.Clamp(likeness(work, sums[work]), 0, 1));
                }
            return new(kind, [.. works], [.. shared], [.. alike]);
        }

        /// <inheritdoc/>
        public void Dispose()
        {
            ArrayPool<double>.Shared.Return(sums);
            ArrayPool<int>.Shared.Return(counts);
        }
    }
}
