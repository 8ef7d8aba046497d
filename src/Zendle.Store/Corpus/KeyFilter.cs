namespace Zendle.Store.Corpus;

/// <summary>
/// Tells of a key that it is not in a run, without asking the store: a Bloom filter (Bloom 1970). It may say "perhaps"
/// of a key that is not there, never "no" of one that is. With 12 bits a key and more it says "perhaps" wrongly of
/// fewer than one in two hundred.
/// </summary>
internal sealed class KeyFilter
{
    private const int BitsAKey = 12,
        Probes = 5;
    private readonly ulong[] bits;

    /// <summary>Makes room for so many keys.</summary>
    public KeyFilter(long keys) =>
        bits = new ulong[
            Math.Max(
                1,
                (long)System.Numerics.BitOperations.RoundUpToPowerOf2((ulong)Math.Max(64, keys * BitsAKey)) / 64
            )
        ];

    /// <summary>Adds a key.</summary>
    public void Add(long key)
    {
        foreach (var at in Places(key))
            bits[at >> 6] |= 1UL << (int)(at & 63);
    }

    /// <summary>Whether a key is perhaps there.</summary>
    public bool MayHave(long key)
    {
        foreach (var at in Places(key))
            if ((bits[at >> 6] & (1UL << (int)(at & 63))) == 0)
                return false;
        return true;
    }

    private PlaceList Places(long key) => new(key, (ulong)bits.LongLength * 64 - 1);

    /// <summary>
    /// The bits of a key. Keys are well mixed already, so their halves serve as hashes (Kirsch, Mitzenmacher 2006).
    /// </summary>
    private struct PlaceList(long key, ulong mask)
    {
        private ulong at = (ulong)key;
        private int left = Probes;

        public ulong Current { get; private set; }

        public readonly PlaceList GetEnumerator() => this;

        public bool MoveNext()
        {
            if (left-- == 0)
                return false;
            Current = (at ^ at >> 29) & mask;
            at += ((ulong)key >> 32 | 1) * 0x9E3779B97F4A7C15UL;
            return true;
        }
    }
}
