using Zendle.Core.Queries;
using Zendle.Core.Sets;

namespace Zendle.Index.Columns;

/// <summary>The values of one field for every work: a work has a value when any of its records has it.</summary>
public sealed class FacetColumn
{
    private readonly int[] start;
    private readonly int[] values;
    private readonly Dictionary<string, int> ids;
    private readonly Lazy<string[]> folded;
    private readonly Lazy<int[]> totals;

    internal FacetColumn(string[] names, int[] start, int[] values)
    {
        Names = names;
        this.start = start;
        this.values = values;
        ids = new(names.Length, StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < names.Length; i++) ids.TryAdd(names[i], i);
        folded = new(() => Array.ConvertAll(names, n => " " + string.Join(' ', Words.Of(n).Where(w => !w.IsClosedForm).Select(w => w.Text))));
        totals = new(() =>
        {
            var counts = new int[names.Length];
            foreach (var value in values) counts[value]++;
            return counts;
        });
    }

    /// <summary>Names of the values; the index is the value's number.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Numbers of the values a work has.</summary>
    public ReadOnlySpan<int> Of(int work) => work + 1 < start.Length ? values.AsSpan(start[work], start[work + 1] - start[work]) : [];

    /// <summary>The values in which a word begins with some letters, those of most works first. O(values).</summary>
    /// <param name="beginning">The letters, folded; several words must stand in a row.</param>
    /// <param name="most">How many at most.</param>
    public IReadOnlyList<string> Beginning(string beginning, int most)
    {
        var wanted = " " + beginning;
        return [.. Enumerable.Range(0, Names.Count).Where(i => folded.Value[i].Contains(wanted, StringComparison.Ordinal)).OrderByDescending(i => totals.Value[i]).ThenBy(i => Names[i], StringComparer.Ordinal).Take(most).Select(i => Names[i])];
    }

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
