using Zendle.Core.Queries;
using Zendle.Core.Sets;

namespace Zendle.Index.Columns;

/// <summary>The values of one field for every work: a work has a value when any of its records has it. A value that no work has any more keeps its number.</summary>
public sealed class FacetColumn
{
    private readonly NameTable table;
    private readonly IdLists values;
    private readonly Lazy<int[]> totals;

    private FacetColumn(NameTable table, IdLists values)
    {
        (this.table, this.values) = (table, values);
        var count = table.Count;
        Names = table.First(count);
        totals = new(() =>
        {
            var counts = new int[count];
            for (var work = 0; work < values.Size; work++) foreach (var value in values.Of(work)) counts[value]++;
            return counts;
        });
    }

    /// <summary>Names of the values; the index is the value's number.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Numbers of the values a work has, ascending.</summary>
    public ReadOnlySpan<int> Of(int work) => values.Of(work);

    /// <summary>The values in which a word begins with some letters, those of most works first. O(values).</summary>
    /// <param name="beginning">The letters, folded; several words must stand in a row.</param>
    /// <param name="most">How many at most.</param>
    public IReadOnlyList<string> Beginning(string beginning, int most)
    {
        var (wanted, folded) = (" " + beginning, table.Folded(Names.Count));
        return [.. Enumerable.Range(0, Names.Count).Where(i => totals.Value[i] > 0 && folded[i]!.Contains(wanted, StringComparison.Ordinal)).OrderByDescending(i => totals.Value[i]).ThenBy(i => Names[i], StringComparer.Ordinal).Take(most).Select(i => Names[i])];
    }

    /// <summary>How many works of <paramref name="works"/> have each value, by the value's number. O(works + values).</summary>
    public int[] Count(BitSet works)
    {
        var counts = new int[Names.Count];
        foreach (var work in works)
            foreach (var value in Of(work)) counts[value]++;
        return counts;
    }

    /// <summary>The works that have at least one of <paramref name="names"/>; names nobody has find nothing.</summary>
    public BitSet With(IEnumerable<string> names, int size)
    {
        var wanted = new bool[Names.Count];
        foreach (var name in names) if (table.Find(name) is >= 0 and var number && number < wanted.Length) wanted[number] = true;
        var found = new BitSet(size);
        for (var work = 0; work < values.Size; work++)
            foreach (var value in Of(work))
                if (wanted[value]) { found.Add(work); break; }
        return found;
    }

    /// <summary>What the column is made of, for writing it down.</summary>
    internal (string[] Names, IdLists Values) Parts => ([.. Names], values);

    /// <summary>A column that was written down.</summary>
    internal static FacetColumn From(IEnumerable<string> names, IdLists values)
    {
        var table = new NameTable();
        foreach (var name in names) table.Add(name);
        for (var work = 0; work < values.Size; work++)
            foreach (var value in values.Of(work)) if ((uint)value >= (uint)table.Count) throw new InvalidDataException("A value of a field has no name.");
        return new(table, values);
    }

    /// <summary>Makes a column, from nothing or from the one before it.</summary>
    internal sealed class Editor(FacetColumn? from, int size)
    {
        private readonly NameTable table = from?.table ?? new();
        private readonly IdLists.Editor values = (from?.values ?? IdLists.Empty).Edit(size);

        /// <summary>The number of a value.</summary>
        public int Number(string name) => table.Add(name);

        /// <summary>Sets the values of a work; each counts once.</summary>
        public void Set(int work, IEnumerable<string> names) => Set(work, [.. names.Select(table.Add).Distinct().Order()]);

        /// <summary>Sets the values of a work by their numbers, ascending and each once.</summary>
        public void Set(int work, ReadOnlySpan<int> numbers) => values.Set(work, numbers);

        public FacetColumn Finish() => new(table, values.Finish());
    }
}
