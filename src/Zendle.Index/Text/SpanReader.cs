using System.Collections.Immutable;
using Lucene.Net.Index;
using Lucene.Net.Search;
using Lucene.Net.Util;
using Zendle.Core.Queries;

namespace Zendle.Index.Text;

/// <summary>Finds words, phrases and near groups with their positions, in one field of one segment.</summary>
internal sealed class SpanReader(AtomicReader reader, string field, Budget budget)
{
    /// <summary>A word that stands in one of so many documents, or in more, is a common one.</summary>
    private const int Common = 16;

    private readonly IBits? live = reader.LiveDocs;
    private readonly Dictionary<string, TermsEnum?> plain = new(StringComparer.Ordinal);

    /// <summary>The place of a plain word in the dictionary, null for one that is not there; looked for once.</summary>
    private TermsEnum? Plain(string word) =>
        plain.TryGetValue(word, out var known)
            ? known
            : plain[word] = TermWalk.Over(reader, field, word, budget).FirstOrDefault();

    private IEnumerable<TermsEnum> Words(string slot) =>
        TermNode.IsPattern(slot) ? TermWalk.Over(reader, field, slot, budget)
        : Plain(slot) is { } word ? [word]
        : [];

    /// <summary>Documents in which <paramref name="slot"/> stands, of all or only of some.</summary>
    private FixedBitSet Documents(string slot, FixedBitSet? within = null)
    {
        var documents = new FixedBitSet(Math.Max(1, reader.MaxDoc));
        DocsEnum? docs = null;
        var looked = 0;
        foreach (var term in Words(slot))
        {
            docs = term.Docs(live, docs, DocsFlags.NONE);
            for (var d = Next(docs, within, 0); d != DocIdSetIterator.NO_MORE_DOCS; d = Next(docs, within, d + 1))
            {
                if (within?.Get(d) != false)
                    documents.Set(d);
                budget.Every(ref looked);
            }
        }
        return documents;
    }

    /// <summary>
    /// Documents in which a term stands in any of its forms, as far as documents tell: those that have all words of a row, in
    /// whatever order. Positions are not read.
    /// </summary>
    /// <param name="term">The term.</param>
    /// <param name="within">The documents that can still count; null for all.</param>
    public FixedBitSet MayHold(TermNode term, FixedBitSet? within)
    {
        FixedBitSet? any = null;
        foreach (var form in term.Forms)
            if (any is null)
                any = HavingAll(form, within);
            else
                any.Or(HavingAll(form, within));
        return any!;
    }

    /// <summary>The documents that have all of some words, the rarest of which are looked for first.</summary>
    private FixedBitSet HavingAll(ImmutableArray<string> slots, FixedBitSet? within)
    {
        foreach (var slot in slots.OrderBy(AtMost))
            within = Documents(slot, within);
        return within!;
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
            candidates = HavingAll(slots, within);
            if (candidates.Cardinality == 0)
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
    /// one only few documents are read, and positions only where all stand together.
    /// </summary>
    private Spans Row(ImmutableArray<string> words, FixedBitSet? within)
    {
        var postings = new (DocsEnum Documents, DocsAndPositionsEnum Positions, int Offset, int Frequency)[
            words.Length
        ];
        for (var i = 0; i < words.Length; i++)
        {
            if (
                Plain(words[i]) is not { } word
                || word.DocsAndPositions(live, null, DocsAndPositionsFlags.NONE) is not { } positions
            )
                return Spans.None;
            postings[i] = (word.Docs(live, null, DocsFlags.NONE), positions, i, word.DocFreq);
        }
        Array.Sort(postings, (a, b) => a.Frequency.CompareTo(b.Frequency));
        // Where even the rarest word is common, so is the row, and looking for its documents first would be one pass more.
        if (postings[0].Frequency > reader.MaxDoc / Common)
            for (var i = 0; i < postings.Length; i++)
                postings[i].Documents = postings[i].Positions;
        var (starts, lead, here, there) = (new List<long>(), postings[0].Documents, new List<int>(), new List<int>());
        var looked = 0;
        for (var document = lead.NextDoc(); document != DocIdSetIterator.NO_MORE_DOCS; document = lead.NextDoc())
        {
            budget.Every(ref looked);
            if (within?.Get(document) == false)
                continue;
            var all = true;
            for (var i = 1; i < postings.Length && all; i++)
                all = Reach(postings[i].Documents, document) == document;
            if (!all)
                continue;
            // Where the row would begin if this word stands in it; what is left after every word is where it does.
            Begins(0, here);
            for (var i = 1; i < postings.Length && here.Count > 0; i++)
            {
                Begins(i, there);
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

            void Begins(int word, List<int> begins)
            {
                var (_, positions, offset, _) = postings[word];
                begins.Clear();
                Reach(positions, document);
                for (var n = positions.Freq; n > 0; n--)
                    if (positions.NextPosition() - offset is >= 0 and var begin)
                        begins.Add(begin);
            }
        }
        var lengths = new int[starts.Count];
        Array.Fill(lengths, words.Length);
        return new([.. starts], lengths);

        static int Reach(DocsEnum postings, int document) =>
            postings.DocID < document ? postings.Advance(document) : postings.DocID;
    }

    /// <summary>
    /// About how many documents have a term, at most; for what is read first. Truncated words count as being
    /// everywhere.
    /// </summary>
    public int AtMost(TermNode term) => term.Forms.Max(form => form.Min(AtMost));

    private int AtMost(string slot) => TermNode.IsPattern(slot) ? reader.MaxDoc : Plain(slot)?.DocFreq ?? 0;

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
        foreach (var term in Words(slot))
        {
            terms++;
            postings = term.DocsAndPositions(live, postings, DocsAndPositionsFlags.NONE);
            if (postings is null)
                continue;
            for (
                var d = Next(postings, candidates, 0);
                d != DocIdSetIterator.NO_MORE_DOCS;
                d = Next(postings, candidates, d + 1)
            )
            {
                budget.Every(ref looked);
                if (candidates?.Get(d) != false)
                    for (var i = postings.Freq; i > 0; i--)
                        positions.Add(Spans.Pack(d, postings.NextPosition()));
            }
        }
        budget.Hold(positions.Count);
        var all = positions.ToArray();
        if (terms > 1)
            Array.Sort(all);
        return all;
    }

    /// <summary>
    /// The next document of some postings, or the first of them from the next candidate on, which need not be one itself.
    /// </summary>
    private static int Next(DocsEnum postings, FixedBitSet? candidates, int from)
    {
        if (candidates is null)
            return postings.NextDoc();
        var next = from < candidates.Length ? candidates.NextSetBit(from) : -1;
        return next < 0 ? DocIdSetIterator.NO_MORE_DOCS : postings.Advance(next);
    }
}
