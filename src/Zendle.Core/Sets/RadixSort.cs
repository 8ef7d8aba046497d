using System.Buffers;
using System.Numerics;

namespace Zendle.Core.Sets;

/// <summary>
/// Puts ids in the order of whole numbers: by some of their bits after another, the last first, which needs no comparison and
/// leaves equal ones as they stood (Knuth, The Art of Computer Programming 3, 5.2.5).
/// </summary>
public static class RadixSort
{
    /// <summary>Fewer are sorted by comparison, which is faster then.</summary>
    private const int Few = 1_024;

    /// <summary>So many are sorted by two threads.</summary>
    private const int Many = 1 << 17;

    private const int DigitBits = 11,
        Digits = 1 << DigitBits;

    /// <summary>
    /// Sorts ids by their keys; equal ones by id. O(n · bits in which keys differ); room for as many again is held meanwhile.
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
        var lowest = BitOperations.TrailingZeroCount(differ);
        if (differ == 0)
            return;
        if (BitOperations.Log2(differ) - lowest < 32)
            Packed(keys, ids, lowest, BitOperations.Log2(differ) - lowest + 1);
        else
            Whole(keys, ids, differ);
    }

    /// <summary>Where keys differ in few bits, these and the id share one number, and only they are moved.</summary>
    private static void Packed(Span<ulong> keys, Span<int> ids, int lowest, int bits)
    {
        var (n, mask) = (ids.Length, (1UL << bits) - 1);
        var common = keys[0] & ~(mask << lowest);
        var (one, other) = (ArrayPool<ulong>.Shared.Rent(n), ArrayPool<ulong>.Shared.Rent(n));
        for (var i = 0; i < n; i++)
            one[i] = (keys[i] >> lowest & mask) << 32 | (uint)ids[i];
        var passes = (bits + DigitBits - 1) / DigitBits;
        // Many are sorted in two halves side by side, which are merged in the end.
        var middle = n < Many ? n : n / 2;
        if (middle == n)
            Passes(one, other, 0, n, passes);
        else
            Parallel.Invoke(() => Passes(one, other, 0, middle, passes), () => Passes(one, other, middle, n, passes));
        var sorted = passes % 2 == 0 ? one : other;
        for (int i = 0, left = 0, right = middle; i < n; i++)
        {
            // Of equal ones those of the first half come first.
            var isLeft = right == n || (left < middle && sorted[left] >> 32 <= sorted[right] >> 32);
            var number = sorted[isLeft ? left++ : right++];
            (keys[i], ids[i]) = (common | number >> 32 << lowest, (int)number);
        }
        ArrayPool<ulong>.Shared.Return(one);
        ArrayPool<ulong>.Shared.Return(other);
    }

    /// <summary>Sorts part of an array by the upper halves of its numbers, back and forth between it and another.</summary>
    private static void Passes(ulong[] one, ulong[] other, int start, int end, int passes)
    {
        var (digits, shift) = (new int[passes * Digits], 32);
        foreach (var number in one.AsSpan(start..end))
            for (var pass = 0; pass < passes; pass++)
                digits[pass * Digits + ((int)(number >> 32 + pass * DigitBits) & (Digits - 1))]++;
        for (var pass = 0; pass < passes; pass++, shift += DigitBits)
        {
            var at = digits.AsSpan(pass * Digits, Digits);
            for (int digit = 0, before = start; digit < Digits; digit++)
                (at[digit], before) = (before, before + at[digit]);
            foreach (var number in one.AsSpan(start..end))
                other[at[(int)(number >> shift) & (Digits - 1)]++] = number;
            (one, other) = (other, one);
        }
    }

    private static void Whole(Span<ulong> keys, Span<int> ids, ulong differ)
    {
        var otherKeys = ArrayPool<ulong>.Shared.Rent(keys.Length);
        var otherIds = ArrayPool<int>.Shared.Rent(keys.Length);
        var fromKeys = keys;
        var fromIds = ids;
        var toKeys = otherKeys.AsSpan(0, keys.Length);
        var toIds = otherIds.AsSpan(0, keys.Length);
        Span<int> at = stackalloc int[Digits];
        for (var shift = 0; shift < 64; shift += DigitBits)
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
