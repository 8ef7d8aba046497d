using System.Runtime.CompilerServices;
using Lucene.Net.Index;

namespace Zendle.Index.Text;

/// <summary>
/// The words of one field of a segment side by side, so that those that end in some letters, or hold them, are found
/// without walking the dictionary, which is ordered by how words begin. Made when it is first asked for, and kept as long as
/// the segment lives.
/// </summary>
/// <remarks>Memory: the words' bytes, and nine bytes a word. Making it is O(words · log words), once for each segment.</remarks>
internal sealed class SegmentWords
{
    private const byte Between = 0; // stands in no word
    private const int Told = sizeof(ulong);
    private static readonly ConditionalWeakTable<object, Dictionary<string, SegmentWords>> Cache = [];

    private readonly byte[] letters;
    private readonly int[] starts,
        byEnd;

    private SegmentWords(Lucene.Net.Index.Terms terms)
    {
        var (bytes, at) = (new List<byte>(), new List<int>());
        var words = terms.GetEnumerator();
        while (words.MoveNext())
        {
            at.Add(bytes.Count);
            bytes.AddRange(words.Term.Bytes.AsSpan(words.Term.Offset, words.Term.Length));
            bytes.Add(Between);
        }
        (letters, starts, byEnd) = ([.. bytes], [.. at, bytes.Count], new int[at.Count]);
        var ends = new ulong[byEnd.Length];
        for (var i = 0; i < byEnd.Length; i++)
            (byEnd[i], ends[i]) = (i, EndOf(Word(i)));
        Array.Sort(ends, byEnd);
    }

    /// <summary>How many words there are.</summary>
    public int Count => byEnd.Length;

    private long Bytes => letters.LongLength + sizeof(int) * (starts.LongLength + byEnd.LongLength);

    /// <summary>How many bytes the words take that were asked for of some segments.</summary>
    public static long BytesOf(IEnumerable<AtomicReader> readers)
    {
        var bytes = 0L;
        foreach (var reader in readers)
            if (Cache.TryGetValue(reader.CoreCacheKey, out var fields))
                lock (fields)
                    bytes += fields.Values.Sum(words => words.Bytes);
        return bytes;
    }

    /// <summary>A word, in UTF-8, by its place in the dictionary.</summary>
    public ReadOnlySpan<byte> Word(int place) => letters.AsSpan(starts[place]..(starts[place + 1] - 1));

    /// <summary>The words of a field of a segment; null where the field is empty.</summary>
    public static SegmentWords? Of(AtomicReader reader, string field)
    {
        if (reader.GetTerms(field) is not { } terms)
            return null;
        var fields = Cache.GetValue(reader.CoreCacheKey, _ => new(StringComparer.Ordinal));
        lock (fields)
            return fields.TryGetValue(field, out var known) ? known : fields[field] = new(terms);
    }

    /// <summary>Places of the words that end in some letters, in no order. O(log words + those found).</summary>
    /// <param name="tail">The letters, in UTF-8; at least one.</param>
    public List<int> EndingIn(ReadOnlySpan<byte> tail)
    {
        // The last eight bytes as a number order the words; what they share stands first in it.
        var (from, found) = (EndOf(tail), new List<int>());
        var to = tail.Length < Told ? from | ulong.MaxValue >> 8 * tail.Length : from;
        var (low, high) = (0, byEnd.Length);
        while (low < high)
        {
            var middle = low + high >>> 1;
            if (EndOf(Word(byEnd[middle])) < from)
                low = middle + 1;
            else
                high = middle;
        }
        for (; low < byEnd.Length && Word(byEnd[low]) is var word && EndOf(word) <= to; low++)
            if (word.EndsWith(tail))
                found.Add(byEnd[low]);
        return found;
    }

    /// <summary>Places of the words that hold some letters, ascending. O(bytes of all words).</summary>
    /// <param name="piece">The letters, in UTF-8; at least one.</param>
    public List<int> Holding(ReadOnlySpan<byte> piece)
    {
        var found = new List<int>();
        for (var at = 0; ; )
        {
            var next = letters.AsSpan(at).IndexOf(piece);
            if (next < 0)
                return found;
            var place = Array.BinarySearch(starts, at + next);
            if (place < 0)
                place = ~place - 1;
            found.Add(place);
            at = starts[place + 1];
        }
    }

    /// <summary>The last eight bytes, the last one foremost.</summary>
    private static ulong EndOf(ReadOnlySpan<byte> word)
    {
        var end = 0UL;
        for (var i = 1; i <= Told; i++)
            end = end << 8 | (i <= word.Length ? word[^i] : 0UL);
        return end;
    }
}
