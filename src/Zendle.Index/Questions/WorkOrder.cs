using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Sets;

namespace Zendle.Index.Questions;

/// <summary>Orders a list can have.</summary>
public enum SortOrder
{
    /// <summary>Best match first.</summary>
    Relevance,
    /// <summary>Youngest first.</summary>
    Newest,
    /// <summary>Oldest first.</summary>
    Oldest,
    /// <summary>Most cited first, merged over databases.</summary>
    Cited,
    /// <summary>Most citations per year since publication first.</summary>
    CitedPerYear,
    /// <summary>By title.</summary>
    Title,
    /// <summary>By first person.</summary>
    Person,
    /// <summary>By venue.</summary>
    Venue,
    /// <summary>In a trail: tied to most seeds first, then most cited.</summary>
    Ties,
}

/// <summary>Puts sets of works in order; ties are broken by work id, so that pages never shuffle.</summary>
public static class WorkOrder
{
    /// <summary>The works of a set in order. O(n log n).</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="works">The set.</param>
    /// <param name="order">The order; relevance without concepts is newest.</param>
    /// <param name="concepts">Concepts of the question.</param>
    /// <param name="records">Matching records in the chosen databases.</param>
    /// <param name="thisYear">The year that citations per year are counted to.</param>
    /// <param name="ties">In a trail, how many seeds a work is tied to; null outside one.</param>
    public static int[] Sort(CorpusSnapshot snapshot, BitSet works, SortOrder order, ImmutableArray<Concept> concepts, BitSet records, int thisYear, Func<int, int>? ties = null)
    {
        var columns = snapshot.Columns;
        var ids = works.ToArray();
        switch (order)
        {
            case SortOrder.Relevance when !concepts.IsEmpty:
                var scores = Relevance.Score(snapshot, concepts, records);
                return By(ids, w => -scores[w]);
            case SortOrder.Ties or SortOrder.Relevance when ties is not null: return By(ids, w => (-ties(w), -columns.Graph.CitedBy(w).Length));
            case SortOrder.Oldest: return By(ids, w => columns.Year[w] == 0 ? int.MaxValue : columns.Year[w]);
            case SortOrder.Cited: return By(ids, w => -columns.Graph.CitedBy(w).Length);
            case SortOrder.CitedPerYear: return By(ids, w => -PerYear(columns.Graph.CitedBy(w).Length, columns.Year[w], thisYear));
            case SortOrder.Title: return ByText(ids, columns.SortTitle);
            case SortOrder.Person: return ByText(ids, columns.SortPerson);
            case SortOrder.Venue: return ByText(ids, columns.SortVenue);
            default: return By(ids, w => -columns.Year[w]);
        }
    }

    /// <summary>Citations ÷ years since publication, at least one; 0 for a work without a year.</summary>
    public static double PerYear(int citations, int year, int thisYear) => year == 0 ? 0 : (double)citations / Math.Max(1, thisYear - year);

    private static int[] By<T>(int[] ids, Func<int, T> key) where T : IComparable<T>
    {
        var keys = Array.ConvertAll(ids, w => (Key: key(w), Work: w));
        Array.Sort(keys, (a, b) => a.Key.CompareTo(b.Key) is not 0 and var c ? c : a.Work.CompareTo(b.Work));
        return Array.ConvertAll(keys, k => k.Work);
    }

    private static int[] ByText(int[] ids, string?[] texts)
    {
        var compare = System.Globalization.CultureInfo.InvariantCulture.CompareInfo;
        const System.Globalization.CompareOptions Options = System.Globalization.CompareOptions.IgnoreCase | System.Globalization.CompareOptions.IgnoreNonSpace | System.Globalization.CompareOptions.IgnoreSymbols;
        var sorted = (int[])ids.Clone();
        Array.Sort(sorted, (a, b) =>
        {
            var (x, y) = (texts[a], texts[b]);
            var c = x is null ? (y is null ? 0 : 1) : y is null ? -1 : compare.Compare(x, y, Options);
            return c != 0 ? c : a.CompareTo(b);
        });
        return sorted;
    }
}
