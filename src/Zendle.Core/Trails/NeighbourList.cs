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
        var (order, keys) = (new int[works.Length], new ulong[works.Length]);
        // Bits of a number that is not negative order as it does; the likest come first.
        for (var i = 0; i < order.Length; i++)
            (order[i], keys[i]) = (i, ~BitConverter.SingleToUInt32Bits(likeness[i]));
        RadixSort.Sort(keys, order);
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
    public sealed class Tally : IDisposable
    {
        private readonly int size;
        private readonly ById<Share> shares;

        /// <summary>What a work shares so far.</summary>
        private record struct Share(double Sum, int Count) : ICounted
        {
            public readonly bool IsNone => Count == 0;
        }

        /// <summary>Begins.</summary>
        /// <param name="size">Work ids are below this.</param>
        public Tally(int size) => (this.size, shares) = (size, new(size));

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
            ref var share = ref shares[work];
            share.Sum += weight;
            share.Count++;
        }

        /// <summary>The neighbours. O(works that share something).</summary>
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
            var near = shares.Works();
            foreach (var seed in seeds.Where(s => (uint)s < (uint)size))
                near.Remove(seed);
            if (least > 1)
                foreach (var work in near.ToArray())
                    if (shares.Of(work).Count < least)
                        near.Remove(work);
            var works = near.ToArray();
            var (shared, alike) = (new int[works.Length], new float[works.Length]);
            for (var i = 0; i < works.Length; i++)
            {
                var (sum, count) = shares.Of(works[i]);
                (shared[i], alike[i]) = (count, (float)Math.Clamp(likeness(works[i], sum), 0, 1));
            }
            return new(kind, works, shared, alike);
        }

        /// <inheritdoc/>
        public void Dispose() => shares.Dispose();
    }
}
