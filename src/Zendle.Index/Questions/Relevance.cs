using System.Collections.Immutable;
using Lucene.Net.Index;
using Lucene.Net.Search;
using Lucene.Net.Util;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>What one concept adds to the score of a work.</summary>
/// <param name="Concept">The concept's letter.</param>
/// <param name="Unit">Its best term, phrase or nearness, as an expression.</param>
/// <param name="Found">How many records it stands in.</param>
/// <param name="Rarity">ln(1 + (N − n + ½) / (n + ½)), N all records, n those it stands in.</param>
/// <param name="Weight">How often it stands in the record: by field three, two or one, less in long fields; from 0.</param>
/// <param name="Worth">What it adds: rarity · weight / (1.2 + weight).</param>
public sealed record ScorePart(char Concept, string Unit, int Found, float Rarity, float Weight, float Worth);

/// <summary>How the score of a work is made.</summary>
/// <param name="Parts">What each concept adds that stands in its best record.</param>
/// <param name="Nearness">What the sum is multiplied by because words of two concepts stand close, 1 to 1.25.</param>
/// <param name="Total">The score.</param>
public sealed record ScoreParts(ImmutableArray<ScorePart> Parts, float Nearness, float Total);

/// <summary>
/// BM25F (Robertson, Zaragoza 2009): field weights title 3, keywords and controlled terms 2, abstract 1, applied before saturation; k1 1.2;
/// b 0.3 for titles and 0.75 else. A concept counts as one term, its best; a work scores as its best matching record.
/// Phrases and what stands NEAR are weighed by their joint occurrences. Where words of two concepts stand close in one
/// field the score grows by at most a quarter: by 0.25 / (1 + gap / 5),
/// gap in words.
/// </summary>
public sealed class Relevance
{
    private const float K1 = 1.2f;
    private const int MostForNearness = 10_000;
    private static readonly (string Field, QueryField Asked, float Weight, float B)[] Fields =
    [
        (IndexFields.Title, QueryField.Title, 3f, 0.3f),
        (IndexFields.Keywords, QueryField.Keywords, 2f, 0.75f),
        (IndexFields.Controlled, QueryField.Keywords, 2f, 0.75f),
        (IndexFields.Abstract, QueryField.Abstract, 1f, 0.75f),
    ];

    private readonly CorpusSnapshot snapshot;
    private readonly ImmutableArray<Concept> concepts;
    private readonly RecordSet records;
    private readonly int[] ranks;
    private readonly int size;
    private readonly Budget budget = Budget.Current;
    private readonly List<Leaf> leaves = [];
    private readonly List<(long Field, int Position, int Concept)>? occurrences;

    private Relevance(CorpusSnapshot snapshot, ImmutableArray<Concept> concepts, RecordSet records, bool asksNearness)
    {
        (this.snapshot, this.concepts, this.records) = (snapshot, concepts, records);
        (ranks, size) = (records.BlockRanks(), records.Count());
        occurrences = asksNearness ? [] : null;
        foreach (var context in snapshot.Reader.Leaves)
        {
            var docs = SegmentDocs.Of(context.AtomicReader);
            var matching = new FixedBitSet(Math.Max(1, context.AtomicReader.MaxDoc));
            var any = false;
            for (var d = 0; d < docs.Record.Length; d++)
                if (records.Contains(docs.Record[d]))
                {
                    matching.Set(d);
                    any = true;
                }
            if (any)
                leaves.Add(new(context.AtomicReader, docs, matching));
        }
    }

    /// <summary>A segment with its documents that match.</summary>
    private sealed record Leaf(AtomicReader Reader, SegmentDocs Docs, FixedBitSet Matching);

    /// <summary>Scores works. Only matching documents are looked at closely.</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="concepts">The concepts of the question.</param>
    /// <param name="records">The matching records in the chosen databases.</param>
    /// <param name="scores">Takes the scores by work id, as long as there are ids; 0 for works outside
    /// <paramref name="records"/>.</param>
    public static void Score(
        CorpusSnapshot snapshot,
        ImmutableArray<Concept> concepts,
        RecordSet records,
        Span<float> scores
    )
    {
        var columns = snapshot.Columns;
        var relevance = new Relevance(snapshot, concepts, records, AsksNearness(concepts, records));
        var byRank = new float[relevance.size];
        // What one concept needs is used by the next again.
        var (best, frequency) = (new float[relevance.size], new float[relevance.size]);
        for (var c = 0; c < concepts.Length; c++)
            relevance.AddConcept(c, byRank, best, frequency);
        relevance.AddNearness(byRank);
        scores.Clear();
        var rank = 0;
        foreach (var r in records)
            scores[columns.RecordWork[r]] = Math.Max(scores[columns.RecordWork[r]], byRank[rank++]);
    }

    /// <summary>
    /// How the score of one work is made, by its best record: what <see cref="Score"/> gives, taken apart. Only that
    /// work's records are looked at closely.
    /// </summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="concepts">The concepts of the question.</param>
    /// <param name="records">The matching records in the chosen databases.</param>
    /// <param name="work">The work.</param>
    /// <returns>The parts; null when none of its records matches.</returns>
    public static ScoreParts? Explain(
        CorpusSnapshot snapshot,
        ImmutableArray<Concept> concepts,
        RecordSet records,
        int work
    )
    {
        var asksNearness = AsksNearness(concepts, records);
        ScoreParts? best = null;
        foreach (var record in snapshot.Columns.RecordsOf(work))
        {
            if (record >= records.Size || !records.Contains(record))
                continue;
            var one = new RecordSet(records.Size);
            one.Add(record);
            var parts = new Relevance(snapshot, concepts, one, asksNearness).Parts();
            if (best is null || parts.Total > best.Total)
                best = parts;
        }
        return best;
    }

    private static bool AsksNearness(ImmutableArray<Concept> concepts, RecordSet records) =>
        concepts.Length > 1 && records.Count() <= MostForNearness;

    /// <summary>The parts of the score of the one record there is.</summary>
    private ScoreParts Parts()
    {
        var (byRank, best, frequency) = (new float[size], new float[size], new float[size]);
        var parts = ImmutableArray.CreateBuilder<ScorePart>();
        for (var c = 0; c < concepts.Length; c++)
        {
            var letter = concepts[c].Letter;
            ScorePart? strongest = null;
            AddConcept(
                c,
                byRank,
                best,
                frequency,
                (unit, found, rarity) =>
                {
                    var worth = Worth(rarity, frequency[0]);
                    if (frequency[0] > 0 && (strongest is null || worth > strongest.Worth))
                        strongest = new(letter, QueryText.Print(unit), found, rarity, frequency[0], worth);
                }
            );
            if (strongest is not null)
                parts.Add(strongest);
        }
        var sum = byRank[0];
        AddNearness(byRank);
        return new(parts.ToImmutable(), sum > 0 ? byRank[0] / sum : 1, byRank[0]);
    }

    private void AddConcept(
        int concept,
        float[] byRank,
        float[] best,
        float[] frequency,
        Action<QueryNode, int, float>? counted = null
    )
    {
        Array.Clear(best);
        var evaluator = new QuestionEvaluator(snapshot, null);
        var all = snapshot.Columns.Records;
        foreach (var (unit, scope) in Units(concepts[concept]))
        {
            var found = evaluator.Records(unit, scope).Count();
            if (found == 0)
                continue;
            var idf = MathF.Log(1 + (all - found + 0.5f) / (found + 0.5f));
            Array.Clear(frequency);
            if (unit is NearNode near)
                CountJoint(near, scope, concept, frequency);
            else
                Count((TermNode)unit, scope, concept, frequency);
            counted?.Invoke(unit, found, idf);
            for (var i = 0; i < size; i++)
                if (frequency[i] > 0)
                    best[i] = Math.Max(best[i], Worth(idf, frequency[i]));
        }
        for (var i = 0; i < size; i++)
            byRank[i] += best[i];
    }

    private static float Worth(float rarity, float weight) => rarity * weight / (K1 + weight);

    /// <summary>
    /// What a concept is weighed by: its terms and phrases, and what stands near each other as one, by its joint
    /// occurrences and not by its best word.
    /// </summary>
    private static IEnumerable<(QueryNode Unit, QueryField Scope)> Units(Concept concept)
    {
        var joint = new HashSet<TermNode>(ReferenceEqualityComparer.Instance);
        foreach (var near in Nears(concept.Node))
        {
            var inside = Concepts.Terms(near, QueryField.About).Select(t => t.Term).ToArray();
            joint.UnionWith(inside);
            // The field that stands around it, as its terms know it.
            yield return (near, concept.Terms.First(t => ReferenceEquals(t.Term, inside[0])).Field);
        }
        foreach (var (term, scope) in concept.Terms)
            if (!joint.Contains(term))
                yield return (term, scope);
    }

    private static IEnumerable<NearNode> Nears(QueryNode node) =>
        node switch
        {
            NearNode near => [near],
            FieldNode field => Nears(field.Part),
            OrNode any => any.Parts.SelectMany(Nears),
            AndNode every => every.Parts.SelectMany(Nears),
            _ => [],
        };

    /// <summary>Likewise for what stands near each other: a stretch that holds all sides counts once.</summary>
    private void CountJoint(NearNode near, QueryField scope, int concept, float[] frequency)
    {
        foreach (var (field, asked, weight, b) in Fields)
        {
            if (!TermMarks.Covers(scope, asked))
                continue;
            var average = Average(field);
            var segments = NearSides.Of(near, snapshot, field, budget);
            for (var i = 0; i < segments.Length; i++)
            {
                var lengths = SegmentDocs.Of(snapshot.Reader.Leaves[i].AtomicReader).Lengths(field);
                foreach (var start in segments[i].Joint(null, budget).Starts)
                {
                    var document = Spans.Document(start);
                    var record = segments[i].Records[document];
                    if (record >= records.Size || !records.Contains(record))
                        continue;
                    frequency[records.RankOf(record, ranks)] += weight / (1 - b + b * lengths[document] / average);
                    occurrences?.Add(((long)record << 8 | field[0], Spans.Position(start), concept));
                }
            }
        }
    }

    /// <summary>Adds the weighted, length-normalised frequency of a term in each record: the tf' of BM25F.</summary>
    private void Count(TermNode term, QueryField scope, int concept, float[] frequency)
    {
        foreach (var (field, asked, weight, b) in Fields)
        {
            if (!TermMarks.Covers(scope, asked))
                continue;
            var average = Average(field);
            foreach (var (reader, docs, matching) in leaves)
            {
                var lengths = docs.Lengths(field);
                void Add(int document, int times) =>
                    frequency[records.RankOf(docs.Record[document], ranks)] +=
                        times * weight / (1 - b + b * lengths[document] / average);
                if (term.IsPhrase || occurrences is not null)
                {
                    foreach (var start in new SpanReader(reader, field, budget).Of(term, matching).Starts)
                    {
                        var document = Spans.Document(start);
                        Add(document, 1);
                        occurrences?.Add(((long)docs.Record[document] << 8 | field[0], Spans.Position(start), concept));
                    }
                    continue;
                }
                DocsEnum? postings = null;
                var looked = 0;
                foreach (var word in term.Forms.SelectMany(f => TermWalk.Over(reader, field, f[0], budget)))
                {
                    postings = word.Docs(reader.LiveDocs, postings, DocsFlags.FREQS);
                    for (var d = postings.NextDoc(); d != DocIdSetIterator.NO_MORE_DOCS; d = postings.NextDoc())
                    {
                        budget.Every(ref looked);
                        if (matching.Get(d))
                            Add(d, postings.Freq);
                    }
                }
            }
        }
    }

    private float Average(string field)
    {
        // Words are counted once: the closed forms of hyphens, which stand beside them, lengthen no field.
        double sum = 0;
        long count = 0;
        foreach (var leaf in snapshot.Reader.Leaves)
        {
            var (words, documents) = SegmentDocs.Of(leaf.AtomicReader).Total(field);
            sum += words;
            count += documents;
        }
        return count == 0 ? 1 : (float)(sum / count);
    }

    private void AddNearness(float[] byRank)
    {
        if (occurrences is null)
            return;
        occurrences.Sort();
        var closest = new Dictionary<int, int>();
        for (var i = 1; i < occurrences.Count; i++)
        {
            // The closest pair of different concepts always stands side by side in the sorted list.
            if (
                occurrences[i].Field != occurrences[i - 1].Field
                || occurrences[i].Concept == occurrences[i - 1].Concept
            )
                continue;
            var gap = Math.Max(0, occurrences[i].Position - occurrences[i - 1].Position - 1);
            var r = (int)(occurrences[i].Field >> 8);
            if (!closest.TryGetValue(r, out var known) || gap < known)
                closest[r] = gap;
        }
        foreach (var (r, gap) in closest)
            byRank[records.RankOf(r, ranks)] *= 1 + 0.25f / (1 + gap / 5f);
    }
}
