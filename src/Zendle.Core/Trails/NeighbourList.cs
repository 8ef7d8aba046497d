using System.Buffers;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>
/// The neighbours of some works of one kind: how much each has in common with them, and how alike that makes it.
/// </summary>
/// <remarks>Memory: 12 bytes a neighbour, and as many as 8 for their order. Finding one costs the logarithm of their number.</remarks>
public sealed class NeighbourList
{
    private readonly int[] works,
        shared;
    private readonly float[] likeness;
    private readonly Lazy<int[]> order,
        ranks;

    private NeighbourList(NeighbourKind kind, int[] works, int[] shared, float[] likeness)
    {
        (Kind, this.works, this.shared, this.likeness) = (kind, works, shared, likeness);
        order = new(InOrder);
        ranks = new(Ranked);
    }

    /// <summary>Neighbours by what they share; what it costs stands at <see cref="SharedThings.Count"/>.</summary>
    /// <param name="kind">What they have in common.</param>
    /// <param name="things">What the seeds have, and who shares it.</param>
    /// <param name="likeness">How alike a work is to the seeds, from the weights of what it shares; held between 0 and 1. Asked
    /// by several threads at once.</param>
    public static NeighbourList Of(NeighbourKind kind, SharedThings things, Func<int, double, double> likeness)
    {
        var (works, shared, alike) = things.Count(likeness);
        return new(kind, works, shared, alike);
    }

    /// <summary>What they have in common.</summary>
    public NeighbourKind Kind { get; }

    /// <summary>How many neighbours there are.</summary>
    public int Count => works.Length;

    /// <summary>The neighbours, ascending.</summary>
    public ReadOnlySpan<int> Works => works;

    /// <summary>How much is shared by all of them together.</summary>
    public long Shares => shared.Sum(s => (long)s);

    /// <summary>About how many bytes it takes, with its order.</summary>
    public long Bytes => 200 + (20L * works.Length);

    /// <summary>The places of the neighbours among <see cref="Works"/>, the likest first; equal ones as they stand.</summary>
    public ReadOnlySpan<int> Order => order.Value;

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

    private int[] InOrder()
    {
        var (places, room) = (new int[works.Length], ArrayPool<ulong>.Shared.Rent(works.Length));
        var keys = room.AsSpan(0, works.Length);
        // Bits of a number that is not negative order as it does; the likest come first.
        for (var i = 0; i < places.Length; i++)
            (places[i], keys[i]) = (i, ~BitConverter.SingleToUInt32Bits(likeness[i]));
        RadixSort.Sort(keys, places);
        ArrayPool<ulong>.Shared.Return(room);
        return places;
    }

    private int[] Ranked()
    {
        var (ranks, places, first) = (new int[works.Length], order.Value, 0);
        for (var i = 0; i < places.Length; i++)
        {
            if (likeness[places[i]] != likeness[places[first]])
                first = i;
            ranks[places[i]] = first + 1;
        }
        return ranks;
    }
}
