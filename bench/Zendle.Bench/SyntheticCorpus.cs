using Zendle.Core.Records;

namespace Zendle.Bench;

/// <summary>A record of the synthetic corpus with its place.</summary>
/// <param name="Id">Record id, from 1.</param>
/// <param name="Work">Work id, from 1.</param>
/// <param name="Database">Database id, 1–5.</param>
/// <param name="Record">The record.</param>
public sealed record SyntheticRecord(int Id, int Work, int Database, Record Record);

/// <summary>
/// Records made from a seed: words by Zipf's law over 60,000 words, titles of 6–14, abstracts of 60–140, up to five
/// keywords; a work has 1.65 records on average over five databases. The same seed gives the same corpus.
/// </summary>
public sealed class SyntheticCorpus(int works, int seed)
{
    private const int Vocabulary = 60_000;
    private static readonly string[] Syllables =
    [
        "ba",
        "co",
        "di",
        "fu",
        "ga",
        "ho",
        "ki",
        "lu",
        "ma",
        "ne",
        "or",
        "pa",
        "qui",
        "ra",
        "si",
        "ta",
        "um",
        "ve",
        "xo",
        "ze",
    ];
    private readonly double[] cumulative = Zipf();

    /// <summary>The databases.</summary>
    public static IReadOnlyDictionary<int, string> Databases { get; } =
        new Dictionary<int, string>
        {
            [1] = "Broad",
            [2] = "Clean",
            [3] = "Open",
            [4] = "Field",
            [5] = "Union",
        };

    /// <summary>How many of a hundred works each database holds; a work that none does is the broad one's.</summary>
    private static readonly int[] Held = [52, 32, 28, 22, 16];

    /// <summary>The word of a rank, 0 the most frequent.</summary>
    public static string Word(int rank)
    {
        var word = "";
        for (var n = rank + 20; n > 0; n /= 20)
            word += Syllables[n % 20];
        return word;
    }

    /// <summary>All records, in order of id. Streams.</summary>
    public IEnumerable<SyntheticRecord> Records()
    {
        var random = new Random(seed);
        var id = 0;
        for (var work = 1; work <= works; work++)
        {
            var (title, text) = (Text(random, random.Next(6, 15)), Text(random, random.Next(60, 141)));
            var keywords = Enumerable
                .Range(0, random.Next(0, 6))
                .Select(_ => Text(random, random.Next(1, 3)))
                .ToArray();
            var (year, type) = (2026 - (int)(60 * Math.Pow(random.NextDouble(), 2)), (DocumentType)random.Next(1, 6));
            var record = new Record
            {
                Identifier = $"oai:bench:{work}",
                Title = title,
                Abstract = text,
                Keywords = keywords,
                Year = year,
                Type = type,
                Language = random.Next(10) == 0 ? "ger" : "eng",
                People = [new(Word(random.Next(5_000, 20_000)), "A.")],
                Doi = $"10.5555/bench.{work}",
                Venue = new(Text(new Random(work % 400), 3)),
            };
            var held = Array.ConvertAll(Held, share => random.Next(100) < share);
            if (!held.Contains(true))
                held[0] = true;
            for (var database = 1; database <= held.Length; database++)
                if (held[database - 1])
                    yield return new(
                        ++id,
                        work,
                        database,
                        database == 1 && random.Next(4) == 0 ? record with { Abstract = "" } : record
                    );
        }
    }

    private string Text(Random random, int words) =>
        string.Join(' ', Enumerable.Range(0, words).Select(_ => Word(Rank(random.NextDouble()))));

    private int Rank(double u)
    {
        var at = Array.BinarySearch(cumulative, u);
        return Math.Min(at < 0 ? ~at : at, Vocabulary - 1);
    }

    private static double[] Zipf()
    {
        var weights = Enumerable.Range(1, Vocabulary).Select(r => 1.0 / r).ToArray();
        var total = weights.Sum();
        var sum = 0.0;
        return Array.ConvertAll(weights, w => sum += w / total);
    }
}
