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

    private static string Told(CitationGraph g, ReadOnlySpan<int> works, TieKeys kinds) =>
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

    [Fact]
    public void More_sets_of_databases_than_a_byte_tells_apart_are_told_apart()
    {
        // Work 1 cites 2 to 400, each reported by another set of nine databases: 399 sets. Nobody but a change brings the
        // sets above 200.
        int[] databases = [.. Enumerable.Range(1, 9)];
        List<ReportedTie> Until(int last) =>
            [
                .. Enumerable
                    .Range(2, last - 1)
                    .SelectMany(cited =>
                        databases.Where(d => (cited >> d - 1 & 1) == 1).Select(d => new ReportedTie(cited, (byte)d))
                    ),
            ];
        CitationGraph Built(List<ReportedTie> ties) =>
            CitationGraph.Build(
                [.. ties.Select(t => 1L << 32 | (uint)t.Cited)],
                [.. ties.Select(t => t.Database)],
                401,
                databases
            );
        var few = Built(Until(200));
        var many = few.With(new Dictionary<int, List<ReportedTie>> { [1] = Until(400) }, 401, databases);
        foreach (var graph in new[] { many, Built(Until(400)) })
        {
            Assert.Equal(Enumerable.Range(2, 399), graph.Cites(1).ToArray());
            for (var i = 0; i < 399; i++)
            {
                Assert.Equal((ulong)(i + 2), graph.Mask(graph.CitesReported(1)[i]));
                Assert.Equal((ulong)(i + 2), graph.Mask(graph.CitedByReported(i + 2)[0]));
            }
        }
        Assert.Equal(199, few.CitesReported(1).Length);
        Assert.Equal(200UL, few.Mask(few.CitesReported(1)[198]));
    }
}
