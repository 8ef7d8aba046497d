namespace Zendle.Index.Text;

/// <summary>
/// Where something stands in the documents of one segment: document (upper half) and position (lower half) of its first
/// word, packed into one number and sorted, beside its length in words.
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
        if (lists.Count == 1)
            return lists[0];
        var starts = lists.SelectMany(l => l.Starts).ToArray();
        var lengths = lists.SelectMany(l => l.Lengths).ToArray();
        Array.Sort(starts, lengths);
        return new(starts, lengths);
    }

    /// <summary>
    /// Those of <paramref name="right"/> that have one of <paramref name="left"/> at most <paramref name="distance"/>
    /// words away, on either side and not overlapping. O(left + right): both lists are gone through once, together.
    /// </summary>
    public static Spans Near(Spans left, Spans right, int distance)
    {
        var starts = new List<long>();
        var lengths = new List<int>();
        var ends = new List<int>();
        for (int l = 0, r = 0; r < right.Count; )
        {
            var document = Document(right.Starts[r]);
            while (l < left.Count && Document(left.Starts[l]) < document)
                l++;
            var (firstLeft, firstRight) = (l, r);
            while (l < left.Count && Document(left.Starts[l]) == document)
                l++;
            while (r < right.Count && Document(right.Starts[r]) == document)
                r++;
            if (l > firstLeft)
                Near(left, firstLeft, l, right, firstRight, r, distance, ends, starts, lengths);
        }
        return new([.. starts], [.. lengths]);
    }

    /// <summary>The near ones of one document.</summary>
    private static void Near(
        Spans left,
        int fromLeft,
        int toLeft,
        Spans right,
        int fromRight,
        int toRight,
        int distance,
        List<int> ends,
        List<long> starts,
        List<int> lengths
    )
    {
        // Beginnings are sorted already; ends are, unless a longer one begins before a shorter.
        ends.Clear();
        var isSorted = true;
        for (var l = fromLeft; l < toLeft; l++)
        {
            var end = Position(left.Starts[l]) + left.Lengths[l];
            isSorted &= ends.Count == 0 || ends[^1] <= end;
            ends.Add(end);
        }
        if (!isSorted)
            ends.Sort();
        int after = fromLeft,
            rightEnd = 0,
            before = 0;
        for (var r = fromRight; r < toRight; r++)
        {
            var (begin, end) = (Position(right.Starts[r]), Position(right.Starts[r]) + right.Lengths[r]);
            // The first that begins at or behind the end. A shorter one on the right may end before the one that was
            // looked at last.
            if (end < rightEnd)
                after = fromLeft;
            rightEnd = end;
            while (after < toLeft && Position(left.Starts[after]) < end)
                after++;
            var isNear = after < toLeft && Position(left.Starts[after]) - end <= distance;
            // The last that ends at or before the beginning.
            while (before < ends.Count && ends[before] <= begin)
                before++;
            isNear |= before > 0 && begin - ends[before - 1] <= distance;
            if (!isNear)
                continue;
            starts.Add(right.Starts[r]);
            lengths.Add(right.Lengths[r]);
        }
    }
}
