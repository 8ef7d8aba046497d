using System.Collections.Immutable;
using CsCheck;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Trails;

public sealed class TrailTests
{
    private static CitationGraph Graph(int size, params (int Citing, int Cited, byte Database)[] ties) =>
        CitationGraph.Build(
            [.. ties.Select(t => (long)t.Citing << 32 | (uint)t.Cited)],
            [.. ties.Select(t => t.Database)],
            size,
            [.. ties.Select(t => (int)t.Database).Append(1).Distinct()]
        );

    // Works 1 and 2 are old; seeds 3 and 4 cite them; 5 and 6 cite the seeds. Database 1 knows all but one tie,
    // database 7 only two.
    private static readonly CitationGraph Small = Graph(
        8,
        (3, 1, 1),
        (3, 2, 1),
        (4, 2, 1),
        (4, 2, 7),
        (5, 3, 1),
        (5, 4, 1),
        (6, 4, 7),
        (4, 3, 1)
    );

    private static Trail Follow(TrailWay way, int[] seeds, params int[] databases) =>
        Trail.Follow(Small, new(seeds.ToImmutableArray(), way), databases, 8);

    [Fact]
    public void Backward_is_what_the_seeds_cite_with_how_many_of_them_do()
    {
        var trail = Follow(TrailWay.Backward, [3, 4]);
        Assert.Equal([1, 2, 3], trail.Past.Works(1).ToArray()); // seed 3 is cited by seed 4, so it belongs to the trail
        Assert.Equal([2], trail.Past.Works(2).ToArray());
        Assert.Equal((1, 2, 1), (trail.Past.Ties(1), trail.Past.Ties(2), trail.Past.Ties(3)));
        Assert.Empty(trail.Future.Works(1).ToArray());
        Assert.Equal([1, 2], trail.SeedsCiting(2));
        Assert.Equal([2], trail.SeedsCiting(3));
        Assert.Equal((1, 2, null), (trail.NumberOf(3), trail.NumberOf(4), trail.NumberOf(5)));
    }

    [Fact]
    public void Forward_is_what_cites_the_seeds_and_both_is_the_union()
    {
        Assert.Equal([4, 5, 6], Follow(TrailWay.Forward, [3, 4]).Future.Works(1).ToArray());
        Assert.Equal([1, 2, 3, 4, 5, 6], Follow(TrailWay.Both, [3, 4]).Works(1).ToArray());
        // Two ties on one side are needed; one on each side is not enough.
        Assert.Equal([2, 5], Follow(TrailWay.Both, [3, 4]).Works(2).ToArray());
        Assert.Equal([1, 2], Follow(TrailWay.Forward, [3, 4]).SeedsCitedBy(5));
    }

    [Fact]
    public void Only_the_chosen_databases_reports_count_and_each_says_what_it_alone_has()
    {
        Assert.Equal([2], Follow(TrailWay.Backward, [3, 4], 7).Past.Works(1).ToArray());
        Assert.Equal([6], Follow(TrailWay.Forward, [3, 4], 7).Future.Works(1).ToArray());
        var shares = Follow(TrailWay.Both, [3, 4]).Shares();
        // Database 1: 3→1, 3→2, 4→2, 4→3 backward, 4→3, 5→3, 5→4 forward; database 7: 4→2 and 6→4, of which only 6 is
        // its own.
        Assert.Equal([new(1, 7, 5, 4), new TrailShare(7, 2, 2, 1)], shares);
        // With one database switched off its line stays, and what the other alone has grows.
        Assert.Equal([new(1, 7, 5, 5), new TrailShare(7, 2, 2, 0)], Follow(TrailWay.Both, [3, 4], 1).Shares());
    }

    [Fact]
    public void A_seed_without_ties_a_strange_seed_and_a_doubled_seed_do_no_harm()
    {
        Assert.Empty(Follow(TrailWay.Both, [7]).Works(1).ToArray());
        Assert.Empty(Follow(TrailWay.Both, [99]).Works(1).ToArray());
        Assert.Equal(1, Follow(TrailWay.Backward, [3, 3]).Past.Ties(1));
    }

    [Fact]
    public void A_long_trail_is_counted_like_a_short_one()
    {
        // Works 3 to 6,002 cite work 1; every third of them cites work 2, too, as database 7 says alone.
        var graph = Graph(
            6_100,
            [
                .. Enumerable.Range(3, 6_000).Select(w => (w, 1, (byte)1)),
                .. Enumerable.Range(3, 6_000).Where(w => w % 3 == 0).Select(w => (w, 2, (byte)7)),
            ]
        );
        Trail Forward(int[] seeds, params int[] databases) =>
            Trail.Follow(graph, new([.. seeds], TrailWay.Forward), databases, 6_100);

        var one = Forward([1]).Future;
        Assert.Equal(Enumerable.Range(3, 6_000), one.Works(1).ToArray());
        Assert.Equal(0, one.Works(2).Count());
        Assert.Equal((0, 1, 1, 0), (one.Ties(2), one.Ties(3), one.Ties(6_002), one.Ties(6_003)));
        Assert.Equal(0, Forward([1], 7).Future.Works(1).Count());
        var two = Forward([1, 2]).Future;
        Assert.Equal(6_000, two.Works(1).Count());
        Assert.Equal(Enumerable.Range(1, 2_000).Select(i => 3 * i), two.Works(2).ToArray());
        Assert.Equal((2, 1), (two.Ties(3), two.Ties(4)));
        // A copy is given away: what becomes of it changes nothing here.
        one.Works(1).ExceptWith(one.Works(1));
        Assert.Equal(6_000, one.Works(1).Count());
    }

    [Fact]
    public void A_work_never_cites_itself_and_a_cycle_is_just_two_ties()
    {
        var graph = Graph(4, (1, 1, 1), (1, 2, 1), (2, 1, 1), (1, 2, 1));
        Assert.Equal(2, graph.Ties);
        Assert.Equal([2], graph.Cites(1).ToArray());
        Assert.Equal([2], graph.CitedBy(1).ToArray());
        Assert.Equal([1, 2], Trail.Follow(graph, new([1, 2], TrailWay.Backward), [], 4).Works(1).ToArray());
    }

    [Fact]
    public void More_than_sixty_four_databases_are_too_many() =>
        Assert.Throws<ArgumentException>(() => CitationGraph.Build([], [], 1, Enumerable.Range(1, 65)));

    private static readonly Gen<(int, int, byte)[]> Ties = Gen.Select(
        Gen.Int[1, 19],
        Gen.Int[1, 19],
        Gen.Int[1, 4],
        (a, b, d) => (a, b, (byte)d)
    ).Array[0, 120];

    [Fact]
    public void Sets_and_counts_agree_with_a_plain_count_over_the_ties() =>
        Gen.Select(Ties, Gen.Int[1, 19].Array[1, 6], Gen.Int[1, 4].Array[0, 3], Gen.Int[1, 3])
            .Sample(
                (ties, seeds, databases, atLeast) =>
                {
                    seeds = [.. seeds.Distinct()];
                    var trail = Trail.Follow(
                        Graph(20, ties),
                        new(seeds.ToImmutableArray(), TrailWay.Both),
                        databases,
                        20
                    );
                    bool Counts(byte d) => databases.Length == 0 || databases.Contains(d);
                    for (var work = 1; work < 20; work++)
                    {
                        var past = seeds.Count(s =>
                            s != work && ties.Any(t => t.Item1 == s && t.Item2 == work && Counts(t.Item3))
                        );
                        var future = seeds.Count(s =>
                            s != work && ties.Any(t => t.Item2 == s && t.Item1 == work && Counts(t.Item3))
                        );
                        Assert.Equal((past, future), (trail.Past.Ties(work), trail.Future.Ties(work)));
                        Assert.Equal((past, future), (trail.SeedsCiting(work).Length, trail.SeedsCitedBy(work).Length));
                        Assert.Equal(past >= atLeast || future >= atLeast, trail.Works(atLeast).Contains(work));
                    }
                },
                iter: 300
            );

    [Fact]
    public void The_shares_of_all_databases_make_the_trail() =>
        Gen.Select(Ties, Gen.Int[1, 19].Array[1, 5])
            .Sample(
                (ties, seeds) =>
                {
                    var trail = Trail.Follow(Graph(20, ties), new(seeds.ToImmutableArray(), TrailWay.Both), [], 20);
                    var all = trail.Works(1).Count();
                    var shares = trail.Shares();
                    Assert.True(shares.Sum(s => s.Works) >= all && shares.Sum(s => s.OnlyHere) <= all);
                    foreach (var share in shares)
                    {
                        var without = shares
                            .Where(s => s.DatabaseId != share.DatabaseId)
                            .Select(s => s.DatabaseId)
                            .ToArray();
                        if (without.Length > 0)
                            Assert.Equal(
                                all - share.OnlyHere,
                                Trail
                                    .Follow(Graph(20, ties), new(seeds.ToImmutableArray(), TrailWay.Both), without, 20)
                                    .Works(1)
                                    .Count()
                            );
                    }
                },
                iter: 200
            );

    [Fact]
    public void What_only_a_database_ties_is_counted_with_its_extracts() =>
        Gen.Select(Ties, Gen.Int[1, 19].Array[1, 5])
            .Sample(
                (ties, seeds) =>
                {
                    var graph = Graph(20, ties);
                    if (graph.Databases.Count < 2)
                        return;
                    var (whole, extract) = (graph.Databases[0], graph.Databases[1]);
                    var trail = Trail.Follow(graph, new(seeds.ToImmutableArray(), TrailWay.Both), [], 20);
                    var shares = trail.Shares(new Dictionary<int, int> { [extract] = whole });
                    // Recounted by leaving databases out: the whole goes with its extract, the extract alone.
                    int Lost(params int[] gone)
                    {
                        var left = graph.Databases.Except(gone).ToArray();
                        var all = trail.Works(1).Count();
                        return left.Length == 0
                            ? all
                            : all
                                - Trail
                                    .Follow(graph, new(seeds.ToImmutableArray(), TrailWay.Both), left, 20)
                                    .Works(1)
                                    .Count();
                    }
                    Assert.Equal(
                        (Lost(whole, extract), Lost(extract)),
                        (
                            shares.Single(s => s.DatabaseId == whole).OnlyHere,
                            shares.Single(s => s.DatabaseId == extract).OnlyHere
                        )
                    );
                },
                iter: 200
            );
}
