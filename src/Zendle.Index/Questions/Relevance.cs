using System.Collections.Immutable;
using Lucene.Net.Index;
using Lucene.Net.Search;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>
/// BM25F (Robertson, Zaragoza 2009): field weights title 3, keywords 2, abstract 1, applied before saturation; k1 1.2; b 0.3 for titles
/// and 0.75 else. A concept counts as one term, its best; a work scores as its best matching record. Where words of two concepts stand
/// close in one field the score grows by at most a quarter: by 0.25 / (1 + gap / 5), gap in words.
/// </summary>
public sealed class Relevance
{
    private const float K1 = 1.2f;
    private const int MostForNearness = 10_000;
    private static readonly (string Field, QueryField Asked, float Weight, float B)[] Fields =
        [(IndexFields.Title, QueryField.Title, 3f, 0.3f), (IndexFields.Keywords, QueryField.Keywords, 2f, 0.75f), (IndexFields.Abstract, QueryField.Abstract, 1f, 0.75f)];

    private readonly CorpusSnapshot snapshot;
    private readonly ImmutableArray<Concept> concepts;
    private readonly BitSet records;
    private readonly List<(long Place, int Position, int Concept)>? places;

    private Relevance(CorpusSnapshot snapshot, ImmutableArray<Concept> concepts, BitSet records)
    {
        this.snapshot = snapshot;
        this.concepts = concepts;
        this.records = records;
        places = concepts.Length > 1 && records.Count() <= MostForNearness ? [] : null;
    }

    /// <summary>Scores of works by id; 0 for those outside <paramref name="records"/>.</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="concepts">The concepts of the question.</param>
    /// <param name="records">The matching records in the chosen databases.</param>
    public static float[] Score(CorpusSnapshot snapshot, ImmutableArray<Concept> concepts, BitSet records)
    {
        var columns = snapshot.Columns;
        var relevance = new Relevance(snapshot, concepts, records);
        var byRecord = new float[columns.RecordSize];
        for (var c = 0; c < concepts.Length; c++) relevance.AddConcept(c, byRecord);
        relevance.AddNearness(byRecord);
        var scores = new float[columns.WorkSize];
        foreach (var r in records.ToArray()) scores[columns.RecordWork[r]] = Math.Max(scores[columns.RecordWork[r]], byRecord[r]);
        return scores;
    }

    private void AddConcept(int concept, float[] byRecord)
    {
        var best = new float[byRecord.Length];
        var evaluator = new QuestionEvaluator(snapshot, null);
        var all = snapshot.Columns.Records;
        foreach (var (term, scope) in concepts[concept].Terms)
        {
            var found = evaluator.Records(term, scope).Count();
            if (found == 0) continue;
            var idf = MathF.Log(1 + (all - found + 0.5f) / (found + 0.5f));
            var frequency = Frequencies(term, scope, concept);
            foreach (var r in records.ToArray())
                if (frequency[r] > 0) best[r] = Math.Max(best[r], idf * frequency[r] / (K1 + frequency[r]));
        }
        foreach (var r in records.ToArray()) byRecord[r] += best[r];
    }

    /// <summary>The weighted, length-normalised frequency of a term in each record: the tf' of BM25F.</summary>
    private float[] Frequencies(TermNode term, QueryField scope, int concept)
    {
        var frequency = new float[snapshot.Columns.RecordSize];
        foreach (var (field, asked, weight, b) in Fields)
        {
            if (!TermMarks.Covers(scope, asked)) continue;
            var average = Average(field);
            foreach (var leaf in snapshot.Reader.Leaves)
            {
                var docs = SegmentDocs.Of(leaf.AtomicReader);
                var lengths = docs.Lengths(field);
                if (term.IsPhrase || places is not null)
                {
                    foreach (var start in new SpanReader(leaf.AtomicReader, field).Of(term).Starts)
                    {
                        var (d, r) = (Spans.Document(start), docs.Record[Spans.Document(start)]);
                        if (!records.Contains(r)) continue;
                        frequency[r] += weight / (1 - b + b * lengths[d] / average);
                        places?.Add(((long)r << 8 | field[0], Spans.Position(start), concept));
                    }
                    continue;
                }
                DocsEnum? postings = null;
                foreach (var word in term.Forms.SelectMany(f => TermWalk.Over(leaf.AtomicReader, field, f[0])))
                {
                    postings = word.Docs(leaf.AtomicReader.LiveDocs, postings, DocsFlags.FREQS);
                    for (var d = postings.NextDoc(); d != DocIdSetIterator.NO_MORE_DOCS; d = postings.NextDoc())
                        if (records.Contains(docs.Record[d])) frequency[docs.Record[d]] += postings.Freq * weight / (1 - b + b * lengths[d] / average);
                }
            }
        }
        return frequency;
    }

    private float Average(string field)
    {
        double sum = 0;
        long count = 0;
        foreach (var leaf in snapshot.Reader.Leaves)
        {
            var terms = leaf.AtomicReader.GetTerms(field);
            sum += terms?.SumTotalTermFreq ?? 0;
            count += terms?.DocCount ?? 0;
        }
        return count == 0 ? 1 : (float)(sum / count);
    }

    private void AddNearness(float[] byRecord)
    {
        if (places is null) return;
        places.Sort();
        var closest = new Dictionary<int, int>();
        for (var i = 1; i < places.Count; i++)
        {
            // The closest pair of different concepts always stands side by side in the sorted list.
            if (places[i].Place != places[i - 1].Place || places[i].Concept == places[i - 1].Concept) continue;
            var gap = Math.Max(0, places[i].Position - places[i - 1].Position - 1);
            var r = (int)(places[i].Place >> 8);
            if (!closest.TryGetValue(r, out var known) || gap < known) closest[r] = gap;
        }
        foreach (var (r, gap) in closest) byRecord[r] *= 1 + 0.25f / (1 + gap / 5f);
    }
}
