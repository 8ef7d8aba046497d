using Zendle.Core.Maps;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Maps;

/// <summary>The citations among the works of a map.</summary>
public sealed class MapLinksTests
{
    /// <summary>1 cites 2, 3 and 9; 2 cites 3; 9 cites 3; 9 is not on the map.</summary>
    private static readonly CitationGraph Graph = CitationGraph.Build(
        [1L << 32 | 2, 1L << 32 | 3, 1L << 32 | 9, 2L << 32 | 3, 9L << 32 | 3],
        [1, 1, 1, 1, 1],
        10,
        [1]
    );

    [Fact]
    public void Links_inside_are_told_from_those_that_lead_out()
    {
        var links = MapLinks.Among([3, 1, 2], Graph);
        Assert.Equal(3, links.Count);
        Assert.Equal([0, 2], links.Cites(1));
        Assert.Equal([0], links.Cites(2));
        Assert.Empty(links.Cites(0));
        Assert.Equal([2, 2, 2], new[] { links.Of(0), links.Of(1), links.Of(2) });
        Assert.Equal([0, 1, 0], links.CitesOutside);
        Assert.Equal([1, 0, 0], links.CitedOutside);
    }

    [Fact]
    public void Links_between_lanes_run_from_the_citing_to_the_cited()
    {
        var between = MapLinks.Among([3, 1, 2], Graph).Between([0, 1, 1], 2);
        Assert.Equal((0, 0, 2, 1), (between[0, 0], between[0, 1], between[1, 0], between[1, 1]));
    }

    [Fact]
    public void The_strongest_link_is_to_the_work_with_most_links_in_common()
    {
        // 1 cites 2 and 3; 4 cites 1 and 3; 5 cites 3. 4 is linked with both 1 and 3, nothing with both 1 and 2. Of what 4
        // cites, 3 is linked with 1 and 1 with 3, and both have three links: the first counts.
        var graph = CitationGraph.Build(
            [1L << 32 | 2, 1L << 32 | 3, 4L << 32 | 1, 4L << 32 | 3, 5L << 32 | 3],
            [1, 1, 1, 1, 1],
            6,
            [1]
        );
        Assert.Equal([2, null, null, 0, 2], MapLinks.Among([1, 2, 3, 4, 5], graph).Strongest());
    }

    [Fact]
    public void Ranks_begin_with_the_most_linked()
    {
        var links = MapLinks.Among([1, 2, 3, 5], Graph);
        // All three have two links; their ids decide. The last has none.
        Assert.Equal([1, 2, 3, 4], links.Ranks([1, 2, 3, 5]));
    }
}
