using System.Numerics;
using System.Runtime.InteropServices;

namespace Zendle.Core.Sets;

/// <summary>
/// A set of ids, one bit each: of records (<see cref="RecordSet"/>) or of works (<see cref="WorkSet"/>), which cannot be
/// taken for one another.
/// </summary>
/// <remarks>
/// Operations between sets are O(size / 64). Not safe for writing from several threads; once built, sets are shared and
/// never changed.
/// </remarks>
/// <typeparam name="TSet">The kind of set.</typeparam>
public abstract class IdSet<TSet>
    where TSet : IdSet<TSet>
{
    private readonly ulong[] words;

    private protected IdSet(int size)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(size);
        Size = size;
        words = new ulong[(size + 63) >> 6];
    }

    private protected IdSet(int size, ulong[] words) => (Size, this.words) = (size, words);

    /// <summary>A set of this kind and size over bits of its own.</summary>
    private protected abstract TSet Over(ulong[] bits);

    /// <summary>Ids in the set are below this.</summary>
    public int Size { get; }

    private protected void AddAll(IEnumerable<int> ids)
    {
        foreach (var n in ids)
            if ((uint)n < (uint)Size)
                Add(n);
    }

    /// <summary>Whether <paramref name="n"/> is in the set; false outside the size.</summary>
    public bool Contains(int n) => (uint)n < (uint)Size && (words[n >> 6] & (1UL << n)) != 0;

    /// <summary>Adds <paramref name="n"/>, which is below the size.</summary>
    public void Add(int n) => words[n >> 6] |= 1UL << n;

    /// <summary>Takes a number out.</summary>
    public void Remove(int n) => words[n >> 6] &= ~(1UL << n);

    /// <summary>
    /// What this set and others of its size have in common, as a set of its own. One pass for each further set, and none
    /// to make room.
    /// </summary>
    public TSet CommonWith(IReadOnlyList<TSet> others)
    {
        if (others.Count == 0)
            return Copy();
        var common = GC.AllocateUninitializedArray<ulong>(words.Length);
        var (first, second) = (words, others[0].words);
        var to = Vectors(common);
        var a = Vectors(first);
        var b = Vectors(second);
        for (var i = 0; i < to.Length; i++)
            to[i] = a[i] & b[i];
        for (var i = to.Length * Vector<ulong>.Count; i < common.Length; i++)
            common[i] = first[i] & second[i];
        var set = Over(common);
        for (var i = 1; i < others.Count; i++)
            set.IntersectWith(others[i]);
        return set;
    }

    /// <summary>Adds all members of <paramref name="other"/>, a set of the same size.</summary>
    public void UnionWith(TSet other)
    {
        var mine = Vectors(words);
        var theirs = Vectors(other.words);
        for (var i = 0; i < mine.Length; i++)
            mine[i] |= theirs[i];
        for (var i = mine.Length * Vector<ulong>.Count; i < words.Length; i++)
            words[i] |= other.words[i];
    }

    /// <summary>Keeps only members that are in <paramref name="other"/> too.</summary>
    public void IntersectWith(TSet other)
    {
        var mine = Vectors(words);
        var theirs = Vectors(other.words);
        for (var i = 0; i < mine.Length; i++)
            mine[i] &= theirs[i];
        for (var i = mine.Length * Vector<ulong>.Count; i < words.Length; i++)
            words[i] &= other.words[i];
    }

    /// <summary>Takes out all members of <paramref name="other"/>.</summary>
    public void ExceptWith(TSet other)
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
    public int CountWith(TSet other)
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
    public TSet Copy() => Over((ulong[])words.Clone());

    /// <summary>The members, ascending.</summary>
    public IEnumerable<int> Members()
    {
        for (var i = 0; i < words.Length; i++)
        for (var w = words[i]; w != 0; w &= w - 1)
            yield return (i << 6) + BitOperations.TrailingZeroCount(w);
    }

    /// <summary>Goes through the members, ascending, without an array of them.</summary>
    public IdEnumerator GetEnumerator() => new(words);

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
