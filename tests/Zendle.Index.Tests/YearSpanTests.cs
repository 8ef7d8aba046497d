using Zendle.Index.Columns;

namespace Zendle.Index.Tests;

public sealed class YearSpanTests
{
    [Fact]
    public void A_single_work_of_another_century_does_not_stretch_the_scale()
    {
        short[] years = [1751, .. Enumerable.Range(0, 400).Select(i => (short)(1980 + i % 40)), 0, 0];
        Assert.Equal(new(1980, 2019), YearSpan.Of(years));
        // Among few it is one of them.
        Assert.Equal(new(1751, 2001), YearSpan.Of([2001, 1751, 2000]));
        Assert.Equal(new(0, 0), YearSpan.Of([0, 0]));
        Assert.Equal(new(1999, 1999), YearSpan.Of([1999]));
    }
}
