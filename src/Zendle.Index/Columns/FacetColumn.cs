using Zendle.Core.Sets;

namespace Zendle.Index.Columns;

/// <summary>The values of one field for every work: a work has a value when any of its records has it.</summary>
public sealed class FacetColumn
{
    private readonly int[] start;
    private readonly int[] values;
    private readonly Dictionary<string, int> ids;

    internal FacetColumn(string[] names, int[] start, int[] values)
    {
        Names = names;
        this.start = start;
        this.values = values;
        ids = new(names.Length, StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < names.Length; i++) ids.TryAdd(names[i], i);
    }

    /// <summary>Names of the values; the index is the value's number.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Numbers of the values a work has.</summary>
    public ReadOnlySpan<int> Of(int work) => work + 1 < start.Length ? values.AsSpan(start[work], start[work + 1] - start[work]) : [];

    /// <summary>How many works of <paramref name="works"/> have each value, by the value's number. O(works + values).</summary>
    public int[] Count(BitSet works)
    {
        var counts = new int[Names.Count];
        foreach (var work in works.ToArray())
            foreach (var value in Of(work)) counts[value]++;
        return counts;
    }

    /// <summary>The works that have at least one of <paramref name="names"/>; names nobody has find nothing.</summary>
    public BitSet With(IEnumerable<string> names, int size)
    {
        var wanted = new bool[Names.Count];
        foreach (var name in names) if (ids.TryGetValue(name, out var id)) wanted[id] = true;
        var found = new BitSet(size);
        for (var work = 0; work + 1 < start.Length; work++)
            foreach (var value in Of(work))
                if (wanted[value]) { found.Add(work); break; }
        return found;
    }
}
