using CsCheck;
using Zendle.Core.Sets;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Trails;

public sealed class MainLineTests
{
    private static MainLine Of(int size, Func<int, int> year, params (int Citing, int Cited)[] ties) =>
        MainLine.Of(
            WorkSet.Of(size + 1, Enumerable.Range(1, size)),
            w => ties.Where(t => t.Citing == w).Select(t => t.Cited).ToArray(),
            year
        );

    [Fact]
    public void The_line_runs_through_the_ties_of_most_chains()
    {
        // 1 is cited by 2, 3 and 4; those but 4 by 5; 5 by 6 and 7. Chains: 1-2-5-6, 1-2-5-7, 1-3-5-6, 1-3-5-7, 1-4: five.
        var line = Of(8, w => 2000 + w, (2, 1), (3, 1), (4, 1), (5, 2), (5, 3), (6, 5), (7, 5));
        Assert.Equal([1, 2, 5, 6], line.Works.Select(w => w.Work));
        Assert.Equal([0, 0.4, 0.4, 0.4], line.Works.Select(w => Math.Round(w.Share, 9)));
        Assert.Equal((7, 0), (line.Tied, line.LeftOut)); // the eighth is tied to nothing
    }

    [Fact]
    public void A_circle_is_opened_where_it_closes_and_counted()
    {
        var line = Of(3, w => 2000 + w, (2, 1), (3, 2), (1, 3));
        Assert.Equal(1, line.LeftOut);
        Assert.Equal(3, line.Works.Count);
        Assert.Equal(3, line.Works.Select(w => w.Work).Distinct().Count());
    }

    [Fact]
    public void A_set_without_ties_has_no_line() => Assert.Empty(Of(4, _ => 0).Works);

    [Fact]
    public void Chains_beyond_all_numbers_are_counted()
    {
        // 600 diamonds one behind another: 2^600 chains, and as many again.
        var ties = new List<(int, int)>();
        for (var d = 0; d < 600; d++)
        {
            var at = 3 * d + 1;
            ties.AddRange([(at + 1, at), (at + 2, at), (at + 3, at + 1), (at + 3, at + 2)]);
        }
        var cites = ties.ToLookup(t => t.Item1, t => t.Item2);
        var line = MainLine.Of(WorkSet.Of(1802, Enumerable.Range(1, 1801)), w => cites[w].ToArray(), w => w);
        Assert.Equal(1201, line.Works.Count);
        Assert.All(line.Works.Skip(1), w => Assert.Equal(0.5, w.Share, 6));
    }

    /// <summary>Of small sets every chain is walked: none has more on its ties.</summary>
    [Fact]
    public void No_chain_weighs_more() =>
        Gen.Select(Gen.Int[2, 9], Gen.Select(Gen.Int[1, 9], Gen.Int[1, 9]).List[0, 20])
            .Sample(
                (size, pairs) =>
                {
                    (int Citing, int Cited)[] ties =
                    [
                        .. pairs
                            .Select(p => (Citing: Math.Max(p.Item1, p.Item2), Cited: Math.Min(p.Item1, p.Item2)))
                            .Where(t => t.Citing != t.Cited && t.Citing <= size)
                            .Distinct(),
                    ];
                    var chains = new List<int[]>();
                    void Walk(int[] chain)
                    {
                        var next = ties.Where(t => t.Cited == chain[^1]).ToArray();
                        if (next.Length == 0 && chain.Length > 1)
                            chains.Add(chain);
                        foreach (var t in next)
                            Walk([.. chain, t.Citing]);
                    }
                    for (var w = 1; w <= size; w++)
                        if (!ties.Any(t => t.Citing == w))
                            Walk([w]);
                    double Share(int u, int v) =>
                        chains.Count(c => Enumerable.Range(1, c.Length - 1).Any(i => (c[i - 1], c[i]) == (u, v)))
                        / (double)chains.Count;
                    double Weight(IReadOnlyList<int> c) =>
                        Enumerable.Range(1, c.Count - 1).Sum(i => Share(c[i - 1], c[i]));
                    var line = Of(size, w => w, ties);
                    if (chains.Count == 0)
                        return line.Works.Count == 0;
                    int[] works = [.. line.Works.Select(w => w.Work)];
                    return chains.Any(c => c.SequenceEqual(works))
                        && Math.Abs(Weight(works) - chains.Max(Weight)) < 1e-9
                        && line.Works.Skip(1)
                            .Zip(works, (w, u) => Math.Abs(w.Share - Share(u, w.Work)) < 1e-9)
                            .All(x => x);
                }
            );

    [Fact]
    public void A_sleeping_paper_lies_under_the_line_until_it_wakes()
    {
        // Ten years of nothing, then 1, then 11 citations in 2012: the line rises by 11/12 a year.
        var citing = Enumerable.Repeat(2011, 1).Concat(Enumerable.Repeat(2012, 11)).ToArray();
        var paper = SleepingPaper.Of(2000, citing)!;
        // By hand: sum over t = 0..10 of 11/12 t, and at 11 (11/12 · 11 − 1) / 1, at 12 nothing.
        Assert.Equal(11.0 / 12 * 55 + (11.0 / 12 * 11 - 1), paper.Beauty, 9);
        Assert.Equal((2010, 2012, 11), (paper.Awakened, paper.Peak, paper.AtPeak));
        // Cited evenly: on the line all the time.
        Assert.Equal(0, SleepingPaper.Of(2000, [2000, 2001, 2002, 2002, 2001, 2002])!.Beauty - 0.0, 9);
        Assert.Null(SleepingPaper.Of(2000, []));
        Assert.Null(SleepingPaper.Of(2000, [2000, 2000, 2001]));
    }
}
