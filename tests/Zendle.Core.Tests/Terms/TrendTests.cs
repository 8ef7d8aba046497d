using CsCheck;
using Zendle.Core.Terms;

namespace Zendle.Core.Tests.Terms;

public class TrendTests
{
    /// <summary>
    /// Shares of 10, 20 and 30 % of ten each: scored 8 against an expected 6, with a variance of 0.2·0.8·(50 − 30²/30) = 3.2.
    /// </summary>
    [Fact]
    public void A_rising_share_as_worked_out_by_hand()
    {
        Assert.Equal(2 / Math.Sqrt(3.2), Trend.Of([(1, 10), (2, 10), (3, 10)]), 12);
        Assert.Equal(-2 / Math.Sqrt(3.2), Trend.Of([(3, 10), (2, 10), (1, 10)]), 12);
        Assert.Equal(20 / Math.Sqrt(32), Trend.Of([(10, 100), (20, 100), (30, 100)]), 12);
    }

    [Fact]
    public void Nothing_is_told_of_one_group_of_none_and_of_all()
    {
        Assert.Equal(0, Trend.Of([]));
        Assert.Equal(0, Trend.Of([(3, 10)]));
        Assert.Equal(0, Trend.Of([(0, 10), (0, 10)]));
        Assert.Equal(0, Trend.Of([(10, 10), (10, 10)]));
        Assert.Equal(0, Trend.Of([(0, 0), (4, 8), (0, 0)]));
        Assert.Throws<ArgumentOutOfRangeException>(() => Trend.Of([(3, 2)]));
    }

    [Fact]
    public void Turned_round_it_is_its_opposite() =>
        Gen.Select(Gen.Int[0, 50], Gen.Int[0, 50])
            .Select(p => (With: Math.Min(p.Item1, p.Item2), Of: Math.Max(p.Item1, p.Item2)))
            .Array[0, 9]
            .Sample(groups =>
                Assert.Equal(
                    Trend.Of(groups),
                    -Trend.Of([.. groups.Reverse()]),
                    1e-6 * (1 + Math.Abs(Trend.Of(groups)))
                )
            );
}
