using Lucene.Net.Index;
using Lucene.Net.Search;
using Zendle.Core.Holdings;
using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>Tells which works of a snapshot a library holds.</summary>
public interface IHeldWorks
{
    /// <summary>The works that a library holds, or may hold, by the label it is narrowed by; none for an unknown label.</summary>
    /// <returns>A set that must not be changed.</returns>
    WorkSet Of(CorpusSnapshot snapshot, string library);
}

/// <summary>
/// Holds all works against the holdings of a library at once: by the ISSNs and ISBNs of their records, and the years they
/// show. O(identifiers in the corpus + works that have one in the holdings).
/// </summary>
/// <param name="Held">Works that are held whatever their volume, issue and day may be.</param>
/// <param name="Unsure">Works for which those must be looked at, ascending.</param>
public sealed record HeldWorks(WorkSet Held, int[] Unsure)
{
    /// <summary>Holds the works of a snapshot against holdings.</summary>
    /// <param name="snapshot">The corpus at one moment.</param>
    /// <param name="find">The lines that name an identifier; see <see cref="HoldingKey"/>.</param>
    /// <param name="today">The day, from which embargoes count.</param>
    public static HeldWorks Of(CorpusSnapshot snapshot, Func<long, IReadOnlyList<HoldingLine>> find, DateOnly today)
    {
        var columns = snapshot.Columns;
        var (held, unsure) = (new WorkSet(columns.WorkSize), new WorkSet(columns.WorkSize));
        foreach (var leaf in snapshot.Reader.Leaves)
        foreach (var (field, isBook) in new[] { (IndexFields.Issn, false), (IndexFields.Isbn, true) })
        {
            if (leaf.AtomicReader.GetTerms(field) is not { } terms)
                continue;
            var records = SegmentDocs.Of(leaf.AtomicReader).Record;
            DocsEnum? docs = null;
            for (var term = terms.GetEnumerator(); term.MoveNext(); )
            {
                var written = term.Term.Utf8ToString();
                var key = isBook ? HoldingKey.OfIsbn(written) : HoldingKey.OfIssn(written);
                if (find(key) is not { Count: > 0 } lines)
                    continue;
                docs = term.Docs(leaf.AtomicReader.LiveDocs, docs, DocsFlags.NONE);
                for (var d = docs.NextDoc(); d != DocIdSetIterator.NO_MORE_DOCS; d = docs.NextDoc())
                {
                    var record = records[d];
                    if (record >= columns.RecordSize || columns.RecordWork[record] is not (> 0 and var work))
                        continue;
                    if (IsHeld(key, columns.Year[work], lines, today) is not { } sure)
                        unsure.Add(work);
                    else if (sure)
                        held.Add(work);
                }
            }
        }
        unsure.ExceptWith(held);
        return new(held, unsure.ToArray());
    }

    /// <summary>Whether a work is held by its year alone; null when its volume, issue or day must be looked at.</summary>
    private static bool? IsHeld(long key, int year, IReadOnlyList<HoldingLine> lines, DateOnly today)
    {
        var item = new HeldItem([key], year > 0 ? new PartialDate(year) : null);
        var isUnsure = false;
        foreach (var line in lines)
        {
            // About the year of an edge volumes decide, where it tells any.
            if (!line.IsBook && (IsAt(line.First, year) || IsAt(line.Last, year)))
            {
                isUnsure = true;
                continue;
            }
            switch (HoldingAnswer.Of(item, line, today).Coverage)
            {
                case Coverage.Held:
                    return true;
                case Coverage.PerhapsHeld:
                    isUnsure = true;
                    break;
            }
        }
        return isUnsure ? null : false;
    }

    private static bool IsAt(CoverageEdge edge, int year) =>
        edge.Volume is not null && (edge.Date is null || Math.Abs(edge.Date.Value.Year - year) <= 1 || year == 0);
}
