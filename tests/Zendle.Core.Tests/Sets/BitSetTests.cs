using CsCheck;
using Zendle.Core.Sets;

namespace Zendle.Core.Tests.Sets;

public sealed class BitSetTests
{
    private const int Size = 200;
    private static readonly Gen<int[]> Numbers = Gen.Int[0, Size - 1].Array[0, 60];

    [Fact]
    public void Algebra_is_that_of_sets() =>
        Gen.Select(Numbers, Numbers).Sample((a, b) =>
        {
            BitSet Do(Action<BitSet, BitSet> act)
            {
                var set = BitSet.Of(Size, a);
                act(set, BitSet.Of(Size, b));
                return set;
            }
            Assert.Equal(a.Union(b).Order(), Do((x, y) => x.UnionWith(y)).Members());
            Assert.Equal(a.Intersect(b).Order(), Do((x, y) => x.IntersectWith(y)).ToArray());
            Assert.Equal(a.Except(b).Order(), Do((x, y) => x.ExceptWith(y)).Members());
            Assert.Equal(a.Intersect(b).Count(), BitSet.Of(Size, a).CountWith(BitSet.Of(Size, b)));
            Assert.Equal(a.Distinct().Count(), BitSet.Of(Size, a).Count());
        });

    [Fact]
    public void Ranks_number_the_members_in_order() =>
        Numbers.Sample(a =>
        {
            var set = BitSet.Of(Size, a);
            var ranks = set.BlockRanks();
            Assert.Equal(Enumerable.Range(0, set.Count()), set.Members().Select(n => set.RankOf(n, ranks)));
            Assert.Equal(-1, set.RankOf(Enumerable.Range(0, Size).First(n => !set.Contains(n)), ranks));
        });

    [Fact]
    public void Nothing_outside_the_size_is_in_it()
    {
        var set = BitSet.Of(10, [3, 12, -1]);
        Assert.Equal([3], set.Members());
        Assert.False(set.Contains(12));
        Assert.False(set.Contains(-1));
        Assert.True(new BitSet(0).IsEmpty);
    }
}
