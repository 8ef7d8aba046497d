using System.Buffers.Binary;
using System.Text;
using Zendle.Core.Merging;

namespace Zendle.Index.Columns;

/// <summary>
/// The places of works in an order of texts, so that a list sorts by whole numbers. Texts are compared by their words as they are searched: case, accents and
/// punctuation count for nothing, and letters of other scripts follow the order of Unicode. Equal texts share a place, works without one come last.
/// </summary>
internal static class TextRanks
{
    private const int Beginning = sizeof(ulong), Glance = 48;

    /// <summary>The place of each work. O(n log n) over works, on all cores; whole texts are folded only where several begin alike.</summary>
    /// <param name="texts">The text of a work; null for none.</param>
    /// <param name="size">Works are below this.</param>
    public static int[] Of(Func<int, string?> texts, int size)
    {
        int[] works = [.. Enumerable.Range(0, size).Where(w => texts(w) is not null)];
        var beginnings = new ulong[works.Length];
        Parallel.For(0, works.Length, i => beginnings[i] = BeginningOf(texts(works[i])!));
        Array.Sort(beginnings, works);
        var alike = Alike(beginnings);
        // Works that begin alike are put in order by their whole keys; a work whose key is that of the one before it shares its place.
        var isSame = new bool[works.Length];
        Parallel.ForEach(alike, run =>
        {
            var keyed = works[run].Select(w => (Key: Key(texts(w)!), Work: w)).ToArray();
            Array.Sort(keyed, (a, b) => a.Key.AsSpan().SequenceCompareTo(b.Key));
            for (var i = 0; i < keyed.Length; i++)
            {
                works[run.Start.Value + i] = keyed[i].Work;
                isSame[run.Start.Value + i] = i > 0 && keyed[i].Key.AsSpan().SequenceEqual(keyed[i - 1].Key);
            }
        });
        var ranks = new int[size];
        Array.Fill(ranks, int.MaxValue);
        for (int i = 0, place = -1; i < works.Length; i++) ranks[works[i]] = isSame[i] ? place : ++place;
        return ranks;
    }

    private static List<Range> Alike(ulong[] beginnings)
    {
        var runs = new List<Range>();
        for (int start = 0, end; start < beginnings.Length; start = end)
        {
            for (end = start + 1; end < beginnings.Length && beginnings[end] == beginnings[start]; end++) { }
            if (end - start > 1) runs.Add(start..end);
        }
        return runs;
    }

    /// <summary>The first bytes of a key as a number of the same order.</summary>
    private static ulong BeginningOf(string text)
    {
        // Most texts tell their first bytes in their first words. What is cut must not cut a word, nor end what hangs together.
        var cut = text.Length > Glance ? text.LastIndexOf(' ', Glance) : -1;
        var key = cut > 0 ? Key(text[..cut]) : [];
        if (key.Length < Beginning) key = Key(text);
        Span<byte> first = stackalloc byte[Beginning];
        first.Clear();
        key.AsSpan(0, Math.Min(Beginning, key.Length)).CopyTo(first);
        return BinaryPrimitives.ReadUInt64BigEndian(first);
    }

    private static byte[] Key(string text) => Encoding.UTF8.GetBytes(MergeFacts.Plain(text));
}
