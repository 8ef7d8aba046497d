using System.Buffers;
using System.Runtime.InteropServices;
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

    /// <summary>How much is shared by all of them together.</summary>
    public long Shares => shared.Sum(s => (long)s);

    /// <summary>About how many bytes it takes, with its ranks.</summary>
    public long Bytes => 200 + (16L * works.Length);

    /// <summary>Each place's rank by likeness, from 1; equal ones share the better.</summary>
    public ReadOnlySpan<int> Ranks => ranks.Value;

    /// <summary>A work's rank by likeness, from 1; 0 for one that is no neighbour.</summary>
    public int Rank(int work) => Array.BinarySearch(works, work) is >= 0 and var at ? ranks.Value[at] : 0;

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

    /// <summary>Gathers what works share.</summary>
    /// <remarks>
    /// Where much is shared, in room as long as the corpus, which is held between questions; else only for the works
    /// that it touches, so that few neighbours cost little however large the corpus is.
    /// </remarks>
    public sealed class Tally : IDisposable
    {
        /// <summary>Room for every work pays when so many works are touched.</summary>
        private const int Sparse = 16;

        private readonly int size;
        private readonly Share[]? dense;
        private readonly Dictionary<int, Share> touched = [];

        /// <summary>What a work shares so far.</summary>
        private record struct Share(double Sum, int Count);

        /// <summary>Begins.</summary>
        /// <param name="size">Work ids are below this.</param>
        /// <param name="expected">How often something will be added, at most.</param>
        public Tally(int size, long expected)
        {
            this.size = size;
            if (expected < size / Sparse)
                return;
            dense = ArrayPool<Share>.Shared.Rent(size);
            Array.Clear(dense, 0, size);
        }

        /// <summary>Some works share one more thing.</summary>
        /// <param name="works">The works, each once.</param>
        /// <param name="weight">What the thing adds to the sum over the seeds.</param>
        public void Add(ReadOnlySpan<int> works, double weight)
        {
            foreach (var work in works)
                Add(work, weight);
        }

        /// <summary>A work shares one more thing.</summary>
        public void Add(int work, double weight)
        {
            ref var share = ref dense is not null
                ? ref dense[work]
                : ref CollectionsMarshal.GetValueRefOrAddDefault(touched, work, out _);
            share.Sum += weight;
            share.Count++;
        }

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
            var (works, shared, alike) = (new List<int>(), new List<int>(), new List<float>());
            void Take(int work, Share share)
            {
                if (share.Count < Math.Max(1, least))
                    return;
                works.Add(work);
                shared.Add(share.Count);
                alike.Add((float)Math.Clamp(likeness(work, share.Sum), 0, 1));
            }
            var own = seeds.ToHashSet();
            if (dense is null)
                foreach (var work in touched.Keys.Where(w => !own.Contains(w)).Order())
                    Take(work, touched[work]);
            else
            {
                foreach (var seed in own)
                    if ((uint)seed < (uint)size)
                        dense[seed] = default;
                for (var work = 0; work < size; work++)
                    Take(work, dense[work]);
            }
            return new(kind, [.. works], [.. shared], [.. alike]);
        }

        /// <inheritdoc/>
        public void Dispose()
        {
            if (dense is not null)
                ArrayPool<Share>.Shared.Return(dense);
        }
    }
}
