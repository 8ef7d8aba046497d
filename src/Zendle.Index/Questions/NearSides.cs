using Lucene.Net.Util;
using Zendle.Core.Queries;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>
/// Where the terms on the sides of a NEAR stand, in one field of one segment; each place knows its term, so that a term
/// can be left out without reading again.
/// </summary>
internal sealed class NearSides
{
    private readonly NearNode near;
    private readonly (Spans Spans, ushort[] Terms)[] sides;
    private readonly TermNode[][] terms;

    private NearSides(NearNode near, int[] records, TermNode[][] terms, (Spans, ushort[])[] sides) =>
        (this.near, Records, this.terms, this.sides) = (near, records, terms, sides);

    /// <summary>Record of each document of the segment.</summary>
    public int[] Records { get; }

    /// <summary>Reads the places, segment after segment.</summary>
    public static NearSides[] Of(NearNode near, CorpusSnapshot snapshot, string field, Budget budget)
    {
        var leaves = snapshot.Reader.Leaves;
        var read = new NearSides[leaves.Count];
        snapshot.Read(
            [.. Enumerable.Range(0, leaves.Count)],
            i =>
                read[i] = Of(
                    near,
                    new(leaves[i].AtomicReader, field, budget),
                    SegmentDocs.Of(leaves[i].AtomicReader).Record
                )
        );
        return read;
    }

    private static NearSides Of(NearNode near, SpanReader reader, int[] records)
    {
        TermNode[][] terms = [.. near.Parts.Select(p => Terms(p).ToArray())];
        var sides = new (Spans Spans, ushort[] Terms)[terms.Length];
        Array.Fill(sides, (Spans.None, []));
        // Positions are read only where all sides stand in one document. The rarest side is looked for first; of the others
        // only documents that can still count.
        FixedBitSet? within = null;
        foreach (var side in terms.OrderBy(side => side.Sum(t => (long)reader.AtMost(t))))
        {
            var before = within;
            within = reader.MayHold(side[0], before);
            foreach (var term in side.Skip(1))
                within.Or(reader.MayHold(term, before));
            if (within.Cardinality == 0)
                return new(near, records, terms, sides); // one side stands nowhere, so nothing is near
        }
        for (var i = 0; i < terms.Length; i++)
            sides[i] = Tagged([.. terms[i].Select(t => reader.Of(t, within))]);
        return new(near, records, terms, sides);
    }

    private static IEnumerable<TermNode> Terms(QueryNode part) =>
        part switch
        {
            TermNode t => [t],
            OrNode o => o.Parts.SelectMany(Terms),
            _ => throw new ArgumentException("A side of NEAR is a term or a group of terms.", nameof(part)),
        };

    /// <summary>Lists as one, sorted, with the number of the list each place came from.</summary>
    private static (Spans, ushort[]) Tagged(Spans[] lists)
    {
        if (lists is [var only])
            return (only, []);
        var starts = lists.SelectMany(l => l.Starts).ToArray();
        var rest = lists.SelectMany((l, i) => l.Lengths.Select(n => (Length: n, Term: (ushort)i))).ToArray();
        Array.Sort(starts, rest);
        return (new(starts, Array.ConvertAll(rest, x => x.Length)), Array.ConvertAll(rest, x => x.Term));
    }

    /// <summary>The documents in which the sides stand near each other, some more than once.</summary>
    /// <param name="without">A term, or a whole side, that is taken to stand nowhere; null for none.</param>
    /// <param name="budget">Looked at between sides.</param>
    public IEnumerable<int> Documents(QueryNode? without, Budget budget) =>
        Joint(without, budget).Starts.Select(Spans.Document);

    /// <summary>The stretches in which the sides stand near each other: its joint occurrences.</summary>
    /// <param name="without">A term, or a whole side, that is taken to stand nowhere; null for none.</param>
    /// <param name="budget">Looked at between sides.</param>
    public Spans Joint(QueryNode? without, Budget budget)
    {
        var spans = Side(0, without);
        for (var i = 1; i < sides.Length && spans.Count > 0; i++)
        {
            budget.Check();
            spans = Spans.Near(spans, Side(i, without), near.Distances[i - 1]);
        }
        return spans;
    }

    private Spans Side(int i, QueryNode? without)
    {
        var (spans, tags) = sides[i];
        if (without is null)
            return spans;
        if (ReferenceEquals(near.Parts[i], without))
            return Spans.None;
        var left = Array.FindIndex(terms[i], t => ReferenceEquals(t, without));
        if (left < 0)
            return spans;
        if (tags.Length == 0)
            return Spans.None;
        var (starts, lengths, count) = (new long[spans.Count], new int[spans.Count], 0);
        for (var n = 0; n < spans.Count; n++)
        {
            if (tags[n] == left)
                continue;
            (starts[count], lengths[count]) = (spans.Starts[n], spans.Lengths[n]);
            count++;
        }
        return new(starts[..count], lengths[..count]);
    }
}
