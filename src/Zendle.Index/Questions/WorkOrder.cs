using System.Buffers;
using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Trails;

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

    /// <summary>Among neighbours: the likest to the seeds first, all reasons joined.</summary>
    Likeness,
}

/// <summary>Puts sets of works in order; ties are broken by work id, so that pages never shuffle.</summary>
public static class WorkOrder
{
    /// <summary>The works of a set in order. O(n).</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="works">The set.</param>
    /// <param name="order">The order; relevance without concepts is newest.</param>
    /// <param name="concepts">Concepts of the question.</param>
    /// <param name="records">Matching records in the chosen databases.</param>
    /// <param name="thisYear">The year that citations per year are counted to.</param>
    /// <param name="ties">In a trail, how many seeds a work is tied to; null outside one.</param>
    /// <param name="likeness">Among neighbours, how like the seeds a work is; null elsewhere.</param>
    public static int[] Sort(
        CorpusSnapshot snapshot,
        WorkSet works,
        SortOrder order,
        ImmutableArray<Concept> concepts,
        RecordSet records,
        int thisYear,
        Func<int, int>? ties = null,
        JoinedOrder? likeness = null
    )
    {
        var columns = snapshot.Columns;
        var ids = works.ToArray();
        switch (order)
        {
            case SortOrder.Relevance when !concepts.IsEmpty:
                return ByRelevance(ids, snapshot, concepts, records);
            case SortOrder.Likeness or SortOrder.Relevance when likeness is not null:
                return likeness.Sort(works);
            case SortOrder.Ties or SortOrder.Relevance when ties is not null:
                return By(ids, w => -((long)ties(w) << 32) - columns.Graph.CitedByCount(w));
            case SortOrder.Oldest:
                return By(ids, w => columns.Year[w] == 0 ? long.MaxValue : columns.Year[w]);
            case SortOrder.Cited:
                return By(ids, w => -(long)columns.Graph.CitedByCount(w));
            case SortOrder.CitedPerYear:
                return By(ids, w => -PerYear(columns.Graph.CitedByCount(w), columns.Year[w], thisYear));
            case SortOrder.Title:
                return By(ids, w => (long)columns.TitleRank[w]);
            case SortOrder.Person:
                return By(ids, w => (long)columns.PersonRank[w]);
            case SortOrder.Venue:
                return By(ids, w => (long)columns.VenueRank[w]);
            default:
                return By(ids, w => -(long)columns.Year[w]);
        }
    }

    /// <summary>Citations ÷ years since publication, at least one; 0 for a work without a year.</summary>
    public static double PerYear(int citations, int year, int thisYear) =>
        year == 0 ? 0 : (double)citations / Math.Max(1, thisYear - year);

    private static int[] ByRelevance(
        int[] ids,
        CorpusSnapshot snapshot,
        ImmutableArray<Concept> concepts,
        RecordSet records
    )
    {
        // Arrays as long as the corpus are held between questions: to make them anew each time costs more than what
        // stands in them.
        var scores = ArrayPool<float>.Shared.Rent(snapshot.Columns.WorkSize);
        try
        {
            Relevance.Score(snapshot, concepts, records, scores.AsSpan(0, snapshot.Columns.WorkSize));
            return By(ids, w => -(double)scores[w]);
        }
        finally
        {
            ArrayPool<float>.Shared.Return(scores);
        }
    }

    private static int[] By(int[] ids, Func<int, double> key) => By(ids, w => Ordered(key(w)));

    /// <summary>Sorts ascending ids in place by a whole number, then by id.</summary>
    private static int[] By(int[] ids, Func<int, long> key)
    {
        var keys = ArrayPool<ulong>.Shared.Rent(ids.Length);
        try
        {
            // The sign turned over, whole numbers order as those without one do.
            for (var i = 0; i < ids.Length; i++)
                keys[i] = (ulong)key(ids[i]) ^ 1UL << 63;
            RadixSort.Sort(keys.AsSpan(0, ids.Length), ids);
            return ids;
        }
        finally
        {
            ArrayPool<ulong>.Shared.Return(keys);
        }
    }

    /// <summary>
    /// A whole number that orders as the given one does (IEEE 754, total order of numbers without NaN).
    /// </summary>
    private static long Ordered(double number)
    {
        var bits = BitConverter.DoubleToInt64Bits(number == 0 ? 0 : number);
        return bits < 0 ? bits ^ long.MaxValue : bits;
    }
}
