using System.Buffers;
using Zendle.Core.Sets;
using Zendle.Core.Spelling;

namespace Zendle.Index.Columns;

/// <summary>
/// The values of one field for every work: a work has a value when any of its records has it. A value that no work has
/// any more keeps its number.
/// </summary>
public sealed class FacetColumn
{
    private readonly NameTable table;
    private readonly IdLists values;
    private readonly int[]? ones; // by work its one value, −1 for none; null when a work may have several
    private readonly Lazy<int[]> totals;

    private FacetColumn(NameTable table, IdLists values, int[]? ones = null)
    {
        (this.table, this.values, this.ones) = (table, values, ones);
        var count = table.Count;
        Names = table.First(count);
        totals = new(() =>
        {
            var counts = new int[count];
            for (var work = 0; work < Size; work++)
                foreach (var value in Of(work))
                    counts[value]++;
            return counts;
        });
    }

    private int Size => ones?.Length ?? values.Size;

    /// <summary>Names of the values; the index is the value's number.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Numbers of the values a work has, ascending.</summary>
    public ReadOnlySpan<int> Of(int work) =>
        ones is null ? values.Of(work)
        : (uint)work < (uint)ones.Length && ones[work] >= 0 ? ones.AsSpan(work, 1)
        : [];

    /// <summary>The words of the values, each with the works of all values that have it; a work may count twice.</summary>
    internal SpelledWords SpelledWords()
    {
        var folded = table.Folded(Names.Count);
        var works = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var i = 0; i < Names.Count; i++)
            if (totals.Value[i] > 0)
                foreach (var word in folded[i]!.Split(' ', StringSplitOptions.RemoveEmptyEntries).Distinct())
                    works[word] = works.GetValueOrDefault(word) + totals.Value[i];
        return new(works.Select(w => (w.Key, w.Value)));
    }

    /// <summary>The values in which a word begins with some letters, those of most works first. O(values).</summary>
    /// <param name="beginning">The letters, folded; several words must stand in a row.</param>
    /// <param name="most">How many at most.</param>
    public IReadOnlyList<string> Beginning(string beginning, int most)
    {
        var (wanted, folded) = (" " + beginning, table.Folded(Names.Count));
        return
        [
            .. Enumerable
                .Range(0, Names.Count)
                .Where(i => totals.Value[i] > 0 && folded[i]!.Contains(wanted, StringComparison.Ordinal))
                .OrderByDescending(i => totals.Value[i])
                .ThenBy(i => Names[i], StringComparer.Ordinal)
                .Take(most)
                .Select(i => Names[i]),
        ];
    }

    /// <summary>
    /// How many works of <paramref name="works"/> have each value: those that occur, by the value's number, ascending.
    /// O(works + values).
    /// </summary>
    public (int Value, int Count)[] Count(WorkSet works)
    {
        // Some fields have as many values as there are works: the room to count in is held between questions.
        var counts = ArrayPool<int>.Shared.Rent(Names.Count);
        try
        {
            Array.Clear(counts, 0, Names.Count);
            foreach (var work in works)
            foreach (var value in Of(work))
                counts[value]++;
            var found = new (int, int)[Names.Count - counts.AsSpan(0, Names.Count).Count(0)];
            for (int value = 0, n = 0; n < found.Length; value++)
                if (counts[value] > 0)
                    found[n++] = (value, counts[value]);
            return found;
        }
        finally
        {
            ArrayPool<int>.Shared.Return(counts);
        }
    }

    /// <summary>The works that have at least one of <paramref name="names"/>; names nobody has find nothing.</summary>
    public WorkSet With(IEnumerable<string> names, int size)
    {
        var wanted = new bool[Names.Count];
        foreach (var name in names)
            if (table.Find(name) is >= 0 and var number && number < wanted.Length)
                wanted[number] = true;
        var found = new WorkSet(size);
        for (var work = 0; work < Size; work++)
            foreach (var value in Of(work))
                if (wanted[value])
                {
                    found.Add(work);
                    break;
                }
        return found;
    }

    /// <summary>
    /// What the column is made of, for writing it down: the names, and either lists or one number for each work.
    /// </summary>
    internal (string[] Names, IdLists Values, int[]? Ones) Parts => ([.. Names], values, ones);

    /// <summary>A column that was written down.</summary>
    internal static FacetColumn From(IEnumerable<string> names, IdLists values, int[]? ones)
    {
        var table = new NameTable();
        foreach (var name in names)
            table.Add(name);
        var column = new FacetColumn(table, values, ones);
        for (var work = 0; work < column.Size; work++)
            foreach (var value in column.Of(work))
                if ((uint)value >= (uint)table.Count)
                    throw new InvalidDataException("A value of a field has no name.");
        return column;
    }

    /// <summary>
    /// A column in which a work has one value or none. O(works); a third of the room that lists would take.
    /// </summary>
    /// <param name="names">The name of each value; several that differ in case only are one value.</param>
    /// <param name="ordinalOf">By work: the ordinal of its name among <paramref name="names"/>, −1 for none.</param>
    internal static FacetColumn OfOnes(IEnumerable<string> names, int[] ordinalOf)
    {
        var table = new NameTable();
        int[] numbers = [.. names.Select(table.Add)];
        return new(table, IdLists.Empty, Array.ConvertAll(ordinalOf, ordinal => ordinal < 0 ? -1 : numbers[ordinal]));
    }

    /// <summary>Makes a column, from nothing or from the one before it.</summary>
    internal sealed class Editor(FacetColumn? from, int size)
    {
        private readonly NameTable table = from?.table ?? new();
        private readonly IdLists.Editor values = (from?.values ?? IdLists.Empty).Edit(size);

        /// <summary>The number of a value.</summary>
        public int Number(string name) => table.Add(name);

        /// <summary>Sets the values of a work; each counts once.</summary>
        public void Set(int work, IEnumerable<string> names) =>
            Set(work, [.. names.Select(table.Add).Distinct().Order()]);

        /// <summary>Sets the values of a work by their numbers, ascending and each once.</summary>
        public void Set(int work, ReadOnlySpan<int> numbers) => values.Set(work, numbers);

        public FacetColumn Finish() => new(table, values.Finish());
    }

    /// <summary>
    /// Makes a column from the one before it by taking values from works and giving them others, in any order. Eight bytes
    /// for each while it is made.
    /// </summary>
    internal sealed class Amender(FacetColumn? from, int size)
    {
        private readonly Editor editor = new(from, size);
        private readonly List<long> removed = [],
            added = [];

        /// <summary>Takes a value from works.</summary>
        public void Remove(string name, IEnumerable<int> works) => Note(removed, name, works);

        /// <summary>Gives works a value; one that is taken from the same work stays.</summary>
        public void Add(string name, IEnumerable<int> works) => Note(added, name, works);

        public FacetColumn Finish()
        {
            removed.Sort();
            added.Sort();
            var (r, a) = (0, 0);
            var values = new SortedSet<int>();
            while (r < removed.Count || a < added.Count)
            {
                var work = (int)(Math.Min(At(removed, r), At(added, a)) >> 32);
                values.Clear();
                if (from is not null)
                    foreach (var value in from.Of(work))
                        values.Add(value);
                for (; At(removed, r) >> 32 == work; r++)
                    values.Remove((int)removed[r]);
                for (; At(added, a) >> 32 == work; a++)
                    values.Add((int)added[a]);
                ReadOnlySpan<int> ascending = [.. values];
                editor.Set(work, ascending);
            }
            return editor.Finish();
        }

        private static long At(List<long> pairs, int i) => i < pairs.Count ? pairs[i] : long.MaxValue;

        private void Note(List<long> pairs, string name, IEnumerable<int> works)
        {
            var value = (uint)editor.Number(name);
            foreach (var work in works)
                pairs.Add((long)work << 32 | value);
        }
    }
}
