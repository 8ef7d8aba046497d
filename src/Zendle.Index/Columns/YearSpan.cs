namespace Zendle.Index.Columns;

/// <summary>A stretch of years, both ends in it.</summary>
/// <param name="From">The first.</param>
/// <param name="To">The last.</param>
public sealed record YearSpan(int From, int To)
{
    /// <summary>Of two hundred works so many may lie before it: a single one of another century does not stretch it.</summary>
    private const int OneIn = 200;

    /// <summary>The years in which works lie, the very oldest aside; year 0 to 0 when none has a year. O(works).</summary>
    /// <param name="years">Year of each work; 0 for none.</param>
    public static YearSpan Of(ReadOnlySpan<short> years)
    {
        var counts = new SortedDictionary<int, int>();
        var all = 0;
        foreach (var year in years)
            if (year > 0)
            {
                counts[year] = counts.GetValueOrDefault(year) + 1;
                all++;
            }
        if (all == 0)
            return new(0, 0);
        var (before, from) = (0, 0);
        foreach (var (year, count) in counts)
        {
            from = year;
            before += count;
            if (before > all / OneIn)
                break;
        }
        return new(from, counts.Keys.Last());
    }
}
