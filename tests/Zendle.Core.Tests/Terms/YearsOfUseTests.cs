using CsCheck;
using Zendle.Core.Terms;

namespace Zendle.Core.Tests.Terms;

public class YearsOfUseTests
{
    [Fact]
    public void Of_all_pairs_those_are_counted_in_which_it_is_older()
    {
        // 1990 is older than 1991 and 1992, and 1991 than 1992; 1991 and 1991 are a tie: 3½ of 4.
        Assert.Equal(3.5 / 4, new YearsOfUse([1990, 1991]).OlderThan(new([1992, 1991])));
        Assert.Equal(0.5, new YearsOfUse([]).OlderThan(new([1992])));
        Assert.Equal(0.5, new YearsOfUse([2000, 2000]).OlderThan(new([2000])));
    }

    [Fact]
    public void It_is_what_a_count_of_all_pairs_gives() =>
        Gen.Select(Gen.Int[1990, 2000].Array[1, 30], Gen.Int[1990, 2000].Array[1, 30])
            .Sample(
                (a, b) =>
                    Assert.Equal(
                        a.Sum(x =>
                            b.Sum(y =>
                                x < y ? 1
                                : x == y ? 0.5
                                : 0
                            )
                        ) / (a.Length * b.Length),
                        new YearsOfUse(a).OlderThan(new(b)),
                        1e-9
                    )
            );

    [Fact]
    public void Few_works_tell_nothing_and_three_in_four_are_enough()
    {
        var late = new YearsOfUse([2001, 2002, 2003, 2004, 2005]);
        Assert.Equal(WordAge.Older, new YearsOfUse([1980, 1981, 1982, 1983, 1984]).Beside(late));
        Assert.Equal(WordAge.Newer, late.Beside(new([1980, 1981, 1982, 1983, 1984])));
        Assert.Equal(WordAge.Same, new YearsOfUse([1980, 1981, 1982, 1983]).Beside(late));
        Assert.Equal(WordAge.Same, late.Beside(late));
    }

    [Fact]
    public void A_twentieth_may_be_older_and_a_twentieth_newer()
    {
        var use = new YearsOfUse(Enumerable.Range(1961, 40));
        Assert.Equal((1963, 1998), (use.From, use.To));
        Assert.Equal((0, 0), (new YearsOfUse([]).From, new YearsOfUse([]).To));
    }
}
