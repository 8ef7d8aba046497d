using System.Numerics;
using System.Runtime.InteropServices;

namespace Zendle.Core.Sets;

/// <summary>A set of small non-negative numbers (ids of works or of records), one bit each.</summary>
/// <remarks>
/// Operations between sets are O(size / 64). Not safe for writing from several threads; once built, sets are shared and
/// never changed.
/// </remarks>
public sealed class BitSet
{
    private readonly ulong[] words;

    /// <summary>An empty set for numbers below <paramref name="size"/>.</summary>
    public BitSet(int size)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(size);
        Size = size;
        words = new ulong[(size + 63) >> 6];
    }

    private BitSet(int size, ulong[] words) => (Size, this.words) = (size, words);

    /// <summary>Numbers in the set are below this.</summary>
    public int Size { get; }

    /// <summary>A set of the given numbers; those outside the size are left out.</summary>
    public static BitSet Of(int size, IEnumerable<int> numbers)
    {
        var set = new BitSet(size);
        foreach (var n in numbers)
            if ((uint)n < (uint)size)
                set.Add(n);
        return set;
    }

    /// <summary>Whether <paramref name="n"/> is in the set; false outside the size.</summary>
    public bool Contains(int n) => (uint)n < (uint)Size && (words[n >> 6] & (1UL << n)) != 0;

    /// <summary>Adds <paramref name="n"/>, which is below the size.</summary>
    public void Add(int n) => words[n >> 6] |= 1UL << n;

    /// <summary>Takes a number out.</summary>
    public void Remove(int n) => words[n >> 6] &= ~(1UL << n);

    /// <summary>
    /// What all of some sets of one size have in common, as a set of its own; at least one set. One pass for each
    /// further set, and none to make room.
    /// </summary>
    public static BitSet Common(IReadOnlyList<BitSet> sets)
    {
        if (sets.Count == 1)
            return sets[0].Copy();
        var common = GC.AllocateUninitializedArray<ulong>(sets[0].words.Length);
        var (first, second) = (sets[0].words, sets[1].words);
        var to = Vectors(common);
        var a = Vectors(first);
        var b = Vectors(second);
        for (var i = 0; i < to.Length; i++)
            to[i] = a[i] & b[i];
        for (var i = to.Length * Vector<ulong>.Count; i < common.Length; i++)
            common[i] = first[i] & second[i];
        var set = new BitSet(sets[0].Size, common);
        for (var i = 2; i < sets.Count; i++)
            set.IntersectWith(sets[i]);
        return set;
    }

    /// <summary>Adds all members of <paramref name="other"/>, a set of the same size.</summary>
    public void UnionWith(BitSet other)
    {
        var mine = Vectors(words);
        var theirs = Vectors(other.words);
        for (var i = 0; i < mine.Length; i++)
            mine[i] |= theirs[i];
        for (var i = mine.Length * Vector<ulong>.Count; i < words.Length; i++)
            words[i] |= other.words[i];
    }

    /// <summary>Keeps only members that are in <paramref name="other"/> too.</summary>
    public void IntersectWith(BitSet other)
    {
        var mine = Vectors(words);
        var theirs = Vectors(other.words);
        for (var i = 0; i < mine.Length; i++)
            mine[i] &= theirs[i];
        for (var i = mine.Length * Vector<ulong>.Count; i < words.Length; i++)
            words[i] &= other.words[i];
    }

    /// <summary>Takes out all members of <paramref name="other"/>.</summary>
    public void ExceptWith(BitSet other)
    {
        var mine = Vectors(words);
        var theirs = Vectors(other.words);
        for (var i = 0; i < mine.Length; i++)
            mine[i] = Vector.AndNot(mine[i], theirs[i]);
        for (var i = mine.Length * Vector<ulong>.Count; i < words.Length; i++)
            words[i] &= ~other.words[i];
    }

    private static Span<Vector<ulong>> Vectors(ulong[] words) =>
        MemoryMarshal.Cast<ulong, Vector<ulong>>(words.AsSpan());

    /// <summary>How many members the set has.</summary>
    public int Count()
    {
        var count = 0;
        foreach (var w in words)
            count += BitOperations.PopCount(w);
        return count;
    }

    /// <summary>How many members are in both sets, without building the intersection.</summary>
    public int CountWith(BitSet other)
    {
        var (count, o) = (0, other.words);
        for (var i = 0; i < words.Length; i++)
            count += BitOperations.PopCount(words[i] & o[i]);
        return count;
    }

    /// <summary>
    /// Numbers members from 0 in ascending order: the answer's index i is how many members stand before the i-th block
    /// of 64.
    /// </summary>
    public int[] BlockRanks()
    {
        var ranks = new int[words.Length];
        for (int i = 0, sum = 0; i < words.Length; i++)
        {
            ranks[i] = sum;
            sum += BitOperations.PopCount(words[i]);
        }
        return ranks;
    }

    /// <summary>
    /// The number of a member among all members, ascending from 0; −1 for what is not in the set. O(1).
    /// </summary>
    /// <param name="n">The member.</param>
    /// <param name="blockRanks">What <see cref="BlockRanks"/> gave for this set.</param>
    public int RankOf(int n, int[] blockRanks) =>
        Contains(n) ? blockRanks[n >> 6] + BitOperations.PopCount(words[n >> 6] & ((1UL << (n & 63)) - 1)) : -1;

    /// <summary>Whether the set has no member.</summary>
    public bool IsEmpty
    {
        get
        {
            foreach (var w in words)
                if (w != 0)
                    return false;
            return true;
        }
    }

    /// <summary>A copy that can be changed.</summary>
    public BitSet Copy() => new(Size, (ulong[])words.Clone());

    /// <summary>The members, ascending.</summary>
    public IEnumerable<int> Members()
    {
        for (var i = 0; i < words.Length; i++)
        for (var w = words[i]; w != 0; w &= w - 1)
            yield return (i << 6) + BitOperations.TrailingZeroCount(w);
    }

    /// <summary>Goes through the members, ascending, without an array of them.</summary>
    public Enumerator GetEnumerator() => new(words);

    /// <summary>Goes through members.</summary>
    public ref struct Enumerator
    {
        private readonly ReadOnlySpan<ulong> words;
        private ulong left;
        private int at;

        internal Enumerator(ulong[] words)
        {
            this.words = words;
            at = -1;
        }

        /// <summary>The member.</summary>
        public int Current { get; private set; }

        /// <summary>Goes on to the next one.</summary>
        public bool MoveNext()
        {
            while (left == 0)
            {
                if (++at >= words.Length)
                    return false;
                left = words[at];
            }
            Current = (at << 6) + BitOperations.TrailingZeroCount(left);
            left &= left - 1;
            return true;
        }
    }

    /// <summary>The members, ascending, in an array; faster than enumerating for large sets.</summary>
    public int[] ToArray()
    {
        var result = new int[Count()];
        var n = 0;
        for (var i = 0; i < words.Length; i++)
        for (var w = words[i]; w != 0; w &= w - 1)
            result[n++] = (i << 6) + BitOperations.TrailingZeroCount(w);
        return result;
    }
}
