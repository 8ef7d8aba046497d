using CsCheck;
using Zendle.Core.Maps;

namespace Zendle.Core.Tests.Maps;

/// <summary>Which lanes there are, and the lane of each work.</summary>
public sealed class LaneChoiceTests
{
    [Fact]
    public void A_work_stands_in_the_lane_of_its_commonest_value()
    {
        // Value 1 has three works, value 0 two, value 2 one; the third work has both 0 and 1.
        var choice = LaneChoice.By(
            [
                [1],
                [1],
                [0, 1],
                [0],
                [2],
                [],
            ],
            12
        );
        Assert.Equal(
            [
                new(LaneKind.Value, 1, 1, 3, 1),
                new(LaneKind.Value, 0, 1, 1, 0),
                new(LaneKind.Value, 2, 1, 1, 0),
                new(LaneKind.None, -1, 0, 1, 0),
            ],
            choice.Lanes
        );
        Assert.Equal([0, 0, 0, 1, 2, 3], choice.Of);
    }

    [Fact]
    public void The_smallest_lanes_are_one_unless_it_would_hold_one_value()
    {
        int[][] values =
        [
            [0],
            [0],
            [0],
            [1],
            [1],
            [2],
            [3],
            [],
        ];
        var two = LaneChoice.By(values, 2);
        Assert.Equal([LaneKind.Value, LaneKind.Value, LaneKind.Others, LaneKind.None], two.Lanes.Select(l => l.Kind));
        Assert.Equal((2, 2), (two.Lanes[2].Values, two.Lanes[2].Works));
        Assert.Equal([0, 0, 0, 1, 1, 2, 2, 3], two.Of);
        Assert.Equal(5, LaneChoice.By(values, 3).Lanes.Length);
        Assert.DoesNotContain(LaneChoice.By(values, 3).Lanes, l => l.Kind == LaneKind.Others);
    }

    [Fact]
    public void Lanes_stay_where_they_are_for_other_works()
    {
        // Lanes 1, 0, others (2 and 3), none; then value 0 has most works, 1 none, and a new value has one.
        var then = LaneChoice.By(
            [
                [1],
                [1],
                [1],
                [0],
                [0],
                [2],
                [3],
                [],
            ],
            2
        );
        var now = then.Over([
            [0],
            [4],
            [0],
            [3, 0],
            [0],
            [],
        ]);
        Assert.Equal(
            [new(LaneKind.Value, 0, 1, 4, 1), new(LaneKind.Others, -1, 1, 1, 0), new(LaneKind.None, -1, 0, 1, 0)],
            now.Lanes
        );
        Assert.Equal([0, 1, 0, 0, 0, 2], now.Of);
    }

    [Fact]
    public void The_same_works_are_in_the_same_lanes_again() =>
        Gen.Int[0, 8]
            .Array[0, 1]
            .Array[0, 60]
            .Select(Gen.Int[1, 6])
            .Sample(
                (values, most) =>
                {
                    var chosen = LaneChoice.By(values, most);
                    var again = chosen.Over(values);
                    Assert.Equal(chosen.Lanes, again.Lanes);
                    Assert.Equal(chosen.Of, again.Of);
                }
            );

    [Fact]
    public void Lanes_are_put_in_order_by_age_or_by_links()
    {
        var choice = LaneChoice.By(
            [
                [0],
                [0],
                [0],
                [1],
                [1],
                [2],
            ],
            12
        );
        int?[] years = [2010, 2011, null, 2003, 2020, 1999];
        Assert.Equal([2, 1, 0], choice.InOrder(LaneOrder.First, years, new int[3, 3]).Lanes.Select(l => l.Value));
        // Lane 2 has one work and two links with lane 0, lane 1 two works and three.
        var links = new int[3, 3];
        (links[0, 1], links[2, 0]) = (3, 2);
        var chained = choice.InOrder(LaneOrder.Links, years, links);
        Assert.Equal([0, 2, 1], chained.Lanes.Select(l => l.Value));
        Assert.Equal([0, 0, 0, 2, 2, 1], chained.Of);
    }

    [Fact]
    public void Every_work_is_counted_in_one_lane() =>
        Gen.Select(Gen.Int[0, 20].Array[0, 4].Array[0, 60], Gen.Int[1, 8])
            .Sample(
                (values, most) =>
                {
                    int[][] distinct = [.. values.Select(v => v.Distinct().ToArray())];
                    var choice = LaneChoice.By(distinct, most);
                    Assert.Equal(distinct.Length, choice.Of.Length);
                    for (var lane = 0; lane < choice.Lanes.Length; lane++)
                        Assert.Equal(choice.Lanes[lane].Works, choice.Of.Count(l => l == lane));
                    Assert.All(
                        Enumerable
                            .Range(0, distinct.Length)
                            .Where(i => choice.Lanes[choice.Of[i]].Kind == LaneKind.Value),
                        i => Assert.Contains(choice.Lanes[choice.Of[i]].Value, distinct[i])
                    );
                    Assert.All(
                        Enumerable.Range(0, distinct.Length),
                        i => Assert.Equal(distinct[i].Length == 0, choice.Lanes[choice.Of[i]].Kind == LaneKind.None)
                    );
                },
                iter: 2_000
            );
}
