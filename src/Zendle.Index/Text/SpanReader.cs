using System.Collections.Immutable;
using Lucene.Net.Index;
using Lucene.Net.Search;
using Lucene.Net.Util;
using Zendle.Core.Queries;

namespace Zendle.Index.Text;

/// <summary>Finds words, phrases and near groups with their places, in one field of one segment.</summary>
internal sealed class SpanReader(AtomicReader reader, string field)
{
    private readonly IBits? live = reader.LiveDocs;

    /// <summary>Documents in which <paramref name="slot"/> stands.</summary>
    public FixedBitSet Documents(string slot)
    {
        var documents = new FixedBitSet(Math.Max(1, reader.MaxDoc));
        DocsEnum? docs = null;
        foreach (var term in TermWalk.Over(reader, field, slot))
        {
            docs = term.Docs(live, docs, DocsFlags.NONE);
            for (var d = docs.NextDoc(); d != DocIdSetIterator.NO_MORE_DOCS; d = docs.NextDoc()) documents.Set(d);
        }
        return documents;
    }

    /// <summary>Places of a term in any of its forms, in all documents or only in some.</summary>
    public Spans Of(TermNode term, FixedBitSet? within = null) => Spans.Merge([.. term.Forms.Select(f => Of(f, within))]);

    /// <summary>Places of words in a row, in all documents or only in some.</summary>
    public Spans Of(ImmutableArray<string> slots, FixedBitSet? within = null)
    {
        var candidates = within;
        if (slots.Length > 1)
        {
            candidates = within is null ? null : (FixedBitSet)within.Clone();
            foreach (var slot in slots)
            {
                var documents = Documents(slot);
                if (candidates is null) candidates = documents;
                else candidates.And(documents);
            }
            if (candidates!.Cardinality == 0) return Spans.None;
        }
        var starts = Positions(slots[0], candidates);
        for (var s = 1; s < slots.Length && starts.Length > 0; s++) starts = Following(starts, Positions(slots[s], candidates), s);
        var lengths = new int[starts.Length];
        Array.Fill(lengths, slots.Length);
        return new(starts, lengths);
    }

    private static long[] Following(long[] starts, long[] next, int offset)
    {
        var kept = 0;
        var n = 0;
        foreach (var start in starts)
        {
            var wanted = start + offset;
            while (n < next.Length && next[n] < wanted) n++;
            if (n < next.Length && next[n] == wanted) starts[kept++] = start;
        }
        return starts[..kept];
    }

    /// <summary>All places of a slot in the candidate documents, sorted. A fresh array that the caller may change.</summary>
    private long[] Positions(string slot, FixedBitSet? candidates)
    {
        var places = new List<long>();
        var terms = 0;
        DocsAndPositionsEnum? postings = null;
        foreach (var term in TermWalk.Over(reader, field, slot))
        {
            terms++;
            postings = term.DocsAndPositions(live, postings, DocsAndPositionsFlags.NONE);
            if (postings is null) continue;
            var d = candidates is null ? postings.NextDoc() : Advance(postings, candidates, 0);
            while (d != DocIdSetIterator.NO_MORE_DOCS)
            {
                if (candidates is null || candidates.Get(d))
                    for (var i = postings.Freq; i > 0; i--) places.Add(Spans.Pack(d, postings.NextPosition()));
                d = candidates is null ? postings.NextDoc() : d + 1 < candidates.Length ? Advance(postings, candidates, d + 1) : DocIdSetIterator.NO_MORE_DOCS;
            }
        }
        var all = places.ToArray();
        if (terms > 1) Array.Sort(all);
        return all;
    }

    private static int Advance(DocsAndPositionsEnum postings, FixedBitSet candidates, int from)
    {
        var next = candidates.NextSetBit(from);
        return next < 0 ? DocIdSetIterator.NO_MORE_DOCS : postings.Advance(next);
    }
}
