using System.Buffers.Binary;
using System.Text;
using Zendle.Core.Merging;

namespace Zendle.Index.Columns;

/// <summary>
/// The ranks of works in an order of texts, so that a list sorts by whole numbers. Texts are compared by their words
/// as they are searched: case, accents and punctuation count for nothing, and letters of other scripts follow the order
/// of Unicode. Equal texts share a rank, works without one come last.
/// </summary>
internal static class TextRanks
{
    private const int Beginning = sizeof(ulong),
        Glance = 48,
        ManyOf = 16;

    /// <summary>
    /// The rank of each work. O(n log n) over works, on all cores; whole texts are folded only where several begin
    /// alike.
    /// </summary>
    /// <param name="texts">The text of a work; null for none.</param>
    /// <param name="size">Works are below this.</param>
    public static int[] Of(Func<int, string?> texts, int size)
    {
        int[] works = [.. Enumerable.Range(0, size).Where(w => texts(w) is not null)];
        var beginnings = new ulong[works.Length];
        Parallel.For(0, works.Length, i => beginnings[i] = BeginningOf(texts(works[i])!));
        Array.Sort(beginnings, works);
        var alike = Alike(beginnings);
        // Works that begin alike are put in order by their whole keys; a work whose key is that of the one before it
        // shares its rank.
        var isSame = new bool[works.Length];
        Parallel.ForEach(
            alike,
            run =>
            {
                var keyed = works[run].Select(w => (Key: Key(texts(w)!), Work: w)).ToArray();
                Array.Sort(keyed, (a, b) => a.Key.AsSpan().SequenceCompareTo(b.Key));
                for (var i = 0; i < keyed.Length; i++)
                {
                    works[run.Start.Value + i] = keyed[i].Work;
                    isSame[run.Start.Value + i] = i > 0 && keyed[i].Key.AsSpan().SequenceEqual(keyed[i - 1].Key);
                }
            }
        );
        var ranks = new int[size];
        Array.Fill(ranks, int.MaxValue);
        for (int i = 0, rank = -1; i < works.Length; i++)
            ranks[works[i]] = isSame[i] ? rank : ++rank;
        return ranks;
    }

    /// <summary>
    /// The ranks after some texts changed: what <see cref="Of"/> would give. O(size), and a search for each text that
    /// changed.
    /// </summary>
    /// <param name="before">The ranks before.</param>
    /// <param name="changed">The works whose texts came, changed or went.</param>
    /// <param name="texts">The text of a work; null for none.</param>
    /// <param name="size">Works are below this.</param>
    public static int[] After(int[] before, IReadOnlyCollection<int> changed, Func<int, string?> texts, int size)
    {
        if (changed.Count > size / ManyOf)
            return Of(texts, size);
        var (order, starts) = Kept(before, changed);
        var coming = changed
            .Distinct()
            .Where(w => texts(w) is not null)
            .Select(w => (Key: Key(texts(w)!), Work: w))
            .ToArray();
        Array.Sort(coming, (a, b) => a.Key.AsSpan().SequenceCompareTo(b.Key));
        var ranks = new int[size];
        Array.Fill(ranks, int.MaxValue);
        var (rank, next) = (-1, 0);
        byte[]? last = null;
        foreach (var (key, work) in coming)
        {
            var (at, isThere) = Find(key);
            while (next < at)
                PlaceNext();
            if (last is null || !key.AsSpan().SequenceEqual(last))
            {
                if (isThere)
                    PlaceNext();
                else
                    rank++;
                last = key;
            }
            ranks[work] = rank;
        }
        while (next < starts.Count - 1)
            PlaceNext();
        return ranks;

        void PlaceNext()
        {
            rank++;
            foreach (var work in order.AsSpan(starts[next]..starts[next + 1]))
                ranks[work] = rank;
            next++;
        }

        (int At, bool IsThere) Find(byte[] key)
        {
            var (low, high) = (0, starts.Count - 1);
            while (low < high)
            {
                var middle = (low + high) / 2;
                var sign = Key(texts(order[starts[middle]])!).AsSpan().SequenceCompareTo(key);
                if (sign == 0)
                    return (middle, true);
                if (sign < 0)
                    low = middle + 1;
                else
                    high = middle;
            }
            return (low, false);
        }
    }

    /// <summary>
    /// The works that did not change, in their order, and where in it each rank starts; the end comes last.
    /// </summary>
    private static (int[] Order, List<int> Starts) Kept(int[] before, IReadOnlyCollection<int> changed)
    {
        var isOut = new bool[before.Length];
        foreach (var work in changed)
            if (work < isOut.Length)
                isOut[work] = true;
        var counts = new int[before.Length + 1];
        for (var work = 0; work < before.Length; work++)
            if (!isOut[work] && before[work] != int.MaxValue)
                counts[before[work]]++;
        var (starts, all) = (new List<int>(), 0);
        for (var rank = 0; rank < counts.Length; rank++)
        {
            if (counts[rank] > 0)
                starts.Add(all);
            (counts[rank], all) = (all, all + counts[rank]);
        }
        starts.Add(all);
        var order = new int[all];
        for (var work = 0; work < before.Length; work++)
            if (!isOut[work] && before[work] != int.MaxValue)
                order[counts[before[work]]++] = work;
        return (order, starts);
    }

    private static List<Range> Alike(ulong[] beginnings)
    {
        var runs = new List<Range>();
        for (int start = 0, end; start < beginnings.Length; start = end)
        {
            for (end = start + 1; end < beginnings.Length && beginnings[end] == beginnings[start]; end++) { }
            if (end - start > 1)
                runs.Add(start..end);
        }
        return runs;
    }

    /// <summary>The first bytes of a key as a number of the same order.</summary>
    private static ulong BeginningOf(string text)
    {
        // Most texts tell their first bytes in their first words. What is cut must not cut a word, nor end what hangs
        // together.
        var cut = text.Length > Glance ? text.LastIndexOf(' ', Glance) : -1;
        var key = cut > 0 ? Key(text[..cut]) : [];
        if (key.Length < Beginning)
            key = Key(text);
        Span<byte> first = stackalloc byte[Beginning];
        first.Clear();
        key.AsSpan(0, Math.Min(Beginning, key.Length)).CopyTo(first);
        return BinaryPrimitives.ReadUInt64BigEndian(first);
    }

    private static byte[] Key(string text) => Encoding.UTF8.GetBytes(MergeFacts.Plain(text));
}
