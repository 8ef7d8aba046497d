using System.Runtime.InteropServices;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>A tie as a database reports it.</summary>
/// <param name="Cited">The work that is cited.</param>
/// <param name="Database">The database.</param>
public readonly record struct ReportedTie(int Cited, byte Database);

/// <summary>
/// Which works cite which, merged over databases; each tie once, with the databases that report it. A work citing
/// itself is left out. Immutable; <see cref="With"/> makes the next one at the cost of the works whose ties are others.
/// </summary>
/// <remarks>Memory: some 14 bytes a tie; reading a work's ties costs their number.</remarks>
public sealed class CitationGraph
{
    // A work's list holds its ties, then their keys, two to a number.
    private readonly IdLists back,
        forward;
    private readonly List<ulong> masks;

    private CitationGraph(IdLists back, IdLists forward, List<ulong> masks, IReadOnlyList<int> databases, int ties) =>
        (this.back, this.forward, this.masks, Databases, Ties) = (back, forward, masks, databases, ties);

    /// <summary>No ties.</summary>
    public static CitationGraph Empty { get; } = new(IdLists.Empty, IdLists.Empty, [], [], 0);

    /// <summary>How many ties there are.</summary>
    public int Ties { get; }

    /// <summary>The databases, ascending; the place of an id is its bit in a mask.</summary>
    public IReadOnlyList<int> Databases { get; }

    /// <summary>Backward trail: the works a work cites, ascending.</summary>
    public ReadOnlySpan<int> Cites(int work) => Works(back.Of(work));

    /// <summary>Forward trail: the works that cite it, ascending.</summary>
    public ReadOnlySpan<int> CitedBy(int work) => Works(forward.Of(work));

    /// <summary>
    /// For each of <see cref="Cites"/> the set of databases that report the tie, as a key to <see cref="Mask"/>.
    /// </summary>
    public ReadOnlySpan<ushort> CitesReported(int work) => Keys(back.Of(work));

    /// <summary>
    /// For each of <see cref="CitedBy"/> the set of databases that report the tie, as a key to <see cref="Mask"/>.
    /// </summary>
    public ReadOnlySpan<ushort> CitedByReported(int work) => Keys(forward.Of(work));

    /// <summary>A set of databases, one bit each.</summary>
    public ulong Mask(ushort key) => masks[key];

    /// <summary>The mask of some databases; of all when none are named.</summary>
    public ulong MaskOf(IReadOnlyCollection<int> chosen)
    {
        if (chosen.Count == 0)
            return ulong.MaxValue;
        var mask = 0UL;
        for (var i = 0; i < Databases.Count; i++)
            if (chosen.Contains(Databases[i]))
                mask |= 1UL << i;
        return mask;
    }

    // n ties and half as many numbers for their keys, rounded up, make a list of three halves of n.
    private static ReadOnlySpan<int> Works(ReadOnlySpan<int> list) => list[..(2 * list.Length / 3)];

    private static ReadOnlySpan<ushort> Keys(ReadOnlySpan<int> list) =>
        MemoryMarshal.Cast<int, ushort>(list[(2 * list.Length / 3)..])[..(2 * list.Length / 3)];

    /// <summary>Builds the graph. O(n log n).</summary>
    /// <param name="ties">Pairs (citing work in the upper half, cited work in the lower), as often as they are
    /// reported.</param>
    /// <param name="reporters">For each pair the database that reports it.</param>
    /// <param name="size">Work ids are below this.</param>
    /// <param name="databases">Ids of the databases, at most 64.</param>
    public static CitationGraph Build(
        IReadOnlyCollection<long> ties,
        IReadOnlyCollection<byte> reporters,
        int size,
        IEnumerable<int> databases
    )
    {
        int[] ids = Bits(databases);
        var (pairs, by) = (ties.ToArray(), reporters.ToArray());
        Array.Sort(pairs, by);
        var (masks, reported) = (new MaskTable([]), new ushort[pairs.Length]);
        var count = 0;
        for (var i = 0; i < pairs.Length; )
        {
            var (pair, mask) = (pairs[i], 0UL);
            for (; i < pairs.Length && pairs[i] == pair; i++)
                mask |= 1UL << Array.IndexOf(ids, by[i]);
            if ((int)(pair >> 32) == (int)pair)
                continue;
            (pairs[count], reported[count]) = (pair, masks.KeyOf(mask));
            count++;
        }
        var back = Laid(pairs.AsSpan(0, count), reported, size);
        // The same ties by the work that is cited.
        for (var i = 0; i < count; i++)
            pairs[i] = pairs[i] << 32 | pairs[i] >>> 32;
        Array.Sort(pairs, reported, 0, count);
        return new(back, Laid(pairs.AsSpan(0, count), reported, size), masks.All, ids, count);
    }

    private static IdLists Laid(ReadOnlySpan<long> pairs, ReadOnlySpan<ushort> reported, int size)
    {
        var editor = IdLists.Empty.Edit(size);
        var works = new List<int>();
        for (var i = 0; i < pairs.Length; )
        {
            var (of, from) = ((int)(pairs[i] >> 32), i);
            works.Clear();
            for (; i < pairs.Length && (int)(pairs[i] >> 32) == of; i++)
                works.Add((int)pairs[i]);
            editor.Set(of, Packed(CollectionsMarshal.AsSpan(works), reported[from..i]));
        }
        return editor.Finish();
    }

    private static int[] Packed(ReadOnlySpan<int> works, ReadOnlySpan<ushort> keys)
    {
        var list = new int[works.Length + (works.Length + 1) / 2];
        works.CopyTo(list);
        keys.CopyTo(MemoryMarshal.Cast<int, ushort>(list.AsSpan(works.Length)));
        return list;
    }

    /// <summary>
    /// The graph after some works cite otherwise. O(their ties and the ties of what they cite), and the ids.
    /// </summary>
    /// <param name="citing">All ties of each work that cites otherwise, as often as they are reported; none for a work
    /// that is gone.</param>
    /// <param name="size">Work ids are below this.</param>
    /// <param name="databases">Ids of the databases: those of this graph, and others behind them.</param>
    public CitationGraph With(IReadOnlyDictionary<int, List<ReportedTie>> citing, int size, IEnumerable<int> databases)
    {
        int[] ids = Bits(databases);
        if (!ids.AsSpan(0, Math.Min(ids.Length, Databases.Count)).SequenceEqual(Databases.ToArray()))
            throw new ArgumentException("The databases of a graph keep their bits.", nameof(databases));
        var (backward, masks, ties) = (back.Edit(size), new MaskTable(masks: this.masks), Ties);
        var arrivals = new Dictionary<int, List<(int Citing, ushort Key)>>();
        var touched = new HashSet<int>();
        foreach (var (work, reports) in citing)
        {
            var before = Cites(work);
            ties -= before.Length;
            foreach (var cited in before)
                touched.Add(cited);
            var now = new SortedDictionary<int, ulong>();
            foreach (var tie in reports)
                if (tie.Cited != work)
                    now[tie.Cited] = now.GetValueOrDefault(tie.Cited) | 1UL << Array.IndexOf(ids, tie.Database);
            ties += now.Count;
            int[] works = [.. now.Keys];
            ushort[] keys = [.. now.Values.Select(masks.KeyOf)];
            backward.Set(work, Packed(works, keys));
            for (var i = 0; i < works.Length; i++)
            {
                touched.Add(works[i]);
                if (!arrivals.TryGetValue(works[i], out var from))
                    arrivals[works[i]] = from = [];
                from.Add((work, keys[i]));
            }
        }
        var ahead = forward.Edit(size);
        foreach (var cited in touched)
        {
            var works = CitedBy(cited);
            var keys = CitedByReported(cited);
            var left = arrivals.GetValueOrDefault(cited) ?? [];
            for (var i = 0; i < works.Length; i++)
                if (!citing.ContainsKey(works[i]))
                    left.Add((works[i], keys[i]));
            left.Sort();
            ahead.Set(cited, Packed([.. left.Select(l => l.Citing)], [.. left.Select(l => l.Key)]));
        }
        return new(backward.Finish(), ahead.Finish(), masks.All, ids, ties);
    }

    private static int[] Bits(IEnumerable<int> databases)
    {
        int[] ids = [.. databases.Order()];
        return ids.Length <= 64
            ? ids
            : throw new ArgumentException("A citation graph tells at most 64 databases apart.", nameof(databases));
    }

    /// <summary>What the graph is made of, for writing it down.</summary>
    public (IdLists Back, IdLists Forward, ulong[] Masks, int[] Databases, int Ties) Parts =>
        (back, forward, [.. masks], [.. Databases], Ties);

    /// <summary>A graph that was written down.</summary>
    public static CitationGraph From(IdLists back, IdLists forward, ulong[] masks, int[] databases, int ties) =>
        new(back, forward, [.. masks], databases, ties);

    /// <summary>Numbers for sets of databases. A graph's own stay as they are; new ones come behind them.</summary>
    private sealed class MaskTable(List<ulong> masks)
    {
        private readonly Dictionary<ulong, ushort> keys = masks
            .Select((mask, key) => (mask, key))
            .ToDictionary(m => m.mask, m => (ushort)m.key);

        public List<ulong> All { get; } = [.. masks];

        public ushort KeyOf(ulong mask)
        {
            if (keys.TryGetValue(mask, out var key))
                return key;
            All.Add(mask);
            return keys[mask] = checked((ushort)(All.Count - 1));
        }
    }
}
