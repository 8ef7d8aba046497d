using CsCheck;
using Zendle.Core.Senses;
using Link = Zendle.Core.Senses.Communities.Link;

namespace Zendle.Core.Tests.Senses;

/// <summary>Groups of nodes that hold together more than chance would have it.</summary>
public sealed class CommunitiesTests
{
    /// <summary>Five cliques of four nodes in a ring, each joined to the next by one link.</summary>
    private static Link[] RingOfCliques() =>
        [
            .. Enumerable
                .Range(0, 5)
                .SelectMany(c =>
                    from a in Enumerable.Range(0, 4)
                    from b in Enumerable.Range(a + 1, 3 - a)
                    select new Link((4 * c) + a, (4 * c) + b, 1)
                ),
            .. Enumerable.Range(0, 5).Select(c => new Link((4 * c) + 3, 4 * ((c + 1) % 5), 1)),
        ];

    [Fact]
    public void A_ring_of_cliques_falls_into_its_cliques()
    {
        var group = Communities.Of(20, RingOfCliques());
        Assert.Equal(Enumerable.Range(0, 20).Select(n => n / 4), group);
    }

    /// <summary>
    /// By hand: 35 links, 6 within each clique and 14 ends at each: 5 × (6/35 − (14/70)²) = 0.657142….
    /// </summary>
    [Fact]
    public void Modularity_is_what_the_definition_says()
    {
        var links = RingOfCliques();
        Assert.Equal(0.657142857, Communities.Modularity(Communities.Of(20, links), links), 8);
        Assert.Equal(0, Communities.Modularity(new int[20], links), 12);
        Assert.Equal(0, Communities.Modularity([0, 1], []));
    }

    [Fact]
    public void Nodes_without_links_stand_alone_and_no_nodes_make_no_group()
    {
        Assert.Equal([0, 1, 1, 2], Communities.Of(4, [new(1, 2, 1), new(3, 3, 5)]));
        Assert.Empty(Communities.Of(0, []));
        Assert.Throws<ArgumentOutOfRangeException>(() => Communities.Of(2, [new(0, 2, 1)]));
    }

    private static readonly Gen<Link[]> Graphs = Gen.Select(Gen.Int[0, 14], Gen.Int[0, 14], Gen.Int[1, 5])
        .Where(l => l.Item1 < l.Item2)
        .Select(l => new Link(l.Item1, l.Item2, l.Item3))
        .Array[0, 40]
        .Select(links => links.DistinctBy(l => (l.A, l.B)).ToArray());

    [Fact]
    public void The_order_of_the_links_does_not_matter() =>
        Graphs.Sample(links => Communities.Of(15, links).SequenceEqual(Communities.Of(15, [.. links.Reverse()])));

    [Fact]
    public void Groups_are_never_worse_than_one_group_or_each_node_alone() =>
        Graphs.Sample(links =>
        {
            var found = Communities.Modularity(Communities.Of(15, links), links);
            return found >= -1e-9 && found >= Communities.Modularity([.. Enumerable.Range(0, 15)], links) - 1e-9;
        });
}
