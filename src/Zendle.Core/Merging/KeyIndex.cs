namespace Zendle.Core.Merging;

/// <summary>
/// Records by 64-bit keys: a large sorted array, and a small one of what came since, which is sorted anew with every
/// change. What a record was found under before is not taken out; whoever asks leaves out what does not hold any more.
/// </summary>
internal sealed class KeyIndex
{
    private const int MostLate = 200_000,
        BucketBits = 16;
    private readonly Run whole,
        late;

    private KeyIndex(Run whole, Run late) => (this.whole, this.late) = (whole, late);

    public static KeyIndex Empty { get; } = new(Run.Of([], []), Run.Of([], []));

    /// <summary>The index with further entries. O(entries that came late), and now and then O(all).</summary>
    public KeyIndex With(List<ulong> keys, List<int> records)
    {
        if (keys.Count == 0)
            return this;
        if (whole.Keys.Length == 0 && late.Keys.Length == 0)
            return new(Run.Of([.. keys], [.. records]), late);
        var next = Run.Of([.. late.Keys, .. keys], [.. late.Records, .. records]);
        return next.Keys.Length <= MostLate
            ? new(whole, next)
            : new(Run.Of([.. whole.Keys, .. next.Keys], [.. whole.Records, .. next.Records]), Run.Of([], []));
    }

    /// <summary>The records that have, or had, a key; some perhaps twice.</summary>
    public (ReadOnlyMemory<int> Whole, ReadOnlyMemory<int> Late) Find(ulong key) => (whole.Find(key), late.Find(key));

    /// <summary>Both arrays as one, for writing them down.</summary>
    public (ulong[] Keys, int[] Records) Arrays() =>
        late.Keys.Length == 0 ? (whole.Keys, whole.Records)
        : Run.Of([.. whole.Keys, .. late.Keys], [.. whole.Records, .. late.Records]) is var all
            ? (all.Keys, all.Records)
        : default;

    /// <summary>An index that was written down: keys ascending.</summary>
    public static KeyIndex From(ulong[] keys, int[] records) => new(new(keys, records), Run.Of([], []));

    private sealed class Run
    {
        private readonly int[] bucket; // where the keys begin whose uppermost bits are these

        public Run(ulong[] keys, int[] records)
        {
            (Keys, Records, bucket) = (keys, records, new int[(1 << BucketBits) + 1]);
            var at = 0;
            for (var b = 0; b <= 1 << BucketBits; b++)
            {
                while (at < keys.Length && (int)(keys[at] >> (64 - BucketBits)) < b)
                    at++;
                bucket[b] = at;
            }
        }

        public ulong[] Keys { get; }

        public int[] Records { get; }

        /// <summary>Sorts entries; one that stands twice is held once.</summary>
        public static Run Of(ulong[] keys, int[] records)
        {
            Array.Sort(keys, records);
            var kept = 0;
            for (var i = 0; i < keys.Length; )
            {
                var end = i + 1;
                while (end < keys.Length && keys[end] == keys[i])
                    end++;
                if (end - i > 1)
                    Array.Sort(records, i, end - i);
                var (key, first) = (keys[i], kept);
                for (var j = i; j < end; j++)
                    if (kept == first || records[kept - 1] != records[j])
                        (keys[kept], records[kept++]) = (key, records[j]);
                i = end;
            }
            return kept == keys.Length ? new(keys, records) : new(keys[..kept], records[..kept]);
        }

        public ReadOnlyMemory<int> Find(ulong key)
        {
            var b = (int)(key >> (64 - BucketBits));
            var (low, high) = (bucket[b], bucket[b + 1]);
            while (low < high)
            {
                var middle = (low + high) >>> 1;
                if (Keys[middle] < key)
                    low = middle + 1;
                else
                    high = middle;
            }
            var end = low;
            while (end < Keys.Length && Keys[end] == key)
                end++;
            return Records.AsMemory(low, end - low);
        }
    }
}
