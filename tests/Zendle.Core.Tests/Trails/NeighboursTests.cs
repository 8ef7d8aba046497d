using CsCheck;
using Zendle.Core.Sets;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Trails;

public sealed class NeighboursTests
{
    private const int Size = 12;

    private static CitationGraph Graph(IEnumerable<(int Citing, int Cited)> ties)
    {
        long[] pairs = [.. ties.Select(t => (long)t.Citing << 32 | (uint)t.Cited)];
        return CitationGraph.Build(
            pairs,
            new byte[pairs.Length]
                .Select(_ => (byte)1)
                .ToArray(),
            Size,
            [1]
        );
    }

    /// <summary>
    /// 7 cites 1, 2, 3 and 4; 8 cites 1, 2 and 5; 9 cites 1; 10 cites 6. By hand: 7 and 8 share two of four and three
    /// references, 2 ÷ √12; 7 and 9 one of four and one, 1 ÷ √4.
    /// </summary>
    private static readonly CitationGraph Small = Graph([
        (7, 1),
        (7, 2),
        (7, 3),
        (7, 4),
        (8, 1),
        (8, 2),
        (8, 5),
        (9, 1),
        (10, 6),
    ]);

    [Fact]
    public void Works_that_cite_the_same_are_as_alike_as_the_cosine_says()
    {
        var list = Neighbours.SharedReferences(Small, [7], Size);
        Assert.Equal([8, 9], list.Works.ToArray());
        Assert.Equal((2, 1, 0), (list.Shared(8), list.Shared(9), list.Shared(10)));
        Assert.Equal(2 / Math.Sqrt(12), list.Likeness(8), 6);
        Assert.Equal(0.5, list.Likeness(9), 6);
        Assert.Equal([1, 2], list.Ranks.ToArray());
    }

    [Fact]
    public void Of_several_seeds_references_count_once_and_likeness_is_the_mean()
    {
        var list = Neighbours.SharedReferences(Small, [7, 8], Size);
        Assert.Equal([9], list.Works.ToArray()); // seeds are no neighbours
        Assert.Equal(1, list.Shared(9)); // one reference, though two seeds have it
        Assert.Equal((0.5 + (1 / Math.Sqrt(3))) / 2, list.Likeness(9), 6);
    }

    /// <summary>1 is cited by 7, 8 and 9, 2 by 7 and 8, 3 by 7: with 1 they stand in two and one of them.</summary>
    [Fact]
    public void Works_that_are_cited_together_are_counted_by_what_cites_both()
    {
        var list = Neighbours.CitedTogether(Small, [1], Size);
        Assert.Equal([2, 3, 4, 5], list.Works.ToArray());
        Assert.Equal([2, 1, 1, 1], list.Works.ToArray().Select(list.Shared));
        Assert.Equal(2 / Math.Sqrt(6), list.Likeness(2), 6);
        Assert.Equal([1, 2, 2, 2], list.Ranks.ToArray()); // equal ones share the better rank
    }

    /// <summary>By hand: 1 is cited by both seeds and one more work, 5 by one seed alone, 9 cites none of them.</summary>
    [Fact]
    public void Ties_to_seeds_count_for_little_where_there_are_many_others()
    {
        var list = Neighbours.Tied(Small, [7, 8], Size);
        Assert.Equal([1, 2, 3, 4, 5], list.Works.ToArray());
        Assert.Equal([2, 2, 1, 1, 1], list.Works.ToArray().Select(list.Shared));
        Assert.Equal(2 / Math.Sqrt(3) / 2, list.Likeness(1), 6);
        Assert.Equal(0.5, list.Likeness(5), 6);
    }

    [Fact]
    public void People_are_shared_like_references()
    {
        int[][] people =
        [
            [],
            [5, 6],
            [6],
            [7],
            [5, 6],
            .. Enumerable.Repeat<int[]>([], Size - 5),
        ];
        var list = Neighbours.SharedPeople(w => people[w], [1], Size);
        Assert.Equal([2, 4], list.Works.ToArray());
        Assert.Equal([1, 2], list.Works.ToArray().Select(list.Shared));
        Assert.Equal(1 / Math.Sqrt(2), list.Likeness(2), 6);
        Assert.Equal(1, list.Likeness(4), 6);
    }

    [Fact]
    public void Joined_ranks_are_fused_by_their_weights()
    {
        var near = new Neighbours([
            Neighbours.SharedReferences(Small, [7], Size),
            Neighbours.CitedTogether(Small, [7], Size),
        ]);
        var order = near.Order(k => k == NeighbourKind.SharedReferences ? 2 : 1);
        Assert.Equal((2 / 61.0, 2 / 62.0, 0), (order.Of(8), order.Of(9), order.Of(1)));
        Assert.All(Enumerable.Range(0, Size), w => Assert.Equal(0, near.Order(_ => 0).Of(w)));
        Assert.Equal([8, 9], near.Works(1, Size).ToArray());
        Assert.Equal([8], near.Works(2, Size).ToArray());
    }

    [Fact]
    public void The_evidence_is_what_is_shared_with_the_numbers_of_the_seeds()
    {
        var shared = Neighbours.Evidence([7, 8], 9, w => Small.Cites(w));
        Assert.Equal([1], shared.Select(s => s.Thing));
        Assert.Equal([1, 2], shared[0].Seeds);
        Assert.Empty(Neighbours.Evidence([7], 10, w => Small.Cites(w)));
    }

    private static readonly Gen<(int Citing, int Cited)[]> Ties = Gen.Select(Gen.Int[1, Size - 1], Gen.Int[1, Size - 1])
        .Where(t => t.Item1 != t.Item2)
        .Array[0, 50]
        .Select(t => t.Distinct().ToArray());

    [Fact]
    public void Lists_agree_with_the_definition_whatever_cites_what() =>
        Gen.Select(Ties, Gen.Int[1, Size - 1].Array[1, 4].Select(s => s.Distinct().ToArray()))
            .Sample(
                (ties, seeds) =>
                {
                    var graph = Graph(ties);
                    // However large the corpus around them is: few neighbours of many works are gathered another way.
                    foreach (var size in new[] { Size, 5_000 })
                    {
                        Agrees(
                            Neighbours.SharedReferences(graph, seeds, size),
                            seeds,
                            Of(ties, t => t.Citing, t => t.Cited)
                        );
                        Agrees(
                            Neighbours.CitedTogether(graph, seeds, size),
                            seeds,
                            Of(ties, t => t.Cited, t => t.Citing)
                        );
                    }
                },
                iter: 500
            );

    /// <summary>
    /// Much is counted block by block, which must come to the same: 60,000 works that each cite thirty of a thousand, recounted
    /// plainly.
    /// </summary>
    [Fact]
    public void Many_neighbours_are_counted_as_few_are()
    {
        const int Works = 60_000;
        var random = new Random(3);
        var cited = new int[Works][];
        for (var work = 0; work < Works; work++)
            cited[work] =
                work < 1_000 ? [] : [.. Enumerable.Range(0, 30).Select(_ => random.Next(1, 1_000)).Distinct()];
        long[] pairs = [.. cited.SelectMany((all, work) => all.Select(c => (long)work << 32 | (uint)c))];
        var graph = CitationGraph.Build(pairs, Enumerable.Repeat((byte)1, pairs.Length).ToArray(), Works, [1]);
        int[] seeds = [59_999, 20_000, 40_000];

        var list = Neighbours.SharedReferences(graph, seeds, Works);

        var things = seeds.SelectMany(s => cited[s]).ToHashSet();
        int[] neighbours = [.. Enumerable.Range(0, Works).Except(seeds).Where(w => cited[w].Any(things.Contains))];
        Assert.Equal(neighbours, list.Works.ToArray());
        Assert.All(
            neighbours.Where(w => w % 500 < 3),
            w => Assert.Equal(cited[w].Count(things.Contains), list.Shared(w))
        );
        Assert.Equal(neighbours.Sum(w => (long)cited[w].Count(things.Contains)), list.Shares);
        Assert.All(
            neighbours.Where(w => w % 500 < 3),
            w =>
                Assert.Equal(
                    seeds.Average(s =>
                        cited[s].Intersect(cited[w]).Count() / Math.Sqrt(cited[s].Length * cited[w].Length)
                    ),
                    list.Likeness(w),
                    tolerance: 1e-6
                )
        );
    }

    /// <summary>Whichever works are asked for, by one reason or several.</summary>
    [Fact]
    public void A_set_is_sorted_by_what_is_told_of_each() =>
        Gen.Select(Ties, Gen.Int[1, Size - 1], Gen.Int[0, 3].Array[3], Gen.Int[0, Size - 1].HashSet[0, Size])
            .Sample(
                (ties, seed, weights, asked) =>
                {
                    var graph = Graph(ties);
                    var order = new Neighbours([
                        Neighbours.SharedReferences(graph, [seed], Size),
                        Neighbours.CitedTogether(graph, [seed], Size),
                        Neighbours.Tied(graph, [seed], Size),
                    ]).Order(kind => weights[kind == NeighbourKind.Tied ? 2 : (int)kind]);
                    Assert.Equal(asked.OrderByDescending(order.Of).ThenBy(w => w), order.Sort(WorkSet.Of(Size, asked)));
                },
                iter: 500
            );

    private static HashSet<int>[] Of(
        (int Citing, int Cited)[] ties,
        Func<(int Citing, int Cited), int> work,
        Func<(int Citing, int Cited), int> thing
    ) => [.. Enumerable.Range(0, Size).Select(w => ties.Where(t => work(t) == w).Select(thing).ToHashSet())];

    private static void Agrees(NeighbourList list, int[] seeds, HashSet<int>[] has)
    {
        for (var work = 1; work < Size; work++)
        {
            var shared = seeds.Contains(work) ? 0 : has[work].Count(t => seeds.Any(s => has[s].Contains(t)));
            Assert.Equal(shared, list.Shared(work));
            Assert.Equal(shared > 0, list.Works.Contains(work));
            var alike =
                shared == 0
                    ? 0
                    : seeds.Average(s =>
                        has[s].Count == 0
                            ? 0
                            : has[s].Intersect(has[work]).Count() / Math.Sqrt(has[s].Count * has[work].Count)
                    );
            Assert.Equal(alike, list.Likeness(work), tolerance: 1e-6);
        }
    }

    [Fact]
    public void Weights_are_read_as_they_are_written_and_anything_else_is_the_usual()
    {
        Assert.Equal("3 0 10 1 4", new NeighbourWeights(3, 0, 10, 1, 4).ToString());
        Assert.Equal(new(3, 0, 10, 1, 4), NeighbourWeights.Read("3 0 10 1 4"));
        foreach (
            var other in new[] { null, "", "1 2 3", "1 2 3 4 11", "0 0 0 0 5", "1 2 3 4 x", "1 2 3 4", "-1 2 3 4 5" }
        )
            Assert.Equal(NeighbourWeights.Usual, NeighbourWeights.Read(other));
        Assert.NotNull(new NeighbourWeights(0, 0, 0, 0, 5).Fault());
        Assert.NotNull(new NeighbourWeights(0, 11, 0, 0, 5).Fault());
    }
}
