namespace Zendle.Core.Merging;

/// <summary>
/// Estimates <see cref="MergeWeights"/> from compared pairs of which it is known whether they are one work.
/// </summary>
public static class WeightFit
{
    /// <summary>
    /// No field outweighs all others: fields are not independent, and what never occurred in one world may in another.
    /// </summary>
    private const double Most = 7,
        MostOfIdentifiers = 12;

    /// <summary>
    /// Fits weights: for each level the log odds with half a count added to each cell, cut at ±7 bits, and the
    /// threshold that gives the best F1 over the pairs.
    /// </summary>
    /// <param name="pairs">Compared pairs that share a key, each with the truth.</param>
    public static MergeWeights Of(IReadOnlyCollection<(Comparison Compared, bool Same)> pairs)
    {
        Dictionary<TLevel, double> Field<TLevel>(Func<Comparison, TLevel> level, double most = Most)
            where TLevel : struct, Enum
        {
            var (same, other) = (
                pairs.Where(p => p.Same).CountBy(p => level(p.Compared)).ToDictionary(),
                pairs.Where(p => !p.Same).CountBy(p => level(p.Compared)).ToDictionary()
            );
            double Share(Dictionary<TLevel, int> counts, TLevel l) =>
                (counts.GetValueOrDefault(l) + 0.5) / (counts.Values.Sum() + 0.5 * Enum.GetValues<TLevel>().Length);
            return Enum.GetValues<TLevel>()
                .ToDictionary(
                    l => l,
                    l => Math.Round(Math.Clamp(Math.Log2(Share(same, l) / Share(other, l)), -most, most), 3)
                );
        }
        var people = Field(c => c.People);
        // One person alike can say no more than two: where chance has it otherwise, both are weighed together.
        if (people[PeopleLevel.SameOne] > people[PeopleLevel.Same])
            people[PeopleLevel.SameOne] = people[PeopleLevel.Same] = Field(c =>
                c.People == PeopleLevel.SameOne ? PeopleLevel.Same : c.People
            )[PeopleLevel.Same];
        var weights = new MergeWeights(
            Field(c => c.Identifier, MostOfIdentifiers),
            Field(c => c.Title),
            Field(c => c.Year),
            people,
            Field(c => c.Location),
            Field(c => c.Kind),
            0
        );
        return weights with
        {
            Threshold = Best(
                pairs.Select(p => (Score: weights.Score(p.Compared), p.Same)).OrderByDescending(p => p.Score).ToArray()
            ),
        };
    }

    /// <summary>The middle between the two scores between which a cut gives the best F1.</summary>
    private static double Best((double Score, bool Same)[] sorted)
    {
        var all = sorted.Count(p => p.Same);
        var (right, best, threshold) = (0, -1.0, 0.0);
        for (var i = 0; i < sorted.Length; i++)
        {
            if (sorted[i].Same)
                right++;
            if (i + 1 < sorted.Length && sorted[i + 1].Score == sorted[i].Score)
                continue;
            var f1 = 2.0 * right / (i + 1 + all);
            if (f1 > best)
                (best, threshold) = (
                    f1,
                    i + 1 < sorted.Length ? (sorted[i].Score + sorted[i + 1].Score) / 2 : sorted[i].Score - 1
                );
        }
        return Math.Round(threshold, 3);
    }
}
