using System.Collections.Immutable;
using System.Numerics;
using System.Runtime.InteropServices;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>
/// A trail followed: for each work how many seeds are tied to it, in the past and in the future, and which databases
/// say so. The trail of several seeds is the union of theirs; a seed that another seed cites belongs to it.
/// </summary>
public sealed class Trail
{
    private readonly CitationGraph graph;
    private readonly TrailQuestion question;
    private readonly ulong chosen;
    private readonly int size;
    private readonly Dictionary<int, int> number = [];

    private Trail(CitationGraph graph, TrailQuestion question, ulong chosen, int size)
    {
        (this.graph, this.question, this.chosen) = (graph, question, chosen);
        this.size = size;
        for (var i = 0; i < question.Seeds.Length; i++)
            number.TryAdd(question.Seeds[i], i + 1);
        Past = new(graph, question.HasPast ? number.Keys : [], isForward: false, chosen, size);
        Future = new(graph, question.HasFuture ? number.Keys : [], isForward: true, chosen, size);
    }

    /// <summary>What the seeds cite; empty when the trail runs forward only.</summary>
    public Side Past { get; }

    /// <summary>What cites the seeds; empty when the trail runs backward only.</summary>
    public Side Future { get; }

    /// <summary>About how many bytes it takes.</summary>
    public long Bytes => Past.Bytes + Future.Bytes + (40L * number.Count);

    /// <summary>Follows a trail. O(ties of the seeds).</summary>
    /// <param name="graph">Who cites whom.</param>
    /// <param name="question">Seeds and way. Seeds that are not in the graph have no ties.</param>
    /// <param name="databases">Databases whose reports count; empty for all.</param>
    /// <param name="size">Work ids are below this.</param>
    public static Trail Follow(
        CitationGraph graph,
        TrailQuestion question,
        IReadOnlyCollection<int> databases,
        int size
    ) => new(graph, question, graph.MaskOf(databases), size);

    /// <summary>All works of the trail, both sides, tied to at least so many seeds on one of them.</summary>
    public WorkSet Works(int atLeast)
    {
        var works = Past.Works(atLeast);
        works.UnionWith(Future.Works(atLeast));
        return works;
    }

    /// <summary>A seed's number, from 1; null for a work that is none.</summary>
    public int? NumberOf(int work) => number.TryGetValue(work, out var n) ? n : null;

    /// <summary>
    /// For each seed, by its number less one, how many works of a set are tied to it and to no other seed, whichever way the
    /// trail runs. O(ties of the seeds).
    /// </summary>
    public int[] Alone(WorkSet works)
    {
        const int Several = 0;
        var tied = new Dictionary<int, int>();
        foreach (var (seed, n) in number)
        {
            if (question.HasPast)
                Take(graph.Cites(seed), graph.CitesReported(seed), n);
            if (question.HasFuture)
                Take(graph.CitedBy(seed), graph.CitedByReported(seed), n);
        }
        var alone = new int[question.Seeds.Length];
        foreach (var n in tied.Values)
            if (n != Several)
                alone[n - 1]++;
        return alone;

        void Take(ReadOnlySpan<int> side, TieKeys reported, int n)
        {
            for (var i = 0; i < side.Length; i++)
                if ((graph.Mask(reported[i]) & chosen) != 0 && works.Contains(side[i]))
                {
                    ref var first = ref CollectionsMarshal.GetValueRefOrAddDefault(tied, side[i], out var known);
                    first = !known || first == n ? n : Several;
                }
        }
    }

    /// <summary>Numbers of the seeds that cite a work, ascending. O(works that cite it).</summary>
    public ImmutableArray<int> SeedsCiting(int work) =>
        question.HasPast ? Numbers(graph.CitedBy(work), graph.CitedByReported(work)) : [];

    /// <summary>Numbers of the seeds that a work cites, ascending. O(works it cites).</summary>
    public ImmutableArray<int> SeedsCitedBy(int work) =>
        question.HasFuture ? Numbers(graph.Cites(work), graph.CitesReported(work)) : [];

    private ImmutableArray<int> Numbers(ReadOnlySpan<int> works, TieKeys reported)
    {
        var found = new List<int>();
        for (var i = 0; i < works.Length; i++)
            if ((graph.Mask(reported[i]) & chosen) != 0 && number.TryGetValue(works[i], out var n))
                found.Add(n);
        found.Sort();
        return [.. found];
    }

    /// <summary>
    /// What each database reports of the trail, over all databases whether chosen or not: ties, works, and the works
    /// that would be lost without it among the chosen ones. O(ties of the seeds).
    /// </summary>
    /// <param name="containers">What contains an extract, by the extract's id; null for no extracts.</param>
    public ImmutableArray<TrailShare> Shares(IReadOnlyDictionary<int, int>? containers = null)
    {
        var all = chosen == ulong.MaxValue ? this : new Trail(graph, question, ulong.MaxValue, size);
        var (ties, works) = (new int[64], new int[64]);
        var bit = graph.Databases.Select((d, i) => (d, i)).ToDictionary(x => x.d, x => x.i);
        var only = new OnlyHere(
            graph.Databases,
            containers ?? ImmutableDictionary<int, int>.Empty,
            d => (chosen & 1UL << bit[d]) != 0
        );
        // Both sides are ascending: a work on both is counted once.
        for (int p = 0, f = 0; p < all.Past.Count || f < all.Future.Count; )
        {
            var past = p < all.Past.Count ? all.Past.Members[p] : int.MaxValue;
            var future = f < all.Future.Count ? all.Future.Members[f] : int.MaxValue;
            var mask =
                (past <= future ? all.Past.ReportedAt(p++) : 0) | (future <= past ? all.Future.ReportedAt(f++) : 0);
            for (var m = mask; m != 0; m &= m - 1)
                works[BitOperations.TrailingZeroCount(m)]++;
            only.Take(mask);
        }
        foreach (var seed in number.Keys)
        {
            if (question.HasPast)
                Count(graph.CitesReported(seed), ties);
            if (question.HasFuture)
                Count(graph.CitedByReported(seed), ties);
        }
        return [.. graph.Databases.Select((d, i) => new TrailShare(d, ties[i], works[i], only.Counts[i]))];
    }

    private void Count(TieKeys reported, int[] ties)
    {
        for (var i = 0; i < reported.Length; i++)
        for (var m = graph.Mask(reported[i]); m != 0; m &= m - 1)
            ties[BitOperations.TrailingZeroCount(m)]++;
    }

    /// <summary>
    /// One side of a trail. Only the works that belong to it are held, so that many trails can be remembered.
    /// </summary>
    public sealed class Side
    {
        /// <summary>From so many works on a place is looked up by number instead of being searched for.</summary>
        private const int Many = 4_096;

        private readonly int[] works,
            ties;
        private readonly ulong[] reported;
        private readonly WorkSet? set;
        private readonly int[] ranks = [];
        private readonly int size;

        /// <summary>What is counted of a work.</summary>
        private record struct Tied(int Ties, ulong Reported) : ICounted
        {
            public readonly bool IsNone => Ties == 0;
        }

        internal Side(CitationGraph graph, IReadOnlyCollection<int> seeds, bool isForward, ulong chosen, int size)
        {
            this.size = size;
            (works, ties, reported) = seeds.Count == 1 ? OfOne(seeds.First()) : OfSeveral();
            if (works.Length >= Many)
            {
                set = WorkSet.Of(size, works);
                ranks = set.BlockRanks();
            }

            ReadOnlySpan<int> TiedTo(int seed) => isForward ? graph.CitedBy(seed) : graph.Cites(seed);
            TieKeys Keys(int seed) => isForward ? graph.CitedByReported(seed) : graph.CitesReported(seed);

            // A seed's list is its trail as it stands: ascending, each work once.
            (int[] Works, int[] Ties, ulong[] Reported) OfOne(int seed)
            {
                var keys = Keys(seed);
                var (tied, n) = (TiedTo(seed).ToArray(), 0);
                var masks = new ulong[tied.Length];
                for (var i = 0; i < tied.Length; i++)
                    if ((graph.Mask(keys[i]) & chosen) is not 0 and var mask)
                        (tied[n], masks[n++]) = (tied[i], mask);
                Array.Resize(ref tied, n);
                Array.Resize(ref masks, n);
                var ones = new int[n];
                Array.Fill(ones, 1);
                return (tied, ones, masks);
            }

            (int[] Works, int[] Ties, ulong[] Reported) OfSeveral()
            {
                using var counted = new ById<Tied>(size);
                foreach (var seed in seeds)
                {
                    var tied = TiedTo(seed);
                    var keys = Keys(seed);
                    for (var i = 0; i < tied.Length; i++)
                    {
                        var mask = graph.Mask(keys[i]) & chosen;
                        if (mask == 0)
                            continue;
                        ref var work = ref counted[tied[i]];
                        work = new(work.Ties + 1, work.Reported | mask);
                    }
                }
                var all = counted.Works().ToArray();
                var (counts, masks) = (new int[all.Length], new ulong[all.Length]);
                for (var i = 0; i < all.Length; i++)
                    (counts[i], masks[i]) = counted.Of(all[i]);
                return (all, counts, masks);
            }
        }

        internal int Count => works.Length;

        internal long Bytes => 16L * works.Length + (set is null ? 0 : size / 8 + 4L * ranks.Length);

        internal ReadOnlySpan<int> Members => works;

        /// <summary>Who reports the ties of the work at a place of <see cref="Members"/>.</summary>
        internal ulong ReportedAt(int place) => reported[place];

        /// <summary>How many seeds a work is tied to on this side.</summary>
        public int Ties(int work) => Place(work) is >= 0 and var at ? ties[at] : 0;

        /// <summary>The works tied to at least so many seeds. O(works of the side).</summary>
        public WorkSet Works(int atLeast)
        {
            if (atLeast <= 1 && set is not null)
                return set.Copy();
            var those = new WorkSet(size);
            for (var i = 0; i < works.Length; i++)
                if (ties[i] >= atLeast)
                    those.Add(works[i]);
            return those;
        }

        private int Place(int work) => set?.RankOf(work, ranks) ?? Array.BinarySearch(works, work);
    }
}

/// <summary>What one database reports of a trail.</summary>
/// <param name="DatabaseId">The database.</param>
/// <param name="Ties">Pairs of a seed and a work that it reports.</param>
/// <param name="Works">The works in them.</param>
/// <param name="OnlyHere">Works that would be lost without it: no other chosen database ties them to a seed, its extracts
/// counted together with it.</param>
public readonly record struct TrailShare(int DatabaseId, int Ties, int Works, int OnlyHere);
