using System.Collections.Immutable;
using Lucene.Net.Index;
using Lucene.Net.Search;
using Lucene.Net.Util;
using Zendle.Core.Queries;

namespace Zendle.Index.Text;

/// <summary>Finds words, phrases and near groups with their positions, in one field of one segment.</summary>
internal sealed class SpanReader(AtomicReader reader, string field, Budget budget)
{
    private readonly IBits? live = reader.LiveDocs;

    /// <summary>Documents in which <paramref name="slot"/> stands.</summary>
    public FixedBitSet Documents(string slot)
    {
        var documents = new FixedBitSet(Math.Max(1, reader.MaxDoc));
        DocsEnum? docs = null;
        var looked = 0;
        foreach (var term in TermWalk.Over(reader, field, slot, budget))
        {
            docs = term.Docs(live, docs, DocsFlags.NONE);
            for (var d = docs.NextDoc(); d != DocIdSetIterator.NO_MORE_DOCS; d = docs.NextDoc())
            {
                documents.Set(d);
                budget.Every(ref looked);
            }
        }
        return documents;
    }

    /// <summary>The documents in which spans stand.</summary>
    public FixedBitSet DocumentsOf(Spans spans)
    {
        var documents = new FixedBitSet(Math.Max(1, reader.MaxDoc));
        foreach (var start in spans.Starts)
            documents.Set(Spans.Document(start));
        return documents;
    }

    /// <summary>Positions of a term in any of its forms, in all documents or only in some.</summary>
    public Spans Of(TermNode term, FixedBitSet? within = null) =>
        Spans.Merge([.. term.Forms.Select(f => Of(f, within))]);

    /// <summary>Positions of words in a row, in all documents or only in some.</summary>
    public Spans Of(ImmutableArray<string> slots, FixedBitSet? within = null)
    {
        var candidates = within;
        if (slots.Length > 1)
        {
            if (!slots.Any(TermNode.IsPattern))
                return Row(slots, within);
            candidates = within is null ? null : (FixedBitSet)within.Clone();
            foreach (var slot in slots)
            {
                var documents = Documents(slot);
                if (candidates is null)
                    candidates = documents;
                else
                    candidates.And(documents);
            }
            if (candidates!.Cardinality == 0)
                return Spans.None;
        }
        var starts = Positions(slots[0], candidates);
        for (var s = 1; s < slots.Length && starts.Length > 0; s++)
            starts = Following(starts, Positions(slots[s], candidates), s);
        var lengths = new int[starts.Length];
        Array.Fill(lengths, slots.Length);
        return new(starts, lengths);
    }

    /// <summary>
    /// Plain words in a row: their postings are gone through side by side, the rarest word leading, so that of a common
    /// one only few documents are read.
    /// </summary>
    private Spans Row(ImmutableArray<string> words, FixedBitSet? within)
    {
        var postings = new (DocsAndPositionsEnum Positions, int Offset, int Frequency)[words.Length];
        for (var i = 0; i < words.Length; i++)
        {
            if (
                TermWalk.Over(reader, field, words[i], budget).FirstOrDefault() is not { } word
                || word.DocsAndPositions(live, null, DocsAndPositionsFlags.NONE) is not { } positions
            )
                return Spans.None;
            postings[i] = (positions, i, word.DocFreq);
        }
        Array.Sort(postings, (a, b) => a.Frequency.CompareTo(b.Frequency));
        var (starts, lead, here, there) = (new List<long>(), postings[0].Positions, new List<int>(), new List<int>());
        var looked = 0;
        for (var document = lead.NextDoc(); document != DocIdSetIterator.NO_MORE_DOCS; document = lead.NextDoc())
        {
            budget.Every(ref looked);
            if (within?.Get(document) == false)
                continue;
            var all = true;
            for (var i = 1; i < postings.Length && all; i++)
            {
                var other = postings[i].Positions;
                all = (other.DocID < document ? other.Advance(document) : other.DocID) == document;
            }
            if (!all)
                continue;
            // Where the row would begin if this word stands in it; what is left after every word is where it does.
            Begins(postings[0], here);
            for (var i = 1; i < postings.Length && here.Count > 0; i++)
            {
                Begins(postings[i], there);
                var (kept, n) = (0, 0);
                for (var h = 0; h < here.Count; h++)
                {
                    while (n < there.Count && there[n] < here[h])
                        n++;
                    if (n < there.Count && there[n] == here[h])
                        here[kept++] = here[h];
                }
                here.RemoveRange(kept, here.Count - kept);
            }
            foreach (var begin in here)
                starts.Add(Spans.Pack(document, begin));
        }
        var lengths = new int[starts.Count];
        Array.Fill(lengths, words.Length);
        return new([.. starts], lengths);

        static void Begins((DocsAndPositionsEnum Positions, int Offset, int Frequency) word, List<int> begins)
        {
            begins.Clear();
            for (var n = word.Positions.Freq; n > 0; n--)
                if (word.Positions.NextPosition() - word.Offset is >= 0 and var begin)
                    begins.Add(begin);
        }
    }

    /// <summary>
    /// About how many documents have a term, at most; for what is read first. Truncated words count as being
    /// everywhere.
    /// </summary>
    public int AtMost(TermNode term) =>
        term.Forms.Max(form =>
            form.Min(slot =>
                TermNode.IsPattern(slot)
                    ? reader.MaxDoc
                    : TermWalk.Over(reader, field, slot, budget).Select(t => t.DocFreq).FirstOrDefault()
            )
        );

    private static long[] Following(long[] starts, long[] next, int offset)
    {
        var kept = 0;
        var n = 0;
        foreach (var start in starts)
        {
            var wanted = start + offset;
            while (n < next.Length && next[n] < wanted)
                n++;
            if (n < next.Length && next[n] == wanted)
                starts[kept++] = start;
        }
        return starts[..kept];
    }

    /// <summary>
    /// All positions of a slot in the candidate documents, sorted. A fresh array that the caller may change.
    /// </summary>
    private long[] Positions(string slot, FixedBitSet? candidates)
    {
        var positions = new List<long>();
        var (terms, looked) = (0, 0);
        DocsAndPositionsEnum? postings = null;
        foreach (var term in TermWalk.Over(reader, field, slot, budget))
        {
            terms++;
            postings = term.DocsAndPositions(live, postings, DocsAndPositionsFlags.NONE);
            if (postings is null)
                continue;
            var d = candidates is null ? postings.NextDoc() : Advance(postings, candidates, 0);
            while (d != DocIdSetIterator.NO_MORE_DOCS)
            {
                budget.Every(ref looked);
                if (candidates is null || candidates.Get(d))
                    for (var i = postings.Freq; i > 0; i--)
                        positions.Add(Spans.Pack(d, postings.NextPosition()));
                d =
                    candidates is null ? postings.NextDoc()
                    : d + 1 < candidates.Length ? Advance(postings, candidates, d + 1)
                    : DocIdSetIterator.NO_MORE_DOCS;
            }
        }
        budget.Hold(positions.Count);
        var all = positions.ToArray();
        if (terms > 1)
            Array.Sort(all);
        return all;
    }

    private static int Advance(DocsAndPositionsEnum postings, FixedBitSet candidates, int from)
    {
        var next = candidates.NextSetBit(from);
        return next < 0 ? DocIdSetIterator.NO_MORE_DOCS : postings.Advance(next);
    }
}
