namespace Zendle.Index.Text;

/// <summary>
/// Where something stands in the documents of one segment: document (upper half) and position (lower half) of its first word, packed
/// into one number and sorted, beside its length in words.
/// </summary>
internal readonly struct Spans(long[] starts, int[] lengths)
{
    public static readonly Spans None = new([], []);

    public long[] Starts { get; } = starts;

    public int[] Lengths { get; } = lengths;

    public int Count => Starts.Length;

    public static long Pack(int document, int position) => (long)document << 32 | (uint)position;

    public static int Document(long packed) => (int)(packed >> 32);

    public static int Position(long packed) => (int)packed;

    /// <summary>Both lists as one.</summary>
    public static Spans Merge(IReadOnlyList<Spans> lists)
    {
        if (lists.Count == 1) return lists[0];
        var starts = lists.SelectMany(l => l.Starts).ToArray();
        var lengths = lists.SelectMany(l => l.Lengths).ToArray();
        Array.Sort(starts, lengths);
        return new(starts, lengths);
    }

    /// <summary>
    /// Those of <paramref name="right"/> that have one of <paramref name="left"/> at most <paramref name="distance"/> words away, on either
    /// side and not overlapping. O(left + right) but for crowded documents.
    /// </summary>
    public static Spans Near(Spans left, Spans right, int distance)
    {
        var starts = new List<long>();
        var lengths = new List<int>();
        var first = 0;
        for (var r = 0; r < right.Count; r++)
        {
            var document = Document(right.Starts[r]);
            while (first < left.Count && Document(left.Starts[first]) < document) first++;
            var (begin, end) = (Position(right.Starts[r]), Position(right.Starts[r]) + right.Lengths[r]);
            for (var l = first; l < left.Count && Document(left.Starts[l]) == document; l++)
            {
                var (b, e) = (Position(left.Starts[l]), Position(left.Starts[l]) + left.Lengths[l]);
                var gap = b >= end ? b - end : e <= begin ? begin - e : -1;
                if (gap < 0 || gap > distance) continue;
                starts.Add(right.Starts[r]);
                lengths.Add(right.Lengths[r]);
                break;
            }
        }
        return new([.. starts], [.. lengths]);
    }
}
