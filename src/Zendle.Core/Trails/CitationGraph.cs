namespace Zendle.Core.Trails;

/// <summary>
/// Which works cite which, merged over databases; each tie once, with the databases that report it. A work citing itself is left out.
/// Memory: 12 bytes a tie; reading a work's ties costs their number.
/// </summary>
public sealed class CitationGraph
{
    private readonly int[] backStart, back, forwardStart, forward;
    private readonly ushort[] backReported, forwardReported;
    private readonly ulong[] masks;

    private CitationGraph(int[] backStart, int[] back, ushort[] backReported, int[] forwardStart, int[] forward, ushort[] forwardReported, ulong[] masks, IReadOnlyList<int> databases) =>
        (this.backStart, this.back, this.backReported, this.forwardStart, this.forward, this.forwardReported, this.masks, Databases) = (backStart, back, backReported, forwardStart, forward, forwardReported, masks, databases);

    /// <summary>How many ties there are.</summary>
    public int Ties => back.Length;

    /// <summary>The databases, ascending; the place of an id is its bit in a mask.</summary>
    public IReadOnlyList<int> Databases { get; }

    /// <summary>Backward trail: the works a work cites, ascending.</summary>
    public ReadOnlySpan<int> Cites(int work) => Slice(backStart, back, work);

    /// <summary>Forward trail: the works that cite it, ascending.</summary>
    public ReadOnlySpan<int> CitedBy(int work) => Slice(forwardStart, forward, work);

    /// <summary>For each of <see cref="Cites"/> the set of databases that report the tie, as a key to <see cref="Mask"/>.</summary>
    public ReadOnlySpan<ushort> CitesReported(int work) => Slice(backStart, backReported, work);

    /// <summary>For each of <see cref="CitedBy"/> the set of databases that report the tie, as a key to <see cref="Mask"/>.</summary>
    public ReadOnlySpan<ushort> CitedByReported(int work) => Slice(forwardStart, forwardReported, work);

    /// <summary>A set of databases, one bit each.</summary>
    public ulong Mask(ushort key) => masks[key];

    /// <summary>The mask of some databases; of all when none are named.</summary>
    public ulong MaskOf(IReadOnlyCollection<int> chosen)
    {
        if (chosen.Count == 0) return ulong.MaxValue;
        var mask = 0UL;
        for (var i = 0; i < Databases.Count; i++) if (chosen.Contains(Databases[i])) mask |= 1UL << i;
        return mask;
    }

    private static ReadOnlySpan<T> Slice<T>(int[] start, T[] all, int work) => (uint)work + 1 < (uint)start.Length ? all.AsSpan(start[work], start[work + 1] - start[work]) : [];

    /// <summary>Builds the graph. O(n log n).</summary>
    /// <param name="ties">Pairs (citing work in the upper half, cited work in the lower), as often as they are reported.</param>
    /// <param name="reporters">For each pair the database that reports it.</param>
    /// <param name="size">Work ids are below this.</param>
    /// <param name="databases">Ids of the databases, at most 64.</param>
    public static CitationGraph Build(IReadOnlyCollection<long> ties, IReadOnlyCollection<byte> reporters, int size, IEnumerable<int> databases)
    {
        int[] ids = [.. databases.Order()];
        if (ids.Length > 64) throw new ArgumentException("A citation graph tells at most 64 databases apart.", nameof(databases));
        var (pairs, by) = (ties.ToArray(), reporters.ToArray());
        Array.Sort(pairs, by);
        var (keys, masks, reported) = (new Dictionary<ulong, ushort>(), new List<ulong>(), new ushort[pairs.Length]);
        var count = 0;
        for (var i = 0; i < pairs.Length;)
        {
            var (pair, mask) = (pairs[i], 0UL);
            for (; i < pairs.Length && pairs[i] == pair; i++) mask |= 1UL << Array.IndexOf(ids, by[i]);
            if ((int)(pair >> 32) == (int)pair) continue;
            if (!keys.TryGetValue(mask, out var key))
            {
                keys[mask] = key = checked((ushort)masks.Count);
                masks.Add(mask);
            }
            (pairs[count], reported[count]) = (pair, key);
            count++;
        }
        var (backStart, forwardStart) = (new int[size + 1], new int[size + 1]);
        for (var i = 0; i < count; i++)
        {
            backStart[(int)(pairs[i] >> 32) + 1]++;
            forwardStart[(int)pairs[i] + 1]++;
        }
        for (var w = 0; w < size; w++)
        {
            backStart[w + 1] += backStart[w];
            forwardStart[w + 1] += forwardStart[w];
        }
        var (back, forward, forwardReported, next) = (new int[count], new int[count], new ushort[count], forwardStart[..size]);
        for (var i = 0; i < count; i++)
        {
            back[i] = (int)pairs[i];
            var at = next[(int)pairs[i]]++;
            (forward[at], forwardReported[at]) = ((int)(pairs[i] >> 32), reported[i]);
        }
        return new(backStart, back, reported[..count], forwardStart, forward, forwardReported, [.. masks], ids);
    }
}
