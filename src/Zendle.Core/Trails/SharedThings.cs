using System.Buffers;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>Things that seeds have, and the works that share them.</summary>
/// <param name="Weights">What each thing weighs.</param>
/// <param name="Having">The works that have a thing, by its place among the weights; ascending, each once.</param>
/// <param name="Seeds">No neighbours of themselves.</param>
/// <param name="Size">Work ids are below this.</param>
/// <param name="Least">Works that share fewer are passed over; 1 or more.</param>
public sealed record SharedThings(
    double[] Weights,
    Neighbours.Having Having,
    IReadOnlyCollection<int> Seeds,
    int Size,
    int Least = 1
)
{
    /// <summary>Where fewer than one work in so many is led to, those alone are looked at.</summary>
    private const int Sparse = 8;

    /// <summary>Works to a block: what is counted of them takes 512 KB.</summary>
    private const int Block = 1 << 15;

    /// <summary>What a work shares so far.</summary>
    private record struct Share(double Sum, int Count);

    /// <summary>
    /// Counts what each work shares. O(n log n) over the works of all things where they are few; else O(n + size), on all
    /// processors: one block of works after another, each small enough to stay in a processor's cache while the lists that lead
    /// into it are walked. Works come out ascending without being sorted.
    /// </summary>
    /// <param name="likeness">How alike a work is to the seeds, from the weights of what it shares, added in the order of the
    /// things; held between 0 and 1. Asked by several threads at once.</param>
    /// <returns>The works, ascending, without the seeds; how many things each shares; how alike it is.</returns>
    internal (int[] Works, int[] Shared, float[] Likeness) Count(Func<int, double, double> likeness)
    {
        var all = 0L;
        for (var thing = 0; thing < Weights.Length; thing++)
            all += Having(thing).Length;
        return all < Size / Sparse ? OfFew((int)all, likeness) : OfMany(likeness);
    }

    private (int[] Works, int[] Shared, float[] Likeness) OfFew(int all, Func<int, double, double> likeness)
    {
        var seeds = Seeds.ToHashSet();
        var (keys, things, at) = (ArrayPool<ulong>.Shared.Rent(all), ArrayPool<int>.Shared.Rent(all), 0);
        for (var thing = 0; thing < Weights.Length; thing++)
            foreach (var work in Having(thing))
                (keys[at], things[at++]) = ((ulong)work, thing);
        RadixSort.Sort(keys.AsSpan(0, all), things.AsSpan(0, all));
        using var portion = new Portion(all);
        for (int from = 0, to; from < all; from = to)
        {
            var sum = 0.0;
            for (to = from; to < all && keys[to] == keys[from]; to++)
                sum += Weights[things[to]];
            var work = (int)keys[from];
            if (to - from >= Least && !seeds.Contains(work))
                portion.Add(work, to - from, likeness(work, sum));
        }
        ArrayPool<ulong>.Shared.Return(keys);
        ArrayPool<int>.Shared.Return(things);
        return Portion.Joined([portion]);
    }

    private (int[] Works, int[] Shared, float[] Likeness) OfMany(Func<int, double, double> likeness)
    {
        var seeds = WorkSet.Of(Size, Seeds);
        var blocks = (Size + Block - 1) / Block;
        var portions = new Portion[Math.Clamp(Environment.ProcessorCount, 1, blocks)];
        Parallel.For(
            0,
            portions.Length,
            p => portions[p] = Walked(blocks * p / portions.Length, blocks * (p + 1) / portions.Length)
        );
        var joined = Portion.Joined(portions);
        foreach (var portion in portions)
            portion.Dispose();
        return joined;

        Portion Walked(int from, int to)
        {
            var (portion, next, shares) = (new Portion((to - from) * Block), new int[Weights.Length], new Share[Block]);
            for (var thing = 0; thing < next.Length; thing++)
                next[thing] = Having(thing).BinarySearch(from * Block) is var at && at < 0 ? ~at : at;
            for (var block = from; block < to; block++)
            {
                for (var thing = 0; thing < next.Length; thing++)
                    next[thing] = Add(Having(thing), next[thing], block * Block, Weights[thing], shares);
                for (var i = 0; i < shares.Length; i++)
                {
                    ref var share = ref shares[i];
                    if (share.Count == 0)
                        continue;
                    var work = block * Block + i;
                    if (share.Count >= Least && !seeds.Contains(work))
                        portion.Add(work, share.Count, likeness(work, share.Sum));
                    share = default;
                }
            }
            return portion;
        }
    }

    /// <summary>Adds the works of a list that lie in a block; where the rest of the list begins.</summary>
    private static int Add(ReadOnlySpan<int> works, int at, int start, double weight, Share[] shares)
    {
        for (; at < works.Length && (uint)(works[at] - start) < (uint)shares.Length; at++)
        {
            ref var share = ref shares[works[at] - start];
            share.Sum += weight;
            share.Count++;
        }
        return at;
    }

    /// <summary>What was counted of some works, in room that is only lent: it is much, and used anew by the next question.</summary>
    private sealed class Portion(int most) : IDisposable
    {
        private readonly int[] works = ArrayPool<int>.Shared.Rent(most),
            shared = ArrayPool<int>.Shared.Rent(most);
        private readonly float[] likeness = ArrayPool<float>.Shared.Rent(most);
        private int count;

        public void Add(int work, int things, double alike) =>
            (works[count], shared[count], likeness[count++]) = (work, things, (float)Math.Clamp(alike, 0, 1));

        public static (int[] Works, int[] Shared, float[] Likeness) Joined(Portion[] portions) =>
            (Joined(portions, p => p.works), Joined(portions, p => p.shared), Joined(portions, p => p.likeness));

        private static T[] Joined<T>(Portion[] portions, Func<Portion, T[]> part)
        {
            var (all, at) = (GC.AllocateUninitializedArray<T>(portions.Sum(p => p.count)), 0);
            foreach (var portion in portions)
            {
                part(portion).AsSpan(0, portion.count).CopyTo(all.AsSpan(at));
                at += portion.count;
            }
            return all;
        }

        public void Dispose()
        {
            ArrayPool<int>.Shared.Return(works);
            ArrayPool<int>.Shared.Return(shared);
            ArrayPool<float>.Shared.Return(likeness);
        }
    }
}
