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
/// <remarks>
/// Memory: ten bytes a tie both ways together, twelve where more than 256 sets of databases report ties, and nine bytes for
/// each work that has some, either way. Reading a work's ties costs their number.
/// </remarks>
public sealed class CitationGraph
{
    // A work's list holds its ties, then their keys, as many to a number as their width allows.
    private readonly IdLists back,
        forward;
    private readonly List<ulong> masks;
    private readonly KeyWidth width;

    private CitationGraph(
        IdLists back,
        IdLists forward,
        List<ulong> masks,
        IReadOnlyList<int> databases,
        KeyWidth width,
        int ties
    ) =>
        (this.back, this.forward, this.masks, Databases, this.width, Ties) = (
            back,
            forward,
            masks,
            databases,
            width,
            ties
        );

    /// <summary>No ties.</summary>
    public static CitationGraph Empty { get; } = new(IdLists.Empty, IdLists.Empty, [], [], KeyWidth.For(0), 0);

    /// <summary>How many ties there are.</summary>
    public int Ties { get; }

    /// <summary>How many bytes it takes.</summary>
    public long Bytes => back.Bytes + forward.Bytes;

    /// <summary>The databases, ascending; the place of an id is its bit in a mask.</summary>
    public IReadOnlyList<int> Databases { get; }

    /// <summary>Backward trail: the works a work cites, ascending.</summary>
    public ReadOnlySpan<int> Cites(int work) => width.Works(back.Of(work));

    /// <summary>Forward trail: the works that cite it, ascending.</summary>
    public ReadOnlySpan<int> CitedBy(int work) => width.Works(forward.Of(work));

    /// <summary>How many works a work cites.</summary>
    public int CitesCount(int work) => width.Ties(back.Length(work));

    /// <summary>How many works cite it.</summary>
    public int CitedByCount(int work) => width.Ties(forward.Length(work));

    /// <summary>
    /// For each of <see cref="Cites"/> the set of databases that report the tie, as a key to <see cref="Mask"/>.
    /// </summary>
    public TieKeys CitesReported(int work) => width.Keys(back.Of(work));

    /// <summary>
    /// For each of <see cref="CitedBy"/> the set of databases that report the tie, as a key to <see cref="Mask"/>.
    /// </summary>
    public TieKeys CitedByReported(int work) => width.Keys(forward.Of(work));

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
        var width = KeyWidth.For(masks.All.Count);
        var back = Laid(pairs.AsSpan(0, count), reported, size, width);
        // The same ties by the work that is cited.
        for (var i = 0; i < count; i++)
            pairs[i] = pairs[i] << 32 | pairs[i] >>> 32;
        Array.Sort(pairs, reported, 0, count);
        return new(back, Laid(pairs.AsSpan(0, count), reported, size, width), masks.All, ids, width, count);
    }

    private static IdLists Laid(ReadOnlySpan<long> pairs, ReadOnlySpan<ushort> reported, int size, KeyWidth width)
    {
        // Written once at its length: a graph that is built has no room behind its lists.
        var room = 0L;
        for (int from = 0, to; from < pairs.Length; from = to)
        {
            to = EndOf(pairs, from);
            room += width.Length(to - from) + 1;
        }
        var editor = IdLists.Empty.Edit(size, room);
        var works = new List<int>();
        for (int from = 0, to; from < pairs.Length; from = to)
        {
            to = EndOf(pairs, from);
            works.Clear();
            for (var i = from; i < to; i++)
                works.Add((int)pairs[i]);
            editor.Set((int)(pairs[from] >> 32), width.Packed(CollectionsMarshal.AsSpan(works), reported[from..to]));
        }
        return editor.Finish();
    }

    /// <summary>Where the pairs end that begin with the same work.</summary>
    private static int EndOf(ReadOnlySpan<long> pairs, int from)
    {
        var to = from + 1;
        while (to < pairs.Length && pairs[to] >> 32 == pairs[from] >> 32)
            to++;
        return to;
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
        var (masks, ties) = (new MaskTable(this.masks), Ties);
        var now = new Dictionary<int, (int[] Works, ushort[] Keys)>(citing.Count);
        foreach (var (work, reports) in citing)
        {
            var cited = new SortedDictionary<int, ulong>();
            foreach (var tie in reports)
                if (tie.Cited != work)
                    cited[tie.Cited] = cited.GetValueOrDefault(tie.Cited) | 1UL << Array.IndexOf(ids, tie.Database);
            now[work] = ([.. cited.Keys], [.. cited.Values.Select(masks.KeyOf)]);
        }
        var next = KeyWidth.For(masks.All.Count);
        if (next != width)
            return Rewritten(next).With(citing, size, databases);
        var backward = back.Edit(size);
        var arrivals = new Dictionary<int, List<(int Citing, ushort Key)>>();
        var touched = new HashSet<int>();
        foreach (var (work, (works, keys)) in now)
        {
            var before = Cites(work);
            ties += works.Length - before.Length;
            foreach (var cited in before)
                touched.Add(cited);
            backward.Set(work, width.Packed(works, keys));
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
            ahead.Set(cited, width.Packed([.. left.Select(l => l.Citing)], [.. left.Select(l => l.Key)]));
        }
        return new(backward.Finish(), ahead.Finish(), masks.All, ids, width, ties);
    }

    /// <summary>The same graph with keys of another width. O(ties).</summary>
    private CitationGraph Rewritten(KeyWidth to)
    {
        IdLists Of(IdLists lists)
        {
            var editor = IdLists.Empty.Edit(lists.Size, 0);
            for (var work = 0; work < lists.Size; work++)
                if (lists.Of(work) is { IsEmpty: false } list)
                    editor.Set(work, to.Packed(width.Works(list), width.Keys(list).ToArray()));
            return editor.Finish();
        }
        return new(Of(back), Of(forward), masks, Databases, to, Ties);
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
        new(back, forward, [.. masks], databases, KeyWidth.For(masks.Length), ties);

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
