using CsCheck;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Trails;

/// <summary>A graph that follows changes is the graph that is built from nothing.</summary>
public sealed class CitationGraphTests
{
    private static string Told(CitationGraph g) =>
        $"{g.Ties} "
        + string.Join(
            ' ',
            Enumerable
                .Range(0, 14)
                .Select(w =>
                    $"{w}>{Told(g, g.Cites(w), g.CitesReported(w))}<{Told(g, g.CitedBy(w), g.CitedByReported(w))}"
                )
        );

    private static string Told(CitationGraph g, ReadOnlySpan<int> works, ReadOnlySpan<ushort> kinds) =>
        string.Join(',', works.ToArray().Zip(kinds.ToArray(), (c, k) => $"{c}.{g.Mask(k)}"));

    [Fact]
    public void Works_that_cite_otherwise_give_the_graph_of_all_ties()
    {
        var change = Gen.Select(Gen.Int[1, 12], Gen.Select(Gen.Int[1, 12], Gen.Int[1, 3]).Array[0, 7]);
        change
            .Array[1, 4]
            .Array[1, 12]
            .Sample(
                rounds =>
                {
                    var (graph, all) = (CitationGraph.Empty, new Dictionary<int, List<ReportedTie>>());
                    foreach (var round in rounds)
                    {
                        var citing = round
                            .GroupBy(r => r.Item1)
                            .ToDictionary(
                                g => g.Key,
                                g => g.Last().Item2.Select(t => new ReportedTie(t.Item1, (byte)t.Item2)).ToList()
                            );
                        foreach (var (work, ties) in citing)
                            all[work] = ties;
                        graph = graph.With(citing, 14, [1, 2, 3]);
                        var pairs = all.SelectMany(
                                w => w.Value,
                                (w, t) => (Pair: (long)w.Key << 32 | (uint)t.Cited, t.Database)
                            )
                            .ToArray();
                        var whole = CitationGraph.Build(
                            [.. pairs.Select(p => p.Pair)],
                            [.. pairs.Select(p => p.Database)],
                            14,
                            [1, 2, 3]
                        );
                        Assert.Equal(Told(whole), Told(graph));
                    }
                    var (back, forward, masks, databases, count) = graph.Parts;
                    Assert.Equal(Told(graph), Told(CitationGraph.From(back, forward, masks, databases, count)));
                },
                iter: 300
            );
    }

    [Fact]
    public void A_database_may_come_behind_the_others_but_not_between_them()
    {
        var graph = CitationGraph.Build([1L << 32 | 2], [1], 4, [1, 5]);
        Assert.Equal(
            1UL << 2,
            graph.With(new Dictionary<int, List<ReportedTie>> { [3] = [new(2, 7)] }, 4, [1, 5, 7]) is var g
                ? g.Mask(g.CitesReported(3)[0])
                : 0
        );
        Assert.Throws<ArgumentException>(() => graph.With(new Dictionary<int, List<ReportedTie>>(), 4, [1, 3, 5]));
    }
}
