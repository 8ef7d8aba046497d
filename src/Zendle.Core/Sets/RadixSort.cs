using System.Buffers;

namespace Zendle.Core.Sets;

/// <summary>
/// Puts ids in the order of whole numbers: by one byte of them after another, the last first, which needs no comparison and
/// leaves equal ones as they stood (Knuth, The Art of Computer Programming 3, 5.2.5).
/// </summary>
public static class RadixSort
{
    /// <summary>Fewer are sorted by comparison, which is faster then.</summary>
    private const int Few = 1_024;

    private const int Digits = 256;

    /// <summary>
    /// Sorts ids by their keys; equal ones by id. O(n · bytes in which keys differ); room for as many again is held meanwhile.
    /// </summary>
    /// <param name="keys">A key for each id; sorted with them.</param>
    /// <param name="ids">The ids, ascending.</param>
    /// <exception cref="ArgumentException">There are not as many keys as ids.</exception>
    public static void Sort(Span<ulong> keys, Span<int> ids)
    {
        if (keys.Length != ids.Length)
            throw new ArgumentException("Each id has a key.", nameof(keys));
        if (keys.Length < Few)
        {
            ByComparison(keys, ids);
            return;
        }
        var differ = 0UL;
        foreach (var key in keys)
            differ |= key ^ keys[0];
        var otherKeys = ArrayPool<ulong>.Shared.Rent(keys.Length);
        var otherIds = ArrayPool<int>.Shared.Rent(keys.Length);
        var fromKeys = keys;
        var fromIds = ids;
        var toKeys = otherKeys.AsSpan(0, keys.Length);
        var toIds = otherIds.AsSpan(0, keys.Length);
        Span<int> at = stackalloc int[Digits];
        for (var shift = 0; shift < 64; shift += 8)
        {
            if ((differ >> shift & (Digits - 1)) == 0)
                continue;
            at.Clear();
            foreach (var key in fromKeys)
                at[(int)(key >> shift) & (Digits - 1)]++;
            for (int digit = 0, before = 0; digit < Digits; digit++)
                (at[digit], before) = (before, before + at[digit]);
            for (var i = 0; i < fromKeys.Length; i++)
            {
                var to = at[(int)(fromKeys[i] >> shift) & (Digits - 1)]++;
                (toKeys[to], toIds[to]) = (fromKeys[i], fromIds[i]);
            }
            var swap = fromKeys;
            fromKeys = toKeys;
            toKeys = swap;
            var swapIds = fromIds;
            fromIds = toIds;
            toIds = swapIds;
        }
        if (fromKeys != keys)
        {
            fromKeys.CopyTo(keys);
            fromIds.CopyTo(ids);
        }
        ArrayPool<ulong>.Shared.Return(otherKeys);
        ArrayPool<int>.Shared.Return(otherIds);
    }

    private static void ByComparison(Span<ulong> keys, Span<int> ids)
    {
        keys.Sort(ids);
        for (int from = 0, to; from < ids.Length; from = to)
        {
            to = from + 1;
            while (to < ids.Length && keys[to] == keys[from])
                to++;
            if (to - from > 1)
                ids[from..to].Sort();
        }
    }
}
