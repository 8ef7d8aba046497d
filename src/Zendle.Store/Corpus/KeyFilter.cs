namespace Zendle.Store.Corpus;

/// <summary>
/// Tells of a key that no record has it, without asking the store: a Bloom filter (Bloom 1970) over all keys ever written. It may say "perhaps" of a key that
/// nobody has, never "no" of one that somebody has. Most keys of a new record are new, so most look-ups are spared.
/// </summary>
internal sealed class KeyFilter
{
    private const int BitsAKey = 12, Least = 1 << 22;
    private ulong[] bits = new ulong[Least / 64];
    private long capacity = Least / BitsAKey;

    /// <summary>How many keys were added since the filter was filled.</summary>
    public long Count { get; private set; }

    /// <summary>Whether so many keys came that answers grow vague and the filter should be filled anew.</summary>
    public bool IsFull => Count > capacity;

    /// <summary>Empties the filter and makes room for twice as many keys as there are.</summary>
    public void Reset(long keys)
    {
        var size = Math.Max(Least, (long)System.Numerics.BitOperations.RoundUpToPowerOf2((ulong)(keys * 2 * BitsAKey)));
        bits = new ulong[size / 64];
        (capacity, Count) = (size / BitsAKey, 0);
    }

    /// <summary>Adds a key; true when it was perhaps there before. Keys are well mixed already, so their halves serve as hashes (Kirsch, Mitzenmacher 2006).</summary>
    public bool Add(long key)
    {
        var (a, b) = ((ulong)key, (ulong)key >> 32 | 1);
        var there = true;
        for (var i = 0; i < 5; i++, a += b * 0x9E3779B97F4A7C15UL)
        {
            var at = (a ^ a >> 29) & ((ulong)bits.LongLength * 64 - 1);
            var bit = 1UL << (int)(at & 63);
            if ((bits[at >> 6] & bit) == 0)
            {
                there = false;
                bits[at >> 6] |= bit;
            }
        }
        Count++;
        return there;
    }
}
