using System.Buffers;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Core.Trails;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Index.Terms;

/// <summary>A word that is telling for some works.</summary>
/// <param name="Word">The word, folded.</param>
/// <param name="Works">The works that have it, which searching for it finds.</param>
public sealed record TellingTerm(string Word, WorkSet Works)
{
    /// <summary>The search that finds them.</summary>
    public string Expression { get; } = QueryText.OfWords([Word]);
}

/// <summary>
/// Finds works that use the words which are telling for some works: the words of the highest tf–idf, (1 + ln tf) ·
/// ln(N ÷ df) (Salton, Buckley 1988), taken as the mean over the works, each at length one. A neighbour has at least
/// <see cref="Least"/> of them; how alike it is, the cosine of all its words tells.
/// </summary>
/// <param name="snapshot">The corpus.</param>
/// <param name="evaluator">Answers which works have a word.</param>
public sealed class TellingTerms(CorpusSnapshot snapshot, QuestionEvaluator evaluator)
{
    /// <summary>So many words are looked at.</summary>
    public const int Most = 20;

    /// <summary>A neighbour has so many of them.</summary>
    public const int Least = 3;

    /// <summary>What so many of the works have tells little.</summary>
    private const double MostShare = 0.05;

    private readonly WordColumn column = snapshot.Columns.Words;

    /// <summary>The words that are telling for some works, the most telling first.</summary>
    /// <param name="seeds">The works.</param>
    public IReadOnlyList<TellingTerm> Of(IReadOnlyCollection<int> seeds) => Of(Mean(seeds));

    private TellingTerm[] Of(Dictionary<int, double> mean)
    {
        var most = Math.Max(Least, MostShare * snapshot.Columns.Works);
        var words = mean.Where(m =>
                column.Works[m.Key] > 1 && column.Works[m.Key] <= most && FunctionWords.CanBound(column.Words[m.Key])
            )
            .OrderByDescending(m => m.Value)
            .ThenBy(m => column.Words[m.Key], StringComparer.Ordinal)
            .Take(Most)
            .Select(m => column.Words[m.Key])
            .ToArray();
        var terms = new TellingTerm[words.Length];
        // No word knows of another.
        snapshot.Read(
            [.. Enumerable.Range(0, words.Length)],
            i => terms[i] = new(words[i], evaluator.Works(QueryText.OfWords([words[i]])))
        );
        return terms;
    }

    /// <summary>The works that share terms with some. O(works that have the terms, and their words).</summary>
    /// <param name="seeds">The works.</param>
    public NeighbourList Neighbours(IReadOnlyCollection<int> seeds)
    {
        var mean = Mean(seeds);
        var terms = Of(mean);
        double[] each = [.. Enumerable.Repeat(1.0, terms.Length)];
        int[][] having = [.. terms.Select(t => t.Works.ToArray())];
        var weights = ArrayPool<float>.Shared.Rent(column.Words.Count);
        using var counts = new ThreadLocal<WordCounts>(() => new(column), trackAllValues: true);
        try
        {
            Array.Clear(weights, 0, column.Words.Count);
            foreach (var (word, weight) in mean)
                weights[word] = (float)weight;
            return NeighbourList.Of(
                NeighbourKind.SharedTerms,
                new(each, term => having[term], seeds, snapshot.Columns.WorkSize, Least),
                Cosine
            );
        }
        finally
        {
            ArrayPool<float>.Shared.Return(weights);
            foreach (var its in counts.Values)
                its.Dispose();
        }

        double Cosine(int work, double sum)
        {
            var (dot, length) = (0.0, 0.0);
            foreach (var (word, weight) in counts.Value!.Of(work))
                (dot, length) = (dot + (weights[word] * weight), length + (weight * weight));
            return length == 0 ? 0 : dot / Math.Sqrt(length);
        }
    }

    /// <summary>The mean of the works' words by weight, each work at length one.</summary>
    private Dictionary<int, double> Mean(IReadOnlyCollection<int> seeds)
    {
        var mean = new Dictionary<int, double>();
        using var counts = new WordCounts(column);
        foreach (var seed in seeds.Order())
        {
            var words = counts.Of(seed);
            var length = Math.Sqrt(words.Sum(w => w.Weight * w.Weight));
            if (length > 0)
                foreach (var (word, weight) in words)
                    mean[word] = mean.GetValueOrDefault(word) + (weight / length / seeds.Count);
        }
        return mean;
    }

    /// <summary>Counts the words of one work after another in the same room.</summary>
    private sealed class WordCounts(WordColumn column) : IDisposable
    {
        private static readonly double[] OfCount = [0, .. Enumerable.Range(1, 255).Select(n => 1 + Math.Log(n))];

        private readonly int[] counts = Cleared(column.Words.Count);
        private readonly List<int> words = [];
        private readonly List<(int Word, double Weight)> weighed = [];

        private static int[] Cleared(int size)
        {
            var room = ArrayPool<int>.Shared.Rent(size);
            Array.Clear(room, 0, size);
            return room;
        }

        /// <summary>The words of a work by weight; good until the next work.</summary>
        public List<(int Word, double Weight)> Of(int work)
        {
            words.Clear();
            weighed.Clear();
            var rarity = column.Rarity;
            foreach (var word in column.Of(work))
                if (word != WordColumn.End && counts[word]++ == 0)
                    words.Add(word);
            foreach (var word in words)
            {
                weighed.Add((word, OfCount[Math.Min(counts[word], OfCount.Length - 1)] * rarity[word]));
                counts[word] = 0;
            }
            return weighed;
        }

        public void Dispose() => ArrayPool<int>.Shared.Return(counts);
    }
}
