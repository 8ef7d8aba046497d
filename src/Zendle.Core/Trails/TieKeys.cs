using System.Runtime.InteropServices;

namespace Zendle.Core.Trails;

/// <summary>
/// For each tie of a work the set of databases that report it, as a key to <see cref="CitationGraph.Mask"/>.
/// </summary>
public readonly ref struct TieKeys
{
    private readonly ReadOnlySpan<byte> narrow;
    private readonly ReadOnlySpan<ushort> wide;

    internal TieKeys(ReadOnlySpan<byte> narrow) => this.narrow = narrow;

    internal TieKeys(ReadOnlySpan<ushort> wide) => this.wide = wide;

    /// <summary>How many there are.</summary>
    public int Length => narrow.Length + wide.Length;

    /// <summary>The key of a tie.</summary>
    /// <param name="i">Its place in the list of ties.</param>
    /// <exception cref="IndexOutOfRangeException">There is no such place.</exception>
    public ushort this[int i] => wide.IsEmpty ? narrow[i] : wide[i];

    /// <summary>The keys as an array.</summary>
    public ushort[] ToArray()
    {
        var keys = new ushort[Length];
        for (var i = 0; i < keys.Length; i++)
            keys[i] = this[i];
        return keys;
    }
}

/// <summary>
/// How a work's ties and their keys share a list of numbers: the ties first, then the keys, four to a number as long as a byte
/// tells them apart, else two.
/// </summary>
/// <param name="PerNumber">How many keys a number holds.</param>
internal readonly record struct KeyWidth(int PerNumber)
{
    /// <summary>The width for keys below a number.</summary>
    public static KeyWidth For(int keys) => new(keys <= byte.MaxValue + 1 ? 4 : 2);

    /// <summary>How many numbers a list of so many ties takes.</summary>
    public int Length(int ties) => ties + (ties + PerNumber - 1) / PerNumber;

    /// <summary>The ties of a list.</summary>
    public ReadOnlySpan<int> Works(ReadOnlySpan<int> list) => list[..Ties(list.Length)];

    /// <summary>The keys of a list.</summary>
    public TieKeys Keys(ReadOnlySpan<int> list)
    {
        var ties = Ties(list.Length);
        return PerNumber == 4
            ? new(MemoryMarshal.AsBytes(list[ties..])[..ties])
            : new(MemoryMarshal.Cast<int, ushort>(list[ties..])[..ties]);
    }

    /// <summary>Ties and keys as one list.</summary>
    public int[] Packed(ReadOnlySpan<int> works, ReadOnlySpan<ushort> keys)
    {
        var list = new int[Length(works.Length)];
        works.CopyTo(list);
        var behind = list.AsSpan(works.Length);
        if (PerNumber == 2)
            keys.CopyTo(MemoryMarshal.Cast<int, ushort>(behind));
        else
            for (var i = 0; i < keys.Length; i++)
                MemoryMarshal.AsBytes(behind)[i] = (byte)keys[i];
        return list;
    }

    /// <summary>How many ties a list of a length holds.</summary>
    // n ties and a number for each PerNumber of them, rounded up: n is the largest whose list is no longer.
    public int Ties(int length) => PerNumber == 4 ? (int)(4L * length / 5) : (int)(2L * length / 3);
}
