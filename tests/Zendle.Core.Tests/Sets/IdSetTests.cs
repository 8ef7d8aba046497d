using CsCheck;
using Zendle.Core.Sets;

namespace Zendle.Core.Tests.Sets;

public sealed class IdSetTests
{
    private const int Size = 330; // a whole number of vectors, and words behind them
    private static readonly Gen<int[]> Numbers = Gen.Int[0, Size - 1].Array[0, 60];

    [Fact]
    public void Algebra_is_that_of_sets() =>
        Gen.Select(Numbers, Numbers)
            .Sample(
                (a, b) =>
                {
                    WorkSet Do(Action<WorkSet, WorkSet> act)
                    {
                        var set = WorkSet.Of(Size, a);
                        act(set, WorkSet.Of(Size, b));
                        return set;
                    }
                    Assert.Equal(a.Union(b).Order(), Do((x, y) => x.UnionWith(y)).Members());
                    Assert.Equal(a.Intersect(b).Order(), Do((x, y) => x.IntersectWith(y)).ToArray());
                    Assert.Equal(a.Except(b).Order(), Do((x, y) => x.ExceptWith(y)).Members());
                    Assert.Equal(a.Intersect(b).Count(), WorkSet.Of(Size, a).CountWith(WorkSet.Of(Size, b)));
                    Assert.Equal(a.Distinct().Count(), WorkSet.Of(Size, a).Count());
                }
            );

    [Fact]
    public void What_several_sets_have_in_common_and_what_is_taken_out() =>
        Gen.Select(Numbers.Array[1, 4], Gen.Int[0, Size - 1])
            .Sample(
                (sets, one) =>
                {
                    var expected = sets.Aggregate((a, b) => [.. a.Intersect(b)]).Distinct().Order().ToArray();
                    var all = sets.Select(s => WorkSet.Of(Size, s)).ToArray();
                    var common = all[0].CommonWith(all[1..]);
                    Assert.Equal(expected, common.ToArray());
                    common.Remove(one);
                    var seen = new List<int>();
                    foreach (var n in common)
                        seen.Add(n);
                    Assert.Equal(expected.Where(n => n != one), seen);
                }
            );

    [Fact]
    public void Ranks_number_the_members_in_order() =>
        Numbers.Sample(a =>
        {
            var set = WorkSet.Of(Size, a);
            var ranks = set.BlockRanks();
            Assert.Equal(Enumerable.Range(0, set.Count()), set.Members().Select(n => set.RankOf(n, ranks)));
            Assert.Equal(-1, set.RankOf(Enumerable.Range(0, Size).First(n => !set.Contains(n)), ranks));
        });

    [Fact]
    public void Nothing_outside_the_size_is_in_it()
    {
        var set = WorkSet.Of(10, [3, 12, -1]);
        Assert.Equal([3], set.Members());
        Assert.False(set.Contains(12));
        Assert.False(set.Contains(-1));
        Assert.True(new WorkSet(0).IsEmpty);
    }
}
