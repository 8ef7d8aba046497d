using CsCheck;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Trails;

public sealed class MissingEstimateTests
{
    /// <summary>
    /// By hand: 21 · 16 ÷ 11 − 1 = 29.545; variance 21 · 16 · 10 · 5 ÷ (11² · 12) = 11.570; 4.545 missing, spread
    /// exp(1.96 √ln(1 + 11.570 ÷ 4.545²)) = 3.695.
    /// </summary>
    [Fact]
    public void Two_ways_of_finding_tell_how_many_there_are()
    {
        var estimate = MissingEstimate.Of(20, 15, 10)!;
        Assert.Equal(25, estimate.Known);
        Assert.Equal(29.545, estimate.All, tolerance: 0.001);
        Assert.Equal(26.23, estimate.Low, tolerance: 0.01);
        Assert.Equal(41.80, estimate.High, tolerance: 0.01);
    }

    [Fact]
    public void Too_few_found_both_ways_tell_nothing_and_impossible_counts_are_refused()
    {
        Assert.Null(MissingEstimate.Of(20, 15, 6));
        Assert.NotNull(MissingEstimate.Of(20, 15, 7));
        Assert.Throws<ArgumentOutOfRangeException>(() => MissingEstimate.Of(5, 20, 6));
        Assert.Throws<ArgumentOutOfRangeException>(() => MissingEstimate.Of(5, 20, -1));
    }

    [Fact]
    public void Where_one_way_found_all_that_the_other_did_nothing_is_missing() =>
        Assert.Equal(new(30, 30, 30, 30), MissingEstimate.Of(30, 12, 12));

    [Fact]
    public void The_interval_holds_the_estimate_and_never_ends_below_what_is_known() =>
        Gen.Select(Gen.Int[0, 400], Gen.Int[0, 400], Gen.Int[7, 200])
            .Sample(
                (a, b, both) =>
                {
                    var estimate = MissingEstimate.Of(a + both, b + both, both)!;
                    Assert.Equal(a + b + both, estimate.Known);
                    Assert.InRange(estimate.Low, estimate.Known, estimate.All);
                    Assert.InRange(estimate.All, estimate.Low, estimate.High);
                    // Either way may come first.
                    Assert.Equal(estimate.All, MissingEstimate.Of(b + both, a + both, both)!.All, tolerance: 1e-9);
                }
            );
}
